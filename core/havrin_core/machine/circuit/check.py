"""What a circuit must be before it is solved; every answer names the element."""

from collections.abc import Iterable

from havrin_core.errors import BadDocument
from havrin_core.machine.circuit.model import ELECTRICAL, HEATS, Circuit, Part
from havrin_core.physics.fuels import FUEL_NAMES

_TERMINALS = {"transformer": 4}
_NEEDS_OHM = ("source", "transformer", "load", "flame")


def check_circuit(circuit: Circuit) -> None:
    """Raise BadDocument for a circuit that cannot be what it says, naming the part, state or move."""
    for part in circuit.parts:
        _check_part(circuit, part)
    _check_string(circuit)
    _check_floating(circuit)
    _check_shorts(circuit)
    _check_dead_loops(circuit)
    _check_control(circuit)
    _check_plant(circuit)


def _refuse(code: str, text: str, value: str) -> None:
    raise BadDocument(code, text, value=value)


def _check_part(circuit: Circuit, part: Part) -> None:
    if sum(other.key == part.key for other in circuit.parts) > 1:
        _refuse("part_twice", f"Two parts are called {part.key!r}.", part.key)
    if part.kind not in (*ELECTRICAL, "thing"):
        _refuse("part_kind", f"part {part.key}: no kind {part.kind!r}: {', '.join(ELECTRICAL)}, thing.", part.key)
    if part.kind == "thing":
        return
    terminals = _TERMINALS.get(part.kind, 2)
    if len(part.nodes) != terminals or len(set(part.nodes)) != terminals:
        _refuse("part_nodes", f"part {part.key}: a {part.kind} joins {terminals} different nodes.", part.key)
    for node in part.nodes:
        if node not in circuit.nodes:
            _refuse("node_unknown", f"part {part.key}: no node is called {node!r}.", part.key)
    if part.kind in _NEEDS_OHM and not part.ohm > 0:
        _refuse("part_ohm", f"part {part.key}: a {part.kind} needs an “ohm” above 0.", part.key)


def _check_string(circuit: Circuit) -> None:
    known = {part.key for part in circuit.parts}
    for key in circuit.string:
        if key not in known:
            _refuse("string_part", f"The string names {key!r}, which is no part.", key)


def _check_floating(circuit: Circuit) -> None:
    joined = _islands(circuit, [part for part in circuit.parts if part.kind not in ("thing", "stray")])
    touched: dict[str, int] = {}
    for part in circuit.parts:
        for node in part.nodes:
            touched[node] = touched.get(node, 0) + 1
    for part in circuit.parts:
        if part.kind in ("thing", "stray"):
            continue
        loose = [n for n in part.nodes if touched[n] == 1 and n != circuit.ground]
        if len(loose) == len(part.nodes) or (loose and part.kind in ("load", "flame")):
            _refuse("part_floating", f"part {part.key} floats: nothing else is at {', '.join(loose)}.", part.key)
    for node in circuit.nodes:
        if node not in touched:
            _refuse("node_unused", f"Nothing is joined to node {node}.", node)
    if circuit.ground not in joined:
        _refuse("ground_unused", f"Nothing is joined to the ground {circuit.ground}.", circuit.ground)


def _check_shorts(circuit: Circuit) -> None:
    bare = _islands(circuit, [part for part in circuit.parts if part.kind in ("switch", "wire")])
    for part in circuit.parts:
        if part.kind == "source":
            ends = part.nodes
        elif part.kind == "transformer":
            ends = part.nodes[2:]
        else:
            continue
        if bare.get(ends[0], ends[0]) == bare.get(ends[1], ends[1]):
            text = f"part {part.key}: switches and wires alone join {ends[0]} to {ends[1]}: a short across it."
            _refuse("source_short", text, part.key)


def _check_dead_loops(circuit: Circuit) -> None:
    joined = _islands(circuit, [part for part in circuit.parts if part.kind not in ("thing", "stray")])
    fed = {joined[n] for part in circuit.parts if part.kind in ("source", "transformer", "flame") for n in part.nodes}
    for part in circuit.parts:
        if part.kind == "load" and joined[part.nodes[0]] not in fed:
            text = f"part {part.key} lies in a loop without a source: nothing could ever feed it."
            _refuse("loop_dead", text, part.key)


def _check_control(circuit: Circuit) -> None:
    keys = {state.key for state in circuit.control.states}
    for state in circuit.control.states:
        for move in state.moves:
            if move.to not in keys:
                _refuse("move_unknown", f"control state {state.key}: no state {move.to!r} to go to.", state.key)
    if circuit.control.lockout not in keys:
        _refuse("lockout_unknown", f"The control has no state {circuit.control.lockout!r} to lock out in.", "lockout")
    nodes = [n for i in circuit.control.inputs if i.nodes for n in i.nodes]
    for node in nodes:
        if node not in circuit.nodes:
            _refuse("input_node", f"The control reads at {node!r}, which is no node.", node)


def _check_plant(circuit: Circuit) -> None:
    plant = circuit.plant
    if plant is None:
        return
    if plant.fuel not in FUEL_NAMES:
        _refuse("plant_fuel", f"plant: no fuel {plant.fuel!r}: {', '.join(FUEL_NAMES)}.", plant.fuel)
    if plant.heats not in HEATS:
        _refuse("plant_heats", f"plant: heats {plant.heats!r}: {', '.join(HEATS)}.", plant.heats)
    if not plant.input_w > 0:
        _refuse("plant_input", "plant: input_w must be above nothing.", "input_w")
    if plant.has_flue and not (0 < plant.o2_pct < 18 and 290 < plant.stack_k < 900):
        _refuse("plant_flue", "plant: a flue needs o2_pct (0 to 18) and stack_k (290 to 900).", "plant")
    if plant.draft and plant.draft not in {quantity.name for quantity in circuit.quantities}:
        _refuse("plant_draft", f"plant: draft {plant.draft!r} is no quantity of this circuit.", plant.draft)


def _islands(circuit: Circuit, parts: Iterable[Part]) -> dict[str, str]:
    """Return the name of the island of each node that ``parts`` touch, all switches closed."""
    parent: dict[str, str] = {}

    def root(node: str) -> str:
        while parent.setdefault(node, node) != node:
            node = parent[node]
        return node

    for part in parts:
        for first, second in _pairs(part):
            parent[root(second)] = root(first)
    return {node: root(node) for node in list(parent)}


def _pairs(part: Part) -> Iterable[tuple[str, str]]:
    if part.kind == "transformer":
        return [(part.nodes[0], part.nodes[1]), (part.nodes[2], part.nodes[3])]
    return [(part.nodes[0], part.nodes[1])]
