"""Heat carried by water or glycol."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain, UnknownName
from havrin_core.phrases import phrase
from havrin_core.physics.constants import ICE_POINT_K
from havrin_core.physics.states import require


@dataclass(frozen=True, slots=True)
class Fluid:
    """A heating fluid: polynomials in (t/°C - 50)/50, constant term first, for 200 kPa."""

    key: str
    label: str
    density: tuple[float, ...]  # kg/m3
    heat_capacity: tuple[float, ...]  # J/(kg K)
    least_c: float

    def at(self, temp_k: float) -> tuple[float, float]:
        """Return density, kg/m3, and heat capacity, J/(kg K), at ``temp_k``. Raises OutOfDomain."""
        celsius = temp_k - ICE_POINT_K
        require("mean_temp_c", celsius, self.least_c, 110.0, phrase("temperature_c", label=self.label))
        x = (celsius - 50) / 50
        return _sum(self.density, x), _sum(self.heat_capacity, x)


def _sum(coefficients: tuple[float, ...], x: float) -> float:
    total = 0.0
    for coefficient in reversed(coefficients):
        total = total * x + coefficient
    return total


# Water: IAPWS-95 at 200 kPa, fitted 0.5-110 °C within 0.002 % (density) and 0.014 % (heat capacity).
# Propylene glycol: Melinder's secondary-coolant tables by mass (within 0.05 %), the ASHRAE tables by volume.
FLUIDS: Mapping[str, Fluid] = {
    fluid.key: fluid
    for fluid in (
        Fluid(
            "water",
            "water",
            (988.074, -22.623, -8.11962, 1.59871, -0.802352, 0.262838),
            (4181.26, 14.4426, 17.9907, -7.71092, 17.6655, -8.03494),
            0.1,
        ),
        Fluid(
            "pg20_mass",
            "20 % propylene glycol by mass",
            (1001.23, -27.02, -6.25726, 1.91177),
            (4040.07, 102.816, -2.20051),
            -7.0,
        ),
        Fluid(
            "pg30_mass",
            "30 % propylene glycol by mass",
            (1007.49, -30.7664, -5.00353, 1.69576),
            (3936.55, 128.906, -5.31556),
            -12.0,
        ),
        Fluid(
            "pg40_mass",
            "40 % propylene glycol by mass",
            (1013.34, -34.4287, -3.85557, 1.56415),
            (3802.48, 157.562, -3.36502),
            -20.0,
        ),
        Fluid(
            "pg50_mass",
            "50 % propylene glycol by mass",
            (1018.03, -37.3473, -2.921, 1.51694),
            (3645.26, 191.353, -0.773884),
            -30.0,
        ),
        Fluid(
            "pg30_vol",
            "30 % propylene glycol by volume",
            (1012.69, -29.9347, -6.38738, -0.000602351),
            (3930.32, 137.402, 0.0598312),
            -12.0,
        ),
        Fluid(
            "pg40_vol",
            "40 % propylene glycol by volume",
            (1019.06, -32.4938, -6.42997, -0.000481436),
            (3800.76, 165.173, 0.0289769),
            -20.0,
        ),
    )
}


def fluid(key: str) -> Fluid:
    """Return the fluid called ``key``. Raises UnknownName."""
    if key not in FLUIDS:
        raise UnknownName("fluid_unknown", phrase("no_fluid_called", key_=key, fluids=", ".join(FLUIDS)), value=key)
    return FLUIDS[key]


def heat_w(what: Fluid, mean_temp_k: float, difference_k: float, flow_m3_s: float) -> float:
    """Return the heat that a flow carries, W: density and heat capacity at the mean temperature.

    Args:
        difference_k: supply less return, 0 to 100.
        flow_m3_s: 0 to 0.5.

    Raises OutOfDomain.
    """
    _check(difference_k)
    require("flow_l_min", 60_000 * flow_m3_s, 0.0, 30_000.0, phrase("flow_l_min"))
    density, capacity = what.at(mean_temp_k)
    return flow_m3_s * density * capacity * difference_k


def flow_m3_s(what: Fluid, mean_temp_k: float, difference_k: float, output_w: float) -> float:
    """Return the flow that carries ``output_w`` at ``difference_k``, m3/s. Raises OutOfDomain."""
    _check(difference_k)
    if difference_k < 0.2:
        raise OutOfDomain(
            "difference_small",
            phrase("too_small_difference_tell_flow"),
            quantity="temp_diff_k",
            value=difference_k,
        )
    density, capacity = what.at(mean_temp_k)
    return output_w / (density * capacity * difference_k)


def _check(difference_k: float) -> None:
    if not 0.0 <= difference_k <= 100.0:
        message = phrase("supply_colder_than_return") if difference_k < 0 else phrase("difference_above_100_k")
        raise OutOfDomain("difference_range", message, quantity="temp_diff_k", value=difference_k)
