"""The tape: a closed set of typed entries. Nothing is erased; corrections stand beside.

This is schema 2. Entries of earlier schemas are brought up by upcasters.py when they are read.
"""

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cached_property

SCHEMA = 3
PHASES = ("found", "left", "trial")
PASSED_OVER = "passed_over"  # a proof of that sort proves nothing: an offered step was not taken, outcome says why
UNREADABLE = "unreadable"  # words of which nothing is known but that they cannot be read
# How an action was meant: a temporary one has a date, a trial or a precaution cures nothing.
AS_REPAIR, AS_PRECAUTION, AS_TEMPORARY, AS_TRIAL = "repair", "precaution", "temporary", "trial"
ACTION_SENSES = (AS_REPAIR, AS_PRECAUTION, AS_TEMPORARY, AS_TRIAL)
# How sure a cause is.
FOUND, PRESUMED, NOT_FOUND = "found", "presumed", "not_found"
CAUSE_STATES = (FOUND, PRESUMED, NOT_FOUND)
# How a unit is left.
RUNNING, MADE_SAFE, WAITING, NOT_TOUCHED = "running", "made_safe", "waiting", "not_touched"
WAYS_LEFT = (RUNNING, MADE_SAFE, WAITING, NOT_TOUCHED)


@dataclass(frozen=True, slots=True)
class Reading:
    """A number read: canonical value, with the number and unit as typed.

    ``computed_from`` names the readings (quantity, canonical value) of a number that was not read but computed.
    ``at_least``: the instrument ended there, the truth may lie higher.
    """

    quantity: str
    value: float
    typed: float
    unit: str
    stage: str | None = None
    station: str | None = None
    computed_from: tuple[tuple[str, float], ...] = ()
    leads: tuple[str, str] | None = None  # nodes of the circuit, for volts
    at_least: bool = False
    place: str = ""
    state: str = ""  # of the circuit, in which volts were read: a key of its states, "lockout", "" where nobody said


@dataclass(frozen=True, slots=True)
class Trace:
    """Steady means from a log or capture: (quantity, mean, scatter) each, canonical units."""

    capture: str
    stage: str | None
    seconds: float
    means: tuple[tuple[str, float, float], ...]


@dataclass(frozen=True, slots=True)
class Condition:
    """What a part was like: keys of vocabulary/catalogue.py.

    ``method`` is a key of vocabulary/methods.py, ``sure`` one of its degrees; both "" where not said. ``seen`` of ``of``
    parts were looked at, where that was said. ``absent``: it was said that the part is NOT so ("not cracked").
    """

    part: str
    condition: str
    place: str = ""
    size_m: float | None = None
    method: str = ""
    sure: str = ""
    seen: int | None = None
    of: int | None = None
    under: tuple[str, ...] = ()
    absent: bool = False


@dataclass(frozen=True, slots=True)
class Action:
    """Something done: a verb and a part of the vocabulary. ``part`` is "" where an old tape did not say which."""

    verb: str
    part: str
    detail: str = ""
    sense: str = AS_REPAIR
    until: date | None = None


@dataclass(frozen=True, slots=True)
class Abnormal:
    """Something left abnormal at ``device`` (``is_in``), or made good again. ``how`` is a key of vocabulary/abnormal.py.

    ``on_purpose``: part of making the unit unable to fire, not of a test.
    """

    how: str
    device: str
    is_in: bool
    found: bool = False
    on_purpose: bool = False


@dataclass(frozen=True, slots=True)
class PlateValue:
    """A value read off this unit's own plate: one number, or least and most, canonical unit, as typed beside."""

    quantity: str
    values: tuple[float, ...]
    typed: str
    stage: str | None = None


@dataclass(frozen=True, slots=True)
class Code:
    """A fault code as shown, like "2 4"; read before the power went off or not known."""

    pattern: str


@dataclass(frozen=True, slots=True)
class Proof:
    """A test with an outcome: leak check, cycles run, a safety device proved, a part looked at or tried.

    ``outcome`` says it in a word where passed or not is too little: "open", "high", a milestone.
    """

    what: str
    passed: bool
    count: int = 1
    device: str = ""
    outcome: str = ""


@dataclass(frozen=True, slots=True)
class Said:
    """Words with a meaning: cause, advice, who was told, how it is left, a stricter or milder standing.

    For a cause: ``state`` is how sure, ``part`` and ``condition`` what it names, ``explains`` the code of the danger
    that it explains ("call": the call; "": not said). For leaves: ``state`` is one of WAYS_LEFT. ``told``: whom.
    ``until`` is the date that the words name. Of parts to order: ``parts`` are their keys (own words for a part that has
    none; none at all: every one), ``who`` says yes or no. Of a building: ``state`` is its
    mass, ``condition`` its insulation, ``means`` how draughty it is.
    """

    what: str
    text: str = ""
    level: int | None = None
    by_supervisor: bool = False
    state: str = ""
    part: str = ""
    condition: str = ""
    explains: str = ""
    told: tuple[str, ...] = ()
    means: str = ""
    until: date | None = None
    who: str = ""
    parts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Note:
    """Words that change nothing. ``for_owner``: they go into the report and to the next arrival; ``side``: of another system."""

    text: str
    for_owner: bool = False
    side: bool = False


@dataclass(frozen=True, slots=True)
class Correction:
    """The entry ``corrects`` read as ``replacement``, or struck when that is None; ``why`` in the author's words."""

    corrects: str
    replacement: "Plain | None" = None
    phase: str | None = None
    why: str = ""


Plain = Reading | Trace | Condition | Action | Abnormal | PlateValue | Code | Proof | Said | Note
Body = Plain | Correction

KINDS: dict[str, type] = {
    "reading": Reading,
    "trace": Trace,
    "condition": Condition,
    "action": Action,
    "abnormal": Abnormal,
    "plate": PlateValue,
    "code": Code,
    "proof": Proof,
    "said": Said,
    "note": Note,
    "correction": Correction,
}
_KIND_OF = {cls: kind for kind, cls in KINDS.items()}


def kind_of(body: Body) -> str:
    """Return the kind of ``body``, a key of KINDS."""
    return _KIND_OF[type(body)]


LATE = timedelta(minutes=10)  # received so long after the moment that it tells of, an entry says so


@dataclass(frozen=True)
class Entry:
    """One line of the tape. ``group`` joins entries typed as one line.

    ``at`` is the writer's clock. ``sent_at`` is what that clock showed when the entry was sent, ``received_at`` what the
    server's showed then: the two tell how far it was off. ``device`` is the tablet. ``out_of_calibration``: the calibration
    of ``instrument`` was over on that day, or nobody knew until when it holds.
    """

    id: str
    at: datetime  # with zone
    author: str
    phase: str
    body: Body
    group: str = ""
    instrument: str = ""
    device: str = ""
    sent_at: datetime | None = None
    received_at: datetime | None = None
    out_of_calibration: bool = False

    @property
    def late(self) -> bool:
        """Whether it was received so long after the moment it tells of that a reader should know: kept on a tablet, or dated back."""
        return self.received_at is not None and self.received_at - self.true_at > LATE

    @property
    def kind(self) -> str:
        """The entry's kind, a key of KINDS."""
        return kind_of(self.body)

    @cached_property
    def true_at(self) -> datetime:
        """The time of the entry with its writer's clock put right; never after it was received."""
        if self.received_at is None:
            return self.at
        if self.sent_at is None:
            return min(self.at, self.received_at)
        return min(self.at + (self.received_at - self.sent_at), self.received_at)
