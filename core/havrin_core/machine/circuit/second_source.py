"""The same circuit beside a heat pump: a changeover control stands between the thermostat and each call for gas heat."""

from dataclasses import replace
from functools import lru_cache

from havrin_core.machine.circuit.model import Circuit, Condition, Part
from havrin_core.machine.circuit.read import faults_of

_MILD = "outdoor_mild"


@lru_cache(maxsize=256)
def beside_heat_pump(circuit: Circuit) -> Circuit:
    """Return ``circuit`` with a changeover in every heat call; as it is where it has one, or no thermostat.

    One object for each circuit, as the search keeps its pictures by it.
    """
    if any(part.family == "changeover" for part in circuit.parts):
        return circuit
    calls = [part for part in circuit.parts if part.family == "thermostat" and part.kind == "switch"]
    if not calls:
        return circuit
    for number, call in enumerate(calls, 1):
        circuit = _changed_over(circuit, call, "" if number == 1 else f"_{number}")
    return replace(circuit, conditions=(Condition(_MILD, ("never",)), *circuit.conditions))


def _changed_over(circuit: Circuit, call: Part, suffix: str) -> Circuit:
    board = call.nodes[1]
    before = _free_name(circuit, f"{board}T")
    control = Part(
        f"changeover{suffix}",
        f"Changeover control{', second stage' if suffix else ''}",
        "switch",
        (before, board),
        closed_when=(f"!{_MILD}",),
        family="changeover",
    )
    parts = [replace(part, nodes=(call.nodes[0], before)) if part.key == call.key else part for part in circuit.parts]
    at = next(place for place, part in enumerate(parts) if part.key == call.key) + 1
    nodes = {**circuit.nodes, before: f"{circuit.nodes[board]}, from the thermostat"}
    changed = replace(circuit, nodes=nodes, parts=(*parts[:at], control, *parts[at:]))
    return replace(changed, faults=(*circuit.faults, *faults_of(changed, control)))


def _free_name(circuit: Circuit, wanted: str) -> str:
    name = wanted
    while name in circuit.nodes:
        name += "T"
    return name
