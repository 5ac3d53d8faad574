"""How long a building keeps pipes from freezing: against a simulation of its own, and by what must hold of any building."""

from dataclasses import replace
from math import inf, isinf

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.cooling import (
    DRAUGHTS,
    INSULATION,
    MASSES,
    Building,
    Nodes,
    hours_to_frost,
    insulation_of,
    seconds_until,
)
from havrin_core.follow_up.frost import building_of, frost_says, shutdown_plan_of
from havrin_core.shorthand.reader import read_line
from havrin_core.wording.phrases import words as say
from tests.core.rows import situation, tape

BUILDINGS = st.builds(
    Building,
    st.floats(30, 3000),
    st.sampled_from(list(MASSES)),
    st.sampled_from(list(INSULATION)),
    st.sampled_from(list(DRAUGHTS)),
)
ROOMS, WEATHER = st.floats(278, 300), st.floats(235, 280)


def simulated(nodes: Nodes, indoor: float, outdoor: float, room: float) -> float:
    """Step the two nodes by a second at a time: heat in, heat out, nothing solved."""
    inside = structure = indoor
    seconds = 0
    while inside > room and seconds < 30 * 86_400:
        to_out = nodes.draught_w * (inside - outdoor)
        across = nodes.between_w * (inside - structure)
        inside -= (to_out + across) / nodes.room_j
        structure += (across - nodes.envelope_w * (structure - outdoor)) / nodes.structure_j
        seconds += 1
    return seconds


@pytest.mark.parametrize(
    ("nodes", "indoor", "outdoor", "room"),
    [
        (Nodes(25e3, 200e3, 1.3, 12.0, 1.7), 293.15, 263.15, 273.15),
        (Nodes(25e3, 80e3, 4.0, 12.0, 4.5), 291.15, 253.15, 278.15),
        (Nodes(25e3, 450e3, 0.4, 12.0, 0.7), 293.15, 268.15, 275.15),
    ],
)
def test_exact_solution_agrees_with_stepping(nodes, indoor, outdoor, room):
    assert seconds_until(nodes, indoor, outdoor, room) == approx(simulated(nodes, indoor, outdoor, room), rel=0.002)


def test_rooms_cool_sooner_than_one_time_constant_says():
    nodes = Nodes(25e3, 200e3, 2.5, 12.0, 1.7)
    from math import log

    lumped = (nodes.room_j + nodes.structure_j) / (nodes.draught_w + nodes.envelope_w) * log(30 / 10)
    assert seconds_until(nodes, 293.15, 263.15, 273.15) < lumped


@given(BUILDINGS, ROOMS, WEATHER)
def test_colder_weather_never_gives_more_time(building, indoor, outdoor):
    least, most = hours_to_frost(building, indoor, outdoor)
    colder = hours_to_frost(building, indoor, outdoor - 3)
    assert 0 <= least <= most
    assert colder[0] <= least
    assert colder[1] <= most


@given(BUILDINGS, ROOMS, WEATHER)
def test_a_draughty_building_never_has_more_time(building, indoor, outdoor):
    tight, draughty = (hours_to_frost(replace(building, draughts=d), indoor, outdoor) for d in ("tight", "draughty"))
    assert draughty[0] <= tight[0]
    assert draughty[1] <= tight[1]


@given(BUILDINGS, ROOMS, st.floats(273.2, 300))
def test_above_freezing_nothing_freezes(building, indoor, outdoor):
    assert hours_to_frost(building, indoor, outdoor) == (inf, inf)


def test_a_pipe_in_an_outer_wall_freezes_while_the_room_is_at_five_degrees():
    """At -10 °C outdoors such a pipe is at 0 °C with the room at +5: the least is told from there, not from the room's 0."""
    building = Building()
    least, _ = hours_to_frost(building, 278.0, 263.15)
    assert least < 0.5


@pytest.mark.parametrize(("year", "word"), [(1930, "poor"), (1979, "poor"), (1980, "average"), (2015, "good")])
def test_age_tells_the_insulation(year, word):
    assert insulation_of(year) == word


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("building heavy", ("heavy", "average", "average")),
        ("building light built 1962", ("light", "poor", "average")),
        ("building poor draughty", ("medium", "poor", "draughty")),
        ("building heavy, good, tight", ("heavy", "good", "tight")),
    ],
)
def test_each_property_by_its_word(line, said):
    found = building_of(Facts(tape(line, "floor 100 m2")))
    assert (found.mass, found.insulation, found.draughts) == said
    assert found.floor_m2 == approx(100)


@pytest.mark.parametrize("line", ["building", "building big", "building heavy light", "building built soon"])
def test_what_cannot_be_understood_is_asked_back(line):
    assert not read_line(line, situation()).writable


def test_the_forecast_counts_where_it_is_colder():
    now, tonight = (shutdown_plan_of(Facts(tape("outdoor 30 F", *more))) for more in ((), ("forecast -10 F",)))
    assert tonight.hours[0] < now.hours[0]
    assert "−10 °F" in say(frost_says(tonight, "us")) or "-10 °F" in say(frost_says(tonight, "us"))
    assert isinf(shutdown_plan_of(Facts(tape("outdoor 50 F"))).hours[0])
