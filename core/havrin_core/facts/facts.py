"""What a tape says once corrections are applied and clocks put right, arranged for the rules to ask. Holds no rule."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, NamedTuple, TypeVar

from havrin_core.tape.clock import Moment
from havrin_core.tape.corrections import Line, effective
from havrin_core.tape.entries import (
    AS_PRECAUTION,
    AS_TRIAL,
    Abnormal,
    Action,
    Condition,
    Entry,
    Plain,
    Proof,
    Reading,
    Said,
    Trace,
)
from havrin_core.vocabulary.measurands import measurand

SAME_SAMPLE = timedelta(minutes=10)  # O2, CO and T read further apart are not one flame
B = TypeVar("B")


class ReadingFact(NamedTuple):
    """One number from a reading, a trace's mean, or computed from two readings."""

    quantity: str
    stage: str | None
    value: float
    phase: str
    at: datetime
    entry_id: str
    group: str
    instrument: str
    moment: Moment
    known: Moment
    station: str | None = None
    computed_from: tuple[tuple[str, float], ...] = ()
    leads: tuple[str, str] | None = None
    at_least: bool = False
    place: str = ""
    before: bool = False  # of an earlier visit
    state: str = ""  # of the circuit, for volts
    spread: float = 0.0  # standard deviation of a step that was read out of a trace, same unit; 0 for what was typed


@dataclass(frozen=True, slots=True)
class Still:
    """One thing still abnormal; ``how`` is a key of vocabulary/abnormal.py."""

    device: str
    since: datetime
    found: bool
    entry_id: str
    how: str
    on_purpose: bool
    line: Line


class Facts:
    """Questions about a tape. Built once per assessment.

    ``open_before`` are entries of earlier visits that left something open: they count for dangers and demands; their
    readings stand apart, for they are no readings of this visit.
    """

    def __init__(self, entries: tuple[Entry, ...], open_before: tuple[Entry, ...] = ()) -> None:
        self.before = frozenset(entry.id for entry in open_before)
        self.lines = effective((*open_before, *entries))
        self._by_body: dict[type, list[tuple[Line, Any]]] = {}
        for line in self.lines:
            self._by_body.setdefault(type(line.body), []).append((line, line.body))
        facts = [fact for line in self.lines for fact in facts_of(line, line.entry.id in self.before)]
        self.readings = [fact for fact in facts if not fact.before]
        self._by_quantity: dict[tuple[str, str | None], list[ReadingFact]] = {}
        self._ever: dict[str, list[ReadingFact]] = {}
        self._in_line: dict[tuple[str, str | None, str], ReadingFact] = {}  # quantity, stage, line
        for fact in facts:
            self._in_line[fact.quantity, fact.stage, fact.group] = fact
            self._ever.setdefault(fact.quantity, []).append(fact)
            if not fact.before:
                self._by_quantity.setdefault((fact.quantity, fact.stage), []).append(fact)

    def of(self, body: type[B]) -> list[tuple[Line, B]]:
        """Return the lines whose body is of that class, in order, each with its body."""
        return self._by_body.get(body, [])

    def newest(self, quantity: str, stage: str | None, after: datetime | None = None) -> ReadingFact | None:
        """Return the newest reading of this visit that is not a trial, at or after ``after``."""
        for fact in reversed(self._by_quantity.get((quantity, stage), ())):
            if fact.phase != "trial" and (after is None or fact.at >= after):
                return fact
        return None

    def as_found(self, quantity: str, stage: str | None) -> ReadingFact | None:
        """Return the first as-found reading."""
        rows = self._by_quantity.get((quantity, stage), ())
        return next((fact for fact in rows if fact.phase == "found"), None)

    def beside(self, anchor: ReadingFact, quantity: str, *, staged: bool = True) -> ReadingFact | None:
        """Return the reading of ``quantity`` that belongs to the same sample as ``anchor``: same line, else near and in one epoch."""
        stage = anchor.stage if staged else None
        same_line = self._in_line.get((quantity, stage, anchor.group))
        if same_line is not None and anchor.group:
            return same_line
        rows = [f for f in self._ever.get(quantity, ()) if f.stage == stage and f.phase == anchor.phase]
        near = [f for f in rows if abs(f.at - anchor.at) <= SAME_SAMPLE]
        near = [f for f in near if f.before == anchor.before and self.same_epoch(f.at, anchor.at)]
        return near[-1] if near else None

    def ever(self, quantity: str) -> list[ReadingFact]:
        """Return every reading of ``quantity`` in order, of every stage and phase, what earlier visits left open included."""
        return self._ever.get(quantity, [])

    def same_epoch(self, one: datetime, other: datetime) -> bool:
        """Tell whether nothing was changed between two moments: no action, no bridge, no reset, no power cycle."""
        first, last = min(one, other), max(one, other)
        return not any(first < line.moment.at < last for line in self._interventions())

    def _interventions(self) -> list[Line]:
        return [line for line, _ in (*self.of(Action), *self.of(Abnormal))]

    def conditions(self) -> list[tuple[Line, Condition]]:
        """Return what parts were like, in order."""
        return self.of(Condition)

    def actions(self, *verbs: str) -> list[tuple[Line, Action]]:
        """Return what was done, in order; only those verbs where any are given."""
        return [(line, body) for line, body in self.of(Action) if not verbs or body.verb in verbs]

    def real_actions(self) -> list[tuple[Line, Action]]:
        """Return the actions that can cure: no trial, no precaution."""
        return [(line, body) for line, body in self.of(Action) if body.sense not in (AS_TRIAL, AS_PRECAUTION)]

    def proofs(self, what: str) -> list[tuple[Line, Proof]]:
        """Return the proofs of ``what``; a trial proves nothing."""
        return [(line, body) for line, body in self.of(Proof) if body.what == what and line.phase != "trial"]

    def tried(self, *whats: str) -> list[tuple[Line, Proof]]:
        """Return the parts that were looked at or tried, whatever the phase."""
        return [(line, body) for line, body in self.of(Proof) if body.what in whats]

    def said(self, *whats: str) -> list[tuple[Line, Said]]:
        """Return what was said of those sorts, in order."""
        return [(line, body) for line, body in self.of(Said) if body.what in whats]

    def own_said(self, *whats: str) -> list[tuple[Line, Said]]:
        """Return what was said on this visit."""
        return [(line, body) for line, body in self.said(*whats) if line.entry.id not in self.before]

    def still_abnormal(self) -> list[Still]:
        """Return everything abnormal that was put in or found and not made good since."""
        open_: dict[tuple[str, str], Still] = {}
        for line, body in self.of(Abnormal):
            key = (body.how, body.device)
            if body.is_in:
                open_.setdefault(key, _still(line, body))
                if body.found or body.on_purpose:  # found once is found, on whatever line
                    open_[key] = _worse(open_[key], _still(line, body))
            elif key in open_ and line.moment.surely_after(open_[key].line.moment):
                del open_[key]
        return list(open_.values())

    def made_good(self) -> list[tuple[Line, Abnormal, Line]]:
        """Return what was put in and made good again: the line that made it good, its body, and the line that put it in."""
        rows = []
        open_: dict[tuple[str, str], Line] = {}
        for line, body in self.of(Abnormal):
            key = (body.how, body.device)
            if body.is_in:
                open_.setdefault(key, line)
            elif key in open_ and line.moment.surely_after(open_[key].moment):
                rows.append((line, body, open_.pop(key)))
        return rows

    def first_after(self, rows: Iterable[tuple[Line, B]], since: Moment, fits: Callable[[B], bool]) -> Line | None:
        """Return the first of ``rows`` that surely came after ``since`` and fits."""
        return next((line for line, body in rows if line.moment.surely_after(since) and fits(body)), None)


def _still(line: Line, body: Abnormal) -> Still:
    return Still(body.device, line.moment.at, body.found, line.entry.id, body.how, body.on_purpose, line)


def _worse(one: Still, other: Still) -> Still:
    return one if one.found and not other.found else other


# of these a trace's third number is how far the step itself may be off; of a mean it is how the samples scatter
_STEPS = ("o2_step_pct", "co_step_ppm")


def facts_of(line: Line, before: bool) -> list[ReadingFact]:
    """Return the numbers that a line holds."""
    body, entry = line.body, line.entry
    where = (entry.id, entry.group, entry.instrument, line.moment, line.known)
    if isinstance(body, Reading):
        return [
            ReadingFact(
                body.quantity,
                body.stage,
                body.value,
                line.phase,
                line.moment.at,
                *where,
                body.station,
                body.computed_from,
                body.leads,
                body.at_least,
                body.place,
                before,
                body.state,
            )
        ]
    if isinstance(body, Trace):
        return [
            ReadingFact(
                q,
                body.stage if measurand(q).staged else None,
                mean,
                line.phase,
                line.moment.at,
                *where,
                before=before,
                spread=scatter if q in _STEPS else 0.0,
            )
            for q, mean, scatter in body.means
        ]
    return []


def reading_of(body: Plain | None) -> Reading | None:
    """Return ``body`` where it is a reading."""
    return body if isinstance(body, Reading) else None
