"""The steps of proving and leaving: what holds a visit open is the standing's own list, said at the step where it waits."""

import pytest

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.plan import follow_up_of
from havrin_core.house.house_rules import HouseRules
from havrin_core.standing.closing import SHUT_DOWN_SAYS, STEPS, held_steps, leaves_without_heat, not_said_yet
from havrin_core.tape.entries import MADE_SAFE, RUNNING, WAITING
from havrin_core.wording.closing_steps import closing_steps
from havrin_core.wording.phrases import words
from tests.core.rows import BEGUN, SOUND, furnace, judge, tape

RULES = HouseRules()


def steps(*lines, leave=None):
    unit, entries = furnace(), tape(*lines)
    facts = Facts(entries)
    follow = follow_up_of(facts, RULES, "maintenance", BEGUN.date())
    found = judge(*lines, leave=leave)
    return {s.key: s for s in closing_steps(found, facts, unit, follow, RULES, "us")}


def test_they_stand_in_the_order_in_which_hands_do_them():
    assert tuple(steps(*SOUND)) == STEPS


@pytest.mark.parametrize(
    ("lines", "leave", "held"),
    [
        (SOUND, RUNNING, set()),
        ((*SOUND, "jump limit"), RUNNING, {"put_back", "standing"}),
        ((*SOUND[:5], "vent ok"), RUNNING, {"shown", "standing"}),
        ((*SOUND, "found crack cell 3"), RUNNING, {"standing"}),
        ((*SOUND, "found crack cell 3"), None, {"told"}),
        ((*SOUND, "found crack cell 3"), WAITING, {"standing", "told"}),
        ((*SOUND, "found crack cell 3"), MADE_SAFE, {"told"}),
        ((*SOUND, "found crack cell 3", "told the owner, in writing"), MADE_SAFE, set()),
    ],
)
def test_a_step_holds_where_the_standing_says_so(lines, leave, held):
    found = judge(*lines, leave=leave)
    assert held_steps(found) >= held
    assert {s.key for s in steps(*lines, leave=leave).values() if s.holds} == held_steps(found)
    assert bool(held_steps(found)) == bool(found.holds)


def test_nothing_holds_a_visit_that_no_step_speaks_of():
    """Whatever holds the close waits at a step that a technician can see."""
    for leave in (None, RUNNING, WAITING, MADE_SAFE):
        for more in ((), ("jump limit",), ("found crack cell 3",), ("pull igniter",), ("did open tap",)):
            found = judge(*SOUND, *more, leave=leave)
            assert not found.holds or held_steps(found), (leave, more, found.holds)


def test_a_shut_down_asks_for_everything_that_goes_with_it_until_it_is_said():
    lines = (*SOUND, "found crack cell 3")
    assert not_said_yet(Facts(tape(*lines)), judge(*lines)) == SHUT_DOWN_SAYS
    said = (*lines, "shut down gas shut, tagged", "told the owner", "vulnerable nobody", "tempheat two heaters")
    assert not_said_yet(Facts(tape(*said)), judge(*said)) == ()
    assert leaves_without_heat(judge(*said))
    assert not leaves_without_heat(judge(*SOUND))
    assert [line.state for line in steps(*lines)["told"].lines] == ["none"] * 4


def test_what_is_out_of_its_place_begins_the_line_that_puts_it_back():
    first = steps(*SOUND, "pull igniter", "jump limit")["put_back"]
    assert [line.starter for line in first.lines] == ["refit igniter", "unjump limit"]
    assert {line.state for line in first.lines} == {"out"}
    assert steps(*SOUND)["put_back"].lines == ()
    assert steps(*SOUND)["put_back"].good


def test_the_standing_is_said_with_its_reasons_and_the_words_of_the_house():
    shown = steps(*SOUND, "found crack cell 3")["standing"]
    assert shown.title.startswith("Standing: ")
    assert shown.lines[0].state == "out"
    assert shown.lines[0].station == "exchanger"
    assert steps(*SOUND)["standing"].good == words(RULES.words_for(1))


def test_what_follows_is_said_with_who_says_yes_and_when_somebody_comes_back():
    after = steps(*SOUND, "part inducer", "again in 3 days draft")["after"]
    assert any("Inducer" in line.text and line.state == "none" for line in after.lines)
    assert any("January 2026" in line.text and line.state == "in" for line in after.lines)
