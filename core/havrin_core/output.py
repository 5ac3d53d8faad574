"""What the core answers, as JSON-ready data: for ``./havrin assess``, ``next`` and ``batch``."""

from dataclasses import asdict, is_dataclass
from datetime import date, datetime
from typing import Any

from havrin_core.machine.unit import Unit
from havrin_core.rules.families import must_be_named, open_causes
from havrin_core.rules.model import Lift, Missing, Reason
from havrin_core.standing.model import Assessment
from havrin_core.wording.closing import change_words, not_judged_words, remark_words, standing_title
from havrin_core.wording.ledger import ledger_text, to_put_back
from havrin_core.wording.lifts import lift_lines, lift_words
from havrin_core.wording.missing import because_text, missing_how, missing_line, missing_text
from havrin_core.wording.names import source
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import reason_words
from havrin_core.wording.steps import step_words


def lift_rows(lifts: tuple[Lift, ...], unit: Unit, *, several: bool) -> list[dict[str, str]]:
    """Return a row for each line that meets a demand still open, in the order in which hands write them."""
    return [
        {"line": line, "text": lift_words(lift)}
        for lift in lifts
        for line in lift_lines(lift, unit, several_causes=several)
    ]


def reason_row(reason: Reason, unit: Unit, system: str, *, several: bool = False) -> dict[str, Any]:
    """Return one reason with its words, its demands as lines, and the entries that opened it."""
    said = reason_words(reason, system)
    return {
        "code": reason.code,
        "level": reason.level,
        "station": reason.station,
        "text": said.text,
        "lifts_text": said.lifts,
        "reading": said.reading,
        "limit": said.limit,
        "source": source(reason.source) if reason.source else "",
        "lifts": lift_rows(reason.lifts, unit, several=several),
        "entry_ids": list(reason.entry_ids),
    }


def missing_row(item: Missing, unit: Unit) -> dict[str, Any]:
    """Return one thing still to show."""
    return {
        "proof": item.proof,
        "station": item.station,
        "since": item.since.isoformat() if item.since else None,
        "because": because_text(item),
        "line": missing_line(item, unit),
        "text": missing_text(item),
        "how": missing_how(item),
        "stage": item.stage,
        "minutes": item.minutes,
    }


def assessment_to_dict(found: Assessment, unit: Unit, system: str) -> dict[str, Any]:
    """Return ``found`` with its words; flue results as their values and half-widths."""
    several = must_be_named(open_causes(found.reasons))
    step = found.next_step
    return {
        "level": found.level,
        "title": standing_title(found),
        "settled": found.settled,
        "leaving": found.leaving,
        "reasons": [reason_row(reason, unit, system, several=several) for reason in found.reasons],
        "missing": [missing_row(item, unit) for item in found.missing],
        "can_close": found.can_close,
        "holds": list(found.holds),
        "next_step": plain(step_words(step, unit, system)) if step else None,
        "flue": [
            {
                "stage": view.stage,
                "phase": view.phase,
                "doubts": [words(doubt) for doubt in view.doubts],
                "values": dict(view.result.values) if view.result else None,
                "half_widths": dict(view.result.half_widths) if view.result else None,
            }
            for view in found.flue
        ],
        "stations": {view.key: view.state for view in found.stations},
        "ledger": [
            {"text": ledger_text(row), "since": row.since.isoformat(), "open": row.until is None}
            for row in found.ledger
        ],
        "put_backs": [to_put_back(leaves) for leaves in found.put_backs],
        "changes": [change_words(change, system) for change in found.changes],
        "remarks": [remark_words(remark) for remark in found.remarks],
        "not_judged": [not_judged_words(quantity, stage) for quantity, stage in found.not_judged],
        "made_safe": found.made_safe,
        "owner_notice_due": found.owner_notice_due,
        "cycles_shown": found.cycles_shown,
    }


def plain(value: Any) -> Any:
    """Return ``value`` with data classes, tuples and times as JSON has them."""
    if isinstance(value, datetime | date):
        return value.isoformat()
    if is_dataclass(value) and not isinstance(value, type):
        return plain(asdict(value))
    if isinstance(value, dict):
        return {key: plain(item) for key, item in value.items()}
    return [plain(item) for item in value] if isinstance(value, list | tuple | frozenset) else value
