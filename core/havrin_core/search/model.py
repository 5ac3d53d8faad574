"""Tests, observations and suspects, as data."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.phrases import Saying

Outcome = float | str | None  # volts or SI of a gauge; a word of a categorical test; None for an open circuit

KINDS = ("stops", "again", "code", "volts", "ohms", "gauge", "look", "watch", "jump", "swap", "found", "tripped")
# What a suspect is, beside a part of the circuit.
PART, UNLISTED, NOTHING_WRONG, CURED = "part", "unlisted", "nothing_wrong", "cured"
LEADS_FROM = 0.5  # all that is unlisted is many things: it leads only with more than all others together


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
    direct: bool = False  # direct current
    caution: Saying = ""
    line_voltage: bool = False
    known_good: bool = False  # another part is fitted to try it
    needs_fire: bool = False  # a probe in the flue, a rise: nothing to read where nothing burns


@dataclass(frozen=True, slots=True)
class Observation:
    """What a test showed, when, and the tape entry that says so.

    ``moment`` is the state of the circuit (a key of its states) at which it was read, "" where nobody said. ``epoch``
    counts the actions before it; ``bridged`` are the parts with a jumper across at that time.
    """

    test: str
    outcome: Outcome
    entry_id: str = ""
    spread: float = 0.0  # standard deviation of a number that was read out of a trace, same unit
    moment: str = ""
    epoch: int = 0
    bridged: frozenset[str] = frozenset()
    times: int = 1  # how often it was read in its epoch, this being the newest


@dataclass(frozen=True, slots=True)
class ActionTaken:
    """Something done between two epochs: a verb of the vocabulary and the parts of the circuit that it touched.

    ``elsewhere``: it was done to a part that the circuit does not know. ``resets``: a tripped device was reset by hand.
    """

    verb: str
    parts: frozenset[str]
    entry_id: str = ""
    elsewhere: bool = False

    @property
    def resets(self) -> bool:
        """Tell whether a device that had opened is closed again by it."""
        return self.verb == "reset"


@dataclass(frozen=True, slots=True)
class Seen:
    """All that a tape tells the search: observations in order, and the actions that part them into epochs."""

    observations: tuple[Observation, ...] = ()
    actions: tuple[ActionTaken, ...] = ()

    @property
    def now(self) -> tuple[Observation, ...]:
        """Return the observations since the last action, without a jumper."""
        return tuple(o for o in self.observations if o.epoch == len(self.actions) and not o.bridged)


@dataclass(frozen=True, slots=True)
class Suspect:
    """One suspicion with its share: a part, or what stands beside the parts (``kind``), with the fault modes behind it."""

    part: str
    name: Saying
    share: float
    faults: tuple[tuple[str, Saying, float], ...] = ()  # key of each mode, its name, its share
    kind: str = PART


@dataclass(frozen=True, slots=True)
class Meaning:
    """One outcome that a test could have: how likely, who would then be first, and the line that writes it ("": a number)."""

    outcome: Saying
    share: float
    first: Saying
    first_share: float
    line: str = ""
    first_kind: str = PART


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
class Step:
    """The search after one entry: whether it counted, and who led then with which share."""

    entry_id: str
    counted: bool
    first: Saying
    share: float


@dataclass(frozen=True, slots=True)
class Outlook:
    """The answer: suspects (most likely first), the next test, what does not fit, and when it is clear.

    ``unlisted``, ``nothing_wrong`` and ``cured`` are shares beside those of the parts; all together sum to 1.
    """

    suspects: tuple[Suspect, ...]
    next_test: Offer | None
    conflicts: tuple[Conflict, ...]
    clear: bool
    proof: tuple[Saying, ...]
    other_tests: tuple[Offer, ...]  # worth it too: "I do something else instead"
    expected: Mapping[str, Outcome]
    observations: tuple[Observation, ...]
    beforehand: tuple[str, ...] = ()  # what moved the odds before the first reading
    unlisted: float = 0.0
    nothing_wrong: float = 0.0
    cured: float = 0.0
    again: str = ""  # key of the test whose repetition decides a conflict
    jumpers: tuple[Saying, ...] = ()  # what is to be known of those that are on now

    @property
    def first(self) -> Suspect:
        """Return what is most likely."""
        return self.suspects[0]
