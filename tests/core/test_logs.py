"""Analyzer logs: layout, columns, series, steady windows."""

import numpy as np
import pytest
from pytest import approx

from demo.make_logs import HIGH_FIRE, LP_RUN, comma_log, point_log
from havrin_core.errors import BadDocument, UnknownName
from havrin_core.traces.log_layout import column_unit, find_layout, guess_columns
from havrin_core.traces.log_reader import ColumnChoice, Series, read_series
from havrin_core.traces.steady import find_light_off, find_steady, reduce_for_drawing, window
from havrin_core.wording.phrases import words as say
from tests.core.rows import BEGUN

COMMA = comma_log(HIGH_FIRE, BEGUN.replace(tzinfo=None))
POINT = point_log(LP_RUN)


def series_from(text, **columns):
    layout = find_layout(text.encode()[:65536])
    guessed = guess_columns(layout) | columns
    time = guessed.pop("time", None)
    mapping = {q: ColumnChoice(c, column_unit(layout, c, q)) for q, c in guessed.items()}
    return read_series(text.splitlines(), layout, mapping, time)


def test_semicolons_commas_preamble_and_a_units_row():
    layout = find_layout(COMMA.encode())
    assert (layout.delimiter, layout.decimal_comma, layout.header_row, layout.first_data_row) == (";", True, 3, 5)
    assert guess_columns(layout) == {
        "time": 0,
        "o2_dry_pct": 1,
        "co_ppm_dry": 2,
        "co2_dry_pct": 3,
        "flue_temp_k": 4,
        "air_temp_k": 5,
    }


def test_units_in_the_names():
    layout = find_layout(POINT.encode())
    assert guess_columns(layout) == {"time": 0, "o2_dry_pct": 1, "co_ppm_dry": 2, "flue_temp_k": 3, "air_temp_k": 4}
    assert column_unit(layout, 3, "flue_temp_k") == "°F"


@pytest.mark.parametrize(("text", "run"), [(COMMA, HIGH_FIRE), (POINT, LP_RUN)], ids=["comma", "point"])
def test_steady_means_find_what_was_put_in(text, run):
    series = series_from(text)
    steady = find_steady(series)
    assert steady is not None
    assert steady.end_s - steady.start_s >= 60
    means = {q: mean for q, mean, _ in steady.means}
    assert means["o2_dry_pct"] == approx(run.o2_pct, abs=0.05)
    assert means["co_ppm_dry"] == approx(run.co_ppm, abs=1.5)
    assert means["flue_temp_k"] == approx(run.flue_c + 273.15, abs=0.5)
    assert find_light_off(series) == approx(run.light_off_s, abs=8)


def test_a_drifting_flue_is_not_steady():
    seconds = np.arange(300.0)
    channels = {"o2_dry_pct": np.full(300, 6.5), "flue_temp_k": 320 + seconds * 0.1}
    assert find_steady(Series(seconds, channels, ())) is None


def test_fresh_air_is_not_steady_flue():
    seconds = np.arange(300.0)
    assert find_steady(Series(seconds, {"o2_dry_pct": np.full(300, 20.9)}, ())) is None
    assert find_light_off(Series(seconds, {"o2_dry_pct": np.full(300, 20.9)}, ())) is None


@pytest.mark.parametrize(
    ("content", "code"),
    [
        (b"", "log_empty"),
        (b"\n\n", "log_empty"),
        (b"Dear sir,\nthe furnace, it is cold\nplease, come soon\n", "log_no_table"),
        (b"PK\x03\x04\x00\x00\x00", "log_not_text"),
        (b"1;2;3\n4;5;6\n", "log_no_table"),
    ],
)
def test_what_is_no_log_is_said(content, code):
    with pytest.raises(BadDocument) as caught:
        find_layout(content)
    assert caught.value.code == code


@pytest.mark.parametrize("encoding", ["utf-16", "utf-8-sig", "cp1252"])
def test_encodings(encoding):
    layout = find_layout("Time;O2;T flue °C\n10:00:00;6,4;48,1\n10:00:01;6,4;48,2\n".encode(encoding))
    assert layout.headers == ("Time", "O2", "T flue °C")


def test_oddities_are_counted_and_said():
    rows = [
        "Time,O2,CO,T flue",
        "0,6.4,40,118",
        "1,6.4,-,118",
        "1,6.5,41,118",
        "2,23.5,41,118",
        "3,6.4,41,-500",
        "60,6.4,x,118",
        "junk",
        "4,6.4,40,118",
    ]
    series = series_from("\n".join(rows), time=0)
    text = " ".join(map(say, series.problems))
    for words in (
        "empty cells or dashes",
        "time of the row before",
        "cannot be",
        "cells without a number",
        "too few columns",
        "out of order",
        "gap",
    ):
        assert words in text
    assert len(series.seconds) == 6
    assert np.isnan(series.channels["o2_dry_pct"]).sum() == 1
    assert np.isnan(series.channels["flue_temp_k"]).sum() == 1


def test_a_column_of_dashes_is_said():
    series = series_from("t,O2,CO\n0,6.4,--\n1,6.4,--\n2,6.4,--\n", time=0)
    assert any("holds no number" in say(problem) for problem in series.problems)


def test_midnight_is_passed():
    series = series_from("Clock;O2\n23:59:58;6,4\n23:59:59;6,4\n00:00:00;6,4\n00:00:01;6,5\n")
    assert list(series.seconds) == [0, 1, 2, 3]


@pytest.mark.parametrize(
    "stamp", ["2026-01-14 10:29:0{}", "14.01.2026 10:29:0{}", "01/14/2026 10:29:0{} AM", "10:29:0{}.5"]
)
def test_kinds_of_time(stamp):
    series = series_from("Time;O2\n" + "".join(f"{stamp.format(i)};6,4\n" for i in range(3)))
    assert list(series.seconds) == [0, 1, 2]


def test_rows_without_time_are_seconds():
    series = series_from("O2;CO\n6,4;40\n6,4;41\n6,5;40\n")
    assert list(series.seconds) == [0, 1, 2]
    assert "No time column" in say(series.problems[0])


def test_no_usable_row_and_a_wrong_unit():
    layout = find_layout(b"Time;O2\n10:00:00;6,4\n10:00:01;6,4\n")
    with pytest.raises(BadDocument):
        read_series(["Time;O2"], layout, {"o2_dry_pct": ColumnChoice(1, "%")}, 0)
    with pytest.raises(UnknownName):
        read_series(["Time;O2"], layout, {"o2_dry_pct": ColumnChoice(1, "inWC")}, 0)


def test_drawing_keeps_peaks():
    values = np.zeros(100_000)
    values[51_234] = 99.0
    seconds, channels = reduce_for_drawing(Series(np.arange(100_000.0), {"co_ppm_dry": values}, ()))
    assert len(seconds) <= 1000
    assert channels["co_ppm_dry"].max() == 99.0


def test_window_leaves_out_what_has_no_value():
    series = Series(
        np.arange(4.0), {"o2_dry_pct": np.array([6.0, 7.0, 8.0, 9.0]), "co_ppm_dry": np.full(4, np.nan)}, ()
    )
    assert window(series, 1, 2).means == (("o2_dry_pct", 7.5, approx(0.7071, rel=1e-3)),)
