"""What a tape says once corrections are applied, arranged for the rules to ask."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from havrin_core.tape.entries import (
    Action,
    Check,
    Decision,
    Entry,
    JumperIn,
    JumperOut,
    Look,
    Reading,
    Trace,
    effective,
)
from havrin_core.vocabulary.abnormal import abnormal
from havrin_core.vocabulary.measurands import measurand

SAME_SAMPLE = timedelta(minutes=10)  # O2, CO and T read further apart are not one flame


@dataclass(frozen=True, slots=True)
class Jumper:
    """One thing still abnormal; ``how`` is a key of abnormal.py."""

    device: str
    since: datetime
    found: bool
    entry_id: str
    how: str = "jumper"


@dataclass(frozen=True, slots=True)
class ReadingFact:
    """One number from a reading, a trace's mean, or computed from two readings."""

    quantity: str
    stage: str | None
    value: float
    phase: str
    at: datetime
    entry_id: str
    group: str
    instrument: str = ""
    station: str | None = None
    computed_from: tuple[tuple[str, float], ...] = ()
    leads: tuple[str, str] | None = None


class Facts:
    """Questions about a tape. Built once per assessment; holds no rule.

    ``open_before`` are entries of earlier visits whose danger nothing cleared: they count as looks, checks and
    decisions do; their readings stand apart, for they are no readings of this visit.
    """

    def __init__(self, entries: tuple[Entry, ...], open_before: tuple[Entry, ...] = ()) -> None:
        self.before = frozenset(entry.id for entry in open_before)
        self.entries = effective((*open_before, *entries))
        facts = [fact for entry in self.entries for fact in _facts_of(entry)]
        self.readings = [fact for fact in facts if fact.entry_id not in self.before]
        self._readings_before = [fact for fact in facts if fact.entry_id in self.before]
        self._by_quantity: dict[tuple[str, str | None], list[ReadingFact]] = {}
        self._by_body: dict[type, list[Entry]] = {}
        for entry in self.entries:
            self._by_body.setdefault(type(entry.body), []).append(entry)
        self._jumper_entries = [e for e in self.entries if isinstance(e.body, JumperIn | JumperOut)]
        for fact in self.readings:
            self._by_quantity.setdefault((fact.quantity, fact.stage), []).append(fact)

    def _of(self, body: type) -> list[Entry]:
        return self._by_body.get(body, [])

    def newest(self, quantity: str, stage: str | None, after: datetime | None = None) -> ReadingFact | None:
        """Return the newest reading that is not a trial, at or after ``after``."""
        for fact in reversed(self._by_quantity.get((quantity, stage), ())):
            if fact.phase != "trial" and (after is None or fact.at >= after):
                return fact
        return None

    def as_found(self, quantity: str, stage: str | None) -> ReadingFact | None:
        """Return the first as-found reading."""
        rows = self._by_quantity.get((quantity, stage), ())
        return next((fact for fact in rows if fact.phase == "found"), None)

    def beside(self, anchor: ReadingFact, quantity: str, *, staged: bool = True) -> ReadingFact | None:
        """Return the reading of ``quantity`` that belongs to the same sample as ``anchor``."""
        rows = self._by_quantity.get((quantity, anchor.stage if staged else None), ())
        same_line = [fact for fact in rows if fact.group and fact.group == anchor.group]
        near = [f for f in rows if f.phase == anchor.phase and abs(f.at - anchor.at) <= SAME_SAMPLE]
        rows = same_line or near
        return rows[-1] if rows else None

    def deeds(self) -> list[tuple[Entry, Action]]:
        """Return what was done, in order."""
        return [(e, e.body) for e in self._of(Action) if isinstance(e.body, Action)]

    def looks(self) -> list[tuple[Entry, Look]]:
        """Return what was seen, in order."""
        return [(e, e.body) for e in self._of(Look) if isinstance(e.body, Look)]

    def checks(self, name: str, after: datetime | None = None) -> list[tuple[Entry, Check]]:
        """Return the checks called ``name`` at or after ``after``."""
        rows = [(e, e.body) for e in self._of(Check) if isinstance(e.body, Check)]
        return [(e, body) for e, body in rows if body.check == name and (after is None or e.at >= after)]

    def decisions(self, name: str, after: datetime | None = None) -> list[tuple[Entry, Decision]]:
        """Return the decisions called ``name`` at or after ``after``."""
        rows = [(e, e.body) for e in self._of(Decision) if isinstance(e.body, Decision)]
        return [(e, body) for e, body in rows if body.decision == name and (after is None or e.at >= after)]

    def out_of_service(self, name: str) -> list[tuple[Entry, Decision]]:
        """Return the decisions called ``name`` after which nobody put the unit back into service."""
        back = [entry.at for entry, _ in self.decisions("in_service")]
        return [row for row in self.decisions(name) if not back or row[0].at > back[-1]]

    def ever_read(self, quantity: str, stage: str | None = None) -> list[ReadingFact]:
        """Return every reading of ``quantity`` in order of time, trials and what is open from earlier visits included."""
        rows = [*self._readings_before, *self.readings]
        return [fact for fact in rows if (fact.quantity, fact.stage) == (quantity, stage)]

    def temporary_repairs(self) -> list[tuple[Entry, Decision]]:
        """Return the temporary repairs that no lasting one followed."""
        lasting = [entry.at for entry, _ in self.decisions("lasting")]
        return [row for row in self.decisions("temporary") if not lasting or row[0].at > lasting[-1]]

    def done_after(self, action: str, after: datetime) -> Entry | None:
        """Return the first entry of ``action`` at or after ``after``."""
        return next((e for e, body in self.deeds() if body.action == action and e.at >= after), None)

    def jumpers_in(self) -> list[Jumper]:
        """Return everything abnormal that was put in or found and not made good."""
        open_: dict[tuple[str, str], Jumper] = {}
        for entry in self._jumper_entries:
            body = entry.body
            if isinstance(body, JumperIn):
                found = Jumper(body.device, entry.at, body.found, entry.id, body.how)
                open_.setdefault((body.how, body.device), found)
            elif isinstance(body, JumperOut):
                open_.pop((body.how, body.device), None)
        return list(open_.values())

    def made_good(self) -> list[tuple[Entry, JumperOut]]:
        """Return the newest put-back of everything that was abnormal and is no more."""
        still_in = {(jumper.how, jumper.device) for jumper in self.jumpers_in()}
        bodies = [(e, e.body) for e in self._jumper_entries if isinstance(e.body, JumperOut)]
        newest = {(body.how, body.device): (e, body) for e, body in bodies}
        return [row for key, row in newest.items() if key not in still_in]

    def bypasses_taken_out(self) -> list[tuple[Entry, str, bool]]:
        """Return the newest put-back of each device that was bypassed, and whether it was ever found so."""
        found = {e.body.device for e in self._jumper_entries if isinstance(e.body, JumperIn) and e.body.found}
        rows = [(entry, body.device) for entry, body in self.made_good() if abnormal(body.how).bypasses]
        return [(entry, device, device in found) for entry, device in rows]


def _facts_of(entry: Entry) -> list[ReadingFact]:
    body = entry.body
    group = entry.group or entry.id
    if isinstance(body, Reading):
        return [
            ReadingFact(
                body.quantity, body.stage, body.value, entry.phase, entry.at, entry.id, group, entry.instrument,
                body.station, body.computed_from, body.leads,
            )
        ]  # fmt: skip
    if isinstance(body, Trace):
        return [
            ReadingFact(
                quantity, body.stage if measurand(quantity).staged else None, mean, entry.phase, entry.at, entry.id, group,
                entry.instrument,
            )
            for quantity, mean, _ in body.means
        ]  # fmt: skip
    return []
