"""Gas figures against derivations of their own: tests of tightness, orifices, clocked meters, derating, the manual's rank."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import derate_share, input_at_altitude_w
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Beside
from havrin_core.machine.unit import ManualLimit
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.physics.gas.tightness import Closed, Medium, doubt_pa, leak_elsewhere, least_seconds
from havrin_core.physics.gas.viscosity import AIR, fuel_medium
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words as say
from havrin_core.workings.every import workings_of
from tests.core.rows import codes, furnace, judge, situation, tape

FURNACE = furnace()
LITRE_PER_H = 1e-3 / 3600
SEA_LEVEL = replace(FURNACE, altitude_m=0.0)
R, FOOT = 8.31446261815324, 0.3048


def figures(*lines, unit=FURNACE, rules=None):
    found = workings_of(unit, rules or HouseRules(), VisitTape("maintenance", tape(*lines, unit=unit)), "us")
    return {row.key: row for row in found.gas}


def body(line, unit=FURNACE, **more):
    read = read_line(line, situation(unit, **more))
    assert read.writable, (read.problems, read.asks)
    return read.bodies[0]


class TestTightness:
    def test_shortest_test_by_hand(self):
        """12 l at 20 mbar, a gauge to 0.1 mbar, 0.1 K: 35 Pa of temperature and 14 Pa of the gauge hide the gas of 37 Pa."""
        start = Closed(2000.0, 293.15, 101_325.0)
        doubt = doubt_pa(10.0, 0.1, start)
        assert doubt == pytest.approx(math.sqrt(2 * 10**2 + (103_325 * 0.1 / 293.15) ** 2))
        litres_hidden = doubt / 101_325 * 12 * 288.15 / 293.15  # at 15 °C and 101.325 kPa
        assert least_seconds(0.012, LITRE_PER_H, doubt, 293.15) == pytest.approx(3600 * litres_hidden, rel=1e-9)

    def test_a_finer_gauge_shortens_it_no_further_than_temperature_allows(self):
        start = Closed(2000.0, 293.15, 101_325.0)
        coarse, fine, perfect = (doubt_pa(step, 0.1, start) for step in (50.0, 1.0, 0.01))
        assert coarse > fine >= perfect >= 35.0

    @pytest.mark.parametrize(
        ("line", "acquits"),
        [
            ("tight 12 l 20 mbar 20 mbar 5 s", False),
            ("tight 12 l 20 mbar 20 mbar 9 min", False),  # the house wants ten
            ("tight 12 l 20 mbar 20 mbar 10 min", True),
            ("tight 2000 l 20 mbar 20 mbar 10 min", False),  # its volume wants more
        ],
    )
    def test_only_a_test_of_its_length_acquits_a_line_that_leaked(self, line, acquits):
        found = codes(judge("tight 40 l 20 mbar 10 mbar 15 min", line))
        assert ("line_leaks" not in found) == acquits

    def test_the_house_sets_what_its_code_wants(self):
        short = ("tight 40 l 20 mbar 10 mbar 15 min", "tight 12 l 20 mbar 20 mbar 3 min")
        assert "line_leaks" in codes(judge(*short))
        assert "line_leaks" not in codes(judge(*short, rules=replace(HouseRules(), tightness_least_min=2.0)))

    def test_width_by_monte_carlo(self):
        rng = np.random.default_rng(7)
        parts = dict(body("tight 12 l 20 mbar 19.5 mbar 10 min", SEA_LEVEL).computed_from)
        n = 200_000
        p1, p2 = (pa + 101_325 + rng.uniform(-10, 10, n) for pa in (2000.0, 1950.0))
        warmer = 293.15 + rng.uniform(-0.1, 0.1, n)
        volume = 0.012 * (1 + rng.uniform(-0.05, 0.05, n))
        leaks = (p1 / 293.15 - p2 / warmer) * volume / 101_325 * 288.15 / 600
        covered = np.mean(np.abs(leaks - leaks.mean()) <= parts["half_width_m3_s"])
        assert 0.91 < covered < 0.99

    def test_gauges_step_can_be_entered(self):
        usual, fine = (
            dict(body(f"tight 12 l 20 mbar 19.5 mbar 10 min{more}").computed_from) for more in ("", " res 0.01 mbar")
        )
        assert fine["gauge_step_pa"] == pytest.approx(1.0)
        assert fine["half_width_m3_s"] < usual["half_width_m3_s"]
        assert not read_line("tight 12 l 20 mbar 19.5 mbar 10 min res 3", situation(FURNACE)).writable

    def test_leak_at_working_pressure_lies_between_a_pore_and_a_hole(self):
        air, gas = Medium(18e-6, 0.029), Medium(11e-6, 0.0165)
        low, high = leak_elsewhere(1.0, 4000.0, air, 1000.0, gas)
        assert low == pytest.approx(0.25 * 18 / 11)
        assert high == pytest.approx(math.sqrt(0.25 * 0.029 / 0.0165))

    def test_air_to_propane_through_a_pore_more_than_doubles(self):
        _, high = leak_elsewhere(1.0, 1000.0, AIR, 1000.0, fuel_medium(shipped_fuel("C3H8")))
        assert high == pytest.approx(17.9 / 7.9, rel=0.02)

    def test_it_is_shown_with_its_width(self):
        rows = figures("supply 7", "tight 12 l 60 mbar 55 mbar 15 min air")
        leak, at_work = rows["gas_leak_m3_s"], rows["leak_at_work_m3_s"]
        assert 0 < leak.half_width < leak.value
        assert at_work.value < leak.value
        assert at_work.half_width > 0


class TestOrifice:
    def needed_mm(self, watts, count, pascal, baro_pa, cd=0.87):
        """m = Cd A √(2 ρ Δp), heat = m HV / M: the bore from first principles."""
        fuel = shipped_fuel("NG_H")
        density = baro_pa * fuel.molar_mass_kg / (R * 288.15)
        per_area = cd * math.sqrt(2 * density * pascal) * fuel.gross_j_mol / fuel.molar_mass_kg
        return 1000 * math.sqrt(watts / count / per_area * 4 / math.pi)

    @pytest.mark.parametrize(("off", "state"), [(1.0, "in"), (1.03, "in"), (0.97, "in"), (1.06, "out"), (0.94, "out")])
    def test_it_fits_within_one_drill(self, off, state):
        stage = SEA_LEVEL.stage("only")
        bore = off * self.needed_mm(stage.input_w, 3, stage.manifold_pa, SEA_LEVEL.baro_pa)
        row = figures(f"orifice 3 {bore:.3f} mm", unit=SEA_LEVEL)["bore_needed_m"]
        assert row.state == state
        assert 1000 * row.value == pytest.approx(bore / off, rel=1e-3)

    def test_at_altitude_one_for_sea_level_is_named(self):
        high = replace(FURNACE, altitude_m=2400.0)
        stage = high.stage("only")
        bore = self.needed_mm(stage.input_w, 3, stage.manifold_pa, 101_325.0)
        row = figures(f"orifice 3 {bore:.3f} mm", unit=high)["bore_needed_m"]
        assert row.state == "out"
        assert "Right for sea level" in say(row.says)

    def test_the_makers_coefficient_goes_before_the_usual(self):
        usual, given_ = (
            figures("mp 3.5", f"orifice 3 2.5 mm{more}", unit=SEA_LEVEL)["input_orifice_w"] for more in ("", " cd 0.8")
        )
        assert given_.value / usual.value == pytest.approx(0.8 / 0.87)
        assert given_.half_width / given_.value < usual.half_width / usual.value

    def test_usual_width_is_that_of_its_parts(self):
        row = figures("mp 3.5", "orifice 3 2.5 mm", unit=SEA_LEVEL)["input_orifice_w"]
        assert 0.065 < row.half_width / row.value < 0.09  # 6 % coefficient, 3 % heating value, bore and gauge beside

    @pytest.mark.parametrize("cd", ["0.3", "2", "lots"])
    def test_a_coefficient_that_cannot_be_is_answered(self, cd):
        assert not read_line(f"orifice 3 2.5 mm cd {cd}", situation(FURNACE)).writable


class TestClock:
    def test_supply_at_the_appliance_is_not_the_meters(self):
        assert figures("supply 7", "clock 2 ft3 2 210")["input_metered_w"].value == pytest.approx(
            figures("supply 4", "clock 2 ft3 2 210")["input_metered_w"].value
        )

    def test_a_two_psi_meter_passes_what_its_pressure_says(self):
        usual, two_psi = (
            body("clock 2 ft3 2 210", SEA_LEVEL, meter_gauge_pa=lambda pascal=pascal: pascal).value
            for pascal in (None, 13_789.5)
        )
        assert two_psi / usual == pytest.approx((101_325 + 13_789.5) / (101_325 + 1743.6), rel=1e-4)

    def test_the_lines_own_heating_value_counts(self):
        plain, rich = (
            body("clock 2 ft3 2 210", SEA_LEVEL, gross_j_m3=lambda value=value: value).value for value in (38e6, 41.8e6)
        )
        assert rich / plain == pytest.approx(1.1)

    def test_width_by_monte_carlo(self):
        rng = np.random.default_rng(3)
        reading = body("clock 2 ft3 2 210", SEA_LEVEL, meter_gauge_pa=lambda: None)
        n = 200_000
        off = (
            (1 + rng.uniform(-0.03, 0.03, n))
            * (1 + rng.uniform(-0.01, 0.01, n))
            * (210 / (210 + rng.uniform(-0.5, 0.5, n)))
            * (288.15 / (288.15 + rng.uniform(-5, 5, n)))
            * ((103_069 + rng.uniform(-1000, 1000, n) + rng.uniform(-1000, 1000, n)) / 103_069)
        )
        covered = np.mean(np.abs(off - 1) <= dict(reading.computed_from)["half_width_w"] / reading.value)
        assert 0.90 < covered < 0.995

    @pytest.mark.parametrize("line", ["clock 2 ft3 1 9", "clock 2 ft3 1.5 60", "clock 0.5 ft3 0.5 30"])
    def test_short_and_part_turns_are_asked_back(self, line):
        there = situation(FURNACE)
        read = read_line(line, there)
        assert not read.writable
        assert read.asks
        assert read_line(read.asks[0].choices[0], there).writable


class TestDerating:
    @pytest.mark.parametrize(
        ("rule", "feet", "share"),
        [
            ("four_pct_per_1000_ft", 2000, 0.0),
            ("four_pct_per_1000_ft", 5000, 0.20),
            ("two_pct_per_1000_ft", 5000, 0.10),
            ("ten_pct_to_4500_ft", 2001, 0.10),
            ("ten_pct_to_4500_ft", 4500, 0.10),
            ("ten_pct_to_4500_ft", 4600, None),
            ("table", 5000, None),
            ("table", 1000, 0.0),
            ("none", 9000, 0.0),
        ],
    )
    def test_each_rule(self, rule, feet, share):
        got = derate_share(feet * FOOT, replace(HouseRules(), altitude_derate=rule))
        assert got == (None if share is None else pytest.approx(share))

    def test_where_the_rule_says_nothing_no_input_is_judged(self):
        rules = replace(HouseRules(), altitude_derate="table")
        assert input_at_altitude_w(FURNACE, rules, "only") is None
        assert not band_for(FURNACE, rules, "input_w", "only").acquits

    def test_the_manuals_table_goes_before_the_houses_rule(self):
        manual = ManualLimit("input_w", 15_000.0, 16_000.0, "only", "p. 12, table of altitudes")
        band = band_for(replace(FURNACE, manual=(manual,)), HouseRules(), "input_w", "only")
        assert (band.source, band.low, band.high) == ("manual", 15_000.0, 16_000.0)


class TestRank:
    @pytest.mark.parametrize("quantity", ["manifold_pa", "input_w", "water_pressure_pa", "supply_standing_pa"])
    def test_the_manual_outranks_what_is_computed(self, quantity):
        manual = ManualLimit(quantity, 1000.0, 1001.0)
        unit = replace(FURNACE, manual=(manual,), plate=replace(FURNACE.plate, water_relief_pa=206_843.0))
        assert band_for(unit, HouseRules(), quantity, "only", Beside(running_pa=1600.0)).source == "manual"

    @pytest.mark.parametrize("quantity", ["supply_running_pa", "temperature_rise_k", "external_static_pa"])
    def test_the_plate_outranks_the_manual(self, quantity):
        unit = replace(FURNACE, manual=(ManualLimit(quantity, 0.1, 0.2),))
        assert band_for(unit, HouseRules(), quantity, "only").source == "plate"

    def test_an_end_that_is_not_stamped_is_the_manuals(self):
        plate = replace(FURNACE.plate, supply_max_pa=None)
        unit = replace(FURNACE, plate=plate, manual=(ManualLimit("supply_running_pa", 1000.0, 2000.0),))
        band = band_for(unit, HouseRules(), "supply_running_pa", None)
        assert (band.source, band.low, band.high) == ("manual", FURNACE.plate.supply_min_pa, 2000.0)

    @given(st.sampled_from(["manifold_pa", "input_w", "temperature_rise_k", "draft_pa", "external_static_pa"]))
    def test_only_what_is_stamped_is_called_the_plates(self, quantity):
        band = band_for(FURNACE, HouseRules(), quantity, "only")
        stamped = {"temperature_rise_k", "draft_pa", "external_static_pa"}
        assert (band.source == "plate") == (quantity in stamped)


class TestRegions:
    def unit(self, fuel):
        bare = replace(FURNACE.plate, fuel=fuel, supply_min_pa=None, supply_max_pa=None)
        return replace(FURNACE, plate=bare)

    @pytest.mark.parametrize(
        ("fuel", "mbar", "north_america", "metric"),
        [
            ("LPG_C3_COMM", 37, "out", "in"),
            ("NG_H", 14, "in", "out"),
            ("NG_H", 20, "in", "in"),
            ("LPG_C3_COMM", 29, "in", "near"),
        ],
    )
    def test_usual_pressures_are_the_regions_own(self, fuel, mbar, north_america, metric):
        for region, verdict in (("north_america", north_america), ("metric", metric)):
            band = band_for(self.unit(fuel), replace(HouseRules(), region=region), "supply_running_pa", None)
            assert band.verdict(100.0 * mbar) == verdict, region

    def test_a_net_plate_is_not_taken_for_gross(self):
        """Natural gas: gross is 1.11 times net; 18 kW net are 20 kW gross."""
        gross = replace(SEA_LEVEL, plate=replace(SEA_LEVEL.plate, input_basis="gross"))
        net = replace(SEA_LEVEL, plate=replace(SEA_LEVEL.plate, input_basis="net"))
        ratio = input_at_altitude_w(net, HouseRules(), "only") / input_at_altitude_w(gross, HouseRules(), "only")
        assert ratio == pytest.approx(1.107, abs=0.006)
