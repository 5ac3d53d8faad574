"""A closed water system: how far its water expands, the vessel and the pre-charge that take it up."""

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.hydronics import Fluid
from havrin_core.physics.states import require

WATER_PA_M = 9_700.0  # cold water, per metre of height
OVER_HEAD_PA = 28_000.0  # 4 psi, left at the top of the system


def expanded_m3(what: Fluid, system_m3: float, cold_k: float, hot_k: float) -> float:
    """Return by how much ``system_m3`` of cold fluid grows, m3. Raises OutOfDomain."""
    require("system_m3", 1000 * system_m3, 1.0, 100_000.0, phrase("volume_litres"))
    cold, _ = what.at(cold_k)
    hot, _ = what.at(hot_k)
    return system_m3 * (cold / hot - 1)


def vessel_m3(expansion_m3: float, cold_gauge_pa: float, most_gauge_pa: float, baro_pa: float) -> float:
    """Return the least whole volume of a diaphragm vessel, m3, pre-charged to the cold pressure (Boyle). Raises OutOfDomain."""
    if not most_gauge_pa > cold_gauge_pa >= 0:
        raise OutOfDomain("vessel", phrase("relief_above_cold_pressure"), quantity="most_gauge_pa", value=most_gauge_pa)
    return expansion_m3 / (1 - (cold_gauge_pa + baro_pa) / (most_gauge_pa + baro_pa))


def precharge_pa(height_m: float) -> float:
    """Return the pre-charge that a system of ``height_m`` over the vessel wants, Pa gauge. Raises OutOfDomain."""
    require("height_m", height_m, 0.0, 200.0, phrase("height_m"))
    return WATER_PA_M * height_m + OVER_HEAD_PA
