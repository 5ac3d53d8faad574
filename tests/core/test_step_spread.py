"""A step that was read out of a trace is as sure as the trace: its spread stands in the odds of the exchanger and in the search."""

import random
from datetime import UTC, datetime
from statistics import fmean

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.exchanger.signs import averaged, o2_step_sign
from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.table import bound
from havrin_core.search.evidence import seen_on
from havrin_core.search.pictures import pictures_of
from havrin_core.tape.entries import Entry, Reading, Trace
from tests.core.rows import furnace

AT = datetime(2026, 1, 5, 9, 0, tzinfo=UTC)


def entry(body, key="a"):
    return Entry(key, AT, "tove", "found", body, key)


def by_drawing(value, spread):
    """The mean ratio over steps that are drawn one by one: the truth that no quantile was used for."""
    draw = random.Random(7)
    ratio = {"out": 8.0, "near": 3.0}
    return fmean(ratio.get(bound("o2_step.most").verdict(draw.gauss(value, spread)), 0.5) for _ in range(20_000))


@pytest.mark.parametrize(("value", "spread"), [(0.1, 0.05), (0.9, 0.4), (1.4, 0.6), (3.0, 0.2), (2.0, 1.5)])
def test_the_ratio_of_a_step_is_that_of_steps_drawn_about_it(value, spread):
    assert o2_step_sign(value, spread_pct=spread).ratio == pytest.approx(by_drawing(value, spread), rel=0.03)


@given(st.floats(-3, 5), st.floats(0, 3))
def test_an_unsure_step_never_says_more_than_the_surest_one_could(value, spread):
    assert 0.5 <= o2_step_sign(value, spread_pct=spread).ratio <= 8.0


def test_a_step_without_spread_is_taken_as_it_is():
    assert averaged(lambda x: x, 1.2, 0.0) == 1.2


def test_the_spread_of_a_step_comes_from_its_trace_and_of_nothing_else():
    facts = Facts((entry(Trace("c", "only", 60.0, (("o2_step_pct", 1.4, 0.3), ("o2_dry_pct", 7.0, 0.2)))),))
    spreads = {fact.quantity: fact.spread for fact in facts.readings}
    assert spreads == {"o2_step_pct": 0.3, "o2_dry_pct": 0.0}
    assert Facts((entry(Reading("o2_step_pct", 1.4, 1.4, "%")),)).readings[0].spread == 0.0


def test_the_search_takes_the_step_with_its_spread():
    unit = furnace()
    pictures = pictures_of(unit.circuit)
    found, _ = seen_on(unit, HouseRules(), pictures, (entry(Trace("c", "only", 60.0, (("o2_step_pct", 1.4, 0.3),))),))
    steps = [seen for seen in found.observations if "o2_step" in seen.test]
    assert [seen.spread for seen in steps] == [0.3] * len(steps)
    assert steps
