"""Two sources of heat on one axis of outdoor temperature."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from havrin_core.search.pictures import pictures_of
from havrin_core.wording.phrases import words as say
from havrin_core.wording.reasons import reason_words
from havrin_core.workings.dual_fuel import AXIS_K, axis_of, spans_of
from tests.core.rows import furnace, judge, tape

K = st.floats(220, 320)
UNIT = build_unit("F-4", "furnace_dual_fuel", Plate("NG_H", (Stage("only"),)), 1540)


@given(K, K)
def test_the_axis_has_no_gaps_and_every_span_is_right(gas, pump):
    spans = spans_of(gas, pump)
    assert (spans[0].from_k, spans[-1].to_k) == AXIS_K
    for before, after in itertools.pairwise(spans):
        assert before.to_k == after.from_k
    for span in spans:
        middle = 0.5 * (span.from_k + span.to_k)
        runs = {(True, True): "both", (True, False): "gas", (False, True): "pump", (False, False): "none"}
        assert span.runs == runs[middle <= gas, middle >= pump]


@pytest.mark.parametrize(
    ("gas", "pump", "runs"),
    [
        (278, 268, ["gas", "both", "pump"]),
        (268, 278, ["gas", "none", "pump"]),
        (320, 268, ["gas", "both"]),
        (220, 320, ["none"]),
    ],
)
def test_where_each_source_runs(gas, pump, runs):
    assert [span.runs for span in spans_of(gas, pump)] == runs


def test_a_gap_is_told_to_the_owner():
    lines = ("gas lockout 38 F", "pump lockout 45 F")
    found = judge(*lines, unit=UNIT)
    reason = next(r for r in found.reasons if r.code == "lock_out_gap")
    assert reason.level == 2
    assert "38 °F" in reason_words(reason, "us").text
    assert "45 °F" in reason_words(reason, "us").text
    assert not any(r.code == "lock_out_gap" for r in judge("gas lockout 50 F", "pump lockout 30 F", unit=UNIT).reasons)


def test_what_the_axis_says_here_and_now():
    axis = axis_of(UNIT, tape("outdoor 41 F", "gas lockout 38 F", "pump lockout 45 F", unit=UNIT))
    assert any("NEITHER may run" in say(note) for note in axis.notes)
    assert any("no heat" in say(note) for note in axis.notes)


def test_lock_outs_not_read_are_asked_for():
    axis = axis_of(UNIT, ())
    assert axis.spans == ()
    assert "Read both" in say(axis.notes[0])


def test_a_furnace_alone_has_no_axis():
    assert axis_of(furnace(), ()) is None


@pytest.mark.parametrize("kind", ["furnace_80", "furnace_condensing", "furnace_dual_fuel", "rooftop", "unit_heater"])
@pytest.mark.parametrize("fuel", ["NG_H", "C3H8", "LPG_C3_COMM", "BUTANE"])
def test_the_fuel_of_a_unit_burns_in_its_circuit_whatever_else_it_is(kind, fuel):
    unit = build_unit("U", kind, Plate(fuel, (Stage("only", input_w=23_400.0),)), 300)
    assert unit.circuit.plant.fuel == fuel
    pictures = pictures_of(unit.circuit)
    assert pictures.sound["stops"] == "steady"
    clocked = "gauge:input_share" in pictures.tests
    assert clocked == (fuel == "NG_H")  # a tank has no dial to clock
    again = build_unit("V", kind, Plate(fuel, (Stage("only", input_w=23_400.0),)), 900)
    assert again.circuit is unit.circuit  # so that its pictures are kept
