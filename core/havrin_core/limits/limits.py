"""The band of a reading by order of authority: plate, manual, then the house's and Havrin's own."""

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import COMPUTED, by_manual, fuel_group
from havrin_core.limits.model import PHYSICS, PLATE, Band
from havrin_core.limits.table import usual
from havrin_core.machine.unit import Unit

# What a plate gives, so that it is asked for where it is missing: quantity -> the plate's own fields
PLATE_JUDGED = (
    "manifold_pa",
    "draft_pa",
    "draft_least_pa",
    "flame_current_a",
    "flame_least_a",
    "temperature_rise_k",
    "water_rise_k",
    "input_w",
    "supply_air_temp_k",
    "external_static_pa",
    "blower_current_a",
    "water_supply_temp_k",
)


def band_for(
    unit: Unit, rules: HouseRules, quantity: str, stage: str | None, running_pa: float | None = None
) -> Band | None:
    """Return the band for a reading, or None where nobody knows a limit.

    ``running_pa`` is the running supply, against which lock-up is judged. What only condemns (``acquits`` False)
    is returned where plate and manual say nothing.
    """
    computed = COMPUTED.get(quantity)
    band = computed(unit, rules, stage, running_pa) if computed else None
    if band is not None and band.source == PLATE:
        return _bounded(band, quantity, unit)
    limit = unit.manual_limit(quantity, stage)
    if limit is not None:
        return by_manual(limit)
    return band or usual(quantity, fuel_group(unit), unit.traits)


def _bounded(band: Band, quantity: str, unit: Unit) -> Band:
    """A plate typed wrong does not excuse what no unit may do."""
    physics = usual(quantity, fuel_group(unit), unit.traits)
    if physics is None or physics.source != PHYSICS or quantity in _PLATE_MAY_EXCEED:
        return band
    return band.within(physics)


_PLATE_MAY_EXCEED = ("supply_standing_pa", "supply_running_pa", "water_pressure_pa", "manifold_pa", "blower_current_a")
