"""The standing on every kind of unit, at every reason for a visit, whatever was found and done: properties by generation."""

from dataclasses import replace
from datetime import timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.batch.read import unit_in
from havrin_core.house.house_rules import PRESETS, HouseRules
from havrin_core.rules.proofs import PROOFS
from havrin_core.standing.assess import assess
from havrin_core.standing.carry_over import left_open
from havrin_core.tape.entries import Correction, Entry, Said
from havrin_core.tape.visit import REASONS_FOR_VISIT, VisitTape
from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.wording.closing import standing_title
from tests.core.rows import BEGUN, tape
from tests.core.trade import DANGERS, DEVICES, EVERY, sound_lines, unit_of

UNITS = {kind: unit_in({"unit": {"name": "U", **unit_of(kind)}}) for kind in EVERY}
FATAL = {kind: [row.lines[0] for row in DANGERS if kind in row.on and row.level == 4] for kind in EVERY}
BAD = {kind: [line for row in DANGERS if kind in row.on for line in row.lines] for kind in EVERY}
ELSE = (
    "room 0",
    "leak ok",
    "cycles 5",
    "cause dirty burner",
    "putback",
    "note x",
    "told owner",
    "advise a filter",
    "did clean burners",
    "did change board",
    "stricter 2 x",
    "part igniter",
    "temporary tape until 1 May",
    "power off and on",
    "vent ok",
)
reasons = st.sampled_from(sorted(REASONS_FOR_VISIT))
rules = st.sampled_from(list(PRESETS.values()))


@st.composite
def cases(draw, rows):
    """Draw a kind, lines written before, one of its own ``rows``."""
    kind = draw(st.sampled_from(EVERY))
    before = draw(st.lists(st.sampled_from((*ELSE, *sound_lines(kind), *BAD[kind])), max_size=8))
    if kind in ("make_up_air",):
        before = [line for line in before if line != "vent ok"]
    said = [part for line in before for part in line.split(" | ")]
    return kind, said, draw(st.sampled_from(rows[kind])).split(" | ")


def standing(kind, reason, house, *written, more=()):
    unit = UNITS[kind]
    return assess(unit, house, VisitTape(reason, (*tape(*written, unit=unit), *more)))


@settings(max_examples=120)
@given(cases(FATAL), reasons, rules, st.randoms())
def test_an_open_danger_is_never_left_running_anywhere(case, reason, house, shuffle):
    kind, before, danger = case
    entries = list(tape(*before, *danger, unit=UNITS[kind]))
    shuffle.shuffle(entries)
    found = assess(UNITS[kind], house, VisitTape(reason, tuple(entries)))
    assert found.level == 4
    assert any(row.level == 4 and row.lifts for row in found.reasons)


@settings(max_examples=120)
@given(cases(BAD), reasons, rules)
def test_a_danger_more_never_lowers_the_level(case, reason, house):
    kind, before, danger = case
    assert standing(kind, reason, house, *before, *danger).level >= standing(kind, reason, house, *before).level


@settings(max_examples=60)
@given(cases(FATAL), reasons, rules, st.integers(1, 2))
def test_no_override_lowers_an_open_danger(case, reason, house, level):
    kind, before, danger = case
    after = Entry("zz", BEGUN.replace(hour=18), "S", "found", Said("override", "seen it", level, by_supervisor=True))
    assert standing(kind, reason, house, *before, *danger, more=(after,)).level == 4


@settings(max_examples=60)
@given(cases(BAD), reasons, rules)
def test_a_struck_danger_is_as_if_it_had_never_been_written(case, reason, house):
    kind, before, danger = case
    entries = tape(*before, *danger, unit=UNITS[kind])
    own = [e for e in entries if int(e.group) >= len(before)]
    strikes = [Entry(f"z{n}", entries[-1].at, "T", "found", Correction(e.id)) for n, e in enumerate(own)]
    struck = assess(UNITS[kind], house, VisitTape(reason, (*entries, *strikes)))
    plain = standing(kind, reason, house, *before)
    assert (struck.level, struck.reasons, struck.missing) == (plain.level, plain.reasons, plain.missing)


@settings(max_examples=80)
@given(cases(BAD), st.sampled_from((-60, 60)), st.randoms())
def test_a_clock_that_is_an_hour_off_never_lowers_the_level(case, minutes, draw):
    """Two people write; what one tablet shows is wrong by an hour. Of a clock nobody checked the order of receipt must say the same."""
    kind, before, danger = case
    right = tape(*danger, *before, unit=UNITS[kind])
    author = {e.group: draw.choice("TW") for e in right}
    signed = [replace(e, author=author[e.group]) for e in right]
    shifted = [replace(e, at=e.at + timedelta(minutes=minutes)) if e.author == "W" else e for e in signed]
    one, other = (
        assess(UNITS[kind], HouseRules(), VisitTape("maintenance", tuple(rows))) for rows in (signed, shifted)
    )
    assert max(r.level for r in other.reasons) >= 3 or max(r.level for r in one.reasons) < 3


@settings(max_examples=60)
@given(cases(FATAL), reasons, rules)
def test_what_is_open_at_a_close_is_open_at_the_next_visit(case, reason, house):
    kind, before, danger = case
    unit = UNITS[kind]
    first = tape(*before, *danger, unit=unit)
    later = tape(*sound_lines(kind), unit=unit, start=BEGUN + timedelta(days=7))
    closed = left_open(unit, house, VisitTape(reason, first), "made_safe")
    following = assess(unit, house, VisitTape("recheck", later, before=closed))
    # as if it had been one long visit: a reading within lifts a danger that asks for that reading alone
    whole = assess(unit, house, VisitTape("recheck", (*first, *later)))
    lost = {r.code for r in whole.reasons if r.level == 4} - {r.code for r in following.reasons}
    assert not lost


@pytest.mark.parametrize("kind", EVERY)
def test_put_backs_in_any_order_open_no_door(kind):
    device = DEVICES[kind][0]
    lines = [f"jump {device}", f"lift {device}", f"unjump {device}", f"land {device}", f"proved {device}"]
    whole = standing(kind, "maintenance", HouseRules(), *sound_lines(kind), *lines)
    assert whole.level == 1
    for at in range(2, 5):
        some = [line for n, line in enumerate(lines) if n != at]
        assert standing(kind, "maintenance", HouseRules(), *sound_lines(kind), *some).level >= 3, lines[at]


@pytest.mark.parametrize("way", WAYS, ids=lambda w: w.key)
def test_nothing_abnormal_stays_in_unseen(way):
    place = {
        "bridged": "call",
        "held": "limit",
        "lifted": "limit",
        "tee": "draft hose",
        "tap": "manifold",
        "removed": "igniter",
        "setting": "blower",
    }[way.key]
    held = standing("furnace_80", "maintenance", HouseRules(), *sound_lines("furnace_80"), f"{way.verb_in} {place}")
    assert [still.how for still in held.abnormal] == [way.key]
    assert "abnormal" in held.holds
    back = standing("furnace_80", "maintenance", HouseRules(), f"{way.verb_in} {place}", f"{way.verb_out} {place}")
    assert back.abnormal == ()


@pytest.mark.parametrize("reason", sorted(REASONS_FOR_VISIT))
@pytest.mark.parametrize("kind", EVERY)
def test_nothing_written_is_not_judged_as_sound(kind, reason):
    found = standing(kind, reason, HouseRules())
    assert (found.level, standing_title(found), found.settled) == (3, "Not shown yet", False)
    assert found.missing
    assert {item.proof for item in found.missing} <= set(PROOFS)


@pytest.mark.parametrize(
    ("kind", "action", "asks", "never"),
    [
        ("boiler_atmospheric", "clear vent", "spillage_tested", "draft_each_stage"),
        ("boiler_atmospheric", "change exchanger", "water_rise_each_stage", "rise_each_stage"),
        ("make_up_air", "adjust manifold", "discharge_co_each_stage", "flue_each_stage"),
        ("boiler_condensing", "change gas valve", "flue_each_stage", "manifold_each_stage"),
        ("furnace_80", "clear vent", "draft_each_stage", "spillage_tested"),
    ],
)
def test_work_asks_only_for_what_the_unit_has(kind, action, asks, never):
    missing = standing(kind, "recheck", HouseRules(), f"did {action}").missing
    assert asks in {item.proof for item in missing if item.because is not None}
    assert never not in {item.proof for item in missing}
