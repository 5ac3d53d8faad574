"""Which kind of measuring instrument reads a quantity: so the one in hand stands beside each reading."""

from collections.abc import Mapping
from typing import TypeVar

from havrin_core.vocabulary.measurands import measurand

Held = TypeVar("Held")

ANALYZER, MANOMETER, MULTIMETER = "analyzer", "manometer", "multimeter"
THERMOMETER, MONITOR, GAS_DETECTOR = "thermometer", "monitor", "gas_detector"
INSTRUMENT_KINDS: Mapping[str, str] = {
    ANALYZER: "Combustion analyzer",
    MANOMETER: "Manometer",
    MULTIMETER: "Multimeter or clamp meter",
    THERMOMETER: "Thermometer",
    MONITOR: "Room CO monitor",
    GAS_DETECTOR: "Gas detector",
}

# The kind that is made for a quantity stands first; of those in hand the first reads it.
_BY_QUANTITY: Mapping[str, tuple[str, ...]] = {
    "room_co_ppm": (MONITOR, ANALYZER),
    "outdoor_co_ppm": (MONITOR, ANALYZER),
    "supply_air_co_ppm": (ANALYZER, MONITOR),
    "gas_lel_pct": (GAS_DETECTOR,),
    "o2_dry_pct": (ANALYZER,),
    "co2_dry_pct": (ANALYZER,),
    "co_ppm_dry": (ANALYZER,),
    "o2_step_pct": (ANALYZER,),
    "co_step_ppm": (ANALYZER,),
    "intake_co_ppm": (ANALYZER, MONITOR),
    "discharge_co_ppm": (ANALYZER, MONITOR),
    "intake_no2_ppm": (ANALYZER,),
    "discharge_no2_ppm": (ANALYZER,),
    "flue_temp_k": (ANALYZER,),
    "air_temp_k": (ANALYZER, THERMOMETER),
    "outdoor_temp_k": (THERMOMETER,),
    "indoor_temp_k": (THERMOMETER,),
    "supply_air_temp_k": (THERMOMETER,),
    "return_air_temp_k": (THERMOMETER,),
    "temperature_rise_k": (THERMOMETER,),
    "water_supply_temp_k": (THERMOMETER,),
    "water_return_temp_k": (THERMOMETER,),
    "water_rise_k": (THERMOMETER,),
    "line_loss_pa": (MANOMETER,),
    "line_voltage_off_pct": (MULTIMETER,),
    "voltage_imbalance_pct": (MULTIMETER,),
    "current_imbalance_pct": (MULTIMETER,),
}
_BY_DIMENSION: Mapping[str, tuple[str, ...]] = {
    "pressure": (MANOMETER,),
    "draft": (MANOMETER, ANALYZER),
    "voltage": (MULTIMETER,),
    "millivolts": (MULTIMETER,),
    "current": (MULTIMETER,),
    "current_small": (MULTIMETER,),
    "resistance": (MULTIMETER,),
    "capacitance": (MULTIMETER,),
}


def kinds_that_read(quantity: str) -> tuple[str, ...]:
    """Return the kinds of instrument that read ``quantity``, the one made for it first.

    Empty where none of a technician's does: what a gauge of the plant, a stamp or a forecast says. Raises UnknownName.

    >>> kinds_that_read("manifold_pa")
    ('manometer',)
    """
    return _BY_QUANTITY.get(quantity) or _BY_DIMENSION.get(measurand(quantity).dimension, ())


def instrument_for(quantity: str, in_hand: Mapping[str, Held]) -> Held | None:
    """Return which of the instruments ``in_hand`` (by kind) read ``quantity``; None where none can have. Raises UnknownName."""
    return next((in_hand[kind] for kind in kinds_that_read(quantity) if kind in in_hand), None)
