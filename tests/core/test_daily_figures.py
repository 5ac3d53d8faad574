"""Figures that the trade needs daily, each against a derivation of its own."""

import json
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.batch.run import answer
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from havrin_core.physics.blower_laws import at_speed, speed_for_rise
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_mg_kwh, co_mg_m3
from havrin_core.physics.combustion_air import air_wanted
from havrin_core.physics.expansion import expanded_m3, vessel_m3
from havrin_core.physics.fuels import gross_wobbe_j_m3, shipped_fuel
from havrin_core.physics.gas.lp_vapour import hours_left, sustained_input_w, tank_size_m
from havrin_core.physics.gas.pipe import Pipe, line_loss_pa
from havrin_core.physics.hydronics import fluid
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words as say
from havrin_core.workings.every import workings_of
from tests.core.rows import codes, furnace, judge, situation, tape
from tests.core.trade import unit_of

FURNACE = furnace()
KBTU = 293.0711
BOILER = build_unit(
    "B-9", "boiler_atmospheric", Plate("NG_H", (Stage("only", 30772, 871.8),), water_relief_pa=206_843.0), 0
)
LP_UNIT = replace(FURNACE, plate=replace(FURNACE.plate, fuel="LPG_C3_COMM"))


def figures(path, *lines, unit=FURNACE):
    found = workings_of(unit, HouseRules(), VisitTape("maintenance", tape(*lines, unit=unit)), "us")
    return {row.key: row for row in getattr(found, path)}


class TestTurns:
    def test_what_one_turn_did_tells_what_is_left(self):
        """3.0 to 3.3 inWC with a quarter turn: 1.2 a turn, so 0.2 more to 3.5 is a sixth of a turn."""
        row = figures("gas", "mp 3.0", "turned 1/4 in", "mp 3.3")["turns_left"]
        assert row.value == approx(0.2 / 1.2, abs=0.01)
        assert row.half_width > 0
        assert "turn in" in say(row.says)

    def test_too_far_is_turned_back(self):
        assert figures("gas", "mp 3.0", "turned half in", "mp 3.8")["turns_left"].value < 0

    @pytest.mark.parametrize("after", ["mp 3.0", "mp 2.8"])
    def test_a_turn_that_did_nothing_promises_nothing(self, after):
        row = figures("gas", "mp 3.0", "turned 1/4 in", after)["turns_left"]
        assert (row.value, row.state) == (0.0, "near")

    def test_turns_between_two_readings_count_together(self):
        row = figures("gas", "mp 3.0", "turned 1/4 in", "turned 1/4 in", "mp 3.2")["turns_left"]
        assert row.value == approx(0.3 / 0.4, abs=0.02)

    def test_width_by_monte_carlo(self):
        row = figures("gas", "mp 3.0", "turned 1/4 in", "mp 3.3")["turns_left"]
        rng, n = np.random.default_rng(2), 100_000
        width = (2.0 + 0.005 * 3.3 * 249.089) / 249.089
        before, after = 3.0 + rng.uniform(-width, width, n), 3.3 + rng.uniform(-width, width, n)
        left = (3.5 - after) / ((after - before) / 0.25)
        assert 0.85 < np.mean(np.abs(left - row.value) <= row.half_width) < 0.999

    @pytest.mark.parametrize("line", ["turned the gas off", "turned thermostat up", "turned 1/4", "turned in"])
    def test_other_turning_is_no_count(self, line):
        assert not any(getattr(b, "quantity", "") == "screw_turns" for b in read_line(line, situation()).bodies)


class TestPipe:
    def test_agrees_with_the_classic_low_pressure_formula(self):
        """Spitzglass: Q = 3550 √(h d⁵ / (s L (1 + 3.6/d + 0.03 d))), ft3/h, inWC, in, ft; an old and rougher fit."""
        gas, density = shipped_fuel("NG_H"), shipped_fuel("NG_H").relative_density
        for bore, feet, cubic in ((0.824, 60, 100), (1.049, 80, 200), (1.38, 100, 400)):
            classic = (cubic / 3550) ** 2 * density * feet * (1 + 3.6 / bore + 0.03 * bore) / bore**5
            watts = cubic * 0.0283168 / 3600 * 101_325 / (8.314462618 * 288.15) * gas.gross_j_mol
            loss = line_loss_pa(gas, Pipe(bore * 0.0254, feet * 0.3048), watts, 1743.6, 101_325, 288.15)
            assert loss / 249.089 == approx(classic, rel=0.35)

    def test_laminar_flow_is_poiseuilles(self):
        gas, bore = shipped_fuel("CH4"), 0.05
        watts = 2000.0
        volume = watts / gas.gross_j_mol * 8.314462618 * 288.15 / 101_325
        poiseuille = 128 * 10.8e-6 * 10.0 * volume / (math.pi * bore**4)
        assert line_loss_pa(gas, Pipe(bore, 10.0), watts, 0.0, 101_325, 288.15) == approx(poiseuille, rel=1e-3)

    @given(st.floats(0.01, 0.08), st.floats(1, 200), st.floats(2e3, 3e5))
    def test_longer_thinner_or_heavier_loaded_loses_more(self, bore, length, watts):
        gas = shipped_fuel("NG_H")
        loss = line_loss_pa(gas, Pipe(bore, length), watts, 1000, 101_325, 288.15)
        assert line_loss_pa(gas, Pipe(bore, 1.1 * length), watts, 1000, 101_325, 288.15) > loss
        assert line_loss_pa(gas, Pipe(bore, length), 1.2 * watts, 1000, 101_325, 288.15) > loss
        assert line_loss_pa(gas, Pipe(1.2 * bore, length), watts, 1000, 101_325, 288.15) < loss
        assert line_loss_pa(gas, Pipe(bore, length, elbows=3), watts, 1000, 101_325, 288.15) > loss

    def test_the_run_that_starves_is_named(self):
        row = figures("gas", "pipe 1 in 20 ft 180 kbtu", "pipe 1/2 in 60 ft 4 elbows 180 kbtu")["line_loss_pa"]
        assert row.state == "near"
        assert "worst run" in say(row.says)

    @pytest.mark.parametrize(
        "line",
        ["pipe 7/8 in 20 ft 100 kbtu", "pipe 1 in 20 ft", "pipe 1 in 100 kbtu", "pipe 1 in 20 ft 3 bananas 100 kbtu"],
    )
    def test_what_is_missing_is_asked_for(self, line):
        assert not read_line(line, situation()).writable


class TestRoomAir:
    def test_hundred_thousand_btu(self):
        wanted = air_wanted(100 * KBTU)
        assert wanted.volume_m3 / 0.0283168 == approx(5000, rel=1e-3)
        square_inch = 0.0254**2
        assert wanted.indoor_each_m2 / square_inch == approx(100, rel=1e-3)
        assert wanted.outdoor_each_m2 / square_inch == approx(25, rel=1e-3)
        assert wanted.outdoor_one_m2 / square_inch == approx(100 / 3, rel=1e-3)

    @pytest.mark.parametrize(
        ("lines", "key", "state"),
        [
            (("room input 160 kbtu", "room volume 9000 ft3"), "room_wanted_m3", "in"),
            (("room input 160 kbtu", "room volume 800 ft3"), "room_wanted_m3", "near"),
            (("room input 160 kbtu", "upper opening 170 in2", "lower opening 165 in2"), "opening_each_m2", "in"),
            (("room input 160 kbtu", "upper opening 170 in2"), "opening_each_m2", "near"),
            (("room input 90 kbtu", "outdoor opening 31 in2"), "opening_outdoor_wanted_m2", "in"),
        ],
    )
    def test_against_what_was_measured(self, lines, key, state):
        assert figures("draft", *lines)[key].state == state


class TestBlower:
    @given(st.floats(20, 60), st.floats(20, 60))
    def test_heat_stays_the_same(self, rise, wanted):
        after = at_speed(speed_for_rise(rise, wanted))
        assert after.flow * after.rise == approx(1)
        assert rise * after.rise == approx(wanted)
        assert after.power == approx(after.flow * after.static)

    def test_what_it_does_to_amps_is_said_and_judged(self):
        row = figures("air", "rise 75 F", "static 0.45", "blower 6.5", "motor pulley 4 in")["speed_wanted_pct"]
        assert row.value == approx(100 * 75 / 50, rel=0.01)
        assert row.state == "out"  # a cube: 3.4 times the amps
        assert "amps then about" in say(row.says)

    def test_a_rise_in_its_range_wants_no_other_speed(self):
        assert "speed_wanted_pct" not in figures("air", "rise 50 F")

    @pytest.mark.parametrize(("supply", "state"), [("sa 205 F", "out"), ("sa 185 F", "near"), ("sa 140 F", "")])
    def test_could_this_rise_have_opened_the_limit(self, supply, state):
        assert figures("air", "limit opens at 200 F", supply)["limit_margin_k"].state == state

    def test_static_is_doubted_without_a_plate(self):
        bare = replace(FURNACE, plate=replace(FURNACE.plate, static_max_pa=None))
        assert "external_static_pa_near" in codes(judge("static 0.7", unit=bare))
        assert not any(c.startswith("external_static") for c in codes(judge("static 0.4", unit=bare)))


class TestSwitch:
    def test_margin_is_told_from_the_break_point(self):
        row = figures("draft", "draft .75", "switch makes .60", "switch breaks .48")["break_margin_pa"]
        assert row.value / 249.089 == approx(0.27, abs=1e-3)
        assert row.state == "in"

    def test_a_switch_that_drifted_off_its_stamp_is_named(self):
        row = figures("draft", "draft .95", "switch makes .80", "switch breaks .70")["break_margin_pa"]
        assert row.state == "near"
        assert "off its stamp" in say(row.says)


class TestTank:
    def test_size_of_a_cylinder(self):
        diameter, length = tank_size_m(1.893)
        assert math.pi * diameter**2 / 4 * length == approx(1.893)

    def test_hours_by_hand(self):
        """500 gal at 30 %: 125 gal come out, 239 kg of propane at 50 MJ/kg are 12 GJ: 33 h at 100 kW."""
        hours = hours_left(shipped_fuel("C3H8"), 1.893, 0.30, 100_000)
        assert hours == approx(0.25 * 1.893 * 505 * 50.3e6 / 1e5 / 3600, rel=0.02)

    @given(st.floats(0.1, 0.8), st.floats(235, 290))
    def test_colder_or_emptier_sustains_less(self, fill, outdoor):
        propane = shipped_fuel("C3H8")
        full = sustained_input_w(propane, 2.0, fill, outdoor, 170_000)
        assert sustained_input_w(propane, 2.0, fill, outdoor - 2, 170_000) <= full
        assert sustained_input_w(propane, 2.0, fill - 0.05, outdoor, 170_000) <= full

    def test_a_small_tank_in_deep_cold_does_not_keep_up(self):
        rows = figures("gas", "outdoor -20 F", "tank size 120 gal", "tank fill 20 %", unit=LP_UNIT)
        assert rows["tank_sustains_w"].state == "out"
        assert rows["tank_lasts_s"].value > 0

    def test_pressure_in_the_tank_and_none_behind_it_in_frost_is_a_frozen_regulator(self):
        row = figures("gas", "outdoor 14 F", "supply 3", unit=LP_UNIT)["tank_gauge_pa"]
        assert "frozen" in say(row.says)


class TestSystem:
    def test_water_grows_by_what_steam_tables_say(self):
        """From 10 to 82 °C: 999.7 to 970.6 kg/m3."""
        assert expanded_m3(fluid("water"), 1.0, 283.15, 355.15) == approx(999.7 / 970.6 - 1, rel=0.01)

    def test_vessel_is_boyles(self):
        volume = vessel_m3(0.003, 83_000, 186_000, 101_325)
        gas_cold, gas_hot = volume, volume - 0.003
        assert (83_000 + 101_325) * gas_cold == approx((186_000 + 101_325) * gas_hot)

    def test_each_is_judged_where_it_was_read(self):
        rows = figures(
            "water",
            *(
                "system height 20 ft",
                "precharge 12 psi",
                "system volume 40 gal",
                "vessel size 4.4 gal",
                "relief rated 90 kbtu",
            ),
            unit=BOILER,
        )
        assert rows["precharge_wanted_pa"].value / 6894.757 == approx(20 * 0.3048 * 9700 / 6894.757 + 4.06, abs=0.02)
        assert {key: rows[key].state for key in ("precharge_wanted_pa", "vessel_wanted_m3", "relief_spare_w")} == {
            "precharge_wanted_pa": "in",
            "vessel_wanted_m3": "in",
            "relief_spare_w": "out",
        }

    def test_glycol_carries_less_heat_and_flows_more(self):
        lines = ("wrise 20 F", "clock 2 ft3 2 140")
        plain, mixed = (
            figures("water", *more, *lines, unit=BOILER)["water_flow_m3_s"].value
            for more in ((), ("glycol propylene 50 %",))
        )
        assert 1.05 < mixed / plain < 1.2

    @pytest.mark.parametrize("line", ["glycol 30 %", "glycol propylene 90 %", "glycol propylene"])
    def test_a_glycol_that_says_too_little_is_asked_back(self, line):
        assert not read_line(line, situation(BOILER)).writable


class TestCarbonMonoxide:
    def test_hundred_ppm_are_125_mg_in_a_normal_cubic_metre(self):
        assert co_mg_m3(100) == approx(125.0, abs=0.1)

    @given(st.floats(0.5, 12), st.floats(10, 2000))
    def test_per_kilowatt_hour_is_mass_over_heat(self, o2, co):
        fuel = shipped_fuel("NG_H")
        flue = balance(fuel, o2, co)
        mass_mg = co * 1e-6 * flue.dry_flue * 28.010 * 1000
        assert co_mg_kwh(flue, fuel.net_j_mol) == approx(mass_mg / (fuel.net_j_mol / 3.6e6), rel=1e-6)

    @pytest.mark.parametrize(
        ("lines", "opens"),
        [
            (("room 11",), True),
            (("outdoor co 4", "room 11"), False),
            (("outdoor co 4", "room 14"), True),
            (("outdoor co 60", "room 19"), True),
            (("outdoor co 9", "room 36"), True),
        ],
    )
    def test_a_source_is_looked_for_above_what_is_outdoors(self, lines, opens):
        assert any(code.startswith("room_co") for code in codes(judge(*lines))) == opens


class TestFuelChange:
    def test_wobbe_by_its_definition(self):
        gas = shipped_fuel("CH4")
        molar = 101_325 / (8.31446261815324 * 288.15)
        assert gross_wobbe_j_m3(gas) == approx(gas.gross_j_mol * molar / math.sqrt(16.043 / 28.96), rel=2e-3)

    def test_propane_wants_about_six_tenths_of_the_bore(self):
        """Same heat: bore² √pressure × Wobbe; 3.5 against 10 inWC and 51 against 80 MJ/m3."""
        row = figures("gas", "orifice 3 2.5 mm")["wobbe_j_m3"]
        share = (
            math.sqrt(gross_wobbe_j_m3(shipped_fuel("NG_H")) / gross_wobbe_j_m3(shipped_fuel("LPG_C3_COMM")))
            * (3.5 / 10) ** 0.25
        )
        assert f"{100 * share:.0f} %" in say(row.says)

    def test_nothing_is_said_where_nobody_speaks_of_it(self):
        assert "wobbe_j_m3" not in figures("gas", "mp 3.5")


@pytest.mark.parametrize(
    ("line", "state"),
    [
        ("thermocouple open 28 mV", "in"),
        ("thermocouple open 12 mV", "out"),
        ("thermopile load 180 mV", "out"),
        ("thermopile open 0.7 V", "in"),
    ],
)
def test_millivolts_of_a_pilot_are_judged(line, state):
    views = {v.quantity: v.verdict for v in judge(line).readings}
    assert set(views.values()) == {state}


def test_batch_answers_with_every_figure():
    request = {
        "op": "visit",
        "unit": {"name": "U", **unit_of("furnace_80")},
        "reason": "maintenance",
        "workings": True,
        "lines": [
            {"text": text}
            for text in ("mp 3.3", "clock 2 ft3 2 210", "rise 50", "room input 160 kbtu", "room volume 900 ft3")
        ],
    }
    rows = {row["key"]: row for row in answer(json.dumps(request))["workings"]}
    assert {"input_metered_w", "airflow_m3_s", "room_wanted_m3"} <= set(rows)
    assert 0 < rows["input_metered_w"]["half_width"] < 0.1 * rows["input_metered_w"]["value"]
    assert all(row["formula"] and row["source"] is not None for row in rows.values())


def test_a_season_is_advice_and_no_reason():
    row = figures("gas", "o2 9 co 20 t 400 air 66", "season cost 1400")["season_saving"]
    now = next(i.value for i in row.why.inputs if i.dimension == "percent")
    assert row.value == approx(1400 * (1 - now / 95))
    assert row.state == ""
    assert not any("season" in code for code in codes(judge("season cost 1400")))
