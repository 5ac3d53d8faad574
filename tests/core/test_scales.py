"""Marks on scales, the ladder of gas pressures, how figures are marked: shares of a width, never off the scale."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.model import Band
from havrin_core.rules.marks import flue_mark
from havrin_core.rules.model import Reason
from havrin_core.rules.scale import flue_scale, scale_of
from havrin_core.wording.workings import rung_limit, rung_name, rung_starter
from havrin_core.workings.ladder import as_found_apart, ladder_of, switch_of
from tests.core.rows import SOUND, furnace, judge, tape

BOUND = st.floats(0.0, 5000.0)
RULES = HouseRules()


@given(st.tuples(BOUND, BOUND), BOUND, st.none() | BOUND)
def test_every_mark_lies_on_the_scale_and_on_its_side_of_the_band(ends, value, found):
    low, high = min(ends), max(ends)
    scale = scale_of("manifold_pa", Band("plate", low=low, high=high), value, found)
    marks = [scale.value, scale.band_from, scale.band_to, *([scale.found] if found is not None else [])]
    assert all(0.0 <= mark <= 1.0 for mark in marks)
    assert scale.band_from <= scale.band_to
    assert value >= low or scale.value <= scale.band_from
    assert value <= high or scale.value >= scale.band_to


@pytest.mark.parametrize("band", [None, Band("house"), Band("house", near_low=1.0)])
def test_without_a_bound_there_is_no_scale(band):
    assert scale_of("manifold_pa", band, 1.0, None) is None


def test_a_band_with_one_end_reaches_to_the_edge_of_the_scale():
    assert scale_of("manifold_pa", Band("plate", low=500.0), 900.0, None).band_to == 1.0
    assert scale_of("manifold_pa", Band("plate", high=500.0), 300.0, None).band_from == 0.0


def test_the_flues_scale_is_that_of_its_own_number_not_of_its_text():
    low, high = (judge(*SOUND[:5], f"o2 7.4 co {co} t 342 air 66").flue[0] for co in (20, 21))
    assert flue_scale(low, RULES).value < flue_scale(high, RULES).value


def test_a_flue_that_cannot_be_computed_has_no_scale():
    alone = judge("o2 7.4").flue
    assert [flue_scale(view, RULES) for view in alone if view.result is None] == [
        None for v in alone if v.result is None
    ]


@pytest.mark.parametrize(
    ("codes", "key", "mark"),
    [
        ([], "co_air_free_ppm", "in"),
        ([(2, "co_ask")], "co_air_free_ppm", "near"),
        ([(2, "co_ask"), (4, "co_action")], "co_air_free_ppm", "out"),
        ([(3, "o2_band")], "excess_air_pct", "out"),
        ([(4, "co_action")], "dew_point_k", ""),
    ],
)
def test_a_figure_bears_the_mark_of_the_gravest_reason_that_speaks_of_it(codes, key, mark):
    assert flue_mark(key, [Reason(level, code) for level, code in codes]) == mark


def test_the_ladder_has_its_rungs_from_the_supply_down_and_one_scale():
    unit = furnace(stages=2)
    rungs = ladder_of(unit, RULES, Facts(tape("lockup 7.4", "supply 7.1", "mp 3.2 hi", "left: mp 3.3 hi", unit=unit)))
    assert [(r.quantity, r.stage) for r in rungs] == [
        ("supply_standing_pa", None),
        ("supply_running_pa", None),
        ("manifold_pa", "high"),
        ("manifold_pa", "low"),
    ]
    standing, running, high, low = rungs
    assert standing.value > running.value > high.value > 0
    assert standing.value / running.value == pytest.approx(7.4 / 7.1, rel=1e-3)
    assert high.found == pytest.approx(high.value * 3.2 / 3.3, rel=1e-3)
    assert (low.value, low.at_pa, low.state) == (None, None, "none")
    assert all(0 <= end <= 1 for r in rungs for end in (r.low, r.high) if end is not None)


def test_a_rung_says_its_name_its_limit_and_how_its_line_begins():
    unit = furnace(stages=2)
    rungs = ladder_of(unit, RULES, Facts(()))
    assert [rung_name(r) for r in rungs] == ["No flow", "All running", "Manifold high", "Manifold low"]
    assert [rung_starter(r) for r in rungs] == ["lockup ", "supply ", "high mp ", "low mp "]
    assert rung_limit(rungs[1], "us") == "4.50 to 10.50, data plate"
    assert rung_limit(rungs[0], "us").startswith("at most ")


def test_a_reading_stands_apart_as_found_only_where_another_followed():
    assert as_found_apart(Facts(tape("mp 3.2")), "manifold_pa", "only") is None
    assert as_found_apart(Facts(tape("mp 3.2", "left: mp 3.5")), "manifold_pa", "only").value == pytest.approx(
        797.1, abs=0.5
    )


def test_a_switch_is_shown_against_its_stamp_with_the_margin_of_the_house():
    unit = furnace()
    stamp = unit.stage("only").switch_makes_pa
    shown = switch_of(unit, RULES, Facts(tape("draft .88")), "only")
    assert shown.wanted_share == pytest.approx((1 + RULES.draft_margin_share) / 2)
    assert shown.read_share == pytest.approx(shown.read_pa / (2 * stamp))
    assert shown.state == "in"
    assert switch_of(unit, RULES, Facts(tape("draft 9")), "only").read_share == 1.0
    assert switch_of(unit, RULES, Facts(()), "only").read_pa is None
