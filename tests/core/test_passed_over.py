"""Steps that are passed over: not offered again, and never taken for shown."""

import pytest

from havrin_core.facts.passed_over import show_key, skip_line
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.kind_files import build_unit, kind_names
from havrin_core.machine.unit import Plate, Stage
from havrin_core.search.visit_search import outlook_of
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.next_step import key_of
from havrin_core.tape.entries import PASSED_OVER
from havrin_core.wording.entries import echo
from havrin_core.wording.steps import passes
from tests.core.rows import SOUND, furnace, judge, situation, tape

STAGES = ((Stage("only"),), (Stage("low"), Stage("high")))
ALL = [build_unit("U", kind, Plate("NG_H", stages), 300) for kind in kind_names() for stages in STAGES]
UNITS = [unit for unit in ALL if unit.circuit is not None]


def search(*lines, unit=None):
    return outlook_of(unit or furnace(), HouseRules(), tape(*lines, unit=unit))


@pytest.mark.many_cases
@pytest.mark.parametrize("unit", UNITS, ids=lambda unit: unit.kind.key)
def test_every_offered_test_can_be_passed_over_and_another_is_offered(unit):
    lines = []
    for _ in range(6):
        offer = search(*lines, unit=unit).next_test
        if offer is None:
            break
        for way in passes(offer.test.key):
            (body,) = read_line(way.line, situation(unit)).bodies
            assert (body.what, body.device) == (PASSED_OVER, offer.test.key)
        lines.append(passes(offer.test.key)[0].line)
    assert len(lines) >= 4
    assert len(set(lines)) == len(lines)


def test_it_says_nothing_of_the_suspects():
    before, key = search(), search().next_test.test.key
    after = search(skip_line(key, "not possible"))
    assert [(s.part, s.share) for s in after.suspects] == [(s.part, s.share) for s in before.suspects]
    assert after.observations == ()


@pytest.mark.many_cases
def test_what_is_put_off_comes_back_when_nothing_else_is_left():
    key = search().next_test.test.key
    lines = [skip_line(key, "later")]
    assert search(*lines).next_test.test.key != key
    while (offer := search(*lines).next_test).test.key != key:
        lines.append(skip_line(offer.test.key, "not possible"))
    assert search(*lines).next_test.test.key == key


def test_what_was_not_shown_still_holds_the_visit():
    open_before = judge("room 0")
    item = open_before.next_step.missing
    after = judge("room 0", skip_line(key_of(item), "not possible"))
    assert after.next_step.missing != item
    assert item in after.missing
    assert (after.level, after.can_close) == (open_before.level, open_before.can_close)


def test_all_passed_over_leaves_nothing_to_offer_and_the_visit_open():
    lines = ["room 0"]
    while (step := judge(*lines).next_step) is not None and step.missing is not None:
        lines.append(skip_line(key_of(step.missing), "known"))
    found = judge(*lines)
    assert found.missing
    assert not found.can_close


def test_a_whole_visit_is_judged_as_if_nothing_had_been_passed_over():
    lines = ["skip show vent_seen later", "skip code not possible", *SOUND]
    assert judge(*lines).level == judge(*SOUND).level


@pytest.mark.parametrize(
    "line", ["skip", "skip code", "skip code maybe", "skip volts 9 8 known", "skip show mood later"]
)
def test_what_is_no_step_of_this_unit_is_not_passed_over(line):
    read = read_line(line, situation())
    assert not any(getattr(body, "what", "") == PASSED_OVER for body in read.bodies)


def test_the_tape_says_what_was_passed_over_and_why():
    def said(line):
        (body,) = read_line(line, situation()).bodies
        return echo(body, "us", furnace().circuit)

    assert said("skip code not possible") == "Passed over: read the code, before any reset not possible here"
    assert said(skip_line(show_key("flue_each_stage", "high"), "later")) == "Passed over: flue, high fire later"
    assert (
        said(skip_line(show_key("device_proved", "limit"), "known")) == "Passed over: that the limit acts known already"
    )
