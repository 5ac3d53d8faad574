"""Computed figures of gas, draft, air and water: right by numbers worked out by hand, and honest about what they took."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words as say
from havrin_core.workings.every import workings_of
from tests.core.rows import furnace, judge, situation, tape

FURNACE = furnace()
HERE = situation(FURNACE)


def boiler(condensing=False, **plate):
    kind = "boiler_condensing" if condensing else "boiler_atmospheric"
    stages = (Stage("low", 11723), Stage("high", 58615)) if condensing else (Stage("only", 30772, 871.8),)
    return build_unit("B-9", kind, Plate("NG_H", stages, **plate), 1532)


def figures(*lines, unit=FURNACE, path="gas", system="us"):
    found = workings_of(unit, HouseRules(), VisitTape("maintenance", tape(*lines, unit=unit)), system)
    return {(row.key, row.stage): row for row in getattr(found, path)}


def test_the_meter_tells_the_input_as_by_hand():
    row = figures("supply 7", "clock 2 ft3 2 210")[("input_metered_w", "only")]
    # 4 ft3 in 210 s at 7 inWC over 84.14 kPa and 15 °C: 1.9418 m3/h actual, ×0.8476 standard, × 38.49 MJ/m3
    assert row.value == pytest.approx(17_600, rel=0.01)
    assert 0.03 < row.half_width / row.value < 0.05  # stopwatch, heating value, temperature, weather, meter
    assert {say(i.name) for i in row.why.inputs} >= {"time", "gross heating value", "barometer here"}


@pytest.mark.parametrize(
    ("line", "stage", "parts"),
    [
        ("clock 2 ft3 1 30.2", "only", 3),
        ("clock 2ft3 30.2", "only", 3),
        ("clock 0,01 m3 2 55s", "only", 3),
        ("clock 5 l 30", "only", 3),
    ],
)
def test_a_clocked_meter_is_read(line, stage, parts):
    read = read_line(line, HERE)
    assert read.writable, read.problems
    body = read.bodies[0]
    assert (body.quantity, body.stage) == ("input_w", stage)
    assert dict(body.computed_from)["time_s"] in (30.2, 55, 30)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("clock", "Dial, turns, seconds"),
        ("clock 2 ft3", "Dial, turns, seconds"),
        ("clock 2 ft3 1 0.1", "time in seconds"),
        ("clock 2 30", "Dial, turns"),
        ("orifice #43", "How many"),
        ("orifice 4 #99", "No drill"),
        ("orifice 4 fat", "No drill"),
        ("cap 37", "Read and rated"),
        ("phases 208 212", "Three readings"),
        ("phases 208 212 0", "above 0"),
    ],
)
def test_a_measured_line_that_says_too_little_is_asked_back(line, said):
    read = read_line(line, HERE)
    assert not read.writable
    assert said in say(read.problems[0].text)


def test_without_a_line_of_gas_the_input_is_asked_for():
    assert "write the input itself" in say(read_line("clock 2 ft3 30", replace(HERE, gas=None)).problems[0].text)


def test_the_screw_is_told_before_it_is_turned():
    rows = figures("mp 4.0", "input 64")
    gap = rows[("manifold_gap_pa", "only")]
    assert gap.value == pytest.approx(871.8 - 4 * 249.089, abs=0.1)
    assert "down: turn out" in say(gap.says)
    assert gap.state == "out"
    after = rows[("input_after_w", "only")]
    assert after.value == pytest.approx(rows[("input_metered_w", "only")].value * (871.8 / 996.36) ** 0.5, rel=1e-4)


def test_a_target_outside_the_plates_range_is_refused():
    rows = figures("mp 3.5", "input 48")
    target = rows[("manifold_for_rated_pa", "only")]
    assert target.state == "out"
    assert "not by the screw" in say(target.says)
    inside = figures("mp 3.5", "input 56")[("manifold_for_rated_pa", "only")]
    assert (inside.state, inside.says) == ("in", "")


def test_standing_at_the_plate_nothing_is_turned():
    assert say(figures("mp 3.5")[("manifold_gap_pa", "only")].says) == "It is at the plate's value."


def test_orifices_that_fit_and_those_of_another_gas():
    good = figures("orifice 4 #48", "mp 3.5")
    assert good[("bore_needed_m", "only")].state == "in"
    assert good[("input_orifice_w", "only")].value == pytest.approx(good[("input_rated_w", "only")].value, rel=0.12)
    wrong = figures("orifice 4 #55")[("bore_needed_m", "only")]
    assert wrong.state == "out"
    assert "LP" in say(wrong.says)
    neither = figures("orifice 4 #20")[("bore_needed_m", "only")]
    assert "neither" in say(neither.says)


def test_the_plates_cells_count_where_nobody_counted():
    typed = figures("orifice 4 #48", "mp 3.5")[("input_orifice_w", "only")].value
    assert figures("bore 1.93 mm", "mp 3.5")[("input_orifice_w", "only")].value == pytest.approx(typed, rel=0.01)


def test_supply_and_lock_up():
    rows = figures("lockup 7.8", "supply 7.0")
    assert rows[("supply_drop_pa", None)].value == pytest.approx(0.8 * 249.089)
    assert rows[("lock_up_pct", None)].value == pytest.approx(100 * 0.8 / 7)
    assert figures("lockup 9.8", "supply 7.0")[("lock_up_pct", None)].state == "out"


def test_a_tank_in_the_cold_is_the_temperatures():
    lp = furnace(fuel="LPG_C3_COMM")
    cold, warm = (figures(f"outdoor {t} F", unit=lp)[("tank_gauge_pa", None)] for t in (-40, 60))
    assert cold.value < 40_000 < warm.value
    assert (cold.state, warm.state) == ("out", "in")
    assert ("tank_gauge_pa", None) not in figures("outdoor 60 F")


def test_margin_at_the_switch():
    row = figures("draft .88", path="draft")[("draft_margin_pa", "only")]
    assert row.value == pytest.approx(0.88 * 249.089 - 149.5, abs=0.1)
    assert row.state == "in"
    assert figures("draft .62", path="draft")[("draft_margin_pa", "only")].state == "near"
    assert figures("draft -.5", path="draft")[("draft_margin_pa", "only")].state == "out"


def test_theoretical_draft_and_what_is_there():
    lines = ("vent height 20 ft", "outdoor 30 F", "o2 9 co 20 t 340 air 66")
    rows = figures(*lines, "vent draft -.02", path="draft", unit=boiler())
    theory = rows[("theoretical_draft_pa", None)]
    assert 10 < theory.value < 25
    assert theory.half_width > 0
    share = rows[("draft_share_pct", None)]
    assert share.value == pytest.approx(100 * 0.02 * 249.089 / theory.value, rel=1e-6)
    assert (share.state, rows[("draft_wanted_pa", None)].state) == ("", "in")  # past a hood the least draft judges
    weak = figures(*lines, "vent draft -.005", path="draft", unit=boiler())
    assert weak[("draft_wanted_pa", None)].state == "out"


def test_a_vent_under_pressure_has_none_of_its_draft():
    lines = ("vent height 20 ft", "outdoor 30 F", "o2 9 co 20 t 340 air 66", "vent draft .02")
    share = figures(*lines, path="draft", unit=boiler())[("draft_share_pct", None)]
    assert share.value < 0
    assert share.state == "out"


@pytest.mark.parametrize(("line", "level"), [("spill 40", 0), ("spill 200", 2), ("spill 6 min", 4)])
def test_spillage_has_a_clock(line, level):
    reasons = [r for r in judge(line, unit=boiler()).reasons if r.code.startswith("spillage_time")]
    assert [r.level for r in reasons] == ([level] if level else [])


def test_airflow_is_the_place_s_not_sea_level_s():
    rows = figures("input 59", "o2 7.4 co 22 t 342 air 66", "rise 49", "ra 68", path="air")
    flow = rows[("airflow_m3_s", "only")]
    cfm = flow.value / 0.028316846592 * 60
    output = rows[("output_w", "only")].value
    assert cfm == pytest.approx(output * 3.41214 / (1.08 * 49) / (84.137 / 101.325), rel=0.02)
    assert "sea-level factor" in say(flow.why.note)
    assert flow.half_width > 0
    assert not rows[("output_w", "only")].why.note


def test_what_was_taken_for_granted_is_said():
    note = figures("rise 49", path="air")[("output_w", "only")].why.note
    assert "not clocked" in say(note)
    assert "not read at the flue" in say(note)


def test_capacitor_and_phases():
    rows = figures("cap 37.2 of 40", "phases 208 212 206", "phases 12 14 12", path="air")
    assert rows[("capacitor_pct", None)].value == pytest.approx(-7.0)
    assert rows[("capacitor_pct", None)].state == "out"
    assert rows[("voltage_imbalance_pct", None)].state == "in"
    assert rows[("current_imbalance_pct", None)].state == "out"
    charged = figures("cap 4 of 40", path="air")[("capacitor_pct", None)]
    assert "Discharged" in say(charged.says)


def test_water_flow_and_whether_it_can_condense():
    lines = ("input 190 hi", "o2 4.9 co 40 t 120 air 70 hi", "ws 140 hi", "wrise 28 hi")
    cold = figures(*lines, "wr 100", path="water", unit=boiler(condensing=True))
    gpm = cold[("water_flow_m3_s", "high")].value / 0.003785411784 * 60
    assert gpm == pytest.approx(cold[("output_w", "high")].value * 3.41214 / (500 * 28), rel=0.03)
    assert cold[("return_margin_k", "high")].state == "in"
    assert cold[("condensate_m3_s", "high")].value > 0
    warm = figures(*lines, "wr 150", path="water", unit=boiler(condensing=True))
    assert warm[("return_margin_k", "high")].state == "near"
    assert "cannot condense" in say(warm[("return_margin_k", "high")].says)
    wet = figures("o2 6 co 20 t 300 air 66", "wr 100", path="water", unit=boiler())
    assert "not built for it" in say(wet[("return_margin_k", "only")].says)


def test_nothing_read_computes_nothing_but_the_plate():
    found = workings_of(FURNACE, HouseRules(), VisitTape("maintenance", ()), "metric")
    assert [row.key for row in found.gas] == ["input_rated_w"]
    assert (found.draft, found.air, found.water) == ((), (), ())
    assert found.dials[2].seconds[0][1] == pytest.approx(113, abs=2)


@given(st.floats(0.5, 9), st.floats(20, 90))
def test_every_figure_has_a_why_and_a_finite_width(manifold, kbtu):
    rows = figures(f"mp {manifold:.2f}", f"input {kbtu:.1f}", "orifice 4 #43", "supply 7", "lockup 8")
    for row in rows.values():
        assert row.why.formula
        assert row.why.source
        assert 0 <= row.half_width < float("inf")


def test_words_of_two_that_begin_like_a_look_are_readings():
    read = read_line("vent draft -.02", HERE)
    assert read.bodies[0].quantity == "vent_draft_pa"
    assert shipped_fuel("NG_H").label == FURNACE.fuel.label
