"""The exchanger: its drawing, what was found where, coverage, and the odds of a breach."""

from dataclasses import replace
from math import inf

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument
from havrin_core.exchanger.coverage import coverages, found_by_now, placed
from havrin_core.exchanger.evidence import SUSPECTED_FROM, combined, evidence_of
from havrin_core.exchanger.signs import Sign
from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.exchanger import HEIGHT, SECONDARY, exchanger_of, place_on
from havrin_core.machine.kind_files import build_unit, kind_names
from havrin_core.machine.unit import EXCHANGERS, Plate, Stage
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.documents import body_from_dict
from havrin_core.wording.missing import missing_text
from havrin_core.wording.reasons import reason_words
from tests.core.rows import SOUND, codes, furnace, judge, situation, tape

OLD = replace(furnace(), installed_year=1999, surroundings=("corrosive",))


def evidence(*lines, unit=None):
    chosen = unit or furnace()
    return evidence_of(chosen, Facts(tape(*lines, unit=chosen)))


def of_form(form, cells=3):
    unit = furnace()
    return exchanger_of(replace(unit, plate=replace(unit.plate, exchanger=form, exchanger_cells=cells)))


@pytest.mark.parametrize("form", EXCHANGERS)
def test_every_form_is_drawn_with_its_zones_inside(form):
    drawn = of_form(form)
    assert len(drawn.primary) == 3
    assert len({part.key for part in drawn.parts}) == len(drawn.parts)
    for part in drawn.parts:
        assert len({zone.key for zone in part.zones}) == len(part.zones) >= 4
        for x, y in (*part.outline, *((z.x, z.y) for z in part.zones)):
            assert 0 <= x <= drawn.width
            assert 0 <= y <= HEIGHT


def test_each_kind_with_an_exchanger_station_has_one_and_no_other():
    for kind in kind_names():
        stages = (
            (Stage("low"), Stage("high"))
            if kind in ("furnace_modulating", "boiler_condensing", "make_up_air")
            else (Stage("only"),)
        )
        unit = build_unit("X", kind, Plate("NG_H", stages, exchanger_cells=4), 1540)
        has = any(station.key == "exchanger" for station in unit.stations())
        assert (exchanger_of(unit) is not None) == has, kind
    assert exchanger_of(furnace(condensing=True)).parts[-1].key == SECONDARY


@pytest.mark.parametrize(
    ("words", "part", "zone"),
    [
        ("cell 3 first bend", "cell 3", "first bend"),
        ("cell 3, at the first bend.", "cell 3", "first bend"),
        ("cell 3: hairline", "cell 3", None),
        ("cell 3", "cell 3", None),
        ("seam", None, None),
        ("cell 9 seam", None, None),
        ("", None, None),
    ],
)
def test_a_place_is_found_by_its_words(words, part, zone):
    found = place_on(of_form("clamshell", 4), words)
    assert tuple(row.key if row else None for row in found) == (part, zone)


def test_a_finding_carries_place_size_method_and_sureness():
    (entry,) = tape("found crack cell 3 seam 12 mm by borescope sure")
    body = entry.body
    assert (body.place, body.size_m, body.method, body.sure) == ("cell 3 seam", 0.012, "borescope", "sure")
    (row,) = placed(Facts((entry,)), exchanger_of(furnace()))
    assert (row.part, row.zone, row.verdict) == ("cell 3", "seam", "danger")
    assert row.x is not None


@pytest.mark.parametrize(
    ("line", "place", "size", "method"),
    [
        ("found soot cell 2", "cell 2", None, ""),
        ("crack cell 1 9mm", "cell 1", 0.009, ""),
        ("exchanger ok 3/4 by mirror", "", None, "mirror"),
        ("found crack cell 2 by the door", "cell 2 by door", None, ""),
    ],
)
def test_what_is_no_size_and_no_method_stays_in_the_place(line, place, size, method):
    (entry,) = tape(line)
    assert (entry.body.place, entry.body.size_m, entry.body.method) == (
        place,
        pytest.approx(size) if size else None,
        method,
    )


@pytest.mark.parametrize("data", [{"method": "guess"}, {"sure": "very"}])
def test_a_look_from_elsewhere_is_checked(data):
    with pytest.raises(BadDocument):
        body_from_dict("condition", {"part": "exchanger", "condition": "sooted", **data}, "entry 1", 2)


def test_coverage_counts_what_was_seen_and_how():
    rows = coverages(Facts(tape("exchanger ok 2/4 by mirror", "exchanger ok 4/4 by borescope")), 4)
    assert [(row.seen, row.of, row.method) for row in rows] == [(4, 4, "borescope"), (2, 4, "mirror")]
    assert rows[0].finds == pytest.approx(0.85)
    assert rows[1].finds == pytest.approx(0.30)


def test_a_seen_breach_decides_and_a_new_exchanger_begins_anew():
    found = evidence("found crack cell 3")
    assert (found.breached, found.probability, found.next_looks) == (True, 1.0, ())
    assert found.signs[0].ratio == inf
    renewed = evidence("found crack cell 3", "flame moves", "did change exchanger")
    assert not renewed.breached
    assert renewed.probability == pytest.approx(renewed.prior)


def test_the_prior_follows_the_age():
    assert evidence("room 0").prior == pytest.approx(0.02)
    years = [evidence("room 0", unit=replace(furnace(), installed_year=year)).prior for year in (2024, 2012, 1999)]
    assert years == sorted(years)
    assert len(set(years)) == 3


def test_signs_of_one_cause_do_not_count_twice():
    alone = combined((Sign("a", 8.0, "blower start"),))
    both = combined((Sign("a", 8.0, "blower start"), Sign("b", 4.0, "blower start")))
    apart = combined((Sign("a", 8.0, "blower start"), Sign("b", 4.0, "fouling")))
    assert alone < both < apart
    assert both == pytest.approx(16.0)


SIGNS_FOR = (
    "flame moves",
    "o2 step 1.4",
    "co step 60",
    "found soot",
    "found rust flakes",
    "found scorch cell 2",
    "register 20",
    "found hairline cell 2",
    "did reset rollout",
)
HOW_SURE = ("", " sure", " likely", " unsure")
SEEN_FOR = [
    f"{line} cell {cell}{sure}"
    for line in ("found soot", "found scorch", "found hairline", "found warped")
    for cell in (1, 2)
    for sure in HOW_SURE
]


@given(st.lists(st.sampled_from((*SIGNS_FOR, *SEEN_FOR)), unique=True), st.sampled_from((*SIGNS_FOR, *SEEN_FOR)))
def test_a_sign_of_danger_never_lowers_the_odds(before, another):
    assert evidence("room 0", *before, another).probability >= evidence("room 0", *before).probability - 1e-12


@given(st.lists(st.sampled_from(SIGNS_FOR), unique=True))
def test_the_order_of_signs_does_not_matter(lines):
    assert evidence("room 0", *lines).probability == pytest.approx(evidence("room 0", *reversed(lines)).probability)


def test_the_next_look_says_what_each_outcome_would_make_of_it():
    found = evidence("flame moves", "o2 step 1.4")
    assert found.probability > SUSPECTED_FROM
    for look in found.next_looks:
        assert look.if_not < found.probability < look.if_found
    assert "borescope" in {look.key for look in found.next_looks}
    after = evidence("flame moves", "o2 step 1.4", "exchanger ok 4/4 by pressure test")
    assert after.probability < found.probability


@pytest.mark.parametrize(
    ("before", "key", "nothing", "something"),
    [
        (("flame moves",), "borescope", "exchanger ok 4/4 by borescope", None),
        (("flame moves", "exchanger ok 4/4 by mirror"), "borescope", "exchanger ok 4/4 by borescope", None),
        (("found soot", "exchanger ok 2/4 by mirror"), "borescope", "exchanger ok 4/4 by borescope", None),
        (("found soot",), "o2_step", "o2 step 0.1", "o2 step 1.5"),
        (("flame moves",), "o2_step", "o2 step 0.1", "o2 step 1.5"),
        (("found soot",), "register", "register 0", "register 20"),
    ],
)
def test_odds_told_for_a_look_are_those_after_it(before, key, nothing, something):
    looks = {look.key: look for look in evidence("room 0", *before).next_looks}
    if key not in looks:  # the three that tell most are offered
        pytest.fail(f"{key} is not offered beside {list(looks)}")
    assert evidence("room 0", *before, nothing).probability == pytest.approx(looks[key].if_not)
    if something:
        assert evidence("room 0", *before, something).probability == pytest.approx(looks[key].if_found)


def test_a_borescope_after_a_mirror_counts_once():
    """What the mirror would have found the borescope finds, too: 15 % of breaches are left, not 40 % of 15."""
    rows = coverages(Facts(tape("exchanger ok 4/4 by mirror", "exchanger ok 4/4 by borescope")), 4)
    assert found_by_now(rows) == pytest.approx(0.85)
    part = coverages(Facts(tape("exchanger ok 4/4 by mirror", "exchanger ok 2/4 by borescope")), 4)
    assert found_by_now(part) == pytest.approx(0.5 * 0.85 + 0.5 * 0.60)


@pytest.mark.parametrize("line", ["found rust flakes", "found soot", "did reset rollout"])
def test_an_old_unit_is_not_held_on_one_weak_sign(line):
    aged = replace(furnace(), installed_year=2001)
    assert "exchanger_suspected" not in codes(judge(line, unit=aged))


def test_suspicion_holds_the_standing_until_it_is_seen_or_tested():
    found = judge(*SOUND[:-2], "o2 step 1.4", "exchanger ok 1/4 by mirror", unit=OLD)
    reason = next(r for r in found.reasons if r.code == "exchanger_suspected")
    assert reason.level == 3
    assert "borescope" in reason_words(reason, "us").lifts
    assert "exchanger_suspected" not in codes(judge("o2 step 1.4", "exchanger ok 4/4 by pressure test", unit=OLD))


def test_one_weak_sign_runs_on_with_notice_where_the_house_says_so():
    noticed = HouseRules(exchanger_suspected="notice_and_date")
    for lines, level in ((("found rust flakes",), 2), (("found rust flakes", "register 20"), 3), (("o2 step 1.4",), 3)):
        reasons = judge(*lines, unit=OLD, rules=noticed).reasons
        assert [r.level for r in reasons if r.code == "exchanger_suspected"] == [level], lines


def test_a_unit_without_an_exchanger_is_never_suspected():
    plate = Plate("NG_H", (Stage("low", 1e4), Stage("high", 1e5)), exchanger_cells=1)
    unit = replace(build_unit("MA-9", "make_up_air", plate, 1540), installed_year=1990, surroundings=("corrosive",))
    assert "exchanger_suspected" not in codes(judge("register 30", "dco 30", unit=unit))


@pytest.mark.parametrize(
    "line", ["exchanger ok 9/2", "exchanger ok 0/4", "found exchanger ok 5 of 4", "exchanger ok 0/0 by mirror"]
)
def test_a_coverage_that_cannot_be_is_asked_back(line):
    read = read_line(line, situation())
    assert not read.writable
    assert read.asks or read.problems


def test_what_was_seen_counts_against_the_parts_that_the_unit_has():
    found = judge(*SOUND[:-2], "exchanger ok 2/2", "cycles 1")
    assert "heat exchanger: 2 of 4 not seen" in [missing_text(m) for m in found.missing]
    assert "flame.disturbed_by_blower" in codes(judge("flame moves", "exchanger ok 2/2 by borescope", "flame ok"))
    assert "flame.disturbed_by_blower" in codes(judge("flame moves", "exchanger ok 4/4", "flame ok"))
    whole = judge("flame moves", "exchanger ok 4/4 by borescope", "flame ok")
    assert "flame.disturbed_by_blower" not in codes(whole)
    (row,) = coverages(Facts(tape("exchanger ok 2/2 by mirror")), 4)
    assert (row.seen, row.of, row.finds) == (2, 4, pytest.approx(0.30))
