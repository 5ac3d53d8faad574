"""Reference states of volumes, and ideal gas between them."""

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import Phrase, phrase
from havrin_core.physics.constants import GAS_CONSTANT_J_MOL_K, STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel, heating_values_j_mol

METERING_K = 288.15  # 15 degC: volumes and meter heating values
MOLES_PER_STANDARD_M3 = STANDARD_PRESSURE_PA / (GAS_CONSTANT_J_MOL_K * METERING_K)


def density_kg_m3(molar_mass_kg: float, pressure_pa: float, temp_k: float) -> float:
    """Return the ideal-gas density at absolute ``pressure_pa`` and ``temp_k``."""
    return pressure_pa * molar_mass_kg / (GAS_CONSTANT_J_MOL_K * temp_k)


def volumetric_heating_values_j_m3(fuel: Fuel) -> tuple[float, float]:
    """Return gross and net heating value, combustion and metering at 15 degC, 101.325 kPa, J/m3."""
    gross, net = heating_values_j_mol(dict(fuel.composition), METERING_K)
    return gross * MOLES_PER_STANDARD_M3, net * MOLES_PER_STANDARD_M3


def require(name: str, value: float, low: float, high: float, said: Phrase) -> None:
    """Raise OutOfDomain unless ``low`` <= value <= ``high``; NaN is refused too. ``said`` names it to people."""
    if not low <= value <= high:
        message = phrase("cannot_lies_between", said=said, value=value, low=low, high=high)
        raise OutOfDomain("out_of_range", message, quantity=name, value=value)
