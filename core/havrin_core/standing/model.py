"""What an assessment says, as data."""

from dataclasses import dataclass
from datetime import datetime

from havrin_core.facts.facts import Jumper
from havrin_core.rules.model import LEAVE, NOT_YET, SHUT_DOWN, TELL, FlueView, Missing, ReadingView, Reason

TITLES = {
    LEAVE: "Leave running",
    TELL: "Leave running, owner told",
    NOT_YET: "Do not leave running yet",
    SHUT_DOWN: "Shut down and tag",
}
NOT_SHOWN_TITLE = "Not shown yet"


@dataclass(frozen=True, slots=True)
class NextStep:
    """The one step offered next; never imposed."""

    title: str
    why: str
    minutes: int
    station: str
    starter: str  # words put into the entry bar


@dataclass(frozen=True, slots=True)
class StationView:
    """One station as it stands: shape state, its readings, the looks that speak of it."""

    key: str
    state: str  # in, near, out, none (not shown yet), noted (no limit known)
    readings: tuple[ReadingView, ...]
    looks: tuple[str, ...]
    jumpered: bool
    missing: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LedgerRow:
    """One thing: since when and by whom, until when and by whom; ``until`` None while it is still so.

    ``put_back`` is the line that writes its put-back, ``text`` says it in a sentence.
    """

    text: str
    put_back: str
    since: datetime
    by: str
    found: bool
    until: datetime | None = None
    until_by: str = ""


@dataclass(frozen=True, slots=True)
class Assessment:
    """The answer: level, reasons (worst first), what is missing, and what every station shows."""

    level: int
    title: str
    settled: bool  # False while the level rests on nothing but what is missing
    reasons: tuple[Reason, ...]
    missing: tuple[Missing, ...]
    next_step: NextStep | None
    stations: tuple[StationView, ...]
    flue: tuple[FlueView, ...]
    jumpers: tuple[Jumper, ...]
    put_backs: tuple[str, ...]
    cycles_shown: int
    changes: tuple[str, ...]
    not_judged: tuple[str, ...]
    shut_down: bool  # gas shut and tagged, on this visit or an earlier one
    to_tell: bool  # shut down on this visit, and nobody told yet
    remarks: tuple[str, ...] = ()  # how the work was done, by the house's school
    ledger: tuple[LedgerRow, ...] = ()
