"""The line ``tight``: pressure decay of a closed gas line, or let-by past a closed valve."""

from havrin_core.limits.table import most
from havrin_core.phrases import phrase
from havrin_core.physics.constants import STANDARD_PRESSURE_PA
from havrin_core.physics.gas.tightness import Closed, decay, least_seconds
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.model import Problem, Situation
from havrin_core.shorthand.pieces import typed_pieces, unused_words
from havrin_core.tape.entries import Reading

_DIMENSIONS = ("volume", "pressure", "time", "temperature")
_HOW = phrase("volume_pressure_before_after_time")
_GAUGE_STEP_PA = 10.0  # 0.1 mbar, 0.04 inWC: what a usual gauge still shows
_TAKEN_K = 293.15


def read_tightness(words: list[str], stage: str, situation: Situation) -> Reading | Problem:
    """Return the leak that ``words`` show, how it reads, and its station. Raises OutOfDomain."""
    left = unused_words(" ".join(words), frozenset(("to", "in", "at", "of", "for")), *_DIMENSIONS)
    if left:
        return Problem(" ".join(left), _HOW)
    found: dict[str, list[float]] = {dimension: [] for dimension in _DIMENSIONS}
    for number, unit, piece in typed_pieces(" ".join(words), *_DIMENSIONS):
        if unit is None:
            return Problem(piece, phrase("number_without_its_unit", how=_HOW))
        found[unit.dimension].append(unit.to_si(number))
    volume, pressure, time, temps = (found[dimension] for dimension in _DIMENSIONS)
    if len(volume) != 1 or len(pressure) != 2 or len(time) != 1 or len(temps) not in (0, 2):
        return Problem(" ".join(words) or "tight", _HOW)
    return _leak(volume[0], pressure, time[0], temps or [_TAKEN_K, _TAKEN_K], situation)


def _leak(volume: float, pressure: list[float], seconds: float, temps: list[float], situation: Situation) -> Reading:
    baro = situation.gas.baro_pa if situation.gas else STANDARD_PRESSURE_PA
    start, end = (Closed(pascal, kelvin, baro) for pascal, kelvin in zip(pressure, temps, strict=True))
    found = decay(volume, start, end, seconds)
    least = least_seconds(volume, most("gas_leak.most"), _GAUGE_STEP_PA, temps[0])
    unit = shown_unit("leak", situation.system)
    shown = show_in(found.leak_m3_s_standard, unit)
    parts = (
        ("closed_volume_m3", volume),
        ("start_gauge_pa", pressure[0]),
        ("end_gauge_pa", pressure[1]),
        ("time_s", seconds),
        ("start_temp_k", temps[0]),
        ("end_temp_k", temps[1]),
        ("baro_pa", baro),
        ("drop_corrected_pa", found.drop_corrected_pa),
        ("least_s", least),
    )
    reading = Reading(
        "gas_leak_m3_s", found.leak_m3_s_standard, round(shown.value, unit.decimals), unit.symbol, computed_from=parts
    )
    return reading
