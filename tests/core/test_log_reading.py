"""Logs: what is told is true, and what is not sure is asked. Truth is the generator's, which the reader does not see."""

from contextlib import suppress
from functools import cache
from math import isnan

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.errors import BadDocument
from havrin_core.logs.numbers import MARKS, cell_of, numbers_of, read_number
from havrin_core.logs.reading import Chosen, read_log
from tests.core.log_files import make

SEEDS = range(600)


def channels(text, **chosen):
    raw = text.encode() if isinstance(text, str) else text
    found = read_log(raw, Chosen(**chosen))
    return {channel.quantity: channel for channel in found.channels}, found


def wrong_in(file, found):
    """Return what the reader tells otherwise than it was."""
    said = {channel.quantity: channel for channel in found.channels}
    bad = []
    for quantity, channel in said.items():
        truth = file.truth.get(quantity)
        if truth is None or len(truth) != len(channel.values):
            bad.append((quantity, "no such quantity, or other rows"))
            continue
        for want, got in zip(truth, channel.values, strict=True):
            if (want is None and not isnan(got) and quantity != "co_ppm_dry") or (
                want is not None and got != approx(want, rel=1e-6, abs=1e-6)
            ):
                bad.append((quantity, want, got))
    if found.seconds and list(found.seconds) != approx(file.seconds):
        bad.append(("seconds", file.seconds[:3], found.seconds[:3]))
    return bad


@cache
def written_and_read(seed):
    """Return a made file and what the reader makes of it: read once for all that is asked of it."""
    file = make(seed)
    return file, read_log(file.raw)


@pytest.mark.many_cases
def test_nothing_is_told_otherwise_than_it_was():
    for seed in SEEDS:
        file, found = written_and_read(seed)
        assert not wrong_in(file, found), (seed, file.how, wrong_in(file, found)[:2])


@pytest.mark.many_cases
def test_every_quantity_is_told_or_asked_for():
    told = asked = 0
    for seed in SEEDS:
        file, found = written_and_read(seed)
        said, about = {c.quantity for c in found.channels}, {q.quantity for q in found.questions}
        for quantity in file.truth:
            told += quantity in said
            asked += quantity in about and quantity not in said
            assert quantity in said or {quantity, ""} & about, (seed, quantity, file.how)
    assert told > 0.5 * (told + asked)


@pytest.mark.many_cases
def test_carbon_monoxide_over_range_is_a_bound_and_no_value():
    seen = 0
    for seed in SEEDS:
        file, read = written_and_read(seed)
        found = {c.quantity: c for c in read.channels}
        if file.over and "co_ppm_dry" in found:
            seen += 1
            assert list(found["co_ppm_dry"].at_least) == file.over, seed
    assert seen > 5


@pytest.mark.parametrize("mark", MARKS)
@given(value=st.floats(-1e6, 1e6, allow_nan=False), decimals=st.integers(0, 4), thousands=st.booleans())
def test_a_written_number_is_read_back_under_its_own_mark(mark, value, decimals, thousands):
    text = f"{value:,.{decimals}f}" if thousands else f"{value:.{decimals}f}"
    written = text if mark == "point" else text.translate(str.maketrans({",": ".", ".": ","}))
    assert read_number(written, mark) == approx(float(text.replace(",", "")))


@pytest.mark.parametrize(
    ("cells", "mark"),
    [
        (["1,234", "2,345"], None),
        (["1.234"], None),
        (["0,123", "2,345"], "comma"),
        (["6.4", "1.234"], "point"),
        (["1,234.5"], "point"),
        (["1.234.567"], "comma"),
        (["12", "13"], "point"),
    ],
)
def test_a_mark_before_just_three_digits_is_decided_by_its_column_or_asked(cells, mark):
    assert numbers_of(cells).mark == mark


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("OVR", "over"),
        ("OL", "over"),
        (">2000", "over"),
        ("<1", "under"),
        ("-OL", "under"),
        ("---", "nothing"),
        ("inf", "other"),
        ("NaN", "nothing"),
        ("6,4 %", "number"),
    ],
)
def test_marks_of_an_instrument_are_told_apart(text, kind):
    assert cell_of(text).kind == kind


def test_one_thousand_is_never_told_as_one():
    found, reading = channels('Time,O2 [%],CO [ppm]\n0,6.4,"1,234"\n1,6.5,"1,250"\n')
    assert "co_ppm_dry" not in found
    assert [q.about for q in reading.questions if q.quantity == "co_ppm_dry"] == ["numbers"]
    answered, _ = channels('Time [s],O2 [%],CO [ppm]\n0,6.4,"1,234"\n1,6.5,"1,250"\n', marks={2: "point"})
    assert answered["co_ppm_dry"].values == (1234.0, 1250.0)


@pytest.mark.parametrize(
    ("heads", "asked"),
    [
        ("CO 1 [ppm];CO 3 [ppm]", True),
        ("CO corr. [ppm];X", True),
        ("CO [ppm];CO limit [ppm]", False),
        ("CO air-free [ppm];X", True),
        ("Ambient CO [ppm];X", False),
    ],
)
def test_a_column_that_is_not_plainly_the_one_is_asked(heads, asked):
    found, reading = channels(f"Time [s];O2 [%];{heads}\n0;6,4;40;50\n1;6,5;41;50\n")
    assert any(q.about == "column" and q.quantity == "co_ppm_dry" for q in reading.questions) == asked
    if asked:
        assert "co_ppm_dry" not in found


def test_carbon_monoxide_per_heat_wants_the_fuel():
    text = "Time [s];O2 [%];CO [mg/kWh]\n0;3,0;100\n1;10,5;100\n"
    found, reading = channels(text)
    assert "co_ppm_dry" not in found
    assert [q.about for q in reading.questions] == ["fuel"]
    answered, _ = channels(text, fuel="CH4")
    # methane, 9.97 kWh of net heat in a cubic metre; 8.523 m³ of dry flue gas from it without excess air, CO weighs 1.25 g/l
    by_hand = [100 * 9.968 / (8.523 * 20.946 / (20.946 - o2)) / 1.2505 for o2 in (3.0, 10.5)]
    assert answered["co_ppm_dry"].values == approx(tuple(by_hand), rel=0.005)


def test_a_unit_that_is_unknown_stops_its_column():
    found, reading = channels("Time [s];O2 [%];CO [g/GJ]\n0;6,4;40\n1;6,5;41\n")
    assert "co_ppm_dry" not in found
    assert any(q.about == "unit" and q.quantity == "co_ppm_dry" for q in reading.questions)


def test_a_temperature_without_a_unit_is_asked():
    found, _ = channels("Time [s];O2 [%];T flue\n0;6,4;118\n1;6,5;119\n")
    assert set(found) == {"o2_dry_pct"}
    answered, _ = channels("Time [s];O2 [%];T flue\n0;6,4;118\n1;6,5;119\n", units={2: "°F"})
    assert answered["flue_temp_k"].values[0] == approx(320.928, abs=1e-3)


def test_hours_or_minutes_are_asked():
    _, reading = channels("Time;O2 [%]\n00:01;6,4\n00:02;6,5\n")
    assert any(q.about == "time" for q in reading.questions)
    assert reading.seconds == ()
    _, answered = channels("Time;O2 [%]\n00:01;6,4\n00:02;6,5\n", time="min_s")
    assert answered.seconds == (0.0, 1.0)


def test_a_row_that_is_left_out_is_named():
    _, reading = channels("Time [s];O2 [%]\n0;6,4\njunk\n1;6,5\n2;6,4;9;9\n")
    assert sum(row.count for row in reading.dropped) == 2
    assert {line for row in reading.dropped for line, _ in row.lines} == {3, 5}


@pytest.mark.parametrize(
    "content", [b"", b"\n\n", b"PK\x03\x04\x00\x00\x01\x02", b"Dear sir,\nit is cold, come soon\n"]
)
def test_what_is_no_log_is_said(content):
    with pytest.raises(BadDocument):
        read_log(content)


@given(st.binary(max_size=400))
def test_any_bytes_are_read_or_refused(content):
    with suppress(BadDocument):
        read_log(content)


@given(st.text(alphabet='0123456789.,;:-+ \t\n"O2CT[]%°ab', max_size=300))
def test_any_text_is_read_or_refused(text):
    with suppress(BadDocument):
        read_log(text.encode())


def test_one_sample_of_a_printout():
    found, reading = channels("Analyzer 1\nO2: 6.4 %\nCO: 46 ppm\nT flue: 118 °F\n")
    assert {q: c.values[0] for q, c in found.items()} == {
        "o2_dry_pct": 6.4,
        "co_ppm_dry": 46.0,
        "flue_temp_k": approx(320.928, abs=1e-3),
    }
    assert not reading.questions


TWO = "Time [s];O2 [%]\n0;6,4\n1;6,5\n2;6,5\n"


@pytest.mark.parametrize(
    "text",
    [
        TWO + "0;7,4\n1;7,5\n2;7,5\n",
        TWO + "9000;7,4\n9001;7,5\n9002;7,5\n",
        TWO + "\nAppliance F-3\n" + "Time [s];O2 [%]\n3;7,4\n4;7,5\n5;7,5\n",
        "Appliance;Time [s];O2 [%]\nF-2;0;6,4\nF-2;1;6,5\nF-2;2;6,5\nF-3;3;7,4\nF-3;4;7,5\nF-3;5;7,5\n",
        TWO + "O2 [%];Time [s]\n7,4;0\n7,5;1\n7,5;2\n",
        TWO.replace(" [s]", "").replace("\n0", "\n10:00:00").replace("\n1;", "\n10:00:01;").replace("\n2", "\n10:00:02")
        + "09:59:59;7,4\n10:00:00;7,5\n10:00:01;7,5\n",
    ],
    ids=["clock back", "pause", "words between", "names", "other header", "time of day back"],
)
def test_two_recordings_in_a_file_are_asked_apart(text):
    found, reading = channels(text)
    assert not found
    assert reading.questions[0].about == "session"
    first, _ = channels(text, session="1")
    second, told = channels(text, session="2")
    assert first["o2_dry_pct"].values == (6.4, 6.5, 6.5)
    assert second["o2_dry_pct"].values == (7.4, 7.5, 7.5)
    assert told.seconds == (0.0, 1.0, 2.0)


def test_a_clock_that_was_set_back_runs_on_once_that_was_said():
    text = "Clock;O2 [%]\n02:59:58;6,4\n02:59:59;6,5\n02:00:00;6,6\n02:00:01;6,7\n"
    assert channels(text)[1].questions[0].about == "session"
    assert channels(text, session="all")[1].seconds == (0.0, 1.0, 2.0, 3.0)


@pytest.mark.parametrize(
    ("heading", "cells"),
    [
        ("Time", ["14. Jan. 2026 10:29:58", "14. Jan. 2026 10:29:59", "14. Jan. 2026 10:30:00"]),
        ("Zeit", ["31.12.25 23:59:59", "01.01.26 00:00:00", "01.01.26 00:00:01"]),
        ("Heure", ["14 janv. 2026 10:00:00", "14 janv. 2026 10:00:01", "14 janv. 2026 10:00:02"]),
        ("Time", ["01/31/2026 11:59:59 p.m.", "02/01/2026 12:00:00 a.m.", "02/01/2026 12:00:01 A.M."]),
        ("Time", ["26-01-14 23:59:59", "26-01-15 00:00:00", "26-01-15 00:00:01"]),
        ("Time", ["20260114 102958", "20260114 102959", "20260114 103000"]),
        ("Time", ["2026-01-14T10:00:00+01:00", "2026-01-14T09:00:01Z", "2026-01-14T10:00:02+01:00"]),
        ("Elapsed", ["12:34.0", "12:35.0", "12:36.0"]),
        ("Elapsed [mm:ss]", ["00:59", "01:00", "01:01"]),
        ("Time [ms]", ["0", "1000", "2000"]),
        ("Time", ["1768383000", "1768383001", "1768383002"]),
        ("s", ["0", "1", "2"]),
    ],
)
def test_ways_to_write_three_seconds(heading, cells):
    rows = "".join(f"{cell};6,4\n" for cell in cells)
    _, found = channels(f"{heading};O2 [%]\n{rows}")
    assert not found.questions
    assert found.seconds == approx((0.0, 1.0, 2.0), abs=1e-4)


@pytest.mark.parametrize(
    "cells",
    [["10:00", "10:01", "10:02"], ["1", "2", "3"], ["9:00 AM", "9:01", "9:02"], ["3", "2", "9"]],
)
def test_times_that_read_several_ways_are_asked(cells):
    rows = "".join(f"{cell};6,4\n" for cell in cells)
    _, found = channels(f"Time;O2 [%]\n{rows}")
    assert found.seconds == ()
    assert any(q.about == "time" for q in found.questions)


def test_one_time_that_is_none_is_said_with_its_line():
    rows = "".join(f"10:00:{i:02d};6,4\n" for i in range(40)) + "1O:00:40;6,4\n10:00:41;6,4\nMean;6,4\n"
    _, found = channels("Time;O2 [%]\n" + rows)
    assert isnan(found.seconds[40])
    assert any(doubt.key == "times_not_read" and dict(doubt.parts)["line"] == 42 for doubt in found.doubts)
    assert [(row.why.key, row.lines[0][0]) for row in found.dropped] == [("row_of_words", 44)]


@pytest.mark.parametrize(
    "text",
    [
        "Time      O2    CO    T flue\n          %     ppm   °C\n10:00:00  6.4   40    118.0\n10:00:01  6.5   41    118.2\n",
        "Time O2 (%) CO (ppm) Flue (°C)\n10:00:00 6.4 40 118.0\n10:00:01 6.5 41 118.2\n",
        "Time;Flue gas;;\n;O2 [%];CO [ppm];Temp [°C]\n10:00:00;6,4;40;118,0\n10:00:01;6,5;41;118,2\n",
        "| Time | O2 [%] | CO [ppm] | T flue [°C] |\n|---|---|---|---|\n| 10:00:00 | 6.4 | 40 | 118.0 |\n| 10:00:01 | 6.5 | 41 | 118.2 |\n",
        "Time;10:00:00;10:00:01\nO2 [%];6,4;6,5\nCO [ppm];40;41\nT flue [°C];118,0;118,2\n",
        '"Time","O2, %","CO, ppm","Flue temp, °C"\n"10:00:00","6.4","40","118.0"\n"10:00:01","6.5","41","118.2"\n',
        "timestamp,o2_pct,co_ppm,t_flue_c\n1768383000000,6.4,40,118\n1768383001000,6.5,41,118.2\n",
        "Czas;Tlen (%);Tlenek węgla (ppm);Temp. spalin (°C)\n10:00:00;6,4 %;40;118,0\n10:00:01;6,5 %;41;118,2\n",
    ],
    ids=["set out", "one blank", "two headings", "ruled", "on its side", "quoted", "units behind", "units in cells"],
)
def test_ways_to_lay_out_one_log(text):
    found, reading = channels(text)
    assert {q: c.values for q, c in found.items()} == {
        "o2_dry_pct": (6.4, 6.5),
        "co_ppm_dry": (40.0, 41.0),
        "flue_temp_k": approx((391.15, 391.35)),
    }
    assert reading.seconds == (0.0, 1.0)


@pytest.mark.parametrize(
    "name",
    ["CO (3% O2)", "CO corr.", "CO max", "CO air free", "COn", "CO undiluted", "CO @ 3 % O2", "CO alarm", "CO 15min"],
)
def test_a_header_that_says_more_gives_no_value_by_itself(name):
    found, _ = channels(f"Time [s];O2 [%];{name} [ppm]\n0;6,4;40\n1;6,5;41\n")
    assert "co_ppm_dry" not in found


def test_a_column_that_is_none_known_is_said():
    _, reading = channels("Time [s];O2 [%];Fan speed [rpm]\n0;6,4;1400\n1;6,5;1401\n")
    assert [dict(d.parts)["columns"] for d in reading.doubts] == ["Fan speed [rpm]"]


@pytest.mark.parametrize(
    ("header", "channel"),
    [
        ("Volts 3-C [V]", "volts_across_v@3-C"),
        ("V 4-C", "volts_across_v@4-C"),
        ("3-C [V]", "volts_across_v@3-C"),
        ("U(IL-N) V", "volts_across_v@IL-N"),
        ("Spannung 3–4 [V]", "volts_across_v@3-4"),
    ],
)
def test_volts_between_two_nodes_come_in_under_their_nodes(header, channel):
    found, reading = channels(f"Time,{header}\n10:00:00,26.1\n10:00:01,25.9\n", units={1: "V"})
    assert found[channel].values == (26.1, 25.9)
    assert not reading.questions


def test_volts_in_millivolts_and_volts_without_nodes():
    found, reading = channels("Time,5-C [mV],Volts\n10:00:00,25000,26.1\n10:00:01,25010,26.1\n")
    assert found["volts_across_v@5-C"].values == approx((25.0, 25.01))
    assert ("columns", "Volts") in [part for doubt in reading.doubts for part in doubt.parts]
    told, _ = channels("Time,Volts [V]\n10:00:00,26.1\n10:00:01,26.1\n", columns={"volts_across_v@3-C": 1})
    assert told["volts_across_v@3-C"].values == (26.1, 26.1)


def test_nodes_alone_are_no_volts():
    found, _ = channels("Time,3-4,CO [ppm]\n10:00:00,26.1,5\n10:00:01,26.1,5\n")
    assert list(found) == ["co_ppm_dry"]


def test_a_draft_below_nothing_is_asked_whether_it_draws_or_pushes():
    text = "Time,Draft [Pa]\n10:00:00,-12.1\n10:00:01,-12.3\n10:00:02,0.1\n"
    found, reading = channels(text)
    assert (found, [q.about for q in reading.questions]) == ({}, ["sign"])
    assert channels(text, sign="suction")[0]["draft_pa"].values == (12.1, 12.3, -0.1)
    assert channels(text, sign="pressure")[0]["draft_pa"].values == (-12.1, -12.3, 0.1)
    assert channels(text.replace("-", ""))[0]["draft_pa"].values == (12.1, 12.3, 0.1)


def test_the_share_that_is_read_grows_to_the_whole():
    rows = "\n".join(f"{second};6.4;46" for second in range(50_000))
    heard: list[float] = []
    read_log(f"time s;O2 %;CO ppm\n{rows}\n".encode(), progress=heard.append)
    assert heard == sorted(heard)
    assert len(heard) > 3
    assert heard[-1] == 1.0
