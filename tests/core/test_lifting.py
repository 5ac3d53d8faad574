"""Every danger is lifted by all that its reason names, by nothing less, and by nothing that came before it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.standing.assess import assess
from havrin_core.standing.carry_over import left_open
from havrin_core.tape.visit import VisitTape
from havrin_core.vocabulary.findings import FINDINGS
from tests.core.rows import BEGUN, SOUND, codes, furnace, judge, tape
from tests.core.test_standing_everywhere import lines

CAUSE = "cause a bird's nest in the vent"
LEAKS, HOLDS = "tight 40 l 20 mbar 10 mbar 5 min", "tight 4 l 20 mbar 20 mbar 10 min"
# danger -> what its reason names, all of it
LIFTS = {
    "found crack": ["did change exchanger"],
    "found gas smell": ["leak ok"],
    "found vent disconnected": ["did repair vent", "vent ok"],
    "found spillage": ["did clear vent", "vent ok"],
    "found rollout": [CAUSE, "flame ok"],
    "found bang": [CAUSE, "cycles 3", "flame ok"],
    "found wrong orifice": ["did change orifices"],
    "found wrong fuel": ["did change orifices"],
    "found open gas end": ["leak ok"],
    "found valve lets by": ["did change valve", "leak ok"],
    "found dry fired": ["did change exchanger"],
    "found relief failed": ["did change relief", "relief ok"],
    "found relief plugged": ["did change relief", "relief ok"],
    "found symptoms": [CAUSE, "room 0"],
    "leak bad": ["leak ok"],
    "fails limit": ["proved limit"],
    "found jumper rollout": ["unjump rollout", "proved rollout"],
    "room 90": [CAUSE, "room 2"],
    "register 30": [CAUSE, "exchanger ok 4/4", "register 1"],
    "spill 400": [CAUSE, "spill 40"],
    "lel 5": ["lel 0", "leak ok"],
    LEAKS: [HOLDS],
    "shut down gas shut": ["untag cured"],
    "cannot get the part": ["untag cured"],
}
dangers = st.sampled_from(sorted(LIFTS))


def dangerous(*lines):
    return {reason.code for reason in judge(*lines).reasons if reason.level == 4}


def after(*earlier, today=SOUND):
    """Judge a sound visit that follows a visit on which ``earlier`` was written."""
    before = left_open(furnace(), HouseRules(), VisitTape("maintenance", tape(*earlier)))
    entries = tape(*today, start=BEGUN.replace(month=3))
    return assess(furnace(), HouseRules(), VisitTape("maintenance", entries, open_before=before)), before


def test_every_danger_that_can_be_found_is_in_the_table():
    assert {f"found {f.words[0]}" for f in FINDINGS if f.level == 4} <= {
        *LIFTS,
        "found relief failed",
        "found vent disconnected",
    }


@pytest.mark.parametrize("danger", LIFTS)
def test_a_danger_is_lifted_by_all_that_its_reason_names(danger):
    assert dangerous(danger)
    assert not dangerous(danger, *LIFTS[danger])


@pytest.mark.parametrize("danger", LIFTS)
def test_a_danger_is_not_lifted_by_less(danger):
    for left_away in LIFTS[danger]:
        rest = [line for line in LIFTS[danger] if line != left_away]
        assert dangerous(danger, *rest), f"without {left_away}"


@pytest.mark.parametrize("danger", LIFTS)
def test_what_came_before_a_danger_lifts_nothing(danger):
    assert dangerous(*[line for line in LIFTS[danger] if not line.startswith("unjump")], danger)


@pytest.mark.parametrize("danger", ["found rollout", "found bang", "found symptoms", "room 90", "register 30"])
def test_a_cause_that_was_not_found_is_no_cause(danger):
    said = [line.replace(CAUSE, "cause not found") for line in LIFTS[danger]]
    assert dangerous(danger, *said)


@pytest.mark.parametrize("finding", [f for f in FINDINGS if f.level], ids=lambda f: f.key)
def test_every_finding_is_raised(finding):
    assert finding.key in codes(judge(*SOUND, f"found {finding.words[0]}"))


@pytest.mark.parametrize(
    ("line", "clears"),
    [("exchanger ok 4/4", False), ("exchanger ok 4/4 by mirror", False), ("exchanger ok 3/4 by borescope", False),
     ("exchanger ok 4/4 by borescope", True), ("exchanger ok by pressure test", True)],
)  # fmt: skip
def test_a_line_that_may_be_a_crack_is_cleared_by_what_finds_a_crack(line, clears):
    assert ("exchanger_doubtful" not in codes(judge(*SOUND, "found hairline cell 2", line))) is clears


def test_a_register_is_set_against_the_room_as_it_was_then():
    assert not dangerous("room 25", "register 26", "room 0")
    assert "supply_air_co" in dangerous("room 0", "register 30", "room 25")
    assert not dangerous("register 26", "room 25")  # the room was read only afterwards


def test_a_discharge_counts_whole_while_the_intake_was_not_read():
    assert "discharge_co" in dangerous("dco 40")
    assert "discharge_co" not in dangerous("ico 38", "dco 40")


def test_after_a_shut_down_the_owner_comes_first_then_the_cure_then_the_tag():
    written = [*SOUND, "found rollout", "shut down gas shut, tagged"]
    assert judge(*written).to_tell
    assert not judge(*SOUND, "found rollout", "shut down tagged, caretaker told").to_tell
    assert judge(*written).next_step.starter == "told "
    assert "Name and cure the cause" in judge(*written, "told the owner").next_step.title
    cured = judge(*written, "told the owner", CAUSE, "flame ok")
    assert (cured.level, cured.next_step.starter) == (4, "untag ")
    again = judge(*written, "told the owner", CAUSE, "flame ok", "untag relit")
    assert (again.level, again.shut_down) == (1, False)


@pytest.mark.parametrize("danger", LIFTS)
def test_what_a_visit_leaves_open_holds_the_next_one(danger):
    found, _ = after(*SOUND, danger)
    assert found.level == 4
    assert any("Open since the visit of 14 January 2026." in reason.text for reason in found.reasons)


@settings(max_examples=60, deadline=None)
@given(dangers, st.lists(dangers, max_size=2))
def test_the_next_visit_lifts_it_as_this_one_would_have(danger, others):
    lifting = [line for name in (danger, *others) for line in LIFTS[name]]
    found, _ = after(*SOUND, danger, *others, today=(*SOUND, *lifting))
    assert not [reason for reason in found.reasons if reason.level == 4]


@pytest.mark.parametrize("danger", LIFTS)
def test_what_was_cleared_is_not_left_open(danger):
    assert after(*SOUND, danger, *LIFTS[danger])[1] == ()


def test_it_stays_open_over_many_visits_and_readings_of_then_are_not_readings_of_now():
    unit, rules = furnace(), HouseRules()
    before: tuple = ()
    for month in (1, 2, 3, 4):
        lines = (*SOUND, "room 90") if month == 1 else SOUND
        visit = VisitTape("maintenance", tape(*lines, start=BEGUN.replace(month=month)), open_before=before)
        found = assess(unit, rules, visit)
        assert "room_co_out" in codes(found)
        before = left_open(unit, rules, visit)
        assert len(before) == 1
        facts = Facts(visit.entries, visit.open_before)
    assert (facts.newest("room_co_ppm", None).value, facts.as_found("room_co_ppm", None).value) == (0, 0)


@pytest.mark.parametrize(
    ("earlier", "left"),
    [
        ("found soot", "soot"),
        ("temporary hose clamped until 3 May", "temporary_repair"),
        ("ua 0.2", None),
        ("advise a filter", None),
        ("stricter 3 the owner is away", None),
        ("found igniter white", None),
    ],
)
def test_doubts_and_temporary_repairs_go_along_readings_and_advice_do_not(earlier, left):
    found, before = after(*SOUND, earlier)
    assert (len(before), left in codes(found)) == ((1, True) if left else (0, False))


def test_a_lasting_repair_on_the_next_visit_ends_the_temporary_one():
    found, _ = after(*SOUND, "temporary hose clamped until 3 May", today=(*SOUND, "lasting new hose"))
    assert found.level == 1


@settings(max_examples=120, deadline=None)
@given(dangers, lines, lines)
def test_whatever_else_is_written_an_open_danger_holds_the_next_visit(danger, before, today):
    lifting = {*LIFTS[danger], "cause wind"}
    rest = [[line for line in part if line not in lifting] for part in (before, today)]
    found, _ = after(*rest[0], danger, today=rest[1])
    assert found.level == 4
