"""From a log that was read to channels on one clock: steady windows, light-off, what was odd."""

import numpy as np
import pytest
from pytest import approx

from demo.make_logs import HIGH_FIRE, LP_RUN, comma_log, point_log
from havrin_core.errors import BadDocument
from havrin_core.logs.reading import Chosen, read_log
from havrin_core.traces.series import Series, over_range_s, series_of_log
from havrin_core.traces.steady import find_light_off, find_steady, reduce_for_drawing, window
from havrin_core.wording.phrases import words as say
from tests.core.rows import BEGUN

COMMA = comma_log(HIGH_FIRE, BEGUN.replace(tzinfo=None))
POINT = point_log(LP_RUN)


def series_from(text, **chosen):
    return series_of_log(read_log(text.encode(), Chosen(**chosen)))


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


def test_oddities_are_counted_and_said_with_their_line():
    rows = [
        "Time [s],O2 [%],CO [ppm],T flue [°F]",
        "0,6.4,40,118",
        "1,6.4,-,118",
        "1,6.5,41,118",
        "2,23.5,OVR,118",
        "3,6.4,41,-500",
        "60,6.4,x,118",
        "junk",
        "61,6.4,40,118",
    ]
    series = series_from("\n".join(rows))
    text = " ".join(map(say, series.problems))
    for words in (
        "are empty or dashes",
        "the time of the row before",
        "the first in line 5: “23.5”",
        "the first in line 7: “x”",
        "rows over range: 1",
        "columns instead of 4: left out (lines 8)",
        "gap in the log",
    ):
        assert words in text, text
    assert len(series.seconds) == 6
    assert np.isnan(series.channels["o2_dry_pct"]).sum() == 1
    assert np.isnan(series.channels["flue_temp_k"]).sum() == 1


def test_where_carbon_monoxide_is_over_range_is_known_by_its_time():
    found = read_log(b"Time [s],O2 [%],CO [ppm]\n0,6.4,40\n1,6.4,OVR\n2,6.4,>4000\n3,6.4,41\n")
    assert over_range_s(found, "co_ppm_dry") == (1.0, 2.0)


def test_midnight_is_passed():
    series = series_from("Clock;O2 [%]\n23:59:58;6,4\n23:59:59;6,4\n00:00:00;6,4\n00:00:01;6,5\n")
    assert list(series.seconds) == [0, 1, 2, 3]


@pytest.mark.parametrize(
    "stamp", ["2026-01-14 10:29:0{}", "14.01.2026 10:29:0{}", "01/14/2026 10:29:0{} AM", "10:29:0{}.5"]
)
def test_kinds_of_time(stamp):
    series = series_from("Time;O2 [%]\n" + "".join(f"{stamp.format(i)};6,4\n" for i in range(3)))
    assert list(series.seconds) == [0, 1, 2]


def test_rows_without_time_are_seconds_only_when_that_was_said():
    text = "O2 [%];CO [ppm]\n6,4;40\n6,4;41\n6,5;40\n"
    with pytest.raises(BadDocument):
        series_from(text)
    assert list(series_from(text, time="rows").seconds) == [0, 1, 2]


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
