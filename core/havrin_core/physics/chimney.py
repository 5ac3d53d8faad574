"""Theoretical draft of a chimney or vent."""

from dataclasses import dataclass

from havrin_core.phrases import phrase
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.fuels import AIR_MOLAR_MASS_KG, Fuel
from havrin_core.physics.states import density_kg_m3, require
from havrin_core.physics.water_vapour import humidity_ratio

GRAVITY_M_S2 = 9.80665
_MOLAR_MASS_KG = {"CO2": 0.044009, "CO": 0.02801, "O2": 0.031998, "N2": 0.028014, "AR": 0.03995, "H2O": 0.018015}


@dataclass(frozen=True, slots=True)
class Draft:
    """Theoretical draft, Pa (suction at the foot is positive), and the densities that give it, kg/m3."""

    draft_pa: float
    outdoor_density_kg_m3: float
    flue_density_kg_m3: float


def wet_flue_molar_mass_kg(
    fuel: Fuel, o2_dry_pct: float, air_temp_k: float, air_rh_pct: float, baro_pa: float
) -> float:
    """Return the molar mass of the wet flue gas, kg/mol, nothing condensed. Raises OutOfDomain."""
    flue = balance(fuel, o2_dry_pct, 0.0)
    water = fuel.water + humidity_ratio(air_temp_k, air_rh_pct, baro_pa) * flue.dry_air
    amounts = {**flue.dry_amounts(), "H2O": water}
    return sum(n * _MOLAR_MASS_KG[gas] for gas, n in amounts.items()) / sum(amounts.values())


def chimney_draft(
    height_m: float, flue_temp_k: float, outdoor_temp_k: float, baro_pa: float, molar_mass_kg: float
) -> Draft:
    """Return the draft of ``height_m`` (0 to 200 m) of gas at its mean temperature; friction takes away from it.

    Args:
        flue_temp_k: mean over the height, 250 to 900.
        outdoor_temp_k: 200 to 330.
        baro_pa: 50 to 110 kPa, taken uniform along the height.
        molar_mass_kg: of the wet flue gas, see wet_flue_molar_mass_kg.

    Raises OutOfDomain.
    """
    require("height_m", height_m, 0.0, 200.0, phrase("height_m"))
    require("mean_flue_temp_c", flue_temp_k, 250.0, 900.0, phrase("mean_flue_temperature_k"))
    require("outdoor_temp_c", outdoor_temp_k, 200.0, 330.0, phrase("outdoor_temperature_k"))
    require("baro_pa", baro_pa, 50_000.0, 110_000.0, phrase("barometric_pressure_pa"))
    outdoor = density_kg_m3(AIR_MOLAR_MASS_KG, baro_pa, outdoor_temp_k)
    flue = density_kg_m3(molar_mass_kg, baro_pa, flue_temp_k)
    return Draft(GRAVITY_M_S2 * height_m * (outdoor - flue), outdoor, flue)
