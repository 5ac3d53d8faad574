"""Trends of a reading over the years: told at 95 %, tested by truth that is drawn by chance."""

from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.follow_up.trends import renewed_at, trend_of
from havrin_core.limits.limits import Band
from tests.core.rows import tape

FIRST = date(2023, 10, 1)
RUNS = 2000


def line(*values, every=365):
    return [(FIRST + timedelta(days=every * i), value) for i, value in enumerate(values)]


def day_number(day):
    return (day - FIRST).days


def test_a_falling_signal_crosses_its_least_on_a_day():
    found = trend_of(line(3.0, 2.6, 2.2), Band("plate", low=0.8))
    assert found.per_year == approx(-0.4)
    assert abs((found.earliest - date(2029, 3, 31)).days) < 3
    assert found.latest == found.earliest  # no scatter, and an instrument without any doubt


def test_scatter_and_few_points_make_no_trend():
    assert trend_of(line(3.0, 2.2, 3.1, 2.9), Band("plate", low=0.8)) is None
    assert trend_of(line(3.0, 2.0), Band("plate", low=0.8)) is None
    assert trend_of(line(3.0, 3.0, 3.0), None) is None
    assert trend_of([(FIRST, 1.0), (FIRST, 2.0), (FIRST, 3.0)], None) is None


def test_three_readings_that_happen_to_lie_on_a_line_are_no_surer_than_the_instrument():
    assert trend_of(line(3.0, 2.9, 2.8), None, half_width=0.1) is None


def test_what_moves_away_from_its_limit_crosses_nothing():
    assert trend_of(line(1.0, 2.0, 3.0), Band("plate", low=0.8)).earliest is None
    assert trend_of(line(1.0, 1.01, 1.02), Band("plate", high=9.0)).earliest is None


@given(st.floats(-50, 50).filter(lambda slope: abs(slope) > 0.01), st.floats(-100, 100), st.integers(3, 9))
def test_a_straight_line_is_found_as_it_is(slope, start, count):
    assert trend_of(line(*(start + slope * i for i in range(count))), None).per_year == approx(slope, rel=1e-6)


@pytest.mark.parametrize("count", [3, 4, 6, 10, 30])
@pytest.mark.parametrize("half_width", [0.0, 0.2])
def test_still_series_are_called_moving_in_at_most_one_of_twenty(count, half_width):
    rng = np.random.default_rng(count)
    found = [trend_of(line(*rng.normal(3.0, 0.1, count)), None, half_width) for _ in range(RUNS)]
    assert sum(trend is not None for trend in found) / RUNS <= 0.065  # 5 %, and what 2000 draws leave open


@pytest.mark.parametrize("count", [5, 8, 15])
def test_slopes_that_are_told_hold_the_true_one_within_their_width(count):
    rng = np.random.default_rng(count)
    held = []
    for _ in range(RUNS):
        found = trend_of(line(*(4 - 0.3 * np.arange(count) + rng.normal(0, 0.1, count))), None)
        if found is not None:
            held.append(abs(found.per_year + 0.3) <= found.half_width)
    assert len(held) > 0.9 * RUNS
    assert sum(held) / len(held) >= 0.93


def test_the_day_of_crossing_lies_in_the_range_that_is_told():
    rng, true_day = np.random.default_rng(5), 365 * (3.0 - 0.8) / 0.3  # a line from 3.0, falling by 0.3 a year
    held = []
    for _ in range(RUNS):
        found = trend_of(line(*(3.0 - 0.3 * np.arange(6) + rng.normal(0, 0.05, 6))), Band("plate", low=0.8))
        if found is not None and found.earliest is not None:
            latest = day_number(found.latest) if found.latest else np.inf
            held.append(day_number(found.earliest) - 1 <= true_day <= latest + 1)
    assert len(held) > 0.5 * RUNS
    assert sum(held) / len(held) >= 0.93


@pytest.mark.parametrize(
    ("lines", "fresh"),
    [
        (("ua 2.0", "did clean flame rod"), True),
        (("ua 2.0", "did clean blower"), False),
        (("ua 2.0",), False),
    ],
)
def test_work_at_its_own_station_breaks_a_series(lines, fresh):
    assert (renewed_at(tape(*lines), "flame_current_a") is not None) == fresh
