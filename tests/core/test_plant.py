"""The virtual fire: it burns by the core's own balance, and moves the way a real one does."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument, OutOfDomain
from havrin_core.machine.circuit.model import AIR, DISCHARGE, WATER, Design
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.machine.virtual.plant import NO_FIRE, fire, gas_share, regulated_share
from havrin_core.physics.combustion.sample import FlueSample, analyse
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.search.pictures import pictures_of

FURNACE = Design("NG_H", 23_400.0, AIR, 7.0, 450.0, "draft_pa")
CONDENSING = replace(FURNACE, o2_pct=6.0, stack_k=318.0)
BOILER = Design("NG_H", 29_300.0, WATER, 6.5, 440.0, "draft_pa")
RISE_K = 28.0
SHARE = st.floats(0.4, 1.5)


@pytest.mark.parametrize("design", [FURNACE, CONDENSING, BOILER, replace(FURNACE, fuel="C3H8")])
def test_at_its_design_it_reads_its_design(design):
    sound = fire(design, RISE_K, 1, 1, 1)
    assert sound.o2_dry_pct == pytest.approx(design.o2_pct, abs=0.01)
    assert sound.flue_temp_k == pytest.approx(design.stack_k, abs=0.1)
    assert sound.rise_k == pytest.approx(RISE_K, rel=0.001)
    assert sound.co_air_free_ppm < 100
    read = analyse(shipped_fuel(design.fuel), FlueSample(sound.o2_dry_pct, sound.co_ppm_dry, sound.flue_temp_k))
    assert read.values["efficiency_gross_pct"] == pytest.approx(sound.efficiency_gross_pct, abs=0.3)


@given(SHARE, SHARE, st.floats(0.3, 1.5))
def test_heat_is_neither_made_nor_lost(gas, air, flow):
    burning = fire(FURNACE, RISE_K, gas, air, flow)
    assert 0 < burning.output_w < burning.input_w
    assert burning.input_w == pytest.approx(FURNACE.input_w * gas, rel=1e-3)
    assert burning.output_w == pytest.approx(burning.input_w * burning.efficiency_gross_pct / 100, rel=1e-6)


@given(SHARE, SHARE)
def test_more_air_means_more_oxygen_and_more_gas_means_less(gas, air):
    now = fire(FURNACE, RISE_K, gas, air, 1)
    assert fire(FURNACE, RISE_K, gas, air + 0.1, 1).o2_dry_pct >= now.o2_dry_pct
    assert fire(FURNACE, RISE_K, gas + 0.1, air, 1).o2_dry_pct <= now.o2_dry_pct
    assert fire(FURNACE, RISE_K, gas + 0.1, air, 1).flue_temp_k > now.flue_temp_k - 5


def test_a_starved_fire_makes_carbon_monoxide():
    ppm = [fire(FURNACE, RISE_K, 1, air, 1).co_air_free_ppm for air in (1.0, 0.8, 0.74, 0.68)]
    assert ppm == sorted(ppm)
    assert ppm[0] < 50
    assert ppm[-1] > 2000


def test_less_airflow_warms_the_air_and_the_flue():
    full, half = fire(FURNACE, RISE_K, 1, 1, 1), fire(FURNACE, RISE_K, 1, 1, 0.5)
    assert half.rise_k == pytest.approx(2 * full.rise_k, rel=0.05)
    assert half.flue_temp_k > full.flue_temp_k
    assert half.efficiency_gross_pct < full.efficiency_gross_pct


def test_a_breach_dilutes_and_quenches_air_at_the_probe_only_dilutes():
    sound = fire(FURNACE, RISE_K, 1, 1, 1)
    breached, drawn = fire(FURNACE, RISE_K, 1, 1, 1, leak=0.08), fire(FURNACE, RISE_K, 1, 1, 1, drawn_in=0.08)
    assert breached.o2_dry_pct - sound.o2_dry_pct > 1.0
    assert breached.co_air_free_ppm > 3 * sound.co_air_free_ppm
    assert drawn.o2_dry_pct == pytest.approx(breached.o2_dry_pct, abs=0.01)
    assert drawn.co_air_free_ppm == pytest.approx(sound.co_air_free_ppm, rel=0.01)


def test_gas_goes_with_the_root_of_the_manifold_and_a_regulator_holds():
    assert gas_share(0.25) == pytest.approx(0.5)
    assert gas_share(0.0) == 0.0
    assert regulated_share(1743, 872) == 1.0
    assert regulated_share(500, 872) == pytest.approx((500 - 75) / 872)
    assert regulated_share(0, 872) == 0.0


@pytest.mark.parametrize("shares", [(-0.1, 1, 1), (1, 9, 1), (1, 1, float("nan")), (float("inf"), 1, 1)])
def test_outside_its_physics_it_refuses_by_name(shares):
    with pytest.raises(OutOfDomain, match="cannot_driven_there"):
        fire(FURNACE, RISE_K, *shares)


def test_no_gas_no_fire_and_no_flue_without_one():
    assert fire(FURNACE, RISE_K, 0, 1, 1) is NO_FIRE
    direct = fire(Design("NG_H", 88_000.0, DISCHARGE), 40.0, 1, 1, 0.5)
    assert (direct.output_w, direct.rise_k) == (88_000.0, 80.0)


@pytest.mark.parametrize("name", circuit_names())
def test_every_shipped_circuit_says_how_it_burns(name):
    circuit = shipped_circuit(name)
    assert circuit.plant is not None
    outcomes = pictures_of(circuit).sound
    if circuit.plant.has_flue:
        assert outcomes["gauge:o2_dry_pct"] == pytest.approx(circuit.plant.o2_pct, abs=0.01)
        assert outcomes["gauge:flue_temp_k"] == pytest.approx(circuit.plant.stack_k, abs=0.5)


@pytest.mark.parametrize(
    ("field", "value", "named"),
    [
        ("fuel", "coal", "coal"),
        ("heats", "soup", "soup"),
        ("input_w", 0, "input_w"),
        ("o2_pct", 25, "o2_pct"),
        ("draft", "wind", "wind"),
    ],
)
def test_a_plant_that_cannot_be_is_named(field, value, named):
    data = shipped_document("furnace_80_hot_surface")
    with pytest.raises(BadDocument, match=named):
        circuit_from_dict({**data, "plant": {**data["plant"], field: value}})
