"""Combustion by properties, and where it must refuse."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.errors import OutOfDomain, UnknownName
from havrin_core.physics.atmosphere import barometric_pressure_pa
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.physics.combustion.doubts import doubts
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.combustion.sample import FlueSample, analyse
from havrin_core.physics.combustion.why import RESULT_NAMES, why
from havrin_core.physics.fuels import FUEL_NAMES, mixture, shipped_fuel
from havrin_core.physics.water_vapour import dew_point_k, humidity_ratio, saturation_pressure_pa
from havrin_core.wording.phrases import words as say
from tests.core.rows import reference

NG = shipped_fuel("NG_H")
fuels = st.sampled_from([shipped_fuel(name) for name in FUEL_NAMES])
oxygen = st.floats(0, 18)
carbon_monoxide = st.floats(0, 4000)


@given(fuels, oxygen, carbon_monoxide)
def test_atoms_balance(fuel, o2, co):
    flue = balance(fuel, o2, co)
    assert flue.co2 + flue.co == approx(fuel.carbon)
    assert 2 * flue.co2 + flue.co + 2 * flue.o2 + fuel.water == approx(fuel.oxygen + 2 * 0.20946 * flue.dry_air)
    assert sum(flue.dry_amounts().values()) == approx(flue.dry_flue)


@given(fuels, st.floats(0, 17), st.floats(0.1, 1))
def test_more_oxygen_is_more_air(fuel, o2, more):
    assert balance(fuel, o2 + more, 0).excess_air_pct > balance(fuel, o2, 0).excess_air_pct


@given(fuels, st.floats(0, 14), st.floats(310, 600), st.floats(1, 60))
def test_hotter_flue_loses_more(fuel, o2, temp_k, more):
    around = Surroundings(293.15, 40, 90_000)
    flue = balance(fuel, o2, 0)
    assert (
        losses(fuel, flue, temp_k + more, around).efficiency_net_pct
        < losses(fuel, flue, temp_k, around).efficiency_net_pct
    )


@given(st.floats(0, 20), carbon_monoxide, st.floats(0.05, 0.9))
def test_dilution_does_not_move_co_air_free(o2, co, share):
    diluted_o2, diluted_co = o2 + share * (20.946 - o2), co * (1 - share)
    assert co_air_free_ppm(diluted_o2, diluted_co) == approx(co_air_free_ppm(o2, co), rel=1e-9, abs=1e-9)


@given(st.floats(-40, 250))
def test_dew_point_undoes_saturation_over_liquid(celsius):
    if celsius >= 0:
        assert dew_point_k(saturation_pressure_pa(celsius + 273.15)) == approx(celsius + 273.15, abs=1e-3)
    else:
        assert saturation_pressure_pa(celsius + 273.15) < 612


@pytest.mark.parametrize(
    ("celsius", "pascal", "origin"),
    [(26.85, 3536.59, "IAPWS-IF97 table 35"), (-20, 103.24, "IAPWS R14 by hand"), (0.01, 611.66, "triple point")],
)
def test_saturation_pressure(celsius, pascal, origin):
    assert saturation_pressure_pa(celsius + 273.15) == approx(pascal, rel=2e-4), origin


@pytest.mark.parametrize("row", reference("icao_atmosphere"), ids=lambda row: row["row_id"])
def test_atmosphere(row):
    assert barometric_pressure_pa(float(row["altitude_m"])) == approx(1000 * float(row["pressure_kpa"]), rel=1e-6)


@pytest.mark.parametrize("o2", [-0.1, 20.946, 23, math.nan, math.inf])
def test_refuses_oxygen_that_no_flue_has(o2):
    with pytest.raises(OutOfDomain) as caught:
        balance(NG, o2, 10)
    assert caught.value.code == "o2_range"


@pytest.mark.parametrize("co", [-1, 100_001, math.nan])
def test_refuses_carbon_monoxide_that_cannot_be(co):
    with pytest.raises(OutOfDomain) as caught:
        balance(NG, 5, co)
    assert caught.value.code == "co_range"


@pytest.mark.parametrize(
    ("temp_k", "around", "code"),
    [
        (-5.0, Surroundings(293, 40, 1e5), "flue_temperature_range"),
        (400, Surroundings(500, 40, 1e5), "air_temperature_range"),
        (400, Surroundings(293, 140, 1e5), "humidity_range"),
        (400, Surroundings(293, 40, 1.0), "barometer_range"),
        (math.nan, Surroundings(293, 40, 1e5), "flue_temperature_range"),
    ],
)
def test_refuses_surroundings_that_cannot_be(temp_k, around, code):
    with pytest.raises(OutOfDomain) as caught:
        losses(NG, balance(NG, 5, 0), temp_k, around)
    assert caught.value.code == code


def test_humidity_near_boiling_is_refused():
    with pytest.raises(OutOfDomain):
        humidity_ratio(373.15, 100, 80_000)


@pytest.mark.parametrize(
    ("shares", "error", "code"),
    [
        ({"CH4": 0.5}, OutOfDomain, "fraction_sum"),
        ({"CH4": 1.2, "N2": -0.2}, OutOfDomain, "fraction_range"),
        ({"N2": 1.0}, OutOfDomain, "nothing_to_burn"),
        ({"H2S": 1.0}, UnknownName, "component_unknown"),
    ],
)
def test_refuses_mixtures_that_cannot_be(shares, error, code):
    with pytest.raises(error) as caught:
        mixture("m", "mine", shares)
    assert caught.value.code == code


def sample(**given):
    return FlueSample(**{"o2_dry_pct": 6.5, "co_ppm_dry": 46.0, "flue_temp_k": 321.0, **given})


def test_condensing_gives_more_than_dry():
    result = analyse(NG, sample(around=Surroundings(294, 40, 84_137)))
    assert result.losses is not None
    assert result.losses.condensing
    assert result.values["efficiency_gross_pct"] == approx(90.1, abs=0.1)
    assert result.half_widths["co_air_free_ppm"] == approx(7.3, abs=0.4)


def test_every_result_can_be_asked_why():
    result = analyse(NG, sample())
    assert set(result.values) == set(RESULT_NAMES)
    for name in RESULT_NAMES:
        explained = why(result, name)
        assert explained.formula
        assert explained.source
        assert explained.inputs


def test_rounded_oxygen_is_said_beside_co_air_free():
    note = why(analyse(NG, sample()), "co_air_free_ppm").note
    assert "20.9 %" in say(note)
    assert f"{co_air_free_ppm(6.5, 46, 20.9):.1f} ppm" in say(note)


def test_numbers_that_agree_raise_no_doubt():
    assert doubts(analyse(NG, sample(co2_dry_pct=8.2))) == ()


@pytest.mark.parametrize(
    ("given", "code"),
    [
        ({"co2_dry_pct": 9.6}, "o2_co2_disagree"),
        ({"co2_dry_pct": 12.5}, "co2_above_ultimate"),
        ({"o2_dry_pct": 18.0}, "sample_mostly_air"),
        ({"flue_temp_k": 280.0}, "stack_colder_than_air"),
        ({"o2_dry_pct": 0.1, "co_ppm_dry": 9000.0}, "excess_air_negative"),
    ],
)
def test_numbers_that_do_not_fit_are_doubted(given, code):
    assert code in {doubt.code for doubt in doubts(analyse(NG, sample(**given)))}


def test_disagreement_that_fits_another_fuel_names_it():
    propane = balance(shipped_fuel("C3H8"), 6.5, 0).co2_dry_pct
    (doubt,) = doubts(analyse(NG, sample(co2_dry_pct=propane)))
    assert "propane" in say(doubt.text)
