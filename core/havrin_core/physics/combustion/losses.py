"""Flue losses, condensation and efficiency by enthalpies.

Definitions in docs/formulas.md section 5: sensible heat counts from the combustion air's
temperature; heating values at 25 degC; condensation at equilibrium at the flue temperature.
"""

from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.combustion.balance import Balance
from havrin_core.physics.constants import CO_HEATING_VALUE_J_MOL, ICE_POINT_K, WATER_LATENT_25C_J_MOL
from havrin_core.physics.fuels import Fuel
from havrin_core.physics.species import enthalpy_j_mol, mixture_sensible_j
from havrin_core.physics.water_vapour import dew_point_k, humidity_ratio, saturation_pressure_pa

FLUE_COOLEST_K, FLUE_HOTTEST_K = 233.15, 1000.0
AIR_COOLEST_K, AIR_HOTTEST_K = 223.15, 353.15


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What the fire breathes: combustion air temperature, its humidity, the barometer."""

    air_temp_k: float
    air_rh_pct: float
    baro_pa: float


@dataclass(frozen=True, slots=True)
class Losses:
    """Losses in % of net or gross input, and what condensation gives back."""

    humidity_mol_per_mol_air: float
    wet_flue: float
    dew_point_k: float
    condensing: bool
    dry_pct_net: float
    water_sensible_pct_net: float
    co_pct_net: float
    latent_full_pct_gross: float
    condensed_fraction_of_combustion_water: float
    latent_recovered_pct_net: float
    efficiency_net_pct: float
    efficiency_gross_pct: float


def losses(fuel: Fuel, flue: Balance, flue_temp_k: float, surroundings: Surroundings) -> Losses:
    """Return the losses of a flue gas leaving at ``flue_temp_k`` (233-1000 K).

    Raises OutOfDomain: a temperature or humidity that cannot be.
    """
    _check(flue_temp_k, surroundings)
    air_k, pressure = surroundings.air_temp_k, surroundings.baro_pa
    ratio = humidity_ratio(air_k, surroundings.air_rh_pct, pressure)
    water = fuel.water + ratio * flue.dry_air
    vapour_pressure = pressure * water / (flue.dry_flue + water)
    dew_k = dew_point_k(vapour_pressure)
    per_net = 100 / fuel.net_j_mol
    dry = mixture_sensible_j(flue.dry_amounts(), flue_temp_k, air_k) * per_net
    sensible = water * (enthalpy_j_mol("H2O", flue_temp_k) - enthalpy_j_mol("H2O", air_k)) * per_net
    co = flue.co * CO_HEATING_VALUE_J_MOL * per_net
    condensed = _condensed_mol(flue, water, flue_temp_k, pressure) if flue_temp_k < dew_k else 0.0
    recovered = condensed * _heat_of_condensation(flue_temp_k) * per_net if condensed else 0.0
    net = 100 - dry - sensible - co + recovered
    return Losses(
        humidity_mol_per_mol_air=ratio,
        wet_flue=flue.dry_flue + water,
        dew_point_k=dew_k,
        condensing=flue_temp_k < dew_k,
        dry_pct_net=dry,
        water_sensible_pct_net=sensible,
        co_pct_net=co,
        latent_full_pct_gross=100 * fuel.water * WATER_LATENT_25C_J_MOL / fuel.gross_j_mol,
        condensed_fraction_of_combustion_water=condensed / fuel.water,
        latent_recovered_pct_net=recovered,
        efficiency_net_pct=net,
        efficiency_gross_pct=net * fuel.net_j_mol / fuel.gross_j_mol,
    )


def _condensed_mol(flue: Balance, water: float, temp_k: float, pressure_pa: float) -> float:
    saturated = saturation_pressure_pa(temp_k)
    return water - flue.dry_flue * saturated / (pressure_pa - saturated)


def _heat_of_condensation(temp_k: float) -> float:
    # Below freezing the liquid's polynomial ends; the latent heat at 0 degC is kept there.
    held = max(temp_k, ICE_POINT_K)
    return enthalpy_j_mol("H2O", held) - enthalpy_j_mol("H2O(L)", held)


def _check(flue_temp_k: float, surroundings: Surroundings) -> None:
    if not FLUE_COOLEST_K <= flue_temp_k <= FLUE_HOTTEST_K:
        message = phrase("flue_c_outside_40_727", flue_temp_k=flue_temp_k - ICE_POINT_K)
        raise OutOfDomain("flue_temperature_range", message, quantity="flue_temp_k", value=flue_temp_k)
    if not AIR_COOLEST_K <= surroundings.air_temp_k <= AIR_HOTTEST_K:
        shown = surroundings.air_temp_k - ICE_POINT_K
        message = phrase("combustion_air_c_outside_50", shown=shown)
        raise OutOfDomain("air_temperature_range", message, quantity="air_temp_k", value=surroundings.air_temp_k)
    if not 30_000 <= surroundings.baro_pa <= 120_000:
        message = phrase("barometer_kpa_outside_30_120", baro_pa=surroundings.baro_pa / 1000)
        raise OutOfDomain("barometer_range", message, quantity="baro_pa", value=surroundings.baro_pa)
