"""A virtual unit in real time: what one instrument sees fits what the others see, at any second."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.errors import OutOfDomain
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.virtual.live_unit import CYCLE_S, LiveUnit

FURNACE = "furnace_80_hot_surface"
STEADY_S = 500.0
CALM = LiveUnit(shipped_circuit(FURNACE))


def live(name, *faults, **options):
    circuit = shipped_circuit(name)
    return LiveUnit(circuit, [circuit.fault(key) for key in faults], **options)


@pytest.mark.parametrize("name", circuit_names())
def test_every_unit_calls_burns_and_rests(name):
    unit = live(name)
    assert unit.at(5).lit_s < 0 < unit.at(STEADY_S).lit_s
    assert unit.at(CYCLE_S - 5).lit_s < 0
    assert unit.at(STEADY_S) == unit.at(STEADY_S + CYCLE_S)
    plant = unit.circuit.plant
    if plant.has_flue:
        assert unit.at(STEADY_S).values["o2_dry_pct"] == pytest.approx(plant.o2_pct, abs=0.05)
        assert unit.at(STEADY_S).values["flue_temp_k"] == pytest.approx(plant.stack_k, abs=2)
    assert unit.at(STEADY_S).values["input_w"] == pytest.approx(plant.input_w, rel=0.01)


@settings(max_examples=60)
@given(st.floats(0, 5 * CYCLE_S))
def test_heat_and_draft_move_without_jumps(second):
    before, after = CALM.at(second).values, CALM.at(second + 0.1).values
    for name, most in (("flue_temp_k", 2.0), ("temperature_rise_k", 2.0), ("draft_pa", 40.0)):
        assert abs(after[name] - before[name]) < most, name


def test_a_gust_is_seen_by_manometer_and_meter_at_once():
    unit = live("furnace_condensing_two_stage", gusts=True)
    calm, gust = 47 * 10 + 20.0, 47 * 10 + 0.35
    assert unit.at(gust).values["draft_at_switch_pa"] < 0.6 * unit.at(calm).values["draft_at_switch_pa"]
    assert unit.volts("4", "C", calm) > 20 > 5 > unit.volts("4", "C", gust)
    assert unit.volts("3", "C", gust) > 20


def test_neighbours_pull_the_supply_and_a_regulator_holds():
    unit = live(FURNACE, neighbours=True)
    alone, together = unit.at(1580.0 % 1200 + 0.0).values, unit.at(250.0).values
    assert together["supply_running_pa"] == pytest.approx(0.9 * alone["supply_running_pa"], rel=0.01)
    assert together["manifold_pa"] == pytest.approx(alone["manifold_pa"], rel=0.01)


def test_supply_locks_up_above_running():
    assert CALM.at(5).values["supply_running_pa"] > 1.05 * CALM.at(STEADY_S).values["supply_running_pa"]


def test_a_freezing_regulator_sinks_while_it_runs():
    unit = live(FURNACE, "regulator.freezes")
    lit = STEADY_S - unit.at(STEADY_S).lit_s
    early, late = unit.at(lit + 3).values, unit.at(lit + 200).values
    assert early["manifold_pa"] > 0.97 * 872
    assert late["manifold_pa"] == pytest.approx(0.5 * 872, rel=0.02)
    assert late["o2_dry_pct"] > early["o2_dry_pct"] + 2
    assert late["input_w"] == pytest.approx(0.5**0.5 * unit.circuit.plant.input_w, rel=0.02)


def test_a_breach_shows_when_the_blower_starts():
    unit = live(FURNACE, "exchanger.breach")
    before = next(s for s in range(60, 130) if "blower_runs" in unit.at(s).holds) - 2.0
    still, blown = unit.at(before).values, unit.at(before + 30).values
    assert blown["o2_dry_pct"] - still["o2_dry_pct"] > 0.8
    assert blown["co_ppm_dry"] > still["co_ppm_dry"]
    assert blown["room_co_ppm"] > 9 > still["room_co_ppm"]


def test_a_limit_opens_at_its_temperature_when_no_air_moves():
    unit = live(FURNACE, "blower.open")
    hottest = max(unit.at(s).values["temperature_rise_k"] for s in range(60, 300))
    assert 40 < hottest < 90
    assert any("plenum_hot" in unit.at(s).holds for s in range(60, 300))


@pytest.mark.parametrize("second", [-1.0, float("nan"), float("inf")])
def test_a_second_that_cannot_be_is_refused(second):
    with pytest.raises(OutOfDomain, match="no_second"):
        CALM.at(second)
