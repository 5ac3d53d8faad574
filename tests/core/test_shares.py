"""Transformer, belt and vent as shares; NO2 of a direct-fired unit."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import OutOfDomain
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from havrin_core.physics.shares import ELBOW_45_M, ELBOW_90_M, equivalent_length_m, span_share, transformer_load
from havrin_core.shorthand.reader import read_line
from tests.core.rows import judge, situation, tape

SITUATION = situation()
MAKE_UP_AIR = build_unit("MA-9", "make_up_air", Plate("NG_H", (Stage("only", 88_000.0, 1245.0),)), 1500)


@given(st.floats(1, 30), st.floats(0.01, 5), st.floats(10, 200))
def test_load_goes_with_amps_alone(volts, amps, rated):
    assert transformer_load(volts, amps, rated) == pytest.approx(amps / (rated / 24))
    assert transformer_load(volts, 2 * amps, rated) == pytest.approx(2 * transformer_load(volts, amps, rated))


def test_elbows_count_as_pipe():
    assert equivalent_length_m(9.144, 4, 2) == pytest.approx(9.144 + 4 * ELBOW_90_M + 2 * ELBOW_45_M)


@pytest.mark.parametrize(
    "work",
    [
        lambda: transformer_load(24, -1, 40),
        lambda: transformer_load(24, 1, 0),
        lambda: span_share(1, 0),
        lambda: equivalent_length_m(-1, 0, 0),
    ],
)
def test_what_cannot_be_is_refused(work):
    with pytest.raises(OutOfDomain):
        work()


@pytest.mark.parametrize(
    ("line", "quantity", "percent", "code"),
    [
        ("va 24.6 1.35 of 40", "transformer_load_pct", 81.0, None),
        ("va 23.1 2.1 of 40", "transformer_load_pct", 126.0, "out"),
        ("belt 9 mm 600 mm", "belt_deflection_pct", 1.5, None),
        ("belt 30 mm 600 mm", "belt_deflection_pct", 5.0, "out"),
        ("ventrun 30 ft 4x90 2x45 of 60 ft", "vent_run_pct", 91.7, None),
        ("ventrun 40 ft 6x90 of 60 ft", "vent_run_pct", 116.7, "out"),
        ("ventrun 34 ft 4x90 1x45 of 60 ft", "vent_run_pct", 94.2, None),
    ],
)
def test_a_line_becomes_a_share_and_is_judged(line, quantity, percent, code):
    body = read_line(line, SITUATION).bodies[0]
    assert (body.quantity, body.value) == (quantity, pytest.approx(percent, abs=0.2))
    said = {r.code for r in judge(line).reasons if r.code.startswith(quantity)}
    assert said == ({f"{quantity}_{code}"} if code else set())


@pytest.mark.parametrize(
    "line", ["va 24", "va 24.6 1.35", "belt 9 600", "belt 9 mm", "ventrun 30 ft", "ventrun 30 ft 4x90 60 ft"]
)
def test_what_is_missing_is_asked_for(line):
    read = read_line(line, SITUATION)
    assert not read.writable
    assert read.problems


def test_nitrogen_dioxide_over_the_intake_shuts_a_direct_fired_unit_down():
    bad = judge("ino2 0.1", "dno2 0.8", unit=MAKE_UP_AIR)
    assert any(r.code == "discharge_no2" and r.level == 4 for r in bad.reasons)
    assert not any(r.code == "discharge_no2" for r in judge("ino2 0.1", "dno2 0.5", unit=MAKE_UP_AIR).reasons)


@pytest.mark.parametrize(
    ("line", "verdict"), [("mains 119 of 120", "in"), ("mains 131 of 120", "near"), ("mains 100 of 120", "out")]
)
def test_the_mains_are_judged_against_the_plate(line, verdict):
    views = [r for s in judge(line).stations for r in s.readings if r.quantity == "line_voltage_off_pct"]
    assert [view.verdict for view in views] == [verdict]


def test_a_capacitor_is_read_off_or_under_load():
    (off,), (loaded,) = tape("cap 37.2 of 40"), tape("cap 5.2 A 370 V of 40")
    assert off.body.value == pytest.approx(37.2e-6)
    assert loaded.body.value == pytest.approx(5.2 / (2 * math.pi * 60 * 370), rel=1e-3)
    assert dict(loaded.body.computed_from)["rated_f"] == pytest.approx(40e-6)


@pytest.mark.parametrize(
    "line", ["cap", "cap 37", "cap 5.2 A 370 V", "cap 900 of 40", "cap 0 A 370 V of 40", "mains 120", "mains of"]
)
def test_what_is_not_whole_is_asked_for(line):
    assert not read_line(line, SITUATION).writable
