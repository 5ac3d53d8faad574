"""Colours of wires, read from what a node is called."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.machine.circuit.wire_colours import COLOURS, wire_colours
from havrin_core.search.string_view import string_view


@pytest.mark.parametrize(
    ("name", "colours"),
    [
        ("violet", ("violet",)),
        ("gas valve (purple)", ("violet",)),
        ("White with blue tracer, plug pin 4", ("white", "blue")),
        ("wht/blu", ("white", "blue")),
        ("BRN-YEL", ("brown", "yellow")),
        ("grey to gray", ("grey",)),
        ("blue, blue, red, green", ("blue", "red")),
        ("after the pressure switch", ()),
        ("reduced", ()),  # no "red" inside a word
        ("blackened end", ()),
        ("", ()),
    ],
)
def test_colours_are_words_of_their_own(name, colours):
    assert wire_colours(name) == colours


@given(st.text(max_size=60))
def test_any_name_has_at_most_a_colour_and_a_stripe(name):
    found = wire_colours(name)
    assert len(found) <= 2
    assert set(found) <= set(COLOURS)


@given(
    st.lists(st.sampled_from(COLOURS), min_size=1, max_size=2, unique=True), st.sampled_from(["/", "-", " with ", ", "])
)
def test_two_colours_are_the_wire_and_its_stripe_however_they_are_joined(colours, between):
    assert wire_colours(between.join(colours)) == tuple(colours)


def test_the_drawing_carries_the_colours_of_each_node():
    document = shipped_document("furnace_80_hot_surface")
    document["nodes"]["4"] = "pink/white, plug pin 3"
    drawn = string_view(circuit_from_dict(document), (), "steady")
    nodes = {node.key: node for rung in drawn.rungs for node in rung.nodes}
    assert nodes["4"].wires == ("pink", "white")
    assert nodes["3"].wires == ()


@pytest.mark.parametrize("name", circuit_names())
def test_no_shipped_circuit_claims_a_colour_where_none_is_meant(name):
    for key, said in shipped_circuit(name).nodes.items():
        assert not wire_colours(said) or "(" in said, (key, said)
