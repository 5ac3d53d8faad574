"""What an assessment says, as data."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from havrin_core.facts.facts import Still
from havrin_core.rules.model import FlueView, Missing, ReadingView, Reason
from havrin_core.rules.pairs import Change
from havrin_core.rules.practice import Remark
from havrin_core.search.model import Outlook
from havrin_core.tape.entries import Condition


@dataclass(frozen=True, slots=True)
class NextStep:
    """The one step offered next; never imposed. ``kind`` says what sort it is, the rest what it speaks of.

    get_out, shut_down, tell, cure, show, put_back, untag, worn, test (an offer of the search), search_ends.
    """

    kind: str
    minutes: int
    station: str = ""
    reason: Reason | None = None
    missing: Missing | None = None
    still: Still | None = None
    sought: Outlook | None = None  # of a test, or of what the search ends with


@dataclass(frozen=True, slots=True)
class StationView:
    """One station as it stands: shape state, its readings, the looks that speak of it."""

    key: str
    state: str  # in, near, out, none (not shown yet), noted (no limit known)
    readings: tuple[ReadingView, ...]
    looks: tuple[Condition, ...]
    jumpered: bool
    missing: tuple[Missing, ...]


@dataclass(frozen=True, slots=True)
class LedgerRow:
    """One thing left abnormal: since when and by whom, until when and by whom; ``until`` None while it is still so.

    ``what`` is a way of vocabulary/abnormal.py with its device, or ``leaves`` of an action with its part.
    """

    what: str
    device: str
    since: datetime
    by: str
    found: bool
    until: datetime | None = None
    until_by: str = ""
    disabled: bool = False  # part of making it unable to fire


@dataclass(frozen=True, slots=True)
class Assessment:
    """The answer: level, reasons (worst first), what is missing, how it is left, and what every station shows."""

    level: int
    settled: bool  # False while the level rests on nothing but what is missing
    reasons: tuple[Reason, ...]
    missing: tuple[Missing, ...]
    leaving: str | None  # one of WAYS_LEFT; None while nobody said
    waiting_for: str
    holds: tuple[str, ...]  # codes of what holds a close in that way of leaving
    next_step: NextStep | None
    stations: tuple[StationView, ...]
    readings: tuple[ReadingView, ...]
    flue: tuple[FlueView, ...]
    abnormal: tuple[Still, ...]
    put_backs: tuple[str, ...]
    cycles_shown: int
    changes: tuple[Change, ...]
    not_judged: tuple[tuple[str, str | None], ...]  # quantity, stage: the plate's value was not entered
    made_safe: bool  # shut down and tagged, on this visit or an earlier one
    owner_notice_due: bool  # shut down on this visit, and nobody told yet
    remarks: tuple[Remark, ...]
    ledger: tuple[LedgerRow, ...]
    room_co_ppm: float | None  # as last read; None while nobody read it
    carried: Mapping[str, datetime]  # entries of earlier visits that still stand behind a reason

    @property
    def can_close(self) -> bool:
        """Whether nothing holds the visit open but a signature."""
        return not self.holds
