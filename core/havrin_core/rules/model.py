"""What rules say, as data."""

from dataclasses import dataclass
from datetime import datetime

from havrin_core.limits.limits import Band
from havrin_core.physics.combustion.sample import FlueResult

LEAVE, TELL, NOT_YET, SHUT_DOWN = 1, 2, 3, 4


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
class FlueView:
    """The flue at one stage: computed results, or why they cannot be computed."""

    stage: str
    phase: str
    result: FlueResult | None
    doubts: tuple[str, ...]
    entry_id: str
