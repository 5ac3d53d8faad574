"""The same circuit on another fuel: what burns is the unit's own trait, not the circuit's."""

from dataclasses import replace
from functools import lru_cache

from havrin_core.machine.circuit.model import Circuit


@lru_cache(maxsize=256)
def of_fuel(circuit: Circuit, fuel: str) -> Circuit:
    """Return ``circuit`` with its fire on ``fuel`` (a key of FUEL_NAMES): one object for each, as the search keeps its pictures by it."""
    plant = circuit.plant
    if plant is None or plant.fuel == fuel:
        return circuit
    return replace(circuit, plant=replace(plant, fuel=fuel))
