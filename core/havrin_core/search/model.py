"""Tests, observations and suspects, as data."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.phrases import Saying

Outcome = float | str | None  # volts or SI of a gauge; a word of a categorical test; None for an open circuit

KINDS = ("stops", "again", "code", "volts", "ohms", "gauge", "look", "watch", "jump", "swap")


@dataclass(frozen=True, slots=True)
class Test:
    """One thing that can be tried: what it takes, and how sharply it answers."""

    __test__ = False  # a tester would take it for one of its own

    key: str
    kind: str  # of KINDS
    name: Saying
    minutes: float
    starter: str  # words for the entry bar
    leads: tuple[str, str] | None = None
    part: str = ""
    quantity: str = ""
    sigma: float = 0.0  # of a number, same unit
    words: tuple[tuple[str, Saying], ...] = ()  # outcome -> how it is said, where the kind alone does not tell
    nominal: float = 0.0  # what a sound unit of this circuit shows, for gauges
    direct: bool = False
    caution: Saying = ""
    line_voltage: bool = False


@dataclass(frozen=True, slots=True)
class Observation:
    """What a test showed, and the tape entry that says so."""

    test: str
    outcome: Outcome
    entry_id: str = ""
    spread: float = 0.0  # standard deviation of a number that was read out of a trace, same unit


@dataclass(frozen=True, slots=True)
class Suspect:
    """One part under suspicion with its share, and the fault modes behind it."""

    part: str
    name: str
    share: float
    faults: tuple[tuple[str, float], ...]  # names of fault modes, each with its share


@dataclass(frozen=True, slots=True)
class Meaning:
    """One outcome that a test could have: how likely, who would then be first, and the line that writes it ("": a number)."""

    outcome: Saying
    share: float
    first: str
    first_share: float
    line: str = ""


@dataclass(frozen=True, slots=True)
class Offer:
    """The test offered next, with what each outcome would mean."""

    test: Test
    bits: float
    meanings: tuple[Meaning, ...]


@dataclass(frozen=True, slots=True)
class Conflict:
    """A reading that even the best suspect does not explain."""

    test: str
    name: Saying
    shown: Saying
    expected: Saying
    entry_id: str


@dataclass(frozen=True, slots=True)
class Outlook:
    """The answer: suspects (most likely first), the next test, what does not fit, and when it is clear."""

    suspects: tuple[Suspect, ...]
    next_test: Offer | None
    conflicts: tuple[Conflict, ...]
    clear: bool
    proof: tuple[Saying, ...]
    other_tests: tuple[Offer, ...]  # worth it too: "I do something else instead"
    expected: Mapping[str, Outcome]
    observations: tuple[Observation, ...]
    beforehand: tuple[str, ...] = ()  # what moved the odds before the first reading
