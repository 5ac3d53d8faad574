"""May it be left running: the answer, its reasons, what is still to show."""

from havrin_server.view_model import ViewModel


class ReasonOut(ViewModel):
    """A reason for the standing."""

    level: int
    code: str
    text: str
    lifts: str
    station: str
    reading: str
    limit: str
    source: str


class MissingOut(ViewModel):
    """Something still to show."""

    text: str
    station: str
    how: str
    minutes: int
    after_work: str
    starter: str


class OutcomeOut(ViewModel):
    """An outcome of the step offered next: what it shows, what it would mean, the line that writes it; "" for a number."""

    shows: str
    means: str
    line: str


class PassOut(ViewModel):
    """A way to pass the offered step over, and the line that says so."""

    label: str
    line: str


class NextOut(ViewModel):
    """The step offered next."""

    title: str
    why: str
    minutes: int
    station: str
    starter: str
    answers: list[OutcomeOut]
    passes: list[PassOut]


class StandingOut(ViewModel):
    """May this be left running?"""

    level: int
    title: str
    settled: bool
    reasons: list[ReasonOut]
    missing: list[MissingOut]
    next_step: NextOut | None
    not_judged: list[str]
    leaving: str | None
    several_causes: bool
