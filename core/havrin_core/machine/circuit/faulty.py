"""The parts of a circuit as faults leave them: joined elsewhere, silent, or with a path to ground."""

from collections.abc import Iterable, Sequence
from dataclasses import replace

from havrin_core.machine.circuit.model import Circuit, FaultMode, Part


def wired_parts(circuit: Circuit, faults: Sequence[FaultMode], bridged: Iterable[str] = ()) -> list[Part]:
    """Return the electrical parts of ``circuit`` with those faults that join them otherwise put in, and jumpers across ``bridged``."""
    parts = [part for part in circuit.parts if part.kind != "thing"]
    for fault in faults:
        if fault.reverses:
            parts = _reversed(circuit, parts, circuit.part(fault.part))
        if fault.to_ground_ohm is not None:
            parts.append(_to_ground(circuit, fault))
    across = (circuit.part(key).nodes for key in bridged)
    return parts + [
        Part(f"jumper {a} {b}", "Jumper", "wire", (a, b)) for a, b in (nodes[:2] for nodes in across if nodes)
    ]


def _reversed(circuit: Circuit, parts: Sequence[Part], line: Part) -> list[Part]:
    """The ground stays bonded to the house's neutral, which now comes in where the hot should."""
    hot, neutral = line.nodes
    bond = {neutral, circuit.ground}
    return [
        replace(part, nodes=(hot, circuit.ground)) if part.kind == "wire" and set(part.nodes) == bond else part
        for part in parts
        if not part.polarity
    ]


def _to_ground(circuit: Circuit, fault: FaultMode) -> Part:
    # The far end of a wire, the near end of a rod: where the bare metal lies.
    part = circuit.part(fault.part)
    node = part.nodes[0] if part.kind == "flame" else part.nodes[1]
    return Part(fault.key, fault.name, "load", (node, circuit.ground), ohm=fault.to_ground_ohm or 0.0)
