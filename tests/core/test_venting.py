"""Vent category, stack temperature, igniters and the flame's usual most."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument, OutOfDomain
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.machine.unit import ManualLimit, check_plate
from havrin_core.physics.venting import CONDENSES_BELOW_K, vent_category
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words as say
from havrin_core.workings.every import workings_of
from tests.core.rows import codes, furnace, judge, tape

FLUE = "o2 7.4 co 22 t 342 air 66"


def plated(**fields):
    unit = furnace()
    return replace(unit, plate=replace(unit.plate, **fields))


@given(st.floats(-500, 500).filter(bool), st.floats(240, 900), st.floats(290, 340))
def test_the_category_follows_pressure_and_wetness_alone(collar, flue, dew):
    category = vent_category(collar, flue, dew)
    assert (category in ("III", "IV")) == (collar > 0)
    assert (category in ("II", "IV")) == (flue < dew + CONDENSES_BELOW_K)


@pytest.mark.parametrize("given_", [(900, 400, 320), (0, 20, 320), (0, 400, 900), (float("nan"), 400, 320)])
def test_a_collar_that_cannot_be_is_refused(given_):
    with pytest.raises(OutOfDomain):
        vent_category(*given_)


def test_pressure_in_a_vent_made_for_suction_holds_the_standing():
    unit = plated(vent_category="I")
    assert "vent_pressure" not in codes(judge(FLUE, "collar -0.03", unit=unit))
    found = judge(FLUE, "collar 0.05", unit=unit)
    reason = next(r for r in found.reasons if r.code == "vent_pressure")
    assert (reason.level, reason.source) == (3, "plate")
    assert "vent_pressure" not in codes(judge(FLUE, "collar 0.05", "collar -0.02", unit=unit))
    assert "vent_pressure" not in codes(judge(FLUE, "collar 0.05", unit=plated(vent_category="III")))


@pytest.mark.parametrize(
    ("flue", "code"),
    [("t 342", None), ("t 210", "stack_cold"), ("t 640", "stack_hot")],
)
def test_a_stack_too_cold_or_too_hot_is_told(flue, code):
    found = codes(judge(f"o2 7.4 co 22 {flue} air 66")) & {"stack_cold", "stack_hot"}
    assert found == ({code} if code else set())


def test_the_manual_goes_before_the_default_of_the_stack():
    unit = replace(furnace(), manual=(ManualLimit("flue_temp_k", 360.0, 380.0),))
    assert "stack_cold" not in codes(judge("o2 7.4 co 22 t 210 air 66", unit=unit))


def test_a_wet_vent_is_right_where_the_plate_says_so():
    assert "stack_cold" not in codes(judge("o2 7.4 co 22 t 210 air 66", unit=plated(vent_category="IV")))


def test_the_draft_view_says_as_which_category_it_runs():
    unit = plated(vent_category="I")
    found = workings_of(unit, HouseRules(), VisitTape("maintenance", tape(FLUE, "collar 0.05")), "us")
    row = next(w for w in found.draft if w.key == "over_dew_point_k")
    assert say(row.says) == "Runs as category III; the plate says I."
    assert row.state == "near"
    assert row.value == pytest.approx(172 - 50, abs=6)


@pytest.mark.parametrize(
    ("igniter", "ohms", "verdict"),
    [
        ("silicon_carbide", 58, "in"),
        ("silicon_carbide", 20, "out"),
        ("silicon_carbide", 400, "out"),
        ("silicon_nitride", 20, "in"),
        ("silicon_nitride", 120, "out"),
        (None, 20, "in"),
        (None, 300, "out"),
    ],
)
def test_each_type_of_igniter_has_its_band(igniter, ohms, verdict):
    band = band_for(plated(igniter=igniter), HouseRules(), "igniter_ohm", None)
    assert (band.source, band.verdict(ohms)) == ("default", verdict)


def test_the_ohms_of_an_igniter_are_a_trial_and_a_reading_at_once():
    entries = tape("ohms igniter 58")
    assert [entry.kind for entry in entries] == ["proof", "reading"]
    assert [entry.kind for entry in tape("ohms igniter open")] == ["proof"]
    assert [entry.kind for entry in tape("ohms limit 0.1")] == ["proof"]
    assert "igniter_ohm_out" in codes(judge("ohms igniter 400", unit=plated(igniter="silicon_carbide")))


def test_a_flame_signal_over_its_usual_most_is_doubted_not_refused():
    unit = replace(furnace(), manual=(ManualLimit("flame_current_a", None, 6e-6, page="p. 9"),))
    band = band_for(unit, HouseRules(), "flame_current_a", "only")
    assert [band.verdict(amps) for amps in (0.5e-6, 1e-6, 3e-6, 7e-6)] == ["out", "near", "in", "near"]


@pytest.mark.parametrize("fields", [{"vent_category": "V"}, {"igniter": "tungsten"}])
def test_a_word_that_no_plate_says_is_refused(fields):
    with pytest.raises(BadDocument) as refused:
        check_plate(replace(furnace().plate, **fields))
    assert refused.value.value == next(iter(fields))
