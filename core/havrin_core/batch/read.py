"""The operation ``read``: one line, read in a unit's situation."""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from havrin_core.batch.items import items_of
from havrin_core.machine.unit import Unit
from havrin_core.quantities.units import INWC_PA
from havrin_core.rules.families import family_of_code
from havrin_core.shorthand.model import Line, Situation, situation_of
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.wording.entries import echo

USUAL_METER_PA = 7 * INWC_PA  # where the supply was not read yet


def unit_in(request: Mapping[str, Any]) -> Unit:
    """Return the unit of a request. Raises BadDocument, UnknownName."""
    return _built(json.dumps(request["unit"], sort_keys=True))


@lru_cache(maxsize=256)
def _built(document: str) -> Unit:
    return unit_from_dict(json.loads(document))


def read_op(request: Mapping[str, Any]) -> dict[str, Any]:
    """Answer a ``read``."""
    unit = unit_in(request)
    open_ = tuple((str(code), family_of_code(str(code))) for code in request.get("open", ()))
    situation = _situation(
        json.dumps(request["unit"], sort_keys=True), request.get("phase", "found"), request.get("system", "us"), open_
    )
    return line_row(read_line(str(request["line"]), situation), unit, situation.system)


@lru_cache(maxsize=512)
def _situation(document: str, phase: str, system: str, open_: tuple[tuple[str, str], ...]) -> Situation:
    return situation_of(_built(document), phase=phase, system=system, meter_gauge_pa=USUAL_METER_PA, open=open_)


def line_row(line: Line, unit: Unit, system: str) -> dict[str, Any]:
    """Return what a line means, as data."""
    said = [echo(body, system, unit.circuit) for body in line.bodies]
    asks = [{"question": ask.question, "choices": list(ask.choices)} for ask in line.asks]
    asks += [
        {"question": problem.text, "choices": [meaning.partition(" – ")[0] for meaning in problem.meanings]}
        for problem in line.problems
    ]
    unread = [*line.unread, *(problem.piece for problem in line.problems)]
    if unread and not asks:
        asks = [{"question": f"Not understood: {' '.join(unread)}.", "choices": []}]
    return {
        "writable": line.writable,
        "items": items_of(line.bodies, line.phase),
        "echo": " · ".join(said),
        "ask": asks,
        "unread": unread,
        "offer_note": line.offers_note,
        "doubts": list(line.doubts),
        "phase": line.phase,
        "stage": line.stage,
    }
