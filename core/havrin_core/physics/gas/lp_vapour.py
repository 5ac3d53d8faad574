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


def _half_angle(fill: float) -> float:
    """Return half the angle of the wetted arc, rad, where ``fill`` of the circle's area is liquid."""
    low, high = 0.0, math.pi
    for _ in range(50):
        middle = 0.5 * (low + high)
        share = (middle - math.sin(middle) * math.cos(middle)) / math.pi
        low, high = (middle, high) if share < fill else (low, middle)
    return low
