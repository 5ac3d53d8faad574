"""What is told beside its limit: digits that tell the two apart; and limits of water, igniters, vents and lock-up."""

from dataclasses import replace

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band, Beside
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import ManualLimit, Plate, Stage
from havrin_core.quantities.display import half_width_text, show, show_apart
from havrin_core.quantities.units import UNITS, find_unit
from havrin_core.shorthand.reader import read_line
from havrin_core.wording.reasons import reading_against, reason_words
from tests.core.rows import codes, furnace, judge, situation, tape

RULES = HouseRules()
BOILER = build_unit("B-9", "boiler_atmospheric", Plate("NG_H", (Stage("only", 30772, 871.8),)), 0)
RELIEVED = replace(BOILER, plate=replace(BOILER.plate, water_relief_pa=206_843.0))


@given(st.sampled_from(["us", "metric"]), st.floats(250, 450), st.floats(0.01, 20))
def test_a_reading_out_of_its_limit_never_reads_as_the_limit(system, bound, beyond):
    value, limit = show_apart(bound + beyond, bound, "temperature", system)
    assert value.text != limit.text


@given(st.floats(280, 400), st.floats(0.02, 9))
def test_the_words_of_a_reading_tell_it_from_its_limit(most, beyond):
    reading, limit = reading_against("supply_air_temp_k", Band("plate", high=most), most + beyond, "us")
    assert not limit.endswith(f" {reading}")


def test_sixty_five_degrees_with_sixty_five_allowed():
    """35.0 K of rise is 63.0 °F; 36.3 K is 65.3 over a most of 65.0."""
    unit = replace(furnace(), plate=replace(furnace().plate, rise_max_k=65 / 1.8))
    reason = next(r for r in judge("rise 65.3 F", unit=unit).reasons if r.code == "temperature_rise_k_out")
    said = reason_words(reason, "us")
    assert (said.reading, said.limit) == ("65.3 °F", "most 65.0 °F")


@pytest.mark.parametrize(
    ("quantity", "value", "text"),
    [("draft", -12.454, "−0.050"), ("draft", 149.5, "0.600"), ("current_small", 8e-7, "0.80")],
)
def test_drafts_have_three_decimals_and_flame_signals_two(quantity, value, text):
    assert show(value, quantity, "us").text == text


@given(st.sampled_from([unit for unit in UNITS if unit.scale]), st.floats(1e-9, 1e4))
def test_a_width_never_reads_as_nothing(unit, width):
    assume(width / unit.scale > 0.5 * 10 ** -(unit.decimals + 3))
    assert any(digit in half_width_text(width, unit) for digit in "123456789")


def test_no_width_says_nothing():
    assert half_width_text(0.0, find_unit("Pa", "pressure")) == ""


@pytest.mark.parametrize(
    ("height_ft", "bar", "verdict"),
    [(8, 0.6, "in"), (30, 0.6, "out"), (30, 1.25, "in"), (None, 0.5, "out")],
)
def test_least_water_goes_with_the_height_of_the_system(height_ft, bar, verdict):
    """A column of 30 ft is 0.89 bar; 4 psi, 0.28 bar, is left over at its top."""
    height = None if height_ft is None else height_ft * 0.3048
    band = band_for(RELIEVED, RULES, "water_pressure_pa", None, Beside(height_m=height))
    found = band.verdict(bar * 1e5)
    assert (found == "out") == (verdict == "out")
    if height:
        assert band.low == approx(height * 9_700 + 28_000)


@pytest.mark.parametrize(("line", "opens"), [("wr 120 F", True), ("wr 135 F", True), ("wr 145 F", False)])
def test_cool_return_of_a_boiler_that_must_not_condense(line, opens):
    assert ("condenses" in codes(judge(line, unit=BOILER))) == opens


def test_the_makers_own_least_return_goes_first():
    own = replace(BOILER, manual=(ManualLimit("water_return_temp_k", 316.5, None, None, "p. 9"),))
    assert "condenses" not in codes(judge("wr 120 F", unit=own))
    assert "condenses" in codes(judge("wr 105 F", unit=own))


@pytest.mark.parametrize(
    ("igniter", "ohm", "verdict"),
    [
        ("silicon_nitride_120", 50, "in"),
        ("silicon_nitride_120", 16, "out"),
        ("silicon_nitride_80", 16, "in"),
        ("silicon_carbide_24", 3, "in"),
        ("silicon_carbide_24", 60, "out"),
        (None, 3, "out"),
    ],
)
def test_igniters_by_type_and_voltage(igniter, ohm, verdict):
    unit = replace(furnace(), plate=replace(furnace().plate, igniter=igniter))
    assert band_for(unit, RULES, "igniter_ohm", None).verdict(ohm) == verdict


def test_elbows_count_as_the_manual_says():
    usual, own = (
        read_line(f"ventrun 30 ft 4x90 2x45 of 60 ft{more}", situation()).bodies[0] for more in ("", " elbow 3 ft")
    )
    assert usual.value == approx(100 * 55 / 60, abs=0.1)
    assert own.value == approx(100 * 45 / 60, abs=0.1)
    assert not read_line("ventrun 30 ft 4x90 of 60 ft elbow big", situation()).writable


def test_a_line_that_sags_is_no_high_lock_up():
    """7.6 inWC standing over 4.2 running is 81 % over; the line sags, the regulator is sound."""
    sagging = judge("lockup 7.6", "supply 4.2")
    assert "supply_standing_pa_out" not in codes(sagging)
    assert "supply_standing_pa_out" in codes(judge("lockup 10", "supply 6"))


def test_flue_co_is_told_with_what_the_analyzer_showed():
    reason = next(r for r in judge("o2 12 co 300 t 340 air 66").reasons if r.code == "co_action")
    assert "as measured" in reason_words(reason, "us").text
    assert tape("o2 12 co 300 t 340 air 66")
