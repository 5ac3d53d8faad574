"""Gas, draft, air, water: every calculation against the reference figures, by properties, and in bulk."""

import csv
import io
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import CoreError
from havrin_core.physics.airflow import airflow, rise_k_for
from havrin_core.physics.bulk import compute_file
from havrin_core.physics.calculations import calculation, calculation_names
from havrin_core.physics.chimney import chimney_draft, wet_flue_molar_mass_kg
from havrin_core.physics.electrical import capacitor_share, capacitor_under_load_uf, imbalance_pct, share_of_nominal
from havrin_core.physics.fuels import FUEL_NAMES, shipped_fuel
from havrin_core.physics.gas.drills import NUMBERED_IN, drill_diameter_m, nearest_drill
from havrin_core.physics.gas.lp_vapour import vaporising_heat_w, vapour_pressure_pa
from havrin_core.physics.gas.meter import dial_m3, meter_flow, seconds_per_turn
from havrin_core.physics.gas.orifice import (
    diameter_for_input_m,
    input_at_pressure_w,
    orifice_flow,
    pressure_for_input_pa,
)
from havrin_core.physics.gas.tightness import Closed, decay, least_seconds
from havrin_core.physics.hydronics import FLUIDS, flow_m3_s, fluid, heat_w
from havrin_core.wording.phrases import words as say
from tests.core.rows import reference

FILES = {
    "orifice": ("orifice_flow", 0.003),
    "meter": ("meter_clocking", 0.003),
    "chimney": ("chimney_draft", 0.003),
    "airflow": ("airflow_temp_rise", 0.003),
    "decay": ("pressure_decay", 0.005),
    "water": ("hydronic_heat", 0.005),
    "atmosphere": ("icao_atmosphere", 0.003),
}
FUELS = st.sampled_from(FUEL_NAMES).map(shipped_fuel)
BARO = st.floats(60_000, 105_000)


def computed(name, rows, columns):
    text = io.StringIO()
    writer = csv.DictWriter(text, columns, extrasaction="ignore")
    writer.writeheader()
    writer.writerows(rows)
    target = io.StringIO()
    counts = compute_file(calculation(name), io.StringIO(text.getvalue()), target)
    return counts, list(csv.DictReader(io.StringIO(target.getvalue())))


@pytest.mark.parametrize("name", FILES)
def test_reference_figures_are_met(name):
    file, tolerance = FILES[name]
    rows = reference(file)
    (count, bad), found = computed(name, rows, rows[0].keys())
    assert (count, bad) == (len(rows), 0)
    for row, want in zip(found, rows, strict=True):
        for key in calculation(name).results:
            near = pytest.approx(float(want[key]), rel=tolerance, abs=0.5 if key == "gauge_drop_corrected_pa" else 1e-6)
            assert float(row[key]) == near, (want["row_id"], key)


@pytest.mark.parametrize("name", calculation_names())
def test_a_bad_row_says_why_and_the_rest_goes_on(name):
    what = calculation(name)
    row = {"row_id": "1", "fuel": "NG_H", "dial_unit": "ft3", "fluid": "water", **dict.fromkeys(what.numbers, "many")}
    (count, bad), found = computed(name, [row], ["row_id", *what.words, *what.numbers])
    assert (count, bad) == (1, 1)
    assert "“many”" in found[0]["error"]
    with pytest.raises(CoreError) as refusal:
        computed(name, [row], ["row_id"])
    assert refusal.value.code == "columns_missing"


def test_an_unknown_calculation_names_those_that_are():
    with pytest.raises(CoreError, match="orifice"):
        calculation("weather")


@given(FUELS, st.floats(0.0005, 0.008), st.floats(50, 4000), st.floats(0.6, 0.95), BARO, st.floats(250, 320))
def test_flow_goes_with_the_root_of_pressure_and_the_square_of_the_bore(fuel, bore, pa, discharge, baro, temp):
    one = orifice_flow(fuel, bore, pa, discharge, baro, temp)
    four = orifice_flow(fuel, bore, 4 * pa, discharge, baro, temp)
    assert four.input_gross_w == pytest.approx(2 * one.input_gross_w)
    assert orifice_flow(fuel, 2 * bore, pa, discharge, baro, temp).input_net_w == pytest.approx(4 * one.input_net_w)
    again = pressure_for_input_pa(pa, one.input_gross_w, four.input_gross_w)
    assert again == pytest.approx(4 * pa)
    assert input_at_pressure_w(one.input_gross_w, pa, 4 * pa) == pytest.approx(four.input_gross_w)
    back = diameter_for_input_m(fuel, 5 * one.input_gross_w, 5, pa, discharge, baro, temp)
    assert back == pytest.approx(bore)


@given(FUELS, st.floats(2000, 200_000), st.sampled_from([0.5, 1, 2, 5]), st.floats(250, 320), BARO)
def test_the_stopwatch_tells_the_input_that_it_was_told(fuel, watts, dial, temp, baro):
    volume = dial_m3(dial, "ft3")
    seconds = seconds_per_turn(fuel, watts, volume, 1743, temp, baro)
    if 1 <= seconds <= 36_000:
        assert meter_flow(fuel, volume, 1, seconds, 1743, temp, baro).input_gross_w == pytest.approx(watts)


def test_the_suppliers_heating_value_goes_before_the_fuels():
    usual = meter_flow(shipped_fuel("NG_H"), 0.0283, 2, 60, 1743, 288.15, 84_000)
    thin = meter_flow(shipped_fuel("NG_H"), 0.0283, 2, 60, 1743, 288.15, 84_000, gross_j_m3=35e6)
    assert thin.input_gross_w == pytest.approx(thin.flow_m3_s_standard * 35e6)
    assert thin.input_net_w / thin.input_gross_w == pytest.approx(usual.input_net_w / usual.input_gross_w)


@given(
    st.floats(0.005, 5),
    st.floats(500, 50_000),
    st.floats(270, 310),
    st.floats(-8, 8),
    st.floats(-900, 900),
    st.floats(60, 7200),
)
def test_weather_alone_is_no_leak(volume, gauge, temp, warmer, baro_step, seconds):
    start = Closed(gauge, temp, 95_000)
    still = decay(volume, start, Closed(gauge, temp + warmer, 95_000 + baro_step), seconds).expected_gauge_pa
    found = decay(volume, start, Closed(still, temp + warmer, 95_000 + baro_step), seconds)
    assert abs(found.drop_corrected_pa) < 1e-6
    assert abs(found.leak_m3_s_standard) < 1e-12


@given(st.floats(0.005, 0.5), st.floats(1, 100), st.floats(1e-8, 1e-5))
def test_the_least_time_lets_the_leak_cross_one_figure_of_the_gauge(volume, resolution, leak):
    seconds = least_seconds(volume, leak, resolution, 293.15)
    if 1 <= seconds <= 86_400:
        start = Closed(3000, 293.15, 95_000)
        found = decay(volume, start, Closed(3000 - resolution, 293.15, 95_000), seconds)
        assert found.leak_m3_s_standard == pytest.approx(leak, rel=1e-6)


@given(FUELS, st.floats(0, 15), st.floats(1, 60), st.floats(310, 600), st.floats(230, 309), BARO)
def test_warmer_and_higher_draws_more(fuel, o2, height, flue_k, outdoor_k, baro):
    mass = wet_flue_molar_mass_kg(fuel, o2, 293.15, 50, baro)
    draft = chimney_draft(height, flue_k, outdoor_k, baro, mass).draft_pa
    assert chimney_draft(height + 1, flue_k, outdoor_k, baro, mass).draft_pa > draft or draft <= 0
    assert chimney_draft(height, flue_k + 10, outdoor_k, baro, mass).draft_pa > draft
    assert chimney_draft(height, flue_k, outdoor_k - 10, baro, mass).draft_pa > draft


@given(st.floats(1000, 200_000), st.floats(270, 310), st.floats(5, 60), BARO)
def test_rise_and_airflow_are_each_others_inverse(watts, cold, rise, baro):
    found = airflow(watts, cold, rise, baro)
    assert rise_k_for(watts, found.mass_flow_kg_s, cold) == pytest.approx(rise, rel=1e-6)
    assert found.flow_m3_s_supply > found.flow_m3_s_return


@given(st.sampled_from(sorted(FLUIDS)).map(fluid), st.floats(280, 360), st.floats(1, 40), st.floats(1e-5, 0.01))
def test_flow_and_heat_are_each_others_inverse(what, mean, difference, flow):
    watts = heat_w(what, mean, difference, flow)
    assert flow_m3_s(what, mean, difference, watts) == pytest.approx(flow)


def test_glycol_carries_less_than_water():
    heats = [
        heat_w(fluid(key), 333.15, 10, 0.0002) for key in ("water", "pg20_mass", "pg30_mass", "pg40_mass", "pg50_mass")
    ]
    assert heats == sorted(heats, reverse=True)


@pytest.mark.parametrize(
    ("size", "mm"),
    [("#43", 2.2606), ("43", 2.2606), ("no. 1", 5.7912), ("2.35 mm", 2.35), ("2,35mm", 2.35), ("80", 0.3429)],
)
def test_drill_sizes(size, mm):
    assert 1000 * drill_diameter_m(size) == pytest.approx(mm)


def test_drills_get_smaller_and_find_themselves():
    assert list(NUMBERED_IN) == sorted(NUMBERED_IN, reverse=True)
    assert all(nearest_drill(drill_diameter_m(str(n))) == n for n in range(1, 81))


@pytest.mark.parametrize(
    ("fuel", "celsius", "bar"), [("C3H8", -42.1, 1.013), ("C3H8", 20, 8.36), ("C3H8", 40, 13.7), ("BUTANE", 20, 2.36)]
)
def test_vapour_pressure_is_that_of_the_tables(fuel, celsius, bar):
    assert vapour_pressure_pa(shipped_fuel(fuel), celsius + 273.15) == pytest.approx(bar * 1e5, rel=0.01)


def test_a_fuller_tank_vaporises_more_and_half_full_is_half_the_wall():
    heats = [vaporising_heat_w(0.8, 2.0, fill, 10) for fill in (0.0, 0.1, 0.5, 0.85)]
    assert heats == sorted(heats)
    assert heats[2] == pytest.approx(7 * math.pi * 0.8 / 2 * 2.0 * 10, rel=1e-6)


def test_electrical_arithmetic():
    assert imbalance_pct((208, 212, 206)) == pytest.approx(1.597, abs=1e-3)
    assert capacitor_share(37.2, 40) == pytest.approx(-0.07)
    assert capacitor_under_load_uf(5.2, 370) == pytest.approx(2652 * 5.2 / 370, rel=1e-3)
    assert share_of_nominal(216, 240) == pytest.approx(-0.1)


REFUSED = [
    lambda: orifice_flow(shipped_fuel("NG_H"), 0.05, 870, 0.85, 84_000, 288),
    lambda: orifice_flow(shipped_fuel("NG_H"), 0.002, 870, 2, 84_000, 288),
    lambda: pressure_for_input_pa(870, 0, 10),
    lambda: diameter_for_input_m(shipped_fuel("NG_H"), 1000, 0, 870, 0.85, 84_000, 288),
    lambda: meter_flow(shipped_fuel("NG_H"), 0.03, 1, 0.2, 0, 288, 84_000),
    lambda: dial_m3(1, "gal"),
    lambda: drill_diameter_m("99"),
    lambda: drill_diameter_m("fat mm"),
    lambda: drill_diameter_m("40 mm"),
    lambda: decay(0, Closed(1, 290, 9e4), Closed(1, 290, 9e4), 60),
    lambda: airflow(10_000, 293, -3, 84_000),
    lambda: fluid("mercury"),
    lambda: heat_w(fluid("water"), 333, -4, 0.001),
    lambda: heat_w(fluid("water"), 333, 140, 0.001),
    lambda: flow_m3_s(fluid("water"), 333, 0.1, 1000),
    lambda: imbalance_pct((208, 0, 206)),
    lambda: capacitor_share(1, 0),
    lambda: capacitor_under_load_uf(0, 370),
    lambda: share_of_nominal(1, 0),
    lambda: vapour_pressure_pa(shipped_fuel("NG_H"), 290),
    lambda: vapour_pressure_pa(shipped_fuel("C3H8"), 500),
    lambda: chimney_draft(-1, 400, 280, 9e4, 0.028),
    lambda: orifice_flow(shipped_fuel("NG_H"), float("nan"), 870, 0.85, 84_000, 288),
]


@pytest.mark.parametrize("refused", REFUSED)
def test_what_cannot_be_is_refused_with_its_reason(refused):
    with pytest.raises(CoreError) as refusal:
        refused()
    assert len(say(refusal.value.said)) > 15
