"""What a unit is, as traits: by them the vocabulary knows which parts it has."""

from functools import lru_cache
from typing import TYPE_CHECKING

from havrin_core.physics.fuels import LP_FUELS
from havrin_core.vocabulary.catalogue import Part, parts

if TYPE_CHECKING:
    from havrin_core.machine.unit import Unit

_PILOT_PARTS = ("pilot", "pilot_valve")
_SPARK, _ROD, _HOT_SURFACE, _COUPLE = "spark", "rod", "igniter", "thermocouple"


def traits_of(unit: "Unit") -> frozenset[str]:
    """Return the traits of ``unit``: sides (air, water, flue), fire (premix, pilot …), and ``device:KEY`` of each device."""
    stations = {station.key for station in unit.stations()}
    quantities = {station.quantity for station in unit.stations()}
    has = {
        "flue": "flue" in stations,
        "exchanger": "exchanger" in stations,
        "water": "water_pressure" in stations,
        "air": "supply_air_temp_k" in quantities or "blower" in stations,
        "induced": "draft" in stations,
        "direct_fired": "discharge_co" in stations,
        "condensing": unit.kind.condensing,
        "draft_hood": unit.kind.draft_hood,
        "category_i": unit.plate.vent_category == "I",
        "premix": unit.kind.condensing and unit.kind.modulating and "water_pressure" in stations,
        "second_source": unit.kind.second_source,
        "lp": unit.plate.fuel in LP_FUELS,
    }
    return frozenset(name for name, is_so in has.items() if is_so) | _of_circuit(unit) | _of_devices(unit)


def _of_circuit(unit: "Unit") -> frozenset[str]:
    if unit.circuit is None:  # nobody knows: every way of lighting is possible
        return frozenset(("pilot", "spark", "igniter", "rod", "thermocouple"))
    families = {part.family for part in unit.circuit.parts}
    keys = {part.key for part in unit.circuit.parts}
    has = {
        "pilot": bool(keys & set(_PILOT_PARTS)),
        "spark": _SPARK in families,
        "igniter": _HOT_SURFACE in families,
        "rod": _ROD in families,
        "thermocouple": _COUPLE in families,
    }
    return frozenset(name for name, is_so in has.items() if is_so)


def _of_devices(unit: "Unit") -> frozenset[str]:
    wired = {part.key for part in unit.circuit.parts} if unit.circuit else set()
    also = {name for key, name in _WIRED_AS.items() if key in wired}
    return frozenset(f"device:{key}" for key in (*unit.kind.safety_devices, *also))


# keys of shipped circuits -> the device's own key
_WIRED_AS = {
    "pressure_low": "pressure_switch",
    "pressure_high": "pressure_switch_high",
    "aux_limit": "aux_limit",
    "gas_pressure": "gas_pressure_switch_low",
    "spill": "spill_switch",
    "airflow_low": "airflow_switch_low",
    "airflow_high": "airflow_switch_high",
    "low_water": "low_water",
}


def parts_of(unit: "Unit") -> frozenset[str]:
    """Return the keys of the parts that ``unit`` has."""
    return _parts_with(unit.traits)


@lru_cache(maxsize=256)
def _parts_with(traits: frozenset[str]) -> frozenset[str]:
    return frozenset(key for key, part in parts().items() if _is_on(part, traits))


def devices_of(unit: "Unit") -> tuple[str, ...]:
    """Return the safety devices of ``unit``: those of its kind first, then what its parts bring along."""
    own = parts_of(unit)
    also = tuple(key for key, part in parts().items() if part.safety and key in own)
    return tuple(dict.fromkeys((*(d for d in unit.kind.safety_devices if d in own), *also)))


def _is_on(part: Part, traits: frozenset[str]) -> bool:
    return not part.on or not traits.isdisjoint(part.on)
