"""The tape: a closed set of typed entries in time order. Nothing is erased; corrections stand beside."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime

PHASES = ("found", "left", "trial")


@dataclass(frozen=True, slots=True)
class Reading:
    """A number read: canonical value, with the number and unit as typed.

    ``computed_from`` names the readings (quantity, canonical value) of a number that was not read but computed.
    """

    quantity: str
    value: float
    typed: float
    unit: str
    stage: str | None = None
    station: str | None = None
    computed_from: tuple[tuple[str, float], ...] = ()
    leads: tuple[str, str] | None = None  # nodes of the circuit, for volts


@dataclass(frozen=True, slots=True)
class Trace:
    """Steady means from a log or capture: (quantity, mean, scatter) each, canonical units."""

    capture: str
    stage: str | None
    seconds: float
    means: tuple[tuple[str, float, float], ...]


@dataclass(frozen=True, slots=True)
class Look:
    """Something seen, heard or smelt; ``finding`` is a key of findings.py.

    ``method`` is a key of exchanger/methods.py, ``sure`` one of its degrees, "" where not written.
    """

    finding: str
    place: str = ""
    size_m: float | None = None
    method: str = ""
    sure: str = ""


@dataclass(frozen=True, slots=True)
class Action:
    """Something done; ``action`` is a key of actions.py."""

    action: str
    detail: str = ""


@dataclass(frozen=True, slots=True)
class JumperIn:
    """Something left abnormal at ``device``: put in by the technician, or found so. ``how`` is a key of abnormal.py."""

    device: str
    found: bool = False
    how: str = "jumper"


@dataclass(frozen=True, slots=True)
class JumperOut:
    """What was abnormal at ``device`` made good again."""

    device: str
    how: str = "jumper"


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
class Check:
    """A test with an outcome: leak check, cycles run, a safety device proved, a part looked at or tried.

    ``outcome`` says it in a word where passed or not is too little: "open", "high", a milestone.
    """

    check: str
    passed: bool
    count: int = 1
    device: str = ""
    outcome: str = ""


@dataclass(frozen=True, slots=True)
class Decision:
    """A decision: cause named, shut down, advice, refusal, a stricter or milder standing."""

    decision: str
    text: str = ""
    level: int | None = None
    by_supervisor: bool = False


@dataclass(frozen=True, slots=True)
class Note:
    """Words that change nothing."""

    text: str


@dataclass(frozen=True, slots=True)
class Correction:
    """The entry ``corrects`` read as ``replacement``, or struck when that is None."""

    corrects: str
    replacement: "Plain | None" = None
    phase: str | None = None


Plain = Reading | Trace | Look | Action | JumperIn | JumperOut | PlateValue | Code | Check | Decision | Note
Body = Plain | Correction

KINDS: dict[str, type] = {
    "reading": Reading,
    "trace": Trace,
    "look": Look,
    "action": Action,
    "jumper.in": JumperIn,
    "jumper.out": JumperOut,
    "plate": PlateValue,
    "code": Code,
    "check": Check,
    "decision": Decision,
    "note": Note,
    "correction": Correction,
}
_KIND_OF = {cls: kind for kind, cls in KINDS.items()}


@dataclass(frozen=True, slots=True)
class Entry:
    """One line of the tape. ``group`` joins entries typed as one line."""

    id: str
    at: datetime  # with zone
    author: str
    phase: str
    body: Body
    group: str = ""
    instrument: str = ""

    @property
    def kind(self) -> str:
        """The entry's kind, a key of KINDS."""
        return _KIND_OF[type(self.body)]


def in_order(entries: Iterable[Entry]) -> list[Entry]:
    """Return ``entries`` by time, ties by id, each id once: appending twice is harmless."""
    once = {entry.id: entry for entry in entries}
    return sorted(once.values(), key=lambda entry: (entry.at, entry.id))


def effective(entries: Iterable[Entry]) -> list[Entry]:
    """Return the tape as if every corrected entry had been written right.

    The newest correction of an entry holds; a correction that was itself corrected counts
    no more. Replacements keep the time of what they replace.
    """
    ordered = in_order(entries)
    corrections = [e for e in ordered if isinstance(e.body, Correction)]
    undone: set[str] = set()
    latest: dict[str, Correction] = {}
    for entry in reversed(corrections):
        body = entry.body
        assert isinstance(body, Correction)
        if entry.id in undone:
            continue
        undone.add(body.corrects)
        latest.setdefault(body.corrects, body)
    kept: list[Entry] = []
    for entry in ordered:
        if isinstance(entry.body, Correction):
            continue
        correction = latest.get(entry.id)
        if correction is None:
            kept.append(entry)
        elif correction.replacement is not None:
            kept.append(replace(entry, body=correction.replacement, phase=correction.phase or entry.phase))
    return kept


def struck(entries: Iterable[Entry]) -> dict[str, str]:
    """Return, for each entry that a standing correction touches, the id of that correction."""
    result: dict[str, str] = {}
    undone: set[str] = set()
    for entry in reversed(in_order(entries)):
        if isinstance(entry.body, Correction) and entry.id not in undone:
            undone.add(entry.body.corrects)
            result.setdefault(entry.body.corrects, entry.id)
    return result


def told_of(look: Look) -> str:
    """Return place, size, method and sureness in words."""
    size = f"{1000 * look.size_m:g} mm" if look.size_m else ""
    method = f"by {look.method}" if look.method else ""
    return ", ".join(filter(None, (look.place, size, method, look.sure)))
