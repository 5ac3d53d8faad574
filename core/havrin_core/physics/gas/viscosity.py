"""Viscosity of fuel gases and of air at 15 degC, for leaks through pores."""

from havrin_core.physics.fuels import AIR_MOLAR_MASS_KG, Fuel, component_molar_mass_kg
from havrin_core.physics.gas.tightness import Medium

# Pa s at 15 degC and low pressure; rounded from CoolProp 8 and, for propylene and the butanes, from its own fits
_VISCOSITY_PA_S = {
    "CH4": 10.8e-6,
    "C2H6": 9.0e-6,
    "C3H8": 7.9e-6,
    "C3H6": 8.3e-6,
    "nC4H10": 7.2e-6,
    "iC4H10": 7.2e-6,
    "H2": 8.7e-6,
    "CO2": 14.4e-6,
    "N2": 17.3e-6,
}
AIR = Medium(17.9e-6, AIR_MOLAR_MASS_KG)


def fuel_medium(fuel: Fuel) -> Medium:
    """Return the fuel as what fills a line; its viscosity by Herning and Zipperer's mixing rule, within 2 %."""
    rows = [(share * component_molar_mass_kg(gas) ** 0.5, _VISCOSITY_PA_S[gas]) for gas, share in fuel.composition]
    viscosity = sum(weight * viscosity for weight, viscosity in rows) / sum(weight for weight, _ in rows)
    return Medium(viscosity, fuel.molar_mass_kg)
