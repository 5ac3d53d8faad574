"""Lines whose number is computed from what was counted: ``clock``, ``orifice``, ``cap``, ``phases``, ``tight``, ``va`` …"""

import re

from havrin_core.errors import CoreError
from havrin_core.phrases import phrase
from havrin_core.physics.electrical import imbalance_pct
from havrin_core.physics.gas.drills import drill_diameter_m
from havrin_core.physics.gas.meter import dial_m3, meter_flow
from havrin_core.physics.states import volumetric_heating_values_j_m3
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.model import Line, Problem, Situation
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
from havrin_core.vocabulary.measurands import measurand

METER_TEMP_K = 288.15  # of the gas at the meter, where nobody reads it
_DIAL_UNITS = {"ft3": "ft3", "ft³": "ft3", "cf": "ft3", "ft": "ft3", "m3": "m3", "m³": "m3", "l": "l"}
_LINE_MOST_V = 60.0  # phases below this are amps

Outcome = Reading | Problem
# what may stand in a clocked line beside numbers and the dial's unit
_CLOCK_WORDS = frozenset(
    (
        "dial",
        "turn",
        "turns",
        "rev",
        "revs",
        "revolution",
        "revolutions",
        "s",
        "sec",
        "secs",
        "seconds",
        "x",
        "in",
        "of",
        "the",
        "on",
        "at",
        "for",
    )
)
_HALF = {"half": 0.5, "quarter": 0.25, "one": 1.0, "two": 2.0}
_DIAL_M3 = (1e-4, 30.0)
_TURNS = (0.05, 500.0)
_SECONDS = (1.0, 7200.0)


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
    return Line((outcome,), (), (), phase, said, "")


def _clock(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``clock 2 ft3 1 30.2``: dial of 2 ft³, one turn, 30.2 s; ``clock 1/2 ft3 1 30`` is a half-foot dial."""
    spread = re.sub(r"(ft3|ft³|m3|m³)", r" \1 ", " ".join(words), flags=re.IGNORECASE).split()
    units, numbers, unknown = [], [], []
    for word in spread:
        low = word.lower()
        number = _HALF.get(low, number_of(low.removesuffix("s").removesuffix("x")))
        if low in _DIAL_UNITS:
            units.append(_DIAL_UNITS[low])
        elif number is not None:
            numbers.append(number)
        elif low not in _CLOCK_WORDS:
            unknown.append(word)
    if unknown or len(units) != 1 or len(numbers) not in (2, 3):
        how = phrase("dial_turns_seconds_clock_2")
        return Problem(" ".join(unknown) or " ".join(words) or "clock", how)
    if situation.gas is None:
        return Problem("clock", phrase("nothing_known_lines_gas_write"))
    dial, turns, seconds = (numbers[0], 1.0, numbers[1]) if len(numbers) == 2 else numbers
    for value, (least, most), what in (
        (dial_m3(dial, units[0]), _DIAL_M3, "dial"),
        (turns, _TURNS, phrase("number_turns")),
        (seconds, _SECONDS, phrase("time_seconds")),
    ):
        if not least <= value <= most:
            return Problem(" ".join(words), phrase("no_meter_clocked_such_dial", what=what))
    gas = situation.gas
    volume = dial_m3(dial, units[0])
    at_meter_pa = gas.meter_gauge_pa()
    flow = meter_flow(gas.fuel, volume, turns, seconds, at_meter_pa, METER_TEMP_K, gas.baro_pa)
    gross, _ = volumetric_heating_values_j_m3(gas.fuel)
    parts = (
        ("dial_volume_m3", volume),
        ("revolutions", turns),
        ("time_s", seconds),
        ("meter_gauge_pa", at_meter_pa),
        ("meter_temp_k", METER_TEMP_K),
        ("baro_pa", gas.baro_pa),
        ("gross_j_m3", gross),
    )
    unit = shown_unit("power", situation.system)
    shown = show_in(flow.input_gross_w, unit)
    limits = measurand("input_w")
    if not limits.least <= flow.input_gross_w <= limits.most:
        return Problem(" ".join(words), phrase("would_check_dial_turns_seconds", shown=shown.text, symbol=unit.symbol))
    return Reading(
        "input_w", flow.input_gross_w, round(shown.value, unit.decimals), unit.symbol, stage, computed_from=parts
    )


def _orifice(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``orifice 4 #43`` or ``orifice 4 2.26 mm``: how many, and their size."""
    if len(words) < 2 or not words[0].isdigit():
        return Problem(" ".join(words) or "orifice", phrase("how_many_which_drill_orifice"))
    size = " ".join(words[1:])
    metres = drill_diameter_m(size)
    reading = Reading(
        "orifice_diameter_m",
        metres,
        round(1000 * metres, 3),
        "mm",
        stage,
        computed_from=(("burner_count", float(words[0])),),
    )
    return reading


def _phases(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``phases 208 212 206``: volts between lines, or amps of the three."""
    pieces = [
        (word, number_of(word.lower().removesuffix("v").removesuffix("a")))
        for word in words
        if word.lower() not in ("v", "a", "volts", "amps")
    ]
    numbers = [number for _, number in pieces if number is not None]
    if len(numbers) != 3 or len(pieces) != 3:
        return Problem(" ".join(words) or "phases", phrase("three_readings_phases_208_212"))
    kind = "voltage" if min(numbers) > _LINE_MOST_V else "current"
    value = imbalance_pct(numbers)
    parts = tuple((f"phase_{i}", n) for i, n in enumerate(numbers, 1))
    return Reading(f"{kind}_imbalance_pct", value, round(value, 2), "%", computed_from=parts)


_READERS = {
    "clock": _clock,
    "orifice": _orifice,
    "cap": read_capacitor,
    "mains": read_mains,
    "phases": _phases,
    "tight": read_tightness,
    "va": read_transformer,
    "belt": read_belt,
    "ventrun": read_vent_run,
}
MEASURED_VERBS = tuple(_READERS)
