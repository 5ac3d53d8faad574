"""The virtual unit: a sound one runs through, a faulty one stops where a real one would."""

import pytest

from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.virtual.run import DARK, VirtualUnit
from havrin_core.search.pictures import pictures_of

pytestmark = pytest.mark.many_cases


def call(circuit, *faults, seed=0):
    known = shipped_circuit(circuit)
    return VirtualUnit(known, [known.fault(f) for f in faults], seed=seed).call()


@pytest.mark.parametrize("name", circuit_names())
@pytest.mark.parametrize("seed", [0, 1, 7])
def test_a_sound_unit_runs_within_its_windows(name, seed):
    run = call(name, seed=seed)
    assert run.failures == 0
    for milestone in shipped_circuit(name).control.milestones:
        assert milestone.earliest_s <= run.events[milestone.key] <= milestone.latest_s, milestone.key


@pytest.mark.parametrize("name", circuit_names())
def test_the_states_in_the_file_are_those_of_a_sound_call(name):
    circuit = shipped_circuit(name)
    run = VirtualUnit(circuit, jitter=0.0).call()
    assert set(circuit.states[0].conditions) == set(run.idle.holds)
    assert set(circuit.states[-1].conditions) == set(run.stop.holds)


@pytest.mark.parametrize("name", circuit_names())
def test_every_fault_shows_in_some_test(name):
    pictures = pictures_of(shipped_circuit(name))
    for fault in pictures.circuit.faults:
        assert pictures.of((fault,)) != pictures.sound, fault.key


@pytest.mark.parametrize(
    ("fault", "reached", "code"),
    [
        ("line.off", "", DARK),
        ("thermostat.stuck_open", "", "normal"),
        ("limit.stuck_open", "inducer", "2 4"),
        ("pressure_switch.stuck_closed", "", "2 2"),
        ("hose.off", "inducer", "2 3"),
        ("igniter.open", "inducer", "3 4"),
        ("gas_valve.coil_open", "igniter", "3 4"),
        ("gas_supply.shut", "valve", "3 4"),
        ("flame_rod.dirty", "flame", "3 4"),
        ("filter.blocked", "blower", "2 4"),
        ("line.reversed", "flame", "3 4"),
        ("transformer.miswired", "", DARK),
        ("pressure_switch.miswired", "", "2 2"),
        ("pressure_switch.wrong_part", "inducer", "2 3"),
        ("pressure_switch.intermittent", "flame", "2 3"),
        ("limit.intermittent", "blower", "2 4"),
        ("limit.wrong_part", "blower", "2 4"),
        ("valve_wire.intermittent", "flame", "3 4"),
        ("valve_wire.to_ground", "igniter", DARK),
        ("string_feed.to_ground", "", DARK),
        ("flame_rod.to_ground", "flame", "3 4"),
        ("inducer_relay.cold", "", "2 3"),
        ("orifices.wrong_part", "blower", "normal"),
    ],
)
def test_a_furnace_stops_where_its_fault_lies(fault, reached, code):
    run = call("furnace_80_hot_surface", fault)
    assert (run.reached, run.code) == (reached, code)


def test_the_same_seed_gives_the_same_run():
    assert call("rooftop_spark_module", seed=5) == call("rooftop_spark_module", seed=5)
    assert call("rooftop_spark_module", seed=5).events != call("rooftop_spark_module", seed=6).events


def test_a_trip_that_latches_stays_until_a_hand_resets_it():
    run = call("furnace_80_hot_surface", "exchanger.blocked")
    assert "flame_outside" in run.stop.holds
    assert run.code == "2 4"


def test_a_tripped_limit_in_the_control_power_leaves_no_code():
    assert call("rooftop_two_stage_aux_limit", "aux_limit.stuck_open").code == DARK
