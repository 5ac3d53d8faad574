"""What an assessment says, as data."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from havrin_core.judgement.limits import Band
from havrin_core.judgement.tape import Entry
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.quantities.uncertainty import Accuracy

LEAVE, TELL, NOT_YET, SHUT_DOWN = 1, 2, 3, 4
TITLES = {
    LEAVE: "Leave running",
    TELL: "Leave running, owner told",
    NOT_YET: "Do not leave running yet",
    SHUT_DOWN: "Shut down and tag",
}
NOT_SHOWN_TITLE = "Not shown yet"
REASONS_FOR_VISIT = {
    "no_heat": "No heat",
    "maintenance": "Maintenance",
    "start_up": "Start-up",
    "after_repair": "After a repair",
    "return_parts": "Return with parts",
    "recheck": "Re-check",
}


@dataclass(frozen=True, slots=True)
class VisitTape:
    """One visit as it is judged. ``open_before``: entries of earlier visits whose danger nothing cleared (left_open.py)."""

    reason: str
    entries: tuple[Entry, ...]
    accuracies: Mapping[str, Mapping[str, Accuracy]] = field(default_factory=dict)  # instrument -> quantity -> accuracy
    open_before: tuple[Entry, ...] = ()


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason for a level: reading, limit, whose limit, what lifts it."""

    level: int
    code: str
    text: str
    lifts: str
    station: str = ""
    reading: str = ""
    limit: str = ""
    source: str = ""
    entry_id: str = ""


@dataclass(frozen=True, slots=True)
class Missing:
    """Something not shown yet. ``after_work`` when a deed on the tape makes it necessary."""

    proof: str
    text: str
    station: str
    how: str
    minutes: int
    after_work: str = ""
    since: datetime | None = None  # of the deed
    starter: str = ""  # words that begin the line which shows it, where the proof alone does not tell


@dataclass(frozen=True, slots=True)
class NextStep:
    """The one step offered next; never imposed."""

    title: str
    why: str
    minutes: int
    station: str
    starter: str  # words put into the entry bar


@dataclass(frozen=True, slots=True)
class ReadingView:
    """A current reading with its verdict: in, near, out, or "" where no limit is known."""

    quantity: str
    stage: str | None
    value: float
    verdict: str
    band: Band | None
    phase: str
    at: datetime
    entry_id: str
    found: float | None
    computed_from: tuple[tuple[str, float], ...] = ()


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
class Jumper:
    """One thing still abnormal; ``how`` is a key of abnormal.py."""

    device: str
    since: datetime
    found: bool
    entry_id: str
    how: str = "jumper"


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
class FlueView:
    """The flue at one stage: computed results, or why they cannot be computed."""

    stage: str
    phase: str
    result: FlueResult | None
    doubts: tuple[str, ...]
    entry_id: str


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
