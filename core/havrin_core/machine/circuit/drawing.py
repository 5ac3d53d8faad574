"""A circuit as rungs: each from a supply through what is in series to one load, and back."""

from dataclasses import dataclass

from havrin_core.machine.circuit.model import Circuit, Part

_SERIES = ("switch", "wire")


@dataclass(frozen=True, slots=True)
class Rung:
    """Parts in series, and the nodes between them: one more than there are parts."""

    load: str
    parts: tuple[str, ...]
    nodes: tuple[str, ...]


def rungs(circuit: Circuit) -> tuple[Rung, ...]:
    """Return the rungs of ``circuit``, the one with most of the string first."""
    found = [_rung(circuit, part) for part in circuit.parts if part.kind == "load" and part.acts]
    found += [_flame_rung(circuit, part) for part in circuit.parts if part.kind == "flame"]
    in_string = set(circuit.string)
    return tuple(sorted(found, key=lambda rung: -len(in_string & set(rung.parts))))


def _rung(circuit: Circuit, load: Part) -> Rung:
    parts, nodes = [load.key], [load.nodes[1], load.nodes[0]]
    supplies = _supplies(circuit)
    seen = set(nodes)
    while nodes[-1] not in supplies:
        step = _feeder(circuit, nodes[-1], seen)
        if step is None:
            break
        parts.append(step.key)
        nodes.append(next(n for n in step.nodes if n != nodes[-1]))
        seen.add(nodes[-1])
    return Rung(load.key, tuple(reversed(parts)), tuple(reversed(nodes)))


def _flame_rung(circuit: Circuit, rod: Part) -> Rung:
    ground = next((p for p in circuit.parts if p.kind == "wire" and rod.nodes[1] in p.nodes), None)
    if ground is None:
        return Rung(rod.key, (rod.key,), rod.nodes)
    end = next(n for n in ground.nodes if n != rod.nodes[1])
    return Rung(rod.key, (rod.key, ground.key), (*rod.nodes, end))


def _supplies(circuit: Circuit) -> set[str]:
    hot = {part.nodes[0] for part in circuit.parts if part.kind == "source"}
    return hot | {part.nodes[2] for part in circuit.parts if part.kind == "transformer"}


def _feeder(circuit: Circuit, node: str, seen: set[str]) -> Part | None:
    """Return the series part that feeds ``node``: one that leads to a node not passed yet."""
    for part in circuit.parts:
        if part.kind in _SERIES and part.nodes[1] == node and part.nodes[0] not in seen:
            return part
    return None
