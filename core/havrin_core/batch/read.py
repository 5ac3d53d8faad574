"""The operation ``read``: one line, read in a unit's situation."""

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Any, NoReturn

from havrin_core.batch.items import items_of
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.phrases import phrase
from havrin_core.rules.families import family_of_code
from havrin_core.shorthand.model import Line, Situation, situation_of
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.wording.entries import echo
from havrin_core.wording.phrases import words


def unit_in(request: Mapping[str, Any]) -> Unit:
    """Return the unit of a request. Raises BadDocument, UnknownName."""
    return _built(document_of(request["unit"]))


def document_of(unit: Any) -> str:
    """Return a unit's document in the form by which it is looked up."""
    return json.dumps(unit, sort_keys=True)


@lru_cache(maxsize=256)
def _built(document: str) -> Unit:
    return unit_from_dict(json.loads(document))


class _NeedsMore(Exception):
    """The words and the unit are not enough: the line asks what was read before, or what is open."""


def _needs_more() -> NoReturn:
    raise _NeedsMore


@dataclass(frozen=True)
class Desk:
    """Reads the lines of one visit: what they need beyond their words is asked of its functions."""

    document: str  # of the unit, as JSON
    system: str
    today: date | None
    line_hz: float
    meter_pa: Callable[[], float | None]
    gross_j_m3: Callable[[], float | None]
    air_temps_k: Callable[[], tuple[float, float] | None]
    open: Callable[[], tuple[tuple[str, str], ...]]

    def read(self, text: str, phase: str) -> Line:
        """Return what ``text`` says; most lines of a long run were read before, and are looked up."""
        try:
            return _read_alone(self.document, text, phase, self.system, self.today, self.line_hz)
        except _NeedsMore:
            return read_line(text, self._situation(phase))

    def _situation(self, phase: str) -> Situation:
        return situation_of(
            _built(self.document),
            phase=phase,
            system=self.system,
            meter_gauge_pa=self.meter_pa,
            gross_j_m3=self.gross_j_m3,
            air_temps_k=self.air_temps_k,
            open=self.open,
            today=self.today,
            line_hz=self.line_hz,
        )


@lru_cache(maxsize=8192)
def _read_alone(document: str, text: str, phase: str, system: str, today: date | None, line_hz: float) -> Line:
    return read_line(text, _alone(document, phase, system, today, line_hz))


@lru_cache(maxsize=256)
def _alone(document: str, phase: str, system: str, today: date | None, line_hz: float) -> Situation:
    return situation_of(
        _built(document),
        phase=phase,
        system=system,
        meter_gauge_pa=_needs_more,
        gross_j_m3=_needs_more,
        air_temps_k=_needs_more,
        open=_needs_more,
        today=today,
        line_hz=line_hz,
    )


def read_op(request: Mapping[str, Any]) -> dict[str, Any]:
    """Answer a ``read``."""
    unit, system = unit_in(request), request.get("system", "us")
    open_ = tuple((str(code), family_of_code(str(code))) for code in request.get("open", ()))
    desk = Desk(
        document_of(request["unit"]),
        system,
        None,
        HouseRules().line_hz,
        lambda: None,
        lambda: None,
        lambda: None,
        lambda: open_,
    )
    return line_row(desk.read(str(request["line"]), request.get("phase", "found")), unit, system)


def line_row(line: Line, unit: Unit, system: str) -> dict[str, Any]:
    """Return what a line means, as data."""
    return {
        **answer_row(line, unit, system),
        "items": items_of(line.bodies, line.phase_of_each),
        "offer_note": line.offers_note,
        "doubts": [words(doubt) for doubt in line.doubts],
        "phase": line.phase,
        "stage": line.stage,
    }


def answer_row(line: Line, unit: Unit, system: str) -> dict[str, Any]:
    """Return what is answered to a line: whether it can be written, how it reads, what is asked and what nothing used."""
    said = [echo(body, system, unit.circuit) for body in line.bodies]
    asks = [{"question": words(ask.question), "choices": list(ask.choices)} for ask in line.asks]
    asks += [
        {"question": words(problem.text), "choices": [line for line, _ in problem.meanings]}
        for problem in line.problems
    ]
    unread = [*line.unread, *(problem.piece for problem in line.problems)]
    if unread and not asks:
        asks = [{"question": words(phrase("not_understood", unread=" ".join(unread))), "choices": []}]
    return {
        "writable": line.writable,
        "echo": " · ".join(said),
        "ask": asks,
        "unread": unread,
    }
