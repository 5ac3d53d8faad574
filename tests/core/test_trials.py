"""Shorthand for trying parts and watching the sequence."""

from dataclasses import replace

import pytest

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.entries import Proof, Reading
from havrin_core.wording.entries import describe, echo
from havrin_core.wording.phrases import words as say
from tests.core.rows import situation

NODES = (("limit", "1", "2"), ("pressure_switch", "3", "4"))


FURNACE = shipped_circuit("furnace_80_hot_surface")


def read(text, circuit=FURNACE):
    return read_line(text, replace(situation(), nodes=NODES, circuit=circuit))


@pytest.mark.parametrize(
    ("text", "check", "device", "outcome", "said"),
    [
        ("stops igniter", "stops", "igniter", "igniter", "Stops after: Igniter glows"),
        ("stops nothing", "stops", "nothing", "nothing", "Nothing happens at a call"),
        ("stops steady", "stops", "steady", "steady", "Runs through and keeps running"),
        ("look hose bad", "look", "hose", "bad", "Pressure hose, looked at: NOT in order"),
        ("look gas supply ok", "look", "gas_supply", "ok", "Gas supply, looked at: in order"),
        ("ohms igniter 58", "ohms", "igniter", "ok", "Hot-surface igniter, ohms: in order"),
        ("ohms igniter 140", "ohms", "igniter", "high", "Hot-surface igniter, ohms: far too high"),
        ("ohms limit OL", "ohms", "limit", "open", "Limit, ohms: OPEN"),
        ("swap board ok", "swap", "board", "ok", "Control board, tried against a good one: in order"),
        ("try thermostat bad", "jump", "thermostat", "bad", "Thermostat, called at the control: NOT in order"),
    ],
)
def test_a_trial_is_read(text, check, device, outcome, said):
    line = read(text)
    body, *_ = line.bodies
    assert isinstance(body, Proof)
    assert (body.what, body.device, body.outcome) == (check, device, outcome)
    assert echo(body, "us", FURNACE) == said


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("stops", "Where does it stop?"),
        ("stops mars", "Where does it stop?"),
        ("look widget bad", "which part?"),
        ("look hose", "ok or bad"),
        ("ohms igniter", "a number"),
        ("ohms igniter soon", "a number"),
        ("v 3 99 4", "no node 99"),
        ("v 3 3 4", "same node"),
        ("seen mars 3", "What was seen?"),
    ],
)
def test_a_trial_that_says_too_little_is_asked_back(text, words):
    line = read(text)
    assert not line.writable
    assert words in say(line.problems[0].text)


def test_without_a_circuit_trials_are_notes():
    assert "No circuit is known" in say(read("look hose bad", circuit=None).problems[0].text)


def test_volts_between_any_two_nodes():
    (body,) = read("v l1 n 119").bodies
    assert isinstance(body, Reading)
    assert (body.leads, body.station) == (("L1", "N"), None)
    (across,) = read("v 4 3 25.9").bodies
    assert isinstance(across, Reading)
    assert (across.leads, across.station) == (("4", "3"), "pressure_switch")
    assert describe(across, "us").text == "Volts 4–3, pressure switch"


def test_the_stopwatch_writes_seconds_after_the_call():
    (body,) = read("seen inducer 3.4").bodies
    assert isinstance(body, Reading)
    assert (body.quantity, body.station, body.value) == ("event_s", "inducer", 3.4)
