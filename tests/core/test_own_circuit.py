"""The circuit of one very unit: what is put in, moved, named or begun blank leaves a circuit that behaves as the real one would."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.errors import CoreError
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.edit import INSERTED, Blank, Insert, Move, Name, changed, device_names
from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_document
from havrin_core.machine.virtual.run import VirtualUnit
from havrin_core.search.model import Observation, Seen
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import STEADY, pictures_of

FURNACE = "furnace_80_hot_surface"


def steady(document):
    circuit = circuit_from_dict(document)
    return VirtualUnit(circuit, jitter=0.0).call().failures == 0


@pytest.mark.parametrize("name", circuit_names())
def test_a_device_in_the_string_changes_nothing_while_it_is_closed_and_stops_all_once_it_is_open(name):
    document = shipped_document(name)
    at = document["string"][0]
    new = changed(document, Insert(at, "fuse", "Inline fuse"))
    assert steady(new) == steady(document)
    circuit = circuit_from_dict(new)
    (fuse,) = (part for part in circuit.parts if part.name == "Inline fuse")
    blown = circuit.fault(f"{fuse.key}.blown")
    assert pictures_of(circuit).sound["stops"] == STEADY
    assert pictures_of(circuit).of((blown,))["stops"] != STEADY
    assert fuse.key in circuit.string
    assert circuit.string.index(fuse.key) == document["string"].index(at)


def test_the_search_names_what_was_put_in_on_the_spot():
    new = changed(shipped_document(FURNACE), Insert("limit", "level_switch", "Float in the pan"))
    circuit = circuit_from_dict(new)
    (switch,) = (part for part in circuit.parts if part.name == "Float in the pan")
    pictures = pictures_of(circuit)
    a, b = switch.nodes
    rows = (Observation("stops", "nothing"), Observation(pictures.volts_key(a, b), 26.0))
    found = outlook(pictures, Seen(rows), HouseRules())
    assert found.first.part == switch.key


def test_what_is_put_in_behind_stands_behind():
    new = changed(shipped_document(FURNACE), Insert("rollout", "limit", "Second limit", behind=True))
    string = circuit_from_dict(new).string
    assert string[string.index("rollout") + 1].startswith("limit_")


@pytest.mark.parametrize("name", circuit_names())
def test_a_blank_string_keeps_what_the_control_needs_and_runs(name):
    document = shipped_document(name)
    if not steady(document):
        return
    new = changed(document, Blank())
    assert steady(new)
    families = {part.key: part.family for part in circuit_from_dict(new).parts}
    assert not {families[key] for key in new["string"]} & {"limit", "trip_switch", "level_switch"}


def test_a_string_that_was_begun_blank_is_walked_together_again():
    new = changed(shipped_document(FURNACE), Blank())
    first = new["string"][0]
    new = changed(new, Insert(first, "limit", "Limit on the blower shelf"))
    new = changed(new, Insert(first, "trip_switch", "Rollout, left"))
    assert steady(new)
    assert len(new["string"]) >= 4


def test_a_node_is_called_by_its_wire_plug_or_terminal():
    new = changed(shipped_document(FURNACE), Name("3", "  yellow wire,  pin 4 of the 9-pin plug "))
    assert circuit_from_dict(new).nodes["3"] == "yellow wire, pin 4 of the 9-pin plug"


def test_a_moved_wire_carries_its_part_along():
    document = shipped_document(FURNACE)
    wire = next(row for row in document["parts"] if row["key"] == "valve_wire")
    new = changed(document, Move("valve_wire", 0, "R"))
    assert document["parts"][document["parts"].index(wire)]["nodes"][0] != "R"  # the first document stays
    circuit = circuit_from_dict(new)
    assert abs(Wiring(circuit).volts(wire["nodes"][1], "C", ("control_alive",)).value) > 20  # live all the time now


@pytest.mark.parametrize(
    "change",
    [
        Insert("nowhere", "fuse", "x"),
        Insert("limit", "capacitor", "x"),
        Insert("hose", "fuse", "x"),
        Insert("limit", "fuse", "x" * 81),
        Move("limit", 2, "R"),
        Move("limit", 0, "nowhere"),
        Move("limit", 0, "2"),  # both ends on one node
        Name("nowhere", "blue"),
        Move("line", 1, "L0"),
    ],
)
def test_what_leaves_no_circuit_is_refused_with_its_reason(change):
    with pytest.raises(CoreError) as refused:
        changed(shipped_document(FURNACE), change)
    assert refused.value.code


@pytest.mark.many_cases
@settings(max_examples=25, deadline=None)
@given(st.data())
def test_whatever_is_changed_leaves_a_circuit_or_the_old_one(data):
    document = shipped_document(data.draw(st.sampled_from(circuit_names())))
    parts = [row["key"] for row in document["parts"] if row.get("nodes")]
    for _ in range(data.draw(st.integers(1, 4))):
        change = data.draw(
            st.one_of(
                st.builds(
                    Insert,
                    st.sampled_from(parts),
                    st.sampled_from(sorted(INSERTED)),
                    st.text(max_size=12),
                    st.booleans(),
                ),
                st.builds(Move, st.sampled_from(parts), st.integers(0, 3), st.sampled_from(sorted(document["nodes"]))),
                st.builds(Name, st.sampled_from(sorted(document["nodes"])), st.text(max_size=90)),
            )
        )
        try:
            document = changed(document, change)
        except CoreError:
            continue
        circuit = circuit_from_dict(document)
        for state in circuit.states:
            for node in circuit.nodes:
                assert abs(Wiring(circuit).solve(state.conditions).volts(node)) < 1e6


def test_every_device_that_may_be_put_in_has_a_name():
    assert set(device_names()) == set(INSERTED)
