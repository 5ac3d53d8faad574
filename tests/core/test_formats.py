"""Days, clock and numbers as a firm writes them."""

from datetime import UTC, date, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import UnknownName
from havrin_core.quantities.display import show
from havrin_core.quantities.formats import (
    CLOCK_FORMATS,
    DAY_FORMATS,
    DECIMAL_MARKS,
    Formats,
    clock_words,
    day_words,
    formats_from,
    moment_words,
    month_words,
    number,
    short_day,
    writing,
)
from havrin_core.quantities.parse import parse_number
from havrin_core.wording.language import text

FIFTH = date(2026, 1, 5)


@pytest.mark.parametrize(
    ("days", "full", "short", "month"),
    [
        ("day_month", "5 January 2026", "5 Jan 2026", "January 2026"),
        ("month_day", "January 5, 2026", "Jan 5, 2026", "January 2026"),
        ("year_first", "2026-01-05", "2026-01-05", "2026-01"),
    ],
)
def test_days_in_the_firms_order(days, full, short, month):
    with writing(Formats(days=days)):
        assert (day_words(FIFTH), short_day(FIFTH), month_words(FIFTH)) == (full, short, month)


@pytest.mark.parametrize(
    ("hour", "in_24", "in_12"), [(0, "00:07", "12:07 AM"), (9, "09:07", "9:07 AM"), (12, "12:07", "12:07 PM")]
)
def test_clock_of_midnight_and_noon(hour, in_24, in_12):
    at = datetime(2026, 1, 5, hour, 7, tzinfo=UTC)
    assert clock_words(at) == in_24
    with writing(Formats(clock="12")):
        assert (clock_words(at), moment_words(at)) == (in_12, f"5 January 2026, {in_12}")


def test_decimal_comma_reaches_readings_and_sentences():
    with writing(Formats(decimal="comma")):
        assert show(871.8, "pressure", "us").text == "3,50"
        assert text("most {limit:.1f} %", limit=9.5) == "most 9,5 %"
        assert text("{count} of {of}", count=3, of=7) == "3 of 7"
    assert show(871.8, "pressure", "us").text == "3.50"


@given(
    value=st.floats(-1e6, 1e6, allow_nan=False),
    decimals=st.integers(1, 2),
    mark=st.sampled_from(DECIMAL_MARKS),
)
def test_what_is_written_is_read_back_as_a_line_would(value, decimals, mark):
    with writing(Formats(decimal=mark)):
        written = number(value, f".{decimals}f")
    assert parse_number(written) == pytest.approx(value, abs=0.5 * 10**-decimals + 1e-9)


def test_no_negative_zero():
    assert (number(-0.04, ".1f"), number(-0.0, "g"), number(-40.0, ".0f")) == ("0.0", "0", "−40")


@given(st.sampled_from(DAY_FORMATS), st.sampled_from(CLOCK_FORMATS), st.sampled_from(DECIMAL_MARKS))
def test_every_format_by_its_key(days, clock, decimal):
    assert formats_from(days=days, clock=clock, decimal=decimal) == Formats(days, clock, decimal)


def test_unknown_format_is_refused():
    with pytest.raises(UnknownName, match="format_unknown"):
        formats_from(days="month_year", clock="24", decimal="point")
