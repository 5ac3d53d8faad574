"""The line side of a circuit: which nodes carry the line's volts, and against what they are measured."""

from functools import lru_cache

from havrin_core.machine.circuit.model import Circuit, Part

LEAST_LINE_V = 50.0  # above what a control transformer gives, below any line
_LEG = "leg"


@lru_cache(maxsize=256)
def line_nodes(circuit: Circuit) -> frozenset[str]:
    """Return the nodes that a source of line voltage feeds, whatever is in between; not ground, nor the secondary's common."""
    ends = {circuit.ground, circuit.common}
    found = {node for part in circuit.parts if _feeds(part) for node in part.nodes} - ends
    while True:
        more = {node for part in circuit.parts if found & set(_passes(part)) for node in _passes(part)} - ends - found
        if not more:
            return frozenset(found)
        found |= more


@lru_cache(maxsize=256)
def legs_of(circuit: Circuit) -> tuple[str, ...]:
    """Return the hot ends of the legs, each against ground; none on a line of one hot and a neutral."""
    return tuple(part.nodes[0] for part in circuit.parts if part.family == _LEG)


def measured_against(circuit: Circuit, node: str) -> str:
    """Return the node that the volts of ``node`` are read against: a leg's the next leg, a hot's the neutral, else common."""
    legs = legs_of(circuit)
    if len(legs) > 1 and node in legs:
        return legs[(legs.index(node) + 1) % len(legs)]
    source = next((part for part in circuit.parts if _feeds(part) and part.nodes[0] == node), None)
    return source.nodes[1] if source else circuit.common


def _feeds(part: Part) -> bool:
    return part.kind == "source" and not part.direct and part.volts > LEAST_LINE_V


def _passes(part: Part) -> tuple[str, ...]:
    """A transformer's windings are apart: only its primary is on the line."""
    return part.nodes[:2] if part.kind in ("switch", "wire", "load", "transformer") else ()
