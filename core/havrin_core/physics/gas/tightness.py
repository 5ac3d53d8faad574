"""Tightness and let-by: pressure decay of a closed volume, corrected for temperature and barometer."""

from dataclasses import dataclass

from havrin_core.phrases import phrase
from havrin_core.physics.constants import GAS_CONSTANT_J_MOL_K
from havrin_core.physics.states import MOLES_PER_STANDARD_M3, require


@dataclass(frozen=True, slots=True)
class Closed:
    """The closed volume at one moment: gauge and barometric pressure, Pa, and temperature, K."""

    gauge_pa: float
    temp_k: float
    baro_pa: float


@dataclass(frozen=True, slots=True)
class Decay:
    """What leaked between two moments."""

    expected_gauge_pa: float  # at the end, had nothing leaked
    drop_corrected_pa: float
    leaked_mol: float
    leak_m3_s_standard: float  # 15 degC, 101.325 kPa


def decay(volume_m3: float, start: Closed, end: Closed, seconds: float) -> Decay:
    """Return what leaked out of ``volume_m3`` between ``start`` and ``end``.

    A negative leak is gas that came in: let-by, or a temperature that was not read right. Raises OutOfDomain.
    """
    require("volume_m3", 1000 * volume_m3, 0.05, 100_000.0, phrase("volume_litres"))
    require("duration", seconds, 1.0, 7 * 86_400.0, phrase("duration_s"))
    for moment in (start, end):
        require("gauge_pa", moment.gauge_pa, -50_000.0, 2_000_000.0, phrase("gauge_pressure_pa"))
        require("temp_k", moment.temp_k, 230.0, 340.0, phrase("temperature_k"))
        require("baro_pa", moment.baro_pa, 50_000.0, 110_000.0, phrase("barometric_pressure_pa"))
    expected = (start.baro_pa + start.gauge_pa) * end.temp_k / start.temp_k - end.baro_pa
    leaked = _moles(volume_m3, start) - _moles(volume_m3, end)
    return Decay(expected, expected - end.gauge_pa, leaked, leaked / MOLES_PER_STANDARD_M3 / seconds)


def least_seconds(volume_m3: float, leak_m3_s_standard: float, resolution_pa: float, temp_k: float) -> float:
    """Return the shortest test in which the gauge's resolution still shows ``leak_m3_s_standard``, s.

    Shorter than that, a leak of the criterion's size could hide between two figures of the gauge. Raises OutOfDomain.
    """
    require("resolution_pa", resolution_pa, 0.01, 10_000.0, phrase("gauges_resolution_pa"))
    require("leak", 3.6e6 * leak_m3_s_standard, 1e-4, 1e5, phrase("leak_l_h"))
    moles = resolution_pa * volume_m3 / (GAS_CONSTANT_J_MOL_K * temp_k)
    return moles / (leak_m3_s_standard * MOLES_PER_STANDARD_M3)


def _moles(volume_m3: float, moment: Closed) -> float:
    return (moment.baro_pa + moment.gauge_pa) * volume_m3 / (GAS_CONSTANT_J_MOL_K * moment.temp_k)
