"""What a circuit must be before it is solved; every answer names the element."""

from collections.abc import Iterable

from havrin_core.errors import BadDocument
from havrin_core.machine.circuit.model import ELECTRICAL, HEATS, Circuit, Part
from havrin_core.phrases import Phrase, phrase
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


def _refuse(code: str, text: Phrase, value: str) -> None:
    raise BadDocument(code, text, value=value)


def _check_part(circuit: Circuit, part: Part) -> None:
    if sum(other.key == part.key for other in circuit.parts) > 1:
        _refuse("part_twice", phrase("two_parts_are_called", part=part.key), part.key)
    if part.kind not in (*ELECTRICAL, "thing"):
        _refuse(
            "part_kind",
            phrase("part_no_kind_thing", part=part.key, kind=part.kind, electrical=", ".join(ELECTRICAL)),
            part.key,
        )
    if part.kind == "thing":
        return
    terminals = _TERMINALS.get(part.kind, 2)
    if len(part.nodes) != terminals or len(set(part.nodes)) != terminals:
        _refuse(
            "part_nodes",
            phrase("part_joins_different_nodes", part=part.key, kind=part.kind, terminals=terminals),
            part.key,
        )
    for node in part.nodes:
        if node not in circuit.nodes:
            _refuse("node_unknown", phrase("part_no_node_called", part=part.key, node=node), part.key)
    if part.kind in _NEEDS_OHM and not part.ohm > 0:
        _refuse("part_ohm", phrase("part_needs_ohm_above_0", part=part.key, kind=part.kind), part.key)


def _check_string(circuit: Circuit) -> None:
    known = {part.key for part in circuit.parts}
    for key in circuit.string:
        if key not in known:
            _refuse("string_part", phrase("string_names_which_no_part", key_=key), key)


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
            _refuse(
                "part_floating", phrase("part_floats_nothing_else", part=part.key, loose=", ".join(loose)), part.key
            )
    for node in circuit.nodes:
        if node not in touched:
            _refuse("node_unused", phrase("nothing_joined_node", node=node), node)
    if circuit.ground not in joined:
        _refuse("ground_unused", phrase("nothing_joined_ground", ground=circuit.ground), circuit.ground)


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
            text = phrase("source_shorted", part=part.key, one=ends[0], other=ends[1])
            _refuse("source_short", text, part.key)


def _check_dead_loops(circuit: Circuit) -> None:
    joined = _islands(circuit, [part for part in circuit.parts if part.kind not in ("thing", "stray")])
    fed = {joined[n] for part in circuit.parts if part.kind in ("source", "transformer", "flame") for n in part.nodes}
    for part in circuit.parts:
        if part.kind == "load" and joined[part.nodes[0]] not in fed:
            text = phrase("loop_without_a_source", part=part.key)
            _refuse("loop_dead", text, part.key)


def _check_control(circuit: Circuit) -> None:
    keys = {state.key for state in circuit.control.states}
    for state in circuit.control.states:
        for move in state.moves:
            if move.to not in keys:
                _refuse("move_unknown", phrase("control_state_no_state_go", state=state.key, to=move.to), state.key)
    if circuit.control.lockout not in keys:
        _refuse("lockout_unknown", phrase("control_has_no_state_lock", lockout=circuit.control.lockout), "lockout")
    nodes = [n for i in circuit.control.inputs if i.nodes for n in i.nodes]
    for node in nodes:
        if node not in circuit.nodes:
            _refuse("input_node", phrase("control_reads_which_no_node", node=node), node)


def _check_plant(circuit: Circuit) -> None:
    plant = circuit.plant
    if plant is None:
        return
    if plant.fuel not in FUEL_NAMES:
        _refuse("plant_fuel", phrase("plant_no_fuel", fuel=plant.fuel, fuel_names=", ".join(FUEL_NAMES)), plant.fuel)
    if plant.heats not in HEATS:
        _refuse("plant_heats", phrase("plant_heats", heats=plant.heats, heats_2=", ".join(HEATS)), plant.heats)
    if not plant.input_w > 0:
        _refuse("plant_input", phrase("plant_input_w_must_above"), "input_w")
    if plant.has_flue and not (0 < plant.o2_pct < 18 and 290 < plant.stack_k < 900):
        _refuse("plant_flue", phrase("plant_flue_needs_o2_pct"), "plant")
    if plant.draft and plant.draft not in {quantity.name for quantity in circuit.quantities}:
        _refuse("plant_draft", phrase("plant_draft_no_quantity_circuit", draft=plant.draft), plant.draft)


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
