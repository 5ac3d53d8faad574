"""The operation ``visit``: lines read and written one after the other, as the server would; then the assessment."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from functools import cached_property
from typing import Any

from havrin_core.batch.figures import figure_rows
from havrin_core.batch.read import Desk, answer_row, document_of, unit_in
from havrin_core.batch.search import search_row
from havrin_core.errors import BadDocument
from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.machine.unit import Unit
from havrin_core.output import assessment_to_dict
from havrin_core.phrases import phrase
from havrin_core.rules.causes import CALL
from havrin_core.rules.families import family_of_code, open_causes
from havrin_core.shorthand.model import Line
from havrin_core.standing.assess import assess, reasons_of
from havrin_core.standing.carry_over import left_open
from havrin_core.standing.model import Assessment
from havrin_core.standing.striking import wants_a_reason
from havrin_core.tape.bundle import FORMAT, VERSION
from havrin_core.tape.documents import entry_to_dict, time_of
from havrin_core.tape.entries import WAYS_LEFT, Body, Correction, Entry, Note, Reading, Said
from havrin_core.tape.visit import NOTHING_OPEN, LeftOpen, VisitTape
from havrin_core.wording.phrases import words

_BEGUN = datetime(2026, 1, 14, 9, 0, tzinfo=UTC)
_BETWEEN_VISITS = timedelta(days=7)


def visit_op(request: Mapping[str, Any]) -> dict[str, Any]:
    """Answer a ``visit``."""
    unit, system = unit_in(request), request.get("system", "us")
    rules = house_rules_from_dict(dict(request.get("rules") or {}))
    document = document_of(request["unit"])
    before, begun = _earlier(request.get("earlier") or (), document, unit, system)
    tape = _Tape(document, unit, rules, request["reason"], system, before, begun)
    rows = [tape.write(n, row) for n, row in enumerate(request["lines"], 1)]
    leave = _leave(request.get("leave"))
    found = assess(unit, rules, tape.visit(), leave)
    answer: dict[str, Any] = {"lines": rows, "assessment": _assessment(found, tape, system)}
    if request.get("search"):
        answer["search"] = search_row(unit, rules, tape.visit().entries)
    if request.get("workings"):
        answer["workings"] = figure_rows(unit, rules, tape.visit(), system)
    return answer | {"bundle": tape.bundle(request["unit"], request.get("rules") or {})}


def _leave(leave: Any) -> str | None:
    if leave is None:
        return None
    if leave not in WAYS_LEFT:
        raise BadDocument("leave_unknown", phrase("leave_one_null", ways_left=", ".join(WAYS_LEFT)), value="leave")
    return str(leave)


def _earlier(visits: Sequence[Mapping[str, Any]], document: str, unit: Unit, system: str) -> tuple[LeftOpen, datetime]:
    """Write and close the earlier visits; return what the last one left open, and when the next one begins."""
    before = NOTHING_OPEN
    begun = _BEGUN - _BETWEEN_VISITS * len(visits)
    for row in visits:
        rules = house_rules_from_dict(dict(row.get("rules") or {}))
        tape = _Tape(document, unit, rules, row["reason"], system, before, begun)
        for n, line in enumerate(row["lines"], 1):
            tape.write(n, line)
        before = left_open(unit, rules, tape.visit(), _leave(row.get("leave")))
        begun += _BETWEEN_VISITS
    return before, begun


def _assessment(found: Assessment, tape: "_Tape", system: str) -> dict[str, Any]:
    row = assessment_to_dict(found, tape.unit, system)
    for reason in row["reasons"]:
        reason["opened_by"] = sorted({tape.line_of[i] for i in reason.pop("entry_ids") if i in tape.line_of})
    return row


@dataclass
class _Tape:
    """One visit while it is written."""

    document: str
    unit: Unit
    rules: HouseRules
    reason: str
    system: str
    before: LeftOpen
    begun: datetime
    entries: list[Entry] = field(default_factory=list)
    line_of: dict[str, int] = field(default_factory=dict)  # entry -> number of its line
    of_line: dict[int, list[str]] = field(default_factory=dict)

    def visit(self) -> VisitTape:
        """Return the tape as it stands."""
        return VisitTape(self.reason, tuple(self.entries), before=self.before)

    def write(self, number: int, row: Mapping[str, Any]) -> dict[str, Any]:
        """Write one line as the server would; return what became of it."""
        if "corrects" in row:
            return self._correct(number, row)
        text = str(row["text"])
        line = self.desk.read(text, row.get("phase") or "found")
        return self._keep(number, row, line)

    def _keep(self, number: int, row: Mapping[str, Any], line: Line) -> dict[str, Any]:
        said = answer_row(line, self.unit, self.system)
        if line.writable and not self._may(line.bodies, row):
            return _kept(said, "refused", words(phrase("milder_by_a_supervisor")))
        if not line.writable:
            return _kept(said, "asked" if said["ask"] else "refused")
        self._append(number, row, [_signed(body, row) for body in line.bodies], line.phase_of_each)
        return _kept(said, "note" if all(isinstance(body, Note) for body in line.bodies) else "entries")

    def _may(self, bodies: Sequence[Body], row: Mapping[str, Any]) -> bool:
        milder = any(isinstance(body, Said) and body.what == "override" for body in bodies)
        return not milder or bool(row.get("supervisor"))

    def _append(self, number: int, row: Mapping[str, Any], bodies: Sequence[Body], phases: Sequence[str]) -> None:
        at = self._at(number, row)
        sent, received = (time_of(row[name], "line") if row.get(name) else None for name in ("sent_at", "received_at"))
        for index, (body, phase) in enumerate(zip(bodies, phases, strict=True)):
            key = str(uuid.UUID(int=(int(self.begun.timestamp()) << 64) + (number << 16) + index))
            self.entries.append(
                Entry(
                    key,
                    at + timedelta(microseconds=index),
                    str(row.get("by", "technician")),
                    phase,
                    body,
                    f"{self.begun.isoformat()}/{number}",
                    "",
                    str(row.get("device") or ""),
                    sent,
                    received,
                )
            )
            self.line_of[key] = number
            self.of_line.setdefault(number, []).append(key)

    def _at(self, number: int, row: Mapping[str, Any]) -> datetime:
        return time_of(row["at"], "line") if row.get("at") else self.begun + timedelta(minutes=number)

    @cached_property
    def desk(self) -> Desk:
        """Where its lines are read."""
        return Desk(
            self.document,
            self.system,
            self.begun.date(),
            self.rules.line_hz,
            self._meter_pa,
            self._gross,
            self._air_temps,
            self._open,
        )

    def _open(self) -> tuple[tuple[str, str], ...]:
        found = reasons_of(self.unit, self.rules, self.visit())
        call = ((CALL, family_of_code(CALL)),) if self.reason == "no_heat" else ()
        return (*open_causes(found), *call)

    def _meter_pa(self) -> float | None:
        return self._newest("meter_gauge_pa")

    def _gross(self) -> float | None:
        return self._newest("line_gross_j_m3")

    def _air_temps(self) -> tuple[float, float] | None:
        cold, hot = self._newest("return_air_temp_k"), self._newest("supply_air_temp_k")
        return (cold, hot) if cold and hot else None

    def _newest(self, quantity: str) -> float | None:
        rows = [e.body.value for e in self.entries if isinstance(e.body, Reading) and e.body.quantity == quantity]
        return rows[-1] if rows else None

    def _correct(self, number: int, row: Mapping[str, Any]) -> dict[str, Any]:
        targets = self.of_line.get(int(row["corrects"]), [])
        if not targets:
            return _refused(words(phrase("no_such_line")), "refused")
        by_id = {entry.id: entry for entry in self.entries}
        first = by_id[targets[0]]
        why = str(row.get("why") or "")
        if row.get("text") is None:
            if not why and any(wants_a_reason(by_id[key].body) for key in targets):
                return _refused(words(phrase("strike_needs_a_reason")), "asked")
            self._append(
                number, row, [Correction(key, None, None, why) for key in targets], (first.phase,) * len(targets)
            )
            return {"writable": True, "kept_as": "entries", "echo": "Struck", "unread": [], "ask": []}
        text = str(row["text"])
        line = self.desk.read(text, row.get("phase") or first.phase)
        if not line.writable or not self._may(line.bodies, row):
            return self._keep(number, row, replace(line, bodies=()))
        new = [_signed(body, row) for body in line.bodies]
        phases = line.phase_of_each
        fixes: list[Body] = [
            Correction(key, body, phase, why)  # type: ignore[arg-type]
            for key, body, phase in zip(targets, new, phases, strict=False)
        ]
        fixes += [Correction(key, None, None, why or "corrected") for key in targets[len(new) :]]
        more = new[len(targets) :]
        self._append(number, row, [*fixes, *more], (*(line.phase,) * len(fixes), *phases[len(phases) - len(more) :]))
        return _kept(answer_row(line, self.unit, self.system), "entries")

    def bundle(self, unit: Mapping[str, Any], rules: Mapping[str, Any]) -> dict[str, Any]:
        """Return the visit as a bundle document."""
        return {
            "format": FORMAT,
            "version": VERSION,
            "unit_system": self.system,
            "unit": {"name": "unit", **unit},
            "house_rules": dict(rules),
            "visit": {
                "reason": self.reason,
                "entries": [entry_to_dict(entry) for entry in self.entries],
                "open_before": [entry_to_dict(entry) for entry in self.before.entries],
                "owed": list(self.before.owed),
            },
        }


def _refused(question: str, kept_as: str) -> dict[str, Any]:
    return {
        "writable": False,
        "kept_as": kept_as,
        "echo": "",
        "unread": [],
        "ask": [{"question": question, "choices": []}],
    }


def _signed(body: Body, row: Mapping[str, Any]) -> Body:
    if isinstance(body, Said) and body.what == "override":
        return replace(body, by_supervisor=bool(row.get("supervisor")))
    return body


def _kept(said: Mapping[str, Any], kept_as: str, question: str = "") -> dict[str, Any]:
    asks = [*said["ask"], *([{"question": question, "choices": []}] if question else [])]
    return {
        "writable": said["writable"],
        "kept_as": kept_as,
        "echo": said["echo"],
        "unread": said["unread"],
        "ask": asks,
    }
