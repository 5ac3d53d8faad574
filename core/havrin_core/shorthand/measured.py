"""Lines whose number is computed from what was counted: ``clock``, ``orifice``, ``cap``, ``phases``, ``tight``, ``va`` …"""

import re

from havrin_core.errors import CoreError
from havrin_core.phrases import phrase
from havrin_core.physics.electrical import imbalance_pct
from havrin_core.physics.gas.drills import drill_diameter_m
from havrin_core.shorthand.clocked import read_clock
from havrin_core.shorthand.counted import read_glycol, read_pipe, read_turned
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.pieces import number_of
from havrin_core.shorthand.shares import (
    read_belt,
    read_capacitor,
    read_mains,
    read_transformer,
    read_vent_run,
)
from havrin_core.shorthand.tightness import read_tightness
from havrin_core.shorthand.words import PHASE_WORDS, STAGE_WORDS
from havrin_core.tape.entries import Reading

_DISCHARGE = (0.5, 1.0)
_AMPS_MOST, _LINE_LEAST_V = 45.0, 150.0  # three numbers up to the one are amps, from the other on volts
_PHASE_WORD = re.compile(r"[A-Za-z]+")
_PHASE_UNITS = {
    "v": "voltage",
    "volt": "voltage",
    "volts": "voltage",
    "a": "current",
    "amp": "current",
    "amps": "current",
}

Outcome = Reading | Problem | Ask


def read_measured(verb: str, rest: list[str], situation: Situation) -> Line:
    """Return the line that ``verb`` with its ``rest`` makes."""
    said = next((STAGE_WORDS[w.lower()] for w in rest if w.lower() in STAGE_WORDS), situation.stage)
    phase = next((PHASE_WORDS[w.lower()] for w in rest if w.lower() in PHASE_WORDS), situation.phase)
    words = [w for w in rest if w.lower() not in STAGE_WORDS and w.lower() not in PHASE_WORDS]
    outcome: Outcome
    if said not in situation.stages:
        outcome = Problem(said, phrase("unit_has_one_stage_low"))
    else:
        try:
            outcome = _READERS[verb](words, said, situation)
        except CoreError as refusal:
            outcome = Problem(" ".join(rest), refusal.said)
    if isinstance(outcome, Problem):
        return Line((), (outcome,), (), phase, situation.stage, "")
    if isinstance(outcome, Ask):
        return Line((), (), (), phase, situation.stage, "", asks=(outcome,))
    return Line((outcome,), (), (), phase, said, "")


def _orifice(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``orifice 4 #43``, ``orifice 4 2.26 mm`` or ``orifice 4 #43 cd 0.88``: how many, their size, the maker's coefficient."""
    size_words, _, given = " ".join(words).partition(" cd ")
    counted, _, size = size_words.partition(" ")
    discharge = number_of(given.strip()) if given else None
    if not counted.isdigit() or not size:
        return Problem(" ".join(words) or "orifice", phrase("how_many_which_drill_orifice"))
    if given and (discharge is None or not _DISCHARGE[0] <= discharge <= _DISCHARGE[1]):
        return Problem(given, phrase("discharge_from_to", least=_DISCHARGE[0], most=_DISCHARGE[1]))
    metres = drill_diameter_m(size)
    parts = (("burner_count", float(counted)), *((("discharge", discharge),) if discharge is not None else ()))
    return Reading("orifice_diameter_m", metres, round(1000 * metres, 3), "mm", stage, computed_from=parts)


def _phases(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``phases 208 212 206``: volts between lines, or amps of the three; between what either can be the unit is asked."""
    text = " ".join(words)
    units = {_PHASE_UNITS[w.lower()] for w in _PHASE_WORD.findall(text) if w.lower() in _PHASE_UNITS}
    numbers = [number for word in _PHASE_WORD.sub(" ", text).split() if (number := number_of(word)) is not None]
    known = all(word.lower() in _PHASE_UNITS for word in _PHASE_WORD.findall(text))
    if len(numbers) != 3 or len(_PHASE_WORD.sub(" ", text).split()) != 3 or len(units) > 1 or not known:
        return Problem(text or "phases", phrase("three_readings_phases_208_212"))
    value = imbalance_pct(numbers)
    kind = next(iter(units), "") or _phase_kind(numbers)
    if not kind:
        return Ask(phrase("phases_which"), (f"phases {text} V", f"phases {text} A"))
    parts = tuple((f"phase_{i}", n) for i, n in enumerate(numbers, 1))
    return Reading(f"{kind}_imbalance_pct", value, round(value, 2), "%", computed_from=parts)


def _phase_kind(numbers: list[float]) -> str:
    if max(numbers) <= _AMPS_MOST:
        return "current"
    return "voltage" if min(numbers) >= _LINE_LEAST_V else ""


_READERS = {
    "clock": read_clock,
    "orifice": _orifice,
    "cap": read_capacitor,
    "mains": read_mains,
    "phases": _phases,
    "tight": read_tightness,
    "va": read_transformer,
    "belt": read_belt,
    "ventrun": read_vent_run,
    "turned": read_turned,
    "glycol": read_glycol,
    "pipe": read_pipe,
}
MEASURED_VERBS = tuple(_READERS)
