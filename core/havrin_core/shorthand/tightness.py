"""The line ``tight``: pressure decay of a closed gas line, or let-by past a closed valve."""

from dataclasses import dataclass

from havrin_core.limits.table import most
from havrin_core.phrases import phrase
from havrin_core.physics.constants import STANDARD_PRESSURE_PA
from havrin_core.physics.gas.tightness import Closed, decay, doubt_pa, leak_half_width_m3_s, least_seconds
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.model import Problem, Situation
from havrin_core.shorthand.pieces import typed_pieces, unused_words
from havrin_core.tape.entries import Reading

_DIMENSIONS = ("volume", "pressure", "time", "temperature")
_HOW = phrase("volume_pressure_before_after_time")
_GAUGE_STEP_PA = 10.0  # 0.1 mbar, 0.04 inWC: what a usual gauge still shows
_TAKEN_K = 293.15
_LEAST_TEMP_DOUBT_K = 0.1  # of the gas between two readings, however well it was read
_VOLUME_SHARE = 0.05  # of a volume that was added up from pipe
_STEP_WORDS = ("res", "resolution", "gauge", "step", "reads to")
_AIR_WORDS = ("air", "with air", "on air")


@dataclass(frozen=True, slots=True)
class _Test:
    volume_m3: float
    gauge_pa: tuple[float, float]
    seconds: float
    temps_k: tuple[float, float]
    step_pa: float
    with_air: bool


def read_tightness(words: list[str], stage: str, situation: Situation) -> Reading | Problem:
    """Return the leak that ``words`` show, how it reads, and its station. Raises OutOfDomain."""
    line, step = _parted(" ".join(words), _STEP_WORDS)
    test_with_air = any(f" {word} " in f" {line} " for word in _AIR_WORDS)
    left = unused_words(line, frozenset(("to", "in", "at", "of", "for", "air", "with", "on")), *_DIMENSIONS)
    if left:
        return Problem(" ".join(left), _HOW)
    found: dict[str, list[float]] = {dimension: [] for dimension in _DIMENSIONS}
    for number, unit, piece in typed_pieces(line, *_DIMENSIONS):
        if unit is None:
            return Problem(piece, phrase("number_without_its_unit", how=_HOW))
        found[unit.dimension].append(unit.to_si(number))
    volume, pressure, time, temps = (found[dimension] for dimension in _DIMENSIONS)
    if len(volume) != 1 or len(pressure) != 2 or len(time) != 1 or len(temps) not in (0, 2):
        return Problem(" ".join(words) or "tight", _HOW)
    step_pa = _step(step)
    if step_pa is None:
        return Problem(step, phrase("gauge_step_with_its_unit"))
    before, after = temps or [_TAKEN_K, _TAKEN_K]
    return _leak(
        _Test(volume[0], (pressure[0], pressure[1]), time[0], (before, after), step_pa, test_with_air), situation
    )


def _parted(line: str, marks: tuple[str, ...]) -> tuple[str, str]:
    """Return what stands before and after the first of ``marks``."""
    for mark in marks:
        before, found, after = f" {line} ".partition(f" {mark} ")
        if found:
            return before.strip(), after.strip()
    return line, ""


def _step(text: str) -> float | None:
    """Return the gauge's resolution, Pa; a usual gauge's where none was typed, None where it cannot be read."""
    if not text:
        return _GAUGE_STEP_PA
    pieces = typed_pieces(text, "pressure")
    if len(pieces) != 1 or unused_words(text, frozenset(), "pressure"):
        return None
    number, unit, _ = pieces[0]
    return unit.to_si(number) if unit is not None and number > 0 else None


def _leak(test: _Test, situation: Situation) -> Reading:
    baro = situation.gas.baro_pa if situation.gas else STANDARD_PRESSURE_PA
    start, end = (Closed(pascal, kelvin, baro) for pascal, kelvin in zip(test.gauge_pa, test.temps_k, strict=True))
    found = decay(test.volume_m3, start, end, test.seconds)
    doubt = doubt_pa(test.step_pa, _LEAST_TEMP_DOUBT_K, start)
    width = leak_half_width_m3_s(found, test.volume_m3, _VOLUME_SHARE, doubt, start.temp_k, test.seconds)
    unit = shown_unit("leak", situation.system)
    shown = show_in(found.leak_m3_s_standard, unit)
    parts = (
        ("closed_volume_m3", test.volume_m3),
        ("start_gauge_pa", test.gauge_pa[0]),
        ("end_gauge_pa", test.gauge_pa[1]),
        ("time_s", test.seconds),
        ("start_temp_k", test.temps_k[0]),
        ("end_temp_k", test.temps_k[1]),
        ("baro_pa", baro),
        ("gauge_step_pa", test.step_pa),
        ("drop_corrected_pa", found.drop_corrected_pa),
        ("drop_doubt_pa", doubt),
        ("half_width_m3_s", width),
        ("least_s", least_seconds(test.volume_m3, most("gas_leak.most"), doubt, start.temp_k)),
        *((("with_air", 1.0),) if test.with_air else ()),
    )
    return Reading(
        "gas_leak_m3_s", found.leak_m3_s_standard, round(shown.value, unit.decimals), unit.symbol, computed_from=parts
    )
