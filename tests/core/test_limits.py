"""Limits: whose they are, and where they lie."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import derate_share, input_at_altitude_w
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band, Beside
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from tests.core.rows import furnace

RULES = HouseRules()
INWC = 249.08891


@pytest.mark.parametrize(
    ("band", "value", "verdict"),
    [
        (Band("plate", 1, 2, 1.1, 1.9), 1.5, "in"),
        (Band("plate", 1, 2, 1.1, 1.9), 1.05, "near"),
        (Band("plate", 1, 2, 1.1, 1.9), 1.95, "near"),
        (Band("plate", 1, 2, 1.1, 1.9), 1.0, "near"),
        (Band("plate", 1, 2, 1.1, 1.9), 0.99, "out"),
        (Band("plate", 1, 2, 1.1, 1.9), 2.01, "out"),
        (Band("plate", low=1), 1e9, "in"),
        (Band("plate", high=1), -1e9, "in"),
        (Band("plate", 1, 2), math.nan, "out"),
    ],
)
def test_verdicts(band, value, verdict):
    assert band.verdict(value) == verdict


@given(st.floats(-10, 10), st.floats(0.1, 5), st.floats(-20, 20))
def test_verdicts_get_worse_outward(middle, width, value):
    band = Band("plate", middle - width, middle + width, middle - width / 2, middle + width / 2)
    rank = ["in", "near", "out"].index
    further = value + (value - middle) * 0.5
    assert rank(band.verdict(further)) >= rank(band.verdict(value))


@pytest.mark.parametrize(
    ("quantity", "stage", "source", "low", "high"),
    [
        ("manifold_pa", "only", "default", 0.95 * 871.8, 1.05 * 871.8),
        ("supply_running_pa", None, "plate", 1120.9, 2615.4),
        ("draft_pa", "only", "plate", 149.5, None),
        ("flame_current_a", "only", "plate", 8e-7, None),
        ("temperature_rise_k", "only", "plate", 19.44, 36.11),
        ("supply_air_temp_k", "only", "plate", None, 347.0),
        ("external_static_pa", None, "plate", None, 124.5),
        ("blower_current_a", None, "plate", None, 7.8),
        ("room_co_ppm", None, "default", None, 9.0),
    ],
)
def test_bands_of_a_plated_furnace(quantity, stage, source, low, high):
    band = band_for(furnace(), RULES, quantity, stage)
    assert band is not None
    assert band.source == source
    assert band.low == (approx(low) if low is not None else None)
    assert band.high == (approx(high) if high is not None else None)


def bare(fuel="NG_H"):
    return build_unit("U", "furnace_80", Plate(fuel, (Stage("only"),)), 0)


@pytest.mark.parametrize(
    ("quantity", "value", "verdict"),
    [
        ("manifold_pa", 5000.0, "out"),
        ("manifold_pa", 870.0, ""),
        ("flame_current_a", 1e-7, "out"),
        ("flame_current_a", 3e-6, ""),
        ("temperature_rise_k", 70.0, "out"),
        ("temperature_rise_k", 30.0, ""),
        ("external_static_pa", 900.0, "out"),
        ("blower_current_a", 60.0, "out"),
        ("supply_air_temp_k", 380.0, "out"),
        ("input_w", 100.0, "out"),
    ],
)
def test_without_a_plate_only_what_no_unit_may_do_is_out(quantity, value, verdict):
    band = band_for(bare(), RULES, quantity, "only")
    assert band is not None
    assert not band.acquits  # inside it nothing is shown to be right
    assert band.verdict(value) == verdict


@pytest.mark.parametrize(("fuel", "low", "high"), [("NG_H", 5, 13.5), ("LPG_C3_COMM", 11, 13)])
def test_supply_falls_back_to_what_is_usual_for_the_gas(fuel, low, high):
    band = band_for(bare(fuel), RULES, "supply_running_pa", None)
    assert band is not None
    assert (band.source, band.low, band.high) == (
        "default",
        approx(low * INWC, rel=1e-3),
        approx(high * INWC, rel=1e-3),
    )


def test_lock_up_is_at_most_thirty_percent_over_running():
    band = band_for(furnace(), RULES, "supply_standing_pa", None, beside=Beside(running_pa=1600.0))
    assert band is not None
    assert band.high == approx(2080)
    never_above_the_valve = band_for(furnace(), RULES, "supply_standing_pa", None, beside=Beside(running_pa=2500.0))
    assert never_above_the_valve is not None
    assert never_above_the_valve.high == approx(2615.4)


@pytest.mark.parametrize(
    ("feet", "rule", "share"),
    [
        (1999, "four_pct_per_1000_ft", 0),
        (5052, "four_pct_per_1000_ft", 0.2021),
        (5052, "two_pct_per_1000_ft", 0.101),
        (5052, "none", 0),
    ],
)
def test_altitude_takes_its_share(feet, rule, share):
    assert derate_share(feet * 0.3048, HouseRules(altitude_derate=rule)) == approx(share, abs=1e-4)


def test_plate_input_at_altitude():
    assert input_at_altitude_w(furnace(), RULES, "only") == approx(20515 * (1 - 0.2021), rel=1e-3)
    assert input_at_altitude_w(bare(), RULES, "only") is None
