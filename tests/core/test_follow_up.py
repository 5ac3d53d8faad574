"""What comes after: parts and kits, approvals, dates, return visits."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.frost import shutdown_plan_of
from havrin_core.follow_up.parts import PART_WORDS, PARTS
from havrin_core.follow_up.plan import follow_up_of, workday
from havrin_core.house.house_rules import HouseRules
from havrin_core.quantities.dates import date_in
from havrin_core.shorthand.reader import read_line
from havrin_core.vocabulary.catalogue import conditions, parts
from havrin_core.wording.phrases import words as say
from tests.core.rows import situation, tape

TODAY = date(2026, 1, 14)  # a Wednesday


def plan(*lines, rules=None, reason="no_heat"):
    return follow_up_of(Facts(tape(*lines)), rules or HouseRules(), reason, TODAY)


@pytest.mark.parametrize(
    ("text", "day"),
    [
        ("2026-12-01", date(2026, 12, 1)),
        ("until 1 Dec", date(2026, 12, 1)),
        ("12 January", date(2027, 1, 12)),
        ("12. Feb 2028", date(2028, 2, 12)),
        ("in 5 days", date(2026, 1, 19)),
        ("in 2 weeks", date(2026, 1, 28)),
        ("tomorrow", date(2026, 1, 15)),
        ("Friday, fit it", date(2026, 1, 16)),
        ("wednesday", date(2026, 1, 21)),
        ("30 Feb", None),
        ("soon", None),
        ("", None),
        ("2 of them", None),
        ("money", None),
    ],
)
def test_dates_as_they_are_typed(text, day):
    assert date_in(text, TODAY) == day


@given(st.dates(date(2020, 1, 1), date(2050, 1, 1)))
def test_a_workday_is_no_weekend_and_near(day):
    found = workday(day)
    assert found.weekday() < 5
    assert 0 <= (found - day).days <= 2


def test_a_part_brings_its_kit_and_the_houses_rule():
    (line,) = plan("part inducer").parts
    assert "gasket to the collector" in line.kit
    assert "pressure switch" not in line.kit
    (together,) = plan("part inducer", rules=HouseRules(inducer_switch="always_together")).parts
    assert "pressure switch" in together.kit
    (switch,) = plan("part pressure switch").parts
    assert switch.rule.startswith("universal only if")
    assert plan("part differential switch").parts[0].rule == "the maker’s own part only"


def test_a_part_in_own_words_is_kept_and_twice_is_once():
    assert [line.name for line in plan("part door latch", "part igniter", "part igniter").parts] == [
        "door latch",
        "Igniter",
    ]


def test_who_says_yes_to_which_part():
    parts = {
        p.name: p
        for p in plan(
            "part igniter",
            "part filter",
            "part inducer",
            "approve owner inducer, igniter",
            "approved owner inducer",
            "declined tenant filter",
        ).parts
    }
    assert (say(parts["Inducer"].approver), parts["Inducer"].state) == ("the owner", "approved")
    assert (say(parts["Igniter"].approver), parts["Igniter"].state) == ("the owner", "to ask")
    assert (say(parts["Filter"].approver), parts["Filter"].state) == ("the tenant", "declined")
    assert {p.state for p in plan("part igniter", "part inducer", "approved owner").parts} == {"approved"}
    assert plan("part igniter", "declined owner igniter", "approved owner igniter").parts[0].state == "approved"


def test_the_return_hangs_on_the_last_part_to_arrive():
    waiting = plan("part igniter", "part inducer", "arrives igniter 20 January").returns
    assert [(r.reason, r.day) for r in waiting] == [("return_parts", None)]
    assert "inducer" in say(waiting[0].why)
    here = plan("part igniter", "part inducer", "arrives igniter 20 January", "arrives inducer 23 January").returns
    assert here[0].day == date(2026, 1, 26)  # the 23rd is a Friday
    assert plan("part igniter", "declined owner igniter").returns == ()


def test_what_the_technician_said_goes_before_what_is_worked_out():
    (said,) = plan("part igniter", "arrives igniter 20 January", "again 2026-02-03 fit it").returns
    assert (said.day, said.said) == (date(2026, 2, 3), True)


@pytest.mark.parametrize(
    ("lines", "rules", "day"),
    [
        (("cause intermittent contact in the limit",), {}, date(2026, 1, 19)),
        (("watch limit bad",), {}, date(2026, 1, 19)),
        (("temporary hose clamped until 30 January",), {}, date(2026, 1, 30)),
        (("temporary hose clamped until 30 January", "lasting new hose"), {}, None),
        (("temporary hose clamped until 30 January", "temporary wire taped until 21 January"), {}, date(2026, 1, 21)),
        (("did reset rollout",), {}, None),
        (("did reset rollout",), {"manual_reset": "twelve_cycles"}, date(2026, 1, 19)),
        (("cause dirty rod",), {}, None),
    ],
)
def test_a_recheck_follows_what_may_come_back(lines, rules, day):
    found = [r.day for r in plan(*lines, rules=HouseRules(**rules)).returns if r.reason == "recheck"]
    assert found == ([day] if day else [])


def test_maintenance_comes_again_in_a_year():
    (again,) = plan("room 0", reason="maintenance").returns
    assert (again.reason, again.day) == ("maintenance", date(2027, 1, 14))


def test_a_finding_suggests_its_part_until_it_is_ordered_or_changed():
    assert plan("found white marks").suggested == ("Igniter",)
    assert plan("found white marks", "part igniter").suggested == ()
    assert plan("found white marks", "did change igniter").suggested == ()


def test_every_part_has_words_of_its_own_and_cures_what_exists():
    assert len(PART_WORDS) == len({w for p in PARTS for w in (*p.words, p.key.replace("_", " "))})
    assert all(like in conditions() and key in parts() for row in PARTS for key, like in row.cures)


@pytest.mark.parametrize(
    "line",
    [
        "approve",
        "approve nobody igniter",
        "arrives igniter",
        "arrives igniter some day",
        "again",
        "part",
        "temporary",
        "again later",
    ],
)
def test_a_line_that_says_too_little_is_asked_back(line):
    assert read_line(line, situation()).problems


def test_the_plan_for_the_cold_says_what_was_agreed():
    found = shutdown_plan_of(
        Facts(
            tape(
                "outdoor 14 F",
                "indoor 68 F",
                "building light",
                "vulnerable seedlings",
                "tempheat two heaters",
                "refused shutting it down: I need heat",
            )
        )
    )
    least, most = found.hours
    assert 4 < least < most < 40
    assert (found.building.mass, found.vulnerable, found.temporary_heat) == ("light", ("seedlings",), ("two heaters",))
    assert found.refused == ("shutting it down: I need heat",)
    assert shutdown_plan_of(Facts(tape("room 0"))).hours is None
    assert read_line("building of glass", situation()).problems
