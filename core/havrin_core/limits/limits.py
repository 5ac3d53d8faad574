"""The band of a reading by order of authority: plate, manual, then the house's and Havrin's own."""

from dataclasses import replace

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import COMPUTED, by_manual, fuel_group
from havrin_core.limits.model import NOTHING_BESIDE, PHYSICS, PLATE, Band, Beside
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
    unit: Unit, rules: HouseRules, quantity: str, stage: str | None, beside: Beside = NOTHING_BESIDE
) -> Band | None:
    """Return the band for a reading, or None where nobody knows a limit.

    What is stamped on the plate goes before the manual, and the manual before all that is computed or assumed.
    ``beside`` is what was read beside it: lock-up is judged against running supply, draft against outdoors. What only
    condemns (``acquits`` False) is returned where plate and manual say nothing.
    """
    computed = COMPUTED.get(quantity)
    band = computed(unit, rules, stage, beside) if computed else None
    limit = unit.manual_limit(quantity, stage)
    otherwise = by_manual(limit) if limit is not None else usual(quantity, fuel_group(unit), unit.traits, rules.region)
    if band is not None and band.source == PLATE:
        return _bounded(_whole(band, otherwise) if quantity == "supply_running_pa" else band, quantity, unit, rules)
    if limit is not None or band is None:
        return otherwise
    return _bounded(band, quantity, unit, rules)


def _whole(stamped: Band, otherwise: Band | None) -> Band:
    """Return the stamped ends; the end that is not stamped comes from the next in authority, which is then named."""
    if otherwise is None or None not in (stamped.low, stamped.high):
        return stamped
    low = stamped.low if stamped.low is not None else otherwise.low
    high = stamped.high if stamped.high is not None else otherwise.high
    return replace(otherwise, low=low, high=high, note=stamped.note or otherwise.note)


def _bounded(band: Band, quantity: str, unit: Unit, rules: HouseRules) -> Band:
    """A plate typed wrong does not excuse what no unit may do."""
    physics = usual(quantity, fuel_group(unit), unit.traits, rules.region)
    if physics is None or physics.source != PHYSICS or quantity in _PLATE_MAY_EXCEED:
        return band
    return band.within(physics)


_PLATE_MAY_EXCEED = ("supply_standing_pa", "supply_running_pa", "water_pressure_pa", "manifold_pa", "blower_current_a")
