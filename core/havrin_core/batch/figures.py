"""The computed figures of a visit as rows: what the pages of gas, draft, air and water draw."""

from typing import Any

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words
from havrin_core.workings.every import workings_of
from havrin_core.workings.model import Working

_PATHS = ("gas", "draft", "air", "water")


def figure_rows(unit: Unit, rules: HouseRules, visit: VisitTape, system: str) -> list[dict[str, Any]]:
    """Return every figure that the tape lets compute, canonical units, with its ± and how it came about."""
    found = workings_of(unit, rules, visit, system)
    return [{"path": path, **_row(row)} for path in _PATHS for row in getattr(found, path)]


def _row(row: Working) -> dict[str, Any]:
    return {
        "key": row.key,
        "stage": row.stage,
        "name": words(row.name),
        "value": row.value,
        "half_width": row.half_width,
        "dimension": row.dimension,
        "state": row.state,
        "says": words(row.says),
        "formula": words(row.why.formula),
        "inputs": [{"name": words(i.name), "value": i.value, "dimension": i.dimension} for i in row.why.inputs],
        "source": words(row.why.source),
        "note": words(row.why.note),
    }
