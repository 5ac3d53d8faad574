"""Tightness and let-by: pressure decay of a closed volume, corrected for temperature and barometer."""

import math
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


def doubt_pa(resolution_pa: float, temp_doubt_k: float, moment: Closed) -> float:
    """Return the half-width of a pressure drop between two readings, Pa.

    Each of the two is known to the gauge's ``resolution_pa``, and the gas in between to ``temp_doubt_k``: its absolute
    pressure moves with its temperature, 35 Pa for each 0.1 K. Raises OutOfDomain.
    """
    require("resolution_pa", resolution_pa, 0.01, 10_000.0, phrase("gauges_resolution_pa"))
    absolute = moment.baro_pa + moment.gauge_pa
    return math.hypot(math.sqrt(2) * resolution_pa, absolute * temp_doubt_k / moment.temp_k)


def least_seconds(volume_m3: float, leak_m3_s_standard: float, drop_doubt_pa: float, temp_k: float) -> float:
    """Return the shortest test in which ``leak_m3_s_standard`` makes a drop beyond ``drop_doubt_pa``, s.

    Shorter than that, a leak of the criterion's size could hide behind gauge and temperature. Raises OutOfDomain.
    """
    require("leak", 3.6e6 * leak_m3_s_standard, 1e-4, 1e5, phrase("leak_l_h"))
    moles = drop_doubt_pa * volume_m3 / (GAS_CONSTANT_J_MOL_K * temp_k)
    return moles / (leak_m3_s_standard * MOLES_PER_STANDARD_M3)


def leak_half_width_m3_s(
    found: Decay, volume_m3: float, volume_share: float, drop_doubt_pa: float, temp_k: float, seconds: float
) -> float:
    """Return the half-width of a leak, m3/s standard, from the doubt of the drop and of the volume (a share of it)."""
    by_drop = drop_doubt_pa * volume_m3 / (GAS_CONSTANT_J_MOL_K * temp_k) / MOLES_PER_STANDARD_M3 / seconds
    return math.hypot(by_drop, volume_share * found.leak_m3_s_standard)


@dataclass(frozen=True, slots=True)
class Medium:
    """What fills the line: viscosity, Pa s, and molar mass, kg/mol."""

    viscosity_pa_s: float
    molar_mass_kg: float


def leak_elsewhere(
    leak_m3_s: float, tested_pa: float, tested: Medium, working_pa: float, working: Medium
) -> tuple[float, float]:
    """Return the least and most leak at another pressure and with another gas, m3/s, gauge pressures in Pa.

    A pore leaks as pressure over viscosity, a hole as the root of pressure over density: which of the two it is, the
    test does not tell. Raises OutOfDomain.
    """
    for pascal in (tested_pa, working_pa):
        require("gauge_pa", pascal, 1.0, 2_000_000.0, phrase("gauge_pressure_pa"))
    pore = working_pa / tested_pa * tested.viscosity_pa_s / working.viscosity_pa_s
    hole = math.sqrt(working_pa / tested_pa * tested.molar_mass_kg / working.molar_mass_kg)
    return leak_m3_s * min(pore, hole), leak_m3_s * max(pore, hole)


def _moles(volume_m3: float, moment: Closed) -> float:
    return (moment.baro_pa + moment.gauge_pa) * volume_m3 / (GAS_CONSTANT_J_MOL_K * moment.temp_k)
