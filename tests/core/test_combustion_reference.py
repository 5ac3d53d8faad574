"""Combustion against independently computed rows."""

import pytest
from pytest import approx

from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm, co_at_reference_o2_ppm, co_co2_ratio
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.combustion.siegert import siegert
from havrin_core.physics.fuels import gross_wobbe_j_m3, mixture, shipped_fuel
from tests.core.rows import reference

ROWS = reference("flue_combustion")


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row["row_id"])
def test_flue_row(row):
    fuel = shipped_fuel(row["fuel"])
    ref = {k: float(v) for k, v in row.items() if k not in ("row_id", "fuel", "sample_set")}
    flue = balance(fuel, ref["o2_dry_pct"], ref["co_dry_ppm"])
    found = losses(
        fuel,
        flue,
        ref["flue_temp_c"] + 273.15,
        Surroundings(ref["air_temp_c"] + 273.15, ref["air_rh_pct"], 1000 * ref["baro_kpa"]),
    )
    assert flue.excess_air_ratio == approx(ref["lambda"], rel=2e-5)
    assert flue.excess_air_pct == approx(ref["excess_air_pct"], rel=1e-4, abs=1e-3)
    assert flue.co2_dry_pct == approx(ref["co2_dry_pct"], rel=2e-5)
    assert flue.dry_air == approx(ref["dry_air_m3_per_m3"], rel=2e-5)
    assert found.wet_flue == approx(ref["wet_flue_m3_per_m3"], rel=1e-4)
    assert co_air_free_ppm(ref["o2_dry_pct"], ref["co_dry_ppm"]) == approx(ref["co_air_free_ppm"], rel=1e-5)
    assert co_air_free_ppm(ref["o2_dry_pct"], ref["co_dry_ppm"], 20.9) == approx(ref["co_air_free_ppm_20_9"], rel=1e-5)
    assert co_at_reference_o2_ppm(ref["o2_dry_pct"], ref["co_dry_ppm"], 3) == approx(ref["co_at_3pct_o2_ppm"], rel=1e-5)
    assert co_co2_ratio(flue) == approx(ref["co_co2_ratio"], rel=1e-4)
    assert found.dew_point_k - 273.15 == approx(ref["flue_dew_point_c"], abs=0.01)
    assert found.condensing == bool(ref["condensing"])
    assert found.dry_pct_net == approx(ref["loss_dry_pct_net"], abs=0.001)
    assert found.water_sensible_pct_net == approx(ref["loss_h2o_sensible_pct_net"], abs=0.002)
    assert found.co_pct_net == approx(ref["loss_co_pct_net"], abs=0.001)
    assert found.condensed_fraction_of_combustion_water == approx(
        ref["condensed_fraction_of_combustion_water"], abs=0.002
    )
    assert found.efficiency_net_pct == approx(ref["eff_net_pct"], abs=0.01)
    assert found.efficiency_gross_pct == approx(ref["eff_gross_pct"], abs=0.01)


@pytest.mark.parametrize("row", reference("fuel_properties"), ids=lambda row: row["fuel"])
def test_fuel_row(row):
    fuel = shipped_fuel(row["fuel"])
    assert fuel.gross_j_mol == approx(1000 * float(row["hhv_kj_per_mol_25c"]), rel=1e-6)
    assert fuel.net_j_mol == approx(1000 * float(row["lhv_kj_per_mol_25c"]), rel=1e-6)
    assert fuel.relative_density == approx(float(row["relative_density_ideal"]), rel=1e-6)
    assert fuel.co2_max_dry_pct == approx(float(row["co2_max_dry_pct"]), rel=1e-6)
    assert fuel.stoich_air == approx(float(row["stoich_dry_air_m3_per_m3"]), rel=1e-6)
    assert gross_wobbe_j_m3(fuel) == approx(1e6 * float(row["wobbe_gross_mj_per_m3_15c_15c"]), rel=1e-5)


@pytest.mark.parametrize("row", reference("fuel_composition"), ids=lambda row: row["fuel"])
def test_shipped_compositions_are_the_reference_ones(row):
    names = {"x_nC4H10_mol_frac": "nC4H10", "x_iC4H10_mol_frac": "iC4H10"}
    shares = {names.get(k, k.split("_")[1]): float(v) for k, v in row.items() if k.startswith("x_") and float(v)}
    typed_in = mixture("mine", "typed in", shares)
    assert dict(shipped_fuel(row["fuel"]).composition) == shares
    assert typed_in.gross_j_mol == approx(shipped_fuel(row["fuel"]).gross_j_mol)


@pytest.mark.parametrize(
    "row", [r for r in reference("siegert_fit") if r["form"] == "o2"], ids=lambda row: row["row_id"]
)
def test_siegert_coefficients(row):
    fitted = siegert(shipped_fuel(row["fuel"]), float(row["o2_ref_pct"]), float(row["air_rh_pct"]))
    assert (fitted.a, fitted.b) == approx((float(row["a"]), float(row["b"])), rel=1e-4)


@pytest.mark.parametrize("row", reference("excess_air_k"), ids=lambda row: row["row_id"])
def test_excess_air_row(row):
    flue = balance(shipped_fuel(row["fuel"]), float(row["o2_dry_pct"]), float(row["co_dry_ppm"]))
    assert flue.excess_air_pct == approx(float(row["excess_air_pct"]), rel=1e-4, abs=1e-3)
