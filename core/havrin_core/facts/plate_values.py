"""Values that a technician reads off a unit's own plate on a visit: they count at once, and the unit keeps them."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Any

from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import Correction, Entry, PlateValue
from havrin_core.vocabulary.measurands import measurand

# quantity -> the plate's fields for it; two are least and most
STAGED_FIELDS = {"manifold_pa": "manifold_pa", "draft_pa": "switch_makes_pa", "input_w": "input_w"}
PLATE_FIELDS: Mapping[str, tuple[str, ...]] = {
    "supply_running_pa": ("supply_min_pa", "supply_max_pa"),
    "temperature_rise_k": ("rise_min_k", "rise_max_k"),
    "water_rise_k": ("water_rise_min_k", "water_rise_max_k"),
    "supply_air_temp_k": ("supply_air_max_k",),
    "external_static_pa": ("static_max_pa",),
    "blower_current_a": ("blower_full_load_a",),
    "flame_current_a": ("flame_min_a",),
    "water_pressure_pa": ("water_relief_pa",),
    "water_supply_temp_k": ("water_max_k",),
}
_NAMES = {
    "manifold_pa": "manifold pressure",
    "draft_pa": "pressure switch makes at",
    "input_w": "input",
    "supply_running_pa": "least and most supply",
    "temperature_rise_k": "temperature rise range",
    "water_rise_k": "water rise range",
    "supply_air_temp_k": "hottest supply air",
    "external_static_pa": "most external static",
    "blower_current_a": "blower, full load",
    "flame_current_a": "least flame signal",
    "water_pressure_pa": "relief valve",
    "water_supply_temp_k": "hottest water",
}


def is_staged(quantity: str) -> bool:
    """Tell whether the plate gives ``quantity`` per stage."""
    return quantity in STAGED_FIELDS


def numbers_wanted(quantity: str) -> int:
    """Return how many numbers the plate gives for ``quantity``: 0 where it gives none."""
    return 1 if is_staged(quantity) else len(PLATE_FIELDS.get(quantity, ()))


def plate_name(quantity: str, stage: str | None) -> str:
    """Return how the plate's value is called."""
    label = STAGE_LABELS[stage] if stage else ""
    name = _NAMES.get(quantity, measurand(quantity).name.lower())
    return f"{name}, {label} fire" if label else name


def plate_changes(entries: Iterable[Entry]) -> dict[str, Any]:
    """Return what the tape read off the plate, as a plate document: the newest of each, corrections applied."""
    changes: dict[str, Any] = {}
    stages: dict[str, dict[str, Any]] = {}
    given = list(entries)
    for line in effective(given) if any(map(_is_of_plate, given)) else ():
        body = line.body
        if not isinstance(body, PlateValue):
            continue
        if is_staged(body.quantity):
            key = body.stage or "only"
            stages.setdefault(key, {"key": key})[STAGED_FIELDS[body.quantity]] = abs(body.values[0])
        else:
            changes |= dict(zip(PLATE_FIELDS[body.quantity], body.values, strict=True))
    return {**changes, "stages": list(stages.values())} if stages else changes


def _is_of_plate(entry: Entry) -> bool:
    body = entry.body
    return isinstance(body.replacement if isinstance(body, Correction) else body, PlateValue)


def plated(unit: Unit, entries: Iterable[Entry]) -> Unit:
    """Return ``unit`` with what the tape read off its plate."""
    changes = plate_changes(entries)
    if not changes:
        return unit
    by_stage = {row["key"]: row for row in changes.pop("stages", ())}
    stages = tuple(
        replace(s, **{k: v for k, v in by_stage[s.key].items() if k != "key"}) if s.key in by_stage else s
        for s in unit.plate.stages
    )
    return replace(unit, plate=replace(unit.plate, stages=stages, **changes))
