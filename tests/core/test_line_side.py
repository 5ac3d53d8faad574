"""The line side: 208 and 240 V units, lost legs, which nodes are dangerous; a heat pump beside any unit."""

from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.machine.circuit.line import legs_of, line_nodes, measured_against
from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.machine.circuit.second_source import beside_heat_pump
from havrin_core.machine.virtual.run import VirtualUnit
from havrin_core.search.catalogue import tests_of as offered
from havrin_core.search.string_view import string_view
from tests.core.circuits import dense_reading

ONE, THREE = shipped_circuit("rooftop_240_one_phase"), shipped_circuit("rooftop_208_three_phase")
LEGGED = (ONE, THREE)
ALL = [shipped_circuit(name) for name in circuit_names()]


def fault(circuit, key):
    return next(one for one in circuit.faults if one.key == key)


def shown(circuit, a, b, *faults, state="steady"):
    wiring = Wiring(circuit, [fault(circuit, key) for key in faults])
    return wiring.volts(a, b, circuit.state(state).conditions).value


@pytest.mark.parametrize(
    ("circuit", "between", "to_ground"), [(ONE, 240, 120), (THREE, 208, 120)], ids=["one phase", "three-phase"]
)
def test_legs_stand_as_the_power_company_gives_them(circuit, between, to_ground):
    for a, b in combinations(legs_of(circuit), 2):
        assert shown(circuit, a, b, state="off") == pytest.approx(between, rel=0.01)
    for leg in legs_of(circuit):
        assert shown(circuit, leg, "G", state="off") == pytest.approx(to_ground, rel=0.01)


@pytest.mark.parametrize("circuit", LEGGED, ids=lambda c: c.key)
def test_a_lost_leg_still_shows_volts_to_ground_and_not_to_the_other_leg(circuit):
    """What deceives: the primary and the motors feed the dead leg back."""
    assert shown(circuit, "L1", "G", "leg_1.lost", state="off") > 50
    assert shown(circuit, "L1", "L2", "leg_1.lost", state="off") < 0.6 * shown(circuit, "L1", "L2", state="off")


@pytest.mark.parametrize("circuit", LEGGED, ids=lambda c: c.key)
@pytest.mark.parametrize("state", ["off", "draft", "steady"])
def test_a_meter_reads_what_a_dense_network_with_the_meter_in_it_gives(circuit, state):
    for a, b in combinations(circuit.nodes, 2):
        expected = dense_reading(circuit, circuit.state(state), a, b)
        assert shown(circuit, a, b, state=state) == pytest.approx(expected, rel=0.005, abs=0.02), (a, b)


def reached(circuit, *faults):
    run = VirtualUnit(circuit, [fault(circuit, key) for key in faults], seed=3).call()
    return set(run.events)


@pytest.mark.parametrize("key", ["leg_1.lost", "leg_2.lost", "transformer.open", "inducer.open"])
@pytest.mark.parametrize("circuit", LEGGED, ids=lambda c: c.key)
def test_what_is_lost_on_the_line_stops_the_call(circuit, key):
    assert "flame" in reached(circuit)
    assert "flame" not in reached(circuit, key)


def test_a_third_leg_lost_is_not_missed_until_the_blower_hums():
    assert "flame" in reached(THREE, "leg_3.lost")
    assert "blower" not in reached(THREE, "leg_3.lost")


@pytest.mark.parametrize(
    ("circuit", "key"), [(ONE, "contact_1.stuck_open"), (THREE, "contact_3.stuck_open"), (THREE, "blower_motor.open")]
)
def test_a_pitted_contact_leaves_the_blower_standing_while_its_coil_has_volts(circuit, key):
    assert "blower" not in reached(circuit, key)
    assert shown(circuit, "BLW", "C", key) > 20


@pytest.mark.parametrize("circuit", ALL, ids=lambda c: c.key)
def test_nothing_of_the_control_voltage_counts_as_line_and_everything_on_the_line_does(circuit):
    line = line_nodes(circuit)
    assert not line & {circuit.ground, circuit.common, "R", "W", "W1", "F"}
    ends = [node for part in circuit.parts if part.kind == "source" and part.volts > 50 for node in part.nodes]
    assert set(ends) - {circuit.ground, circuit.common} <= line
    for node in line:
        quiet = {round(shown(circuit, node, circuit.ground, state=state.key)) for state in circuit.states}
        assert node in ends or max(quiet) > 30 or "neutral" in circuit.nodes[node], node


@pytest.mark.parametrize("circuit", ALL, ids=lambda c: c.key)
def test_whoever_is_sent_to_volts_that_kill_is_warned_of_them(circuit):
    for test in offered(circuit):
        if test.kind != "volts":
            continue
        worst = max(shown(circuit, *test.leads, state=state.key) for state in circuit.states)
        assert test.line_voltage or worst < 50, test.key
        assert test.caution


@pytest.mark.parametrize("circuit", LEGGED, ids=lambda c: c.key)
def test_each_leg_is_measured_to_the_next_one(circuit):
    legs = legs_of(circuit)
    assert [measured_against(circuit, leg) for leg in legs] == [*legs[1:], legs[0]]
    assert measured_against(circuit, "R") == "C"
    drawn = {node.key: node for rung in string_view(circuit, (), "steady").rungs for node in rung.nodes}
    assert drawn["L1"].expected_v > 190


def test_a_line_of_hot_and_neutral_is_measured_to_the_neutral():
    assert measured_against(shipped_circuit("rooftop_spark_module"), "L1") == "N"


@pytest.mark.parametrize("name", circuit_names())
def test_beside_a_heat_pump_every_heat_call_goes_through_the_changeover(name):
    circuit = shipped_circuit(name)
    both = beside_heat_pump(circuit)
    thermostats = [part for part in circuit.parts if part.family == "thermostat"]
    changeovers = [part for part in both.parts if part.family == "changeover"]
    assert len(changeovers) == len(thermostats)
    assert beside_heat_pump(both) is both
    assert beside_heat_pump(circuit) is both
    if thermostats and both is not circuit:
        assert {f.key for f in both.faults} >= {f.key for f in circuit.faults}
        assert any(f.key == "changeover.mis_set" for f in both.faults)


@pytest.mark.parametrize("name", ["furnace_80_two_stage", "furnace_80_lp_low_gas", "rooftop_208_three_phase"])
def test_a_changeover_set_wrong_keeps_the_gas_off_and_a_sound_one_changes_nothing(name):
    both = beside_heat_pump(shipped_circuit(name))
    assert reached(both) == reached(shipped_circuit(name))
    assert "flame" not in reached(both, "changeover.mis_set")


@settings(max_examples=30, deadline=None)
@given(
    circuit=st.sampled_from(LEGGED),
    turn=st.floats(-360, 360, allow_nan=False),
    nodes=st.data(),
)
def test_turning_every_leg_together_changes_no_reading(circuit, turn, nodes):
    """Only the angle between legs is anything that a meter could see."""
    document = shipped_document(circuit.key)
    for part in document["parts"]:
        if part["kind"] == "source":
            part["angle_deg"] = part.get("angle_deg", 0) + turn
    turned = circuit_from_dict(document)
    a, b = nodes.draw(st.sampled_from(list(combinations(circuit.nodes, 2))))
    assert shown(turned, a, b) == pytest.approx(shown(circuit, a, b), rel=1e-6, abs=1e-6)
