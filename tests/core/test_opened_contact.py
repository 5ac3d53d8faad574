"""Which contact let go: named, cleared, or asked for one more channel."""

import pytest

from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.search.opened_contact import Timing, opened_contact
from havrin_core.search.pictures import pictures_of
from havrin_core.wording.phrases import words as say

FURNACE = shipped_circuit("furnace_80_hot_surface")  # R .. 1 limit 2 rollout 3 pressure switch 4


@pytest.mark.parametrize(
    ("moved", "still", "part", "cleared", "words"),
    [
        ({"4": 5.0}, {"3", "draft_pa"}, "pressure_switch", (), "the draft held: its contact opens"),
        ({"draft_pa": 4.8, "4": 5.0}, {"3"}, "", ("pressure_switch",), "worked as designed"),
        ({"4": 5.0, "draft_pa": 5.02}, {"3"}, "", (), "cannot be told which was first"),
        ({"4": 5.0, "draft_pa": 5.9}, {"3"}, "pressure_switch", (), "moved only after it"),
        ({"4": 5.0}, {"3"}, "", (), "Record the draft"),
        ({"4": 5.0}, {"2", "draft_pa"}, "", (), "One of these opened: rollout, pressure switch"),
        ({"3": 5.0, "4": 5.0}, {"2"}, "rollout", (), "its contact opens"),
        ({"3": 5.0, "4": 5.0}, {"1", "2"}, "rollout", (), "at the rollout"),
        ({"1": 5.0, "2": 5.0, "3": 5.0, "4": 5.0}, set(), "", ("limit", "rollout", "pressure_switch"), "upstream"),
        ({"4": 5.0}, {"draft_pa"}, "", (), "Record the volts before it"),
        ({"draft_pa": 5.0}, {"3", "4"}, "", ("rollout", "pressure_switch"), "held while the draft dipped"),
        ({}, {"4"}, "", ("pressure_switch",), "held."),
    ],
)
def test_a_dip_names_clears_or_asks(moved, still, part, cleared, words):
    said = opened_contact(FURNACE, moved, still)
    assert words in say(said.says)
    assert (said.part, said.cleared) == (part, cleared)


@pytest.mark.parametrize(
    ("least", "moved_s", "part", "cleared"),
    [
        (1.5, 4.8, "pressure_switch", ()),  # wind moved the draft, but it stayed far over the switch's point
        (1.02, 4.8, "", ()),  # so near the point that either may be
        (0.4, 4.8, "", ("pressure_switch",)),
        (0.4, 4.96, "", ()),  # under its point, but no telling which was first
        (0.4, 5.9, "pressure_switch", ()),
    ],
)
def test_draft_is_set_against_the_switchs_own_point_and_the_gauges_lag(least, moved_s, part, cleared):
    timing = Timing({"draft_pa": 0.4, "4": 0.05}, 0.05, {"draft_pa": 150.0 * least}, {"draft_pa": 150.0})
    said = opened_contact(FURNACE, {"draft_pa": moved_s, "4": 5.0}, {"3"}, timing)
    assert (said.part, said.cleared) == (part, cleared)


def test_nothing_of_the_string_recorded_says_nothing():
    assert opened_contact(FURNACE, {"draft_pa": 5.0}, {"flame_current_a"}) is None


@pytest.mark.parametrize("name", circuit_names())
def test_every_contact_of_every_circuit_can_be_named_and_its_line_written(name):
    circuit = shipped_circuit(name)
    tests = pictures_of(circuit).tests
    for part in (circuit.part(key) for key in circuit.string):
        if part.kind != "switch":
            continue
        held = {"draft_pa", "water_pressure_pa", "supply_running_pa", "supply_air_temp_k", "water_supply_temp_k"}
        said = opened_contact(circuit, {part.nodes[1]: 5.0}, {part.nodes[0], *held})
        assert said.part == part.key
        assert f"watch:{part.key}" in tests or part.family == "thermostat"
