"""Airflow from output and temperature rise, at the density of the place."""

from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.constants import AIR_AR, AIR_N2, AIR_O2
from havrin_core.physics.fuels import AIR_MOLAR_MASS_KG
from havrin_core.physics.species import mixture_sensible_j
from havrin_core.physics.states import density_kg_m3, require

SEA_LEVEL_FACTOR = 1.08  # Btu/h per CFM and °F: air of 0.075 lb/ft3, shown beside the right figure


@dataclass(frozen=True, slots=True)
class Airflow:
    """Air through a unit: SI, volumes at the return's and at the supply's own state."""

    mass_flow_kg_s: float
    heat_capacity_j_kg_k: float
    flow_m3_s_return: float
    flow_m3_s_supply: float


def airflow(output_w: float, return_temp_k: float, rise_k: float, baro_pa: float) -> Airflow:
    """Return the airflow that takes up ``output_w`` over ``rise_k``.

    Args:
        output_w: heat given to the air, 100 W to 5 MW.
        return_temp_k: 220 to 340.
        rise_k: 1 to 150.
        baro_pa: 50 to 110 kPa.

    Dry air, mean NASA heat capacity between return and supply. Raises OutOfDomain.
    """
    require("output_w", output_w, 100.0, 5e6, phrase("output_w"))
    require("return_temp_k", return_temp_k, 220.0, 340.0, phrase("return_temperature_k"))
    if not 1.0 <= rise_k <= 150.0:
        message = phrase("supply_not_warmer_than_return")
        raise OutOfDomain("rise_range", message, quantity="temp_rise_k", value=rise_k)
    require("baro_pa", baro_pa, 50_000.0, 110_000.0, phrase("barometric_pressure_pa"))
    mass = output_w / (heat_capacity_j_kg_k(return_temp_k, return_temp_k + rise_k) * rise_k)
    at_return = density_kg_m3(AIR_MOLAR_MASS_KG, baro_pa, return_temp_k)
    at_supply = density_kg_m3(AIR_MOLAR_MASS_KG, baro_pa, return_temp_k + rise_k)
    return Airflow(
        mass, heat_capacity_j_kg_k(return_temp_k, return_temp_k + rise_k), mass / at_return, mass / at_supply
    )


def heat_capacity_j_kg_k(cold_k: float, hot_k: float) -> float:
    """Return the mean heat capacity of dry air between two temperatures, J/(kg K)."""
    amounts = {"O2": AIR_O2, "AR": AIR_AR, "N2": AIR_N2}
    return mixture_sensible_j(amounts, hot_k, cold_k) / (hot_k - cold_k) / AIR_MOLAR_MASS_KG


def rise_k_for(output_w: float, mass_flow_kg_s: float, return_temp_k: float) -> float:
    """Return the rise that ``output_w`` gives to ``mass_flow_kg_s`` of air: what another output or airflow would show."""
    rise = output_w / (1006.0 * mass_flow_kg_s)
    for _ in range(4):
        rise = output_w / (heat_capacity_j_kg_k(return_temp_k, return_temp_k + rise) * mass_flow_kg_s)
    return rise
