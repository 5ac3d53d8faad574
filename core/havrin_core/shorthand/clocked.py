"""The line ``clock``: input by the meter's dial, its turns and a stopwatch."""

import math
import re
from dataclasses import dataclass

from havrin_core.phrases import phrase
from havrin_core.physics.gas.meter import dial_m3, meter_flow
from havrin_core.physics.states import volumetric_heating_values_j_m3
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import INWC_PA, shown_unit
from havrin_core.shorthand.model import Ask, GasLine, Problem, Situation
from havrin_core.shorthand.pieces import number_of
from havrin_core.tape.entries import Reading
from havrin_core.vocabulary.measurands import measurand

USUAL_METER_PA = 7 * INWC_PA  # a house line without a regulator of its own at the unit
METER_TEMP_K = 288.15  # of the gas at the meter, where nobody reads it
AS_IT_IS = "anyway"  # the word that writes a short or part-turn clock all the same
LEAST_S = 20.0  # half a second of a stopwatch is then 2.5 %
_DIAL_UNITS = {"ft3": "ft3", "ft³": "ft3", "cf": "ft3", "ft": "ft3", "m3": "m3", "m³": "m3", "l": "l"}
# what may stand in the line beside numbers and the dial's unit
_CLOCK_WORDS = frozenset(
    [
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
    ]
)
_HALF = {"half": 0.5, "quarter": 0.25, "one": 1.0, "two": 2.0}
_DIAL_M3, _TURNS, _SECONDS = (1e-4, 30.0), (0.05, 500.0), (1.0, 7200.0)
# Half-widths: of a stopwatch, s; of gas temperature, K; the weather's of the barometer, Pa; and shares of the rest
_WATCH_S, _TEMP_K, _BARO_PA, _METER_SHARE = 0.5, 5.0, 1000.0, 0.01
_METER_TAKEN_PA, _METER_READ_SHARE = 1000.0, 0.02
_GROSS_TAKEN_SHARE, _GROSS_ENTERED_SHARE = 0.03, 0.01


@dataclass(frozen=True, slots=True)
class _Clocked:
    dial_m3: float
    turns: float
    seconds: float


def read_clock(words: list[str], stage: str, situation: Situation) -> Reading | Problem | Ask:
    """``clock 2 ft3 1 30.2``: dial of 2 ft³, one turn, 30.2 s; ``clock 1/2 ft3 1 30`` is a half-foot dial."""
    as_it_is = AS_IT_IS in (word.lower() for word in words)
    clocked = _clocked([word for word in words if word.lower() != AS_IT_IS])
    if isinstance(clocked, Problem):
        return clocked
    if situation.gas is None:
        return Problem("clock", phrase("nothing_known_lines_gas_write"))
    if not as_it_is and (clocked.seconds < LEAST_S or clocked.turns % 1):
        line = f"clock {' '.join(words)} {AS_IT_IS}"
        said = phrase("clock_part_turn") if clocked.turns % 1 else phrase("clock_short", least=LEAST_S)
        return Ask(said, (line,))
    return _input(clocked, words, stage, situation.gas, situation.system)


def _clocked(words: list[str]) -> _Clocked | Problem:
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
        return Problem(" ".join(unknown) or " ".join(words) or "clock", phrase("dial_turns_seconds_clock_2"))
    dial, turns, seconds = (numbers[0], 1.0, numbers[1]) if len(numbers) == 2 else numbers
    for value, (least, most), what in (
        (dial_m3(dial, units[0]), _DIAL_M3, "dial"),
        (turns, _TURNS, phrase("number_turns")),
        (seconds, _SECONDS, phrase("time_seconds")),
    ):
        if not least <= value <= most:
            return Problem(" ".join(words), phrase("no_meter_clocked_such_dial", what=what))
    return _Clocked(dial_m3(dial, units[0]), turns, seconds)


def _input(clocked: _Clocked, words: list[str], stage: str, gas: GasLine, system: str) -> Reading | Problem:
    entered_pa, entered_gross = gas.meter_gauge_pa(), gas.gross_j_m3()
    at_meter_pa = USUAL_METER_PA if entered_pa is None else entered_pa
    gross = volumetric_heating_values_j_m3(gas.fuel)[0] if entered_gross is None else entered_gross
    flow = meter_flow(
        gas.fuel, clocked.dial_m3, clocked.turns, clocked.seconds, at_meter_pa, METER_TEMP_K, gas.baro_pa, gross
    )
    absolute = gas.baro_pa + at_meter_pa
    meter_doubt_pa = _METER_TAKEN_PA if entered_pa is None else _METER_READ_SHARE * at_meter_pa
    share = math.hypot(
        _WATCH_S / clocked.seconds,
        _GROSS_TAKEN_SHARE if entered_gross is None else _GROSS_ENTERED_SHARE,
        _TEMP_K / METER_TEMP_K,
        _BARO_PA / absolute,
        meter_doubt_pa / absolute,
        _METER_SHARE,
    )
    unit, limits = shown_unit("power", system), measurand("input_w")
    shown = show_in(flow.input_gross_w, unit)
    if not limits.least <= flow.input_gross_w <= limits.most:
        return Problem(" ".join(words), phrase("would_check_dial_turns_seconds", shown=shown.text, symbol=unit.symbol))
    parts = (
        ("dial_volume_m3", clocked.dial_m3),
        ("revolutions", clocked.turns),
        ("time_s", clocked.seconds),
        ("meter_gauge_pa" if entered_pa is not None else "meter_taken_pa", at_meter_pa),
        ("meter_temp_k", METER_TEMP_K),
        ("baro_pa", gas.baro_pa),
        ("gross_j_m3" if entered_gross is None else "line_gross_j_m3", gross),
        ("half_width_w", share * flow.input_gross_w),
    )
    value = round(shown.value, unit.decimals)
    return Reading("input_w", flow.input_gross_w, value, unit.symbol, stage, computed_from=parts)
