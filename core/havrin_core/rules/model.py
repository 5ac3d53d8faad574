"""What rules say, as data: codes and typed parts. Sentences are made of them in wording/."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from havrin_core.limits.model import Band
from havrin_core.phrases import Saying
from havrin_core.physics.combustion.sample import FlueResult

LEAVE, TELL, NOT_YET, SHUT_DOWN = 1, 2, 3, 4
STATE_OF_LEVEL = {LEAVE: "in", TELL: "near", NOT_YET: "out", SHUT_DOWN: "out"}  # how a level is marked


@dataclass(frozen=True, slots=True)
class Lift:
    """One demand still open: ``key`` says which (wording/lifts.py has its words and its line), the rest of what."""

    key: str
    part: str = ""
    device: str = ""
    explains: str = ""  # code of the danger, for a cause
    stage: str | None = None
    number: float | None = None
    either: tuple["Lift", ...] = ()  # any of these will do


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason for a level. ``facts`` are its typed parts; ``source`` whose limit it is; ``entry_ids`` what opened it."""

    level: int
    code: str
    station: str = ""
    facts: Mapping[str, Any] = field(default_factory=dict)
    lifts: tuple[Lift, ...] = ()
    source: str = ""
    entry_ids: tuple[str, ...] = ()
    advice: str = ""  # key of words that help along, where the lifts alone do not

    @property
    def entry_id(self) -> str:
        """The newest entry behind it; "" where none is."""
        return self.entry_ids[-1] if self.entry_ids else ""


@dataclass(frozen=True, slots=True)
class Missing:
    """Something not shown yet: ``proof`` is a key of rules/proofs.py. ``because`` is what made it necessary, with its time."""

    proof: str
    station: str
    minutes: int
    stage: str | None = None
    device: str = ""
    quantity: str = ""
    still: int = 0  # cycles or parts still to show
    of: int = 0
    because: tuple[str, str] | None = None  # verb and part, or way and device, of the work
    since: datetime | None = None
    entry_id: str = ""  # of that work


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
    at_least: bool = False


@dataclass(frozen=True, slots=True)
class FlueView:
    """The flue at one stage: computed results, or why they cannot be computed."""

    stage: str
    phase: str
    result: FlueResult | None
    doubts: tuple[Saying, ...]
    entry_id: str


@dataclass(frozen=True, slots=True)
class Sample:
    """Lines that show a rule at work: what opens it, what does not, what lifts it, what does not. " | " parts lines."""

    code: str
    opens: tuple[str, ...]
    not_opens: tuple[str, ...] = ()
    lifted: tuple[str, ...] = ()
    not_lifted: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()  # parts or traits of the units that it concerns; empty: every unit
