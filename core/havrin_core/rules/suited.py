"""What a deed demands, said in what this unit has: an atmospheric boiler has no switch to tee into, a direct-fired unit no flue."""

from collections.abc import Mapping

from havrin_core.machine.unit import Unit

# proof -> the quantity at whose station it is read
_READ = {
    "draft_each_stage": "draft_pa", "manifold_each_stage": "manifold_pa", "input_each_stage": "input_w", "flame_each_stage": "flame_current_a",
    "rise_each_stage": "temperature_rise_k", "water_rise_each_stage": "water_rise_k", "water_pressure": "water_pressure_pa",
    "discharge_co_each_stage": "discharge_co_ppm",
}  # fmt: skip
# proof -> the station at which it is seen
_SEEN = {"vent_seen": "vent", "exchanger_seen": "exchanger", "relief_seen": "relief", "flue_each_stage": "flue"}
_INSTEAD: Mapping[str, str] = {
    "draft_each_stage": "spillage_tested", "flue_each_stage": "discharge_co_each_stage", "rise_each_stage": "water_rise_each_stage",
}  # fmt: skip


def suited(unit: Unit, proof: str) -> str | None:
    """Return the proof by which ``unit`` shows what ``proof`` asks for; None where it has nothing of the kind."""
    if _has(unit, proof):
        return proof
    other = _INSTEAD.get(proof)
    return other if other is not None and _has(unit, other) else None


def _has(unit: Unit, proof: str) -> bool:
    if proof == "trap_seen":
        return unit.kind.condensing
    if proof == "spillage_tested":
        return unit.kind.draft_hood
    stations = unit.stations()
    if proof in _READ:
        return any(station.quantity == _READ[proof] for station in stations)
    return proof not in _SEEN or any(station.key == _SEEN[proof] for station in stations)
