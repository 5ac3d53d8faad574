"""Electrical figures by their own derivations: line frequency, stamped tolerances, a transformer's current, three phases."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.physics.electrical import capacitor_under_load_uf
from havrin_core.physics.shares import transformer_load
from havrin_core.shorthand.reader import read_line
from tests.core.rows import furnace, judge, situation

FURNACE = furnace()


def body(line, **more):
    read = read_line(line, situation(FURNACE, **more))
    assert read.writable, (line, read.problems, read.asks)
    return read.bodies[0]


@given(st.floats(1, 80), st.floats(200, 480), st.sampled_from([50.0, 60.0]))
def test_under_load_gives_back_the_capacitance_whose_current_it_is(microfarad, volts, hertz):
    amps = volts * 2 * math.pi * hertz * microfarad * 1e-6
    assert capacitor_under_load_uf(amps, volts, hertz) == pytest.approx(microfarad)


def test_the_houses_line_frequency_counts():
    sixty, fifty = (body("cap 5.2 A 370 V of 40", line_hz=hertz) for hertz in (60.0, 50.0))
    assert fifty.value / sixty.value == pytest.approx(1.2, rel=1e-3)
    assert dict(fifty.computed_from)["line_hz"] == 50.0


@pytest.mark.parametrize(
    ("line", "worn"),
    [
        ("cap 37 of 40", True),
        ("cap 37.7 of 40", False),
        ("cap 37 of 40 10%", False),
        ("cap 38 of 40 ±3 %", True),
        ("cap 43 of 40", True),
    ],
)
def test_a_capacitor_is_judged_by_its_stamp(line, worn):
    levels = [r.level for r in judge(line).reasons if r.code == "capacitor_out"]
    assert levels == ([2] if worn else [])
    strict = judge(line, rules=replace(HouseRules(), worn_part="replace"))
    assert [r.level for r in strict.reasons if r.code == "capacitor_out"] == ([3] if worn else [])


@pytest.mark.parametrize("line", ["cap 37 of 40 90%", "cap 37 of 40 5% 6%"])
def test_a_stamp_that_cannot_be_is_answered(line):
    assert not read_line(line, situation(FURNACE)).writable


@given(st.floats(10, 30))
def test_a_sagging_voltage_does_not_lighten_a_transformer(volts):
    assert transformer_load(volts, 2.2, 40.0) == pytest.approx(2.2 / (40 / 24))


@pytest.mark.parametrize(
    ("line", "quantity"),
    [
        ("phases 208 212 206", "voltage_imbalance_pct"),
        ("phases 12.1 12.4 11.8", "current_imbalance_pct"),
        ("phases 65 66 67 A", "current_imbalance_pct"),
        ("phases 65A 66A 67A", "current_imbalance_pct"),
        ("phases 110 112 111 volts", "voltage_imbalance_pct"),
    ],
)
def test_amps_are_not_volts(line, quantity):
    assert body(line).quantity == quantity


def test_where_either_can_be_the_unit_is_asked():
    there = situation(FURNACE)
    read = read_line("phases 65 66 67", there)
    assert not read.writable
    assert [read_line(choice, there).bodies[0].quantity for choice in read.asks[0].choices] == [
        "voltage_imbalance_pct",
        "current_imbalance_pct",
    ]
