"""Trends of a reading over the years."""

from datetime import date, timedelta

from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.follow_up.trends import trend_of
from havrin_core.limits.limits import Band

FIRST = date(2023, 10, 1)


def line(*values, every=365):
    return [(FIRST + timedelta(days=every * i), value) for i, value in enumerate(values)]


def test_a_falling_signal_crosses_its_least_on_a_day():
    found = trend_of(line(3.0, 2.6, 2.2), Band("plate", low=0.8))
    assert found.per_year == approx(-0.4)
    assert abs((found.crosses - date(2029, 3, 31)).days) < 3


def test_scatter_and_few_points_make_no_trend():
    assert trend_of(line(3.0, 2.2, 3.1, 2.9), Band("plate", low=0.8)) is None
    assert trend_of(line(3.0, 2.0), Band("plate", low=0.8)) is None
    assert trend_of(line(3.0, 3.0, 3.0), None) is None
    assert trend_of([(FIRST, 1.0), (FIRST, 2.0), (FIRST, 3.0)], None) is None


def test_what_moves_away_from_its_limit_crosses_nothing():
    assert trend_of(line(1.0, 2.0, 3.0), Band("plate", low=0.8)).crosses is None
    assert trend_of(line(1.0, 1.01, 1.02), Band("plate", high=9.0)).crosses is None


@given(st.floats(-50, 50).filter(lambda slope: abs(slope) > 0.01), st.floats(-100, 100), st.integers(3, 9))
def test_a_straight_line_is_found_as_it_is(slope, start, count):
    assert trend_of(line(*(start + slope * i for i in range(count))), None).per_year == approx(slope, rel=1e-6)
