"""Lines whose number is computed from what was counted: ``clock``, ``orifice``, ``cap``, ``phases``, ``tight``, ``va`` …"""

from havrin_core.errors import CoreError
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.physics.electrical import imbalance_pct
from havrin_core.physics.gas.drills import drill_diameter_m
from havrin_core.physics.gas.meter import dial_m3, meter_flow
from havrin_core.physics.states import volumetric_heating_values_j_m3
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.model import Line, Problem, Situation
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

METER_TEMP_K = 288.15  # of the gas at the meter, where nobody reads it
_DIAL_UNITS = {"ft3": "ft3", "ft³": "ft3", "cf": "ft3", "ft": "ft3", "m3": "m3", "m³": "m3", "l": "l"}
_LINE_MOST_V = 60.0  # phases below this are amps

Outcome = tuple[Reading, str, str] | Problem  # reading, how it reads, station


def read_measured(verb: str, rest: list[str], situation: Situation) -> Line:
    """Return the line that ``verb`` with its ``rest`` makes."""
    stage = next((STAGE_WORDS[w.lower()] for w in rest if w.lower() in STAGE_WORDS), situation.stage)
    phase = next((PHASE_WORDS[w.lower()] for w in rest if w.lower() in PHASE_WORDS), situation.phase)
    words = [w for w in rest if w.lower() not in STAGE_WORDS and w.lower() not in PHASE_WORDS]
    try:
        outcome = _READERS[verb](words, stage, situation)
    except CoreError as refusal:
        outcome = Problem(" ".join(rest), refusal.message)
    if isinstance(outcome, Problem):
        return Line((), (), (outcome,), (), phase, stage, "")
    reading, echo, station = outcome
    said = f"{STAGE_LABELS[stage]} fire" if reading.stage and STAGE_LABELS[stage] else ""
    return Line((reading,), (echo, *filter(None, [said])), (), (), phase, stage, station)


def _numbers(words: list[str]) -> list[float]:
    found = []
    for word in words:
        try:
            found.append(float(word.replace(",", ".").removesuffix("s").removesuffix("x")))
        except ValueError:
            continue
    return found


def _clock(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``clock 2 ft3 1 30.2``: dial of 2 ft³, one turn, 30.2 s."""
    spread = " ".join(words).replace("ft3", " ft3 ").replace("m3", " m3 ").split()
    units = [_DIAL_UNITS[w.lower()] for w in spread if w.lower() in _DIAL_UNITS]
    numbers = _numbers([w for w in spread if w.lower() not in _DIAL_UNITS])
    if len(units) != 1 or len(numbers) not in (2, 3):
        return Problem(
            " ".join(words) or "clock", "Dial, turns, seconds: clock 2 ft3 1 30.2; one turn may be left away."
        )
    if situation.gas is None:
        return Problem("clock", "Nothing is known of this line's gas: write the input itself.")
    dial, turns, seconds = (numbers[0], 1.0, numbers[1]) if len(numbers) == 2 else numbers
    gas = situation.gas
    volume = dial_m3(dial, units[0])
    flow = meter_flow(gas.fuel, volume, turns, seconds, gas.meter_gauge_pa, METER_TEMP_K, gas.baro_pa)
    gross, _ = volumetric_heating_values_j_m3(gas.fuel)
    parts = (
        ("dial_volume_m3", volume), ("revolutions", turns), ("time_s", seconds), ("meter_gauge_pa", gas.meter_gauge_pa),
        ("meter_temp_k", METER_TEMP_K), ("baro_pa", gas.baro_pa), ("gross_j_m3", gross),
    )  # fmt: skip
    unit = shown_unit("power", situation.system)
    shown = show_in(flow.input_gross_w, unit)
    reading = Reading(
        "input_w", flow.input_gross_w, round(shown.value, unit.decimals), unit.symbol, stage, computed_from=parts
    )
    return (
        reading,
        f"Input by meter {shown.text} {unit.symbol} ({dial:g} {units[0]}, {turns:g} × in {seconds:g} s)",
        "input",
    )


def _orifice(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``orifice 4 #43`` or ``orifice 4 2.26 mm``: how many, and their size."""
    if len(words) < 2 or not words[0].isdigit():
        return Problem(" ".join(words) or "orifice", "How many, and which drill: orifice 4 #43, or orifice 4 2.26 mm.")
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
    return reading, f"{words[0]} orifices {size}, {1000 * metres:.2f} mm", "manifold"


def _phases(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``phases 208 212 206``: volts between lines, or amps of the three."""
    numbers = _numbers(words)
    if len(numbers) != 3:
        return Problem(" ".join(words) or "phases", "Three readings: phases 208 212 206, volts or amps.")
    volts = min(numbers) > _LINE_MOST_V
    value = imbalance_pct(numbers)
    kind = "voltage" if volts else "current"
    parts = tuple((f"phase_{i}", n) for i, n in enumerate(numbers, 1))
    reading = Reading(f"{kind}_imbalance_pct", value, round(value, 2), "%", computed_from=parts)
    return reading, f"Imbalance of {'voltages' if volts else 'currents'} {value:.1f} %", "blower"


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
