"""Circuits as data: nodal analysis against an independent route, meters, and what is refused."""

import copy

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.errors import BadDocument, OutOfDomain, UnknownName
from havrin_core.machine.circuit.meter import Wiring, read_meter
from havrin_core.machine.circuit.model import State
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.wording.phrases import words as say
from tests.core.circuits import dense_reading, dense_volts

FURNACE = "furnace_80_hot_surface"
STATES = [(name, state.key) for name in circuit_names() for state in shipped_circuit(name).states]


def volts(a, b, state="steady", fault=(), circuit=FURNACE):
    return read_meter(shipped_circuit(circuit), state, "V", (a, b), faults=fault).value


def test_every_kind_of_control_has_its_circuit():
    assert len(circuit_names()) == 18
    for name in circuit_names():
        assert shipped_circuit(name).key == name


@pytest.mark.parametrize(("name", "key"), STATES)
@pytest.mark.parametrize("direct", [False, True])
def test_node_voltages_agree_with_a_dense_solution(name, key, direct):
    circuit = shipped_circuit(name)
    state = circuit.state(key)
    solved = Wiring(circuit).solve(state.conditions, direct=direct)
    for node, expected in dense_volts(circuit, state, direct=direct).items():
        if abs(expected) < 1e6:  # an island without a path to ground has no voltage of its own
            assert solved.volts(node) == pytest.approx(expected, rel=0.005, abs=0.02), node


def any_moment(name):
    """Any of the conditions of a circuit at once: contacts open and closed that no sequence ever leaves so."""
    terms = sorted({t.removeprefix("!") for p in shipped_circuit(name).parts for t in p.closed_when})
    return st.tuples(st.just(name), st.sets(st.sampled_from(terms)), st.data(), st.booleans())


@settings(max_examples=80, deadline=None)
@given(st.sampled_from(circuit_names()).flatmap(any_moment))
def test_floating_parts_read_through_the_meters_own_resistance(drawn):
    name, holds, data, direct = drawn
    circuit = shipped_circuit(name)
    a, b = data.draw(st.lists(st.sampled_from(sorted(circuit.nodes)), min_size=2, max_size=2, unique=True))
    shown = abs(Wiring(circuit).volts(a, b, holds, direct=direct).value)
    expected = dense_reading(circuit, State("x", "x", tuple(holds)), a, b, direct=direct)
    assert shown == pytest.approx(expected, rel=0.005, abs=0.02), (a, b)


@pytest.mark.parametrize(
    ("a", "b", "state", "fault", "least", "most"),
    [
        ("1", "2", "steady", [], 0, 0.1),  # across a closed switch
        ("1", "2", "warm", ["limit.stuck_open"], 24, 28),  # across the one that is open
        ("3", "C", "warm", ["limit.stuck_open"], 0, 0.1),  # and nothing behind it
        ("3", "4", "trial", ["pressure_switch.high_resistance"], 8, 20),  # a burnt contact drops part of it
        ("R", "C", "steady", ["line.off"], 0, 0.01),
        ("R", "C", "trial", ["transformer.weak"], 5, 16),
        ("IND", "N", "purge", ["inducer.open"], 110, 121),
    ],
)
def test_a_meter_shows_what_a_technician_expects(a, b, state, fault, least, most):
    assert least <= volts(a, b, state, fault) <= most


def test_a_floating_wire_shows_its_ghost():
    reading = read_meter(shipped_circuit(FURNACE), "steady", "V", ("5", "C"), faults=["valve_wire.open"])
    assert reading.value < 0.5  # the coil pulls it to nothing
    both = read_meter(
        shipped_circuit(FURNACE), "steady", "V", ("5", "C"), faults=["valve_wire.open", "gas_valve.coil_open"]
    )
    assert both.value > 3
    assert "floating" in say(both.note)


def test_flame_current_falls_with_a_dirty_rod_and_a_poor_ground():
    circuit = shipped_circuit(FURNACE)

    def microamps(*faults):
        return read_meter(circuit, "steady", "uA", None, part="flame_input", faults=faults).value

    assert microamps() == pytest.approx(2.94, abs=0.01)  # 10 V behind 3.4 MΩ
    assert microamps("flame_rod.dirty") < 0.8
    assert microamps("burner_ground.poor") < 0.8
    assert microamps("flame_rod.open") == 0


def test_ohms_are_of_the_part_alone():
    circuit = shipped_circuit(FURNACE)
    assert read_meter(circuit, "off", "ohm", None, part="igniter").value == pytest.approx(58)
    assert read_meter(circuit, "off", "ohm", None, part="igniter", faults=["igniter.open"]).value is None
    assert read_meter(circuit, "off", "continuity", None, part="limit").note == "beeps"
    assert read_meter(circuit, "off", "continuity", None, part="limit", faults=["limit.stuck_open"]).note == "silent"


def test_a_thermopile_gives_millivolts():
    circuit = shipped_circuit("boiler_standing_pilot")
    assert read_meter(circuit, "calling", "Vdc", ("4", "G")).value == pytest.approx(0.33, abs=0.02)
    weak = read_meter(circuit, "calling", "Vdc", ("4", "G"), faults=["thermopile.weak"])
    assert weak.value < 0.12


@given(scale=st.floats(0.3, 3.0))
@settings(max_examples=20)
def test_voltages_follow_the_line(scale):
    data = copy.deepcopy(shipped_document(FURNACE))
    next(p for p in data["parts"] if p["key"] == "line")["volts"] = 120 * scale
    circuit = circuit_from_dict(data)
    shown = read_meter(circuit, "steady", "V", ("R", "C")).value
    assert shown == pytest.approx(scale * volts("R", "C"), rel=1e-9)


@pytest.mark.parametrize(("a", "b"), [("R", "W"), ("1", "5"), ("L1", "N"), ("3", "G")])
def test_swapped_leads_read_the_same(a, b):
    assert volts(a, b) == pytest.approx(volts(b, a))


@pytest.mark.parametrize(
    ("state", "mode", "leads", "part", "fault", "error"),
    [
        ("nowhere", "V", ("R", "C"), "", [], UnknownName),
        ("off", "V", ("R", "Q9"), "", [], UnknownName),
        ("off", "V", None, "", [], OutOfDomain),
        ("off", "farad", ("R", "C"), "", [], OutOfDomain),
        ("off", "ohm", None, "hose", [], UnknownName),
        ("off", "V", ("R", "C"), "", ["hose.gone"], UnknownName),
    ],
)
def test_a_meter_refuses_what_is_not_there(state, mode, leads, part, fault, error):
    with pytest.raises(error):
        read_meter(shipped_circuit(FURNACE), state, mode, leads, part=part, faults=fault)


def broken(change):
    data = copy.deepcopy(shipped_document(FURNACE))
    change({p["key"]: p for p in data["parts"]}, data)
    with pytest.raises(BadDocument) as caught:
        circuit_from_dict(data)
    return caught.value


@pytest.mark.parametrize(
    ("change", "code", "named"),
    [
        (lambda p, d: p["limit"].update(nodes=["1", "1"]), "part_nodes", "limit"),
        (lambda p, d: p["limit"].update(nodes=["1", "Q"]), "node_unknown", "limit"),
        (lambda p, d: p["gas_valve"].update(ohm=0), "part_ohm", "gas_valve"),
        (lambda p, d: p["limit"].update(kind="relay"), "part_kind", "limit"),
        (lambda p, d: p["limit"].update(family="widget"), "circuit_family", "limit"),
        (lambda p, d: p["limit"].update(colour="red"), "circuit_field", "colour"),
        (lambda p, d: d["parts"].append(dict(p["limit"])), "part_twice", "limit"),
        (lambda p, d: d["string"].append("nothing"), "string_part", "nothing"),
        (lambda p, d: d["nodes"].update(Z="unused"), "node_unused", "Z"),
        (
            lambda p, d: d["parts"].append({"key": "w", "name": "w", "kind": "wire", "nodes": ["R", "C"]}),
            "source_short",
            "transformer",
        ),
        (
            lambda p, d: (
                d["nodes"].update(Y="y", Z="z"),
                d["parts"].append({"key": "lamp", "name": "Lamp", "kind": "load", "nodes": ["Y", "Z"], "ohm": 9}),
            ),
            "part_floating",
            "lamp",
        ),
        (
            lambda p, d: (
                d["nodes"].update(Y="y", Z="z"),
                d["parts"].extend(
                    {"key": k, "name": k, "kind": "load", "nodes": ["Y", "Z"], "ohm": 9} for k in ("a", "b")
                ),
            ),
            "loop_dead",
            "a",
        ),
        (lambda p, d: d["control"]["states"][0]["moves"][0].update(to="mars"), "move_unknown", "idle"),
        (lambda p, d: d["control"].update(lockout="mars"), "lockout_unknown", "lockout"),
        (lambda p, d: d["control"]["inputs"][0].update(nodes=["W", "Q"]), "input_node", "Q"),
        (lambda p, d: d.update(format="else"), "circuit_format", "format"),
        (lambda p, d: d.update(version=2), "circuit_version", "version"),
        (lambda p, d: d.pop("ground"), "circuit_field", "'ground'"),
        (lambda p, d: d.update(parts=7), "circuit_form", "circuit"),
    ],
)
def test_a_circuit_that_cannot_be_is_refused_by_name(change, code, named):
    error = broken(change)
    assert (error.code, error.value) == (code, named)
    assert len(say(error.said)) > 15


def test_a_line_the_wrong_way_round_keeps_its_volts_and_loses_the_flame_signal():
    circuit = shipped_circuit("furnace_80_hot_surface")
    sound, reversed_ = (Wiring(circuit, faults) for faults in ((), (circuit.fault("line.reversed"),)))
    running = circuit.states[-1].conditions
    assert abs(reversed_.solve(running).between("R", "C")) == pytest.approx(
        abs(sound.solve(running).between("R", "C")), rel=0.01
    )
    assert abs(reversed_.solve(running).volts("N")) > 100
    assert sound.amps("flame_input", running, direct=True) > 1e-6
    assert reversed_.amps("flame_input", running, direct=True) == 0.0


@pytest.mark.parametrize("name", circuit_names())
def test_wirings_that_share_what_they_solved_show_what_each_shows_alone(name):
    circuit, solved = shipped_circuit(name), {}
    parts = [part for part in circuit.parts if part.kind in ("switch", "wire")]
    cases = [*(([fault], ()) for fault in circuit.faults), *(([], (part.key,)) for part in parts)]
    for faults, bridged in cases:
        alone, sharing = Wiring(circuit, faults, bridged), Wiring(circuit, faults, bridged, solved)
        for state in circuit.states:
            expected, shown = (w.solve(state.conditions) for w in (alone, sharing))
            assert {n: shown.volts(n) for n in circuit.nodes} == {n: expected.volts(n) for n in circuit.nodes}


def test_a_wire_rubbed_through_pulls_the_secondary_down():
    circuit = shipped_circuit("furnace_80_hot_surface")
    shorted = Wiring(circuit, [circuit.fault("string_feed.to_ground")])
    amps = shorted.amps("string_feed.to_ground", ())
    assert abs(shorted.solve(()).between("R", "C")) < 8
    assert amps > 10  # any fuse on the board goes


NUMBERS = (
    "ohm",
    "volts",
    "angle_deg",
    "reactance_ohm",
    "picofarad",
    "pull_in_v",
    "pull_in_a",
    "primary_volts",
    "primary_ohm",
)


@pytest.mark.parametrize("field", NUMBERS)
@pytest.mark.parametrize("wrong", ["abc", "", None, True, [1], {}, float("nan"), float("inf"), -float("inf"), 10**400])
def test_a_number_of_a_part_that_is_none_is_refused_by_its_name(field, wrong):
    document = shipped_document("rooftop_208_three_phase")
    document["parts"][0][field] = wrong
    with pytest.raises(BadDocument) as refused:
        circuit_from_dict(document)
    assert refused.value.code == "circuit_number"
    assert "leg_1" in say(refused.value.said)
    assert field in say(refused.value.said)


@pytest.mark.parametrize(("of", "field"), [("quantities", "value"), ("quantities", "lag_s"), ("conditions", "lag_s")])
@pytest.mark.parametrize("wrong", ["soon", float("nan"), [3]])
def test_a_number_of_its_physics_that_is_none_is_refused(of, field, wrong):
    document = shipped_document("furnace_80_hot_surface")
    document[of][0][field] = wrong
    with pytest.raises(BadDocument, match="number"):
        circuit_from_dict(document)
