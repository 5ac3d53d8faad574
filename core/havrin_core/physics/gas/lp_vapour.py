"""LP in the tank: its pressure is the vapour pressure of its temperature, not its fill."""

import math

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.fuels import Fuel
from havrin_core.physics.states import require

# ln(p/pc) = Tc/T * sum N (1 - T/Tc)^t: critical point in K and Pa, then (N, t).
# Sources: E. W. Lemmon et al. 2009 (propane), D. Buecker and W. Wagner 2006 (butanes); propylene's little share as propane.
Saturation = tuple[float, float, tuple[tuple[float, float], ...]]
_PROPANE: Saturation = (
    369.89,
    4.2512e6,
    ((-6.7722, 1.0), (1.6938, 1.5), (-1.3341, 2.2), (-3.1876, 4.8), (0.94937, 6.2)),
)
_N_BUTANE: Saturation = (
    425.125,
    3.796e6,
    ((-7.17616903, 1.0), (2.53635336, 1.5), (-2.07532869, 2.0), (-2.82241113, 4.5)),
)
_ISOBUTANE: Saturation = (
    407.81,
    3.629e6,
    ((-6.85093103, 1.0), (1.36543198, 1.5), (-1.32542691, 2.5), (-2.56190994, 4.5)),
)
_SATURATION = {"C3H8": _PROPANE, "C3H6": _PROPANE, "nC4H10": _N_BUTANE, "iC4H10": _ISOBUTANE}
_WALL_W_M2_K = 7.0  # still air outside, dry wall; frost on it halves this


def vapour_pressure_pa(fuel: Fuel, temp_k: float) -> float:
    """Return the absolute vapour pressure of LP at ``temp_k`` (230 to 340 K), mixed by Raoult's law.

    Within 1 % of tabulated propane from -40 to 50 °C; mixtures within a few %. Raises OutOfDomain: a fuel that does not stand as a liquid.
    """
    if any(component not in _SATURATION for component, _ in fuel.composition):
        raise OutOfDomain(
            "not_lp", phrase("does_not_stand_liquid_tank", fuel=fuel.label), quantity="fuel", value=fuel.name
        )
    require("temp_k", temp_k, 230.0, 340.0, phrase("tank_temperature_k"))
    return sum(share * _of(component, temp_k) for component, share in fuel.composition)


def _of(component: str, temp_k: float) -> float:
    critical_k, critical_pa, terms = _SATURATION[component]
    distance = 1 - temp_k / critical_k
    return critical_pa * math.exp(critical_k / temp_k * sum(n * distance**t for n, t in terms))


def vaporising_heat_w(diameter_m: float, length_m: float, fill: float, warmer_k: float) -> float:
    """Return the heat that reaches the liquid of a lying tank, W: what it can vaporise for long.

    Args:
        fill: share of the volume that is liquid, 0 to 0.85.
        warmer_k: outdoor air over the liquid, 0 to 40; the liquid may cool until the regulator lacks pressure.

    Raises OutOfDomain.
    """
    require("fill", fill, 0.0, 0.85, phrase("fill"))
    require("warmer_k", warmer_k, 0.0, 40.0, phrase("difference_k"))
    return _WALL_W_M2_K * diameter_m * _half_angle(fill) * length_m * warmer_k


LIQUID_KG_M3 = 505.0  # propane at 15 °C; butane is a seventh heavier
_SLIMNESS = 3.0  # length over diameter of usual tanks


def tank_size_m(volume_m3: float) -> tuple[float, float]:
    """Return diameter and length, m, of a usual lying tank of ``volume_m3`` (20 l to 200 m3). Raises OutOfDomain."""
    require("volume_m3", volume_m3, 0.02, 200.0, phrase("tanks_volume_m3"))
    diameter = (4 * volume_m3 / (math.pi * _SLIMNESS)) ** (1 / 3)
    return diameter, _SLIMNESS * diameter


def sustained_input_w(fuel: Fuel, volume_m3: float, fill: float, outdoor_k: float, least_pa: float) -> float:
    """Return the gross input that a tank sustains, W: heat from outdoors vaporises liquid that cools no further than it may.

    The liquid may cool until its vapour has ``least_pa`` absolute left for the regulator. Raises OutOfDomain.
    """
    diameter, length = tank_size_m(volume_m3)
    coldest = _temperature_at(fuel, least_pa)
    warmer = min(max(outdoor_k - coldest, 0.0), 40.0)
    vapour_kg_s = vaporising_heat_w(diameter, length, fill, warmer) / _LATENT_J_KG
    return vapour_kg_s / fuel.molar_mass_kg * fuel.gross_j_mol


def hours_left(fuel: Fuel, volume_m3: float, fill: float, input_gross_w: float) -> float:
    """Return how long the liquid lasts at ``input_gross_w`` all the time, h; the last twentieth does not come out. Raises OutOfDomain."""
    require("fill", fill, 0.0, 0.95, phrase("fill"))
    if not input_gross_w > 0:
        raise OutOfDomain("load", phrase("input_above_nothing"), quantity="input_w", value=input_gross_w)
    mass = LIQUID_KG_M3 * volume_m3 * max(fill - _STAYS_BEHIND, 0.0)
    return mass / fuel.molar_mass_kg * fuel.gross_j_mol / input_gross_w / 3600


_LATENT_J_KG, _STAYS_BEHIND = 4.0e5, 0.05


def _temperature_at(fuel: Fuel, pressure_pa: float) -> float:
    low, high = 230.0, 340.0
    while high - low > 0.01:
        middle = 0.5 * (low + high)
        low, high = (middle, high) if vapour_pressure_pa(fuel, middle) < pressure_pa else (low, middle)
    return low


def _half_angle(fill: float) -> float:
    """Return half the angle of the wetted arc, rad, where ``fill`` of the circle's area is liquid."""
    low, high = 0.0, math.pi
    for _ in range(50):
        middle = 0.5 * (low + high)
        share = (middle - math.sin(middle) * math.cos(middle)) / math.pi
        low, high = (middle, high) if share < fill else (low, middle)
    return low
