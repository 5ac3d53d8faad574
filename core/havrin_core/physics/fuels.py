"""Fuel gases as mixtures: heating values, stoichiometry, Wobbe index.

Compositions: docs/formulas.md section 2. A supplier's analysis can be entered as any
mixture of the components below.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

from havrin_core.errors import OutOfDomain, UnknownName
from havrin_core.phrases import phrase
from havrin_core.physics.constants import (
    AIR_AR,
    AIR_INERT,
    AIR_N2,
    AIR_O2,
    GAS_CONSTANT_J_MOL_K,
    HEATING_VALUE_REFERENCE_K,
    STANDARD_PRESSURE_PA,
)
from havrin_core.physics.species import enthalpy_j_mol

# component: atoms of C, H, O and molecules of N2 in one molecule
COMPONENTS: dict[str, tuple[int, int, int, int]] = {
    "CH4": (1, 4, 0, 0),
    "C2H6": (2, 6, 0, 0),
    "C3H8": (3, 8, 0, 0),
    "C3H6": (3, 6, 0, 0),
    "nC4H10": (4, 10, 0, 0),
    "iC4H10": (4, 10, 0, 0),
    "H2": (0, 2, 0, 0),
    "CO2": (1, 0, 2, 0),
    "N2": (0, 0, 0, 1),
}
# kg/mol, IUPAC 2013 abridged, as used for the reference figures
_MASS_C, _MASS_H, _MASS_O, _MASS_N, _MASS_AR = 0.012011, 0.001008, 0.015999, 0.014007, 0.03995
AIR_MOLAR_MASS_KG = AIR_O2 * 2 * _MASS_O + AIR_N2 * 2 * _MASS_N + AIR_AR * _MASS_AR


@dataclass(frozen=True, slots=True)
class Fuel:
    """A dry fuel gas; all amounts per mole of fuel, energies in J/mol at 25 degC."""

    name: str
    label: str
    composition: tuple[tuple[str, float], ...]
    carbon: float
    hydrogen: float
    oxygen: float
    nitrogen: float  # N2 molecules
    molar_mass_kg: float
    stoich_o2: float
    stoich_air: float
    stoich_dry_flue: float
    water: float
    gross_j_mol: float
    net_j_mol: float

    @property
    def co2_max_dry_pct(self) -> float:
        """Ultimate CO2: % of the dry flue gas with no excess air."""
        return 100 * self.carbon / self.stoich_dry_flue

    @property
    def relative_density(self) -> float:
        """Density relative to dry air, both ideal."""
        return self.molar_mass_kg / AIR_MOLAR_MASS_KG

    @property
    def dry_gas_ratio(self) -> float:
        """Dry flue gas per air, both stoichiometric, mol/mol (the k of excess air from O2)."""
        return self.stoich_dry_flue / self.stoich_air


def component_molar_mass_kg(component: str) -> float:
    """Return the molar mass of a component, kg/mol; KeyError for an unknown one."""
    carbon, hydrogen, oxygen, nitrogen = COMPONENTS[component]
    return carbon * _MASS_C + hydrogen * _MASS_H + oxygen * _MASS_O + nitrogen * 2 * _MASS_N


def mixture(name: str, label: str, fractions: Mapping[str, float]) -> Fuel:
    """Return the fuel with mole ``fractions`` (sum 1 ± 0.005, then normalised).

    Raises UnknownName (a component not in COMPONENTS), OutOfDomain (negative, not adding to 1, nothing to burn).
    """
    for component, share in fractions.items():
        if component not in COMPONENTS:
            known = ", ".join(COMPONENTS)
            raise UnknownName("component_unknown", phrase("not_one", component=component, known=known), value=component)
        if not 0 <= share <= 1:
            message = phrase("mole_fraction_lies_between_0", component=component, share=share)
            raise OutOfDomain("fraction_range", message, quantity=component, value=share)
    total = math.fsum(fractions.values())
    if not abs(total - 1) <= 0.005:
        message = phrase("mole_fractions_add_not_1", total=total)
        raise OutOfDomain("fraction_sum", message, quantity="fractions", value=total)
    return _build(name, label, {c: x / total for c, x in fractions.items() if x > 0})


def heating_values_j_mol(shares: Mapping[str, float], reference_k: float) -> tuple[float, float]:
    """Return gross and net molar heating value with reactants and products at ``reference_k``."""
    carbon, hydrogen, oxygen, nitrogen = _atoms(shares)
    o2 = carbon + hydrogen / 4 - oxygen / 2
    water = hydrogen / 2
    fuel = math.fsum(x * enthalpy_j_mol(c, reference_k) for c, x in shares.items())
    fixed = fuel + o2 * enthalpy_j_mol("O2", reference_k) - carbon * enthalpy_j_mol("CO2", reference_k)
    fixed -= nitrogen * enthalpy_j_mol("N2", reference_k)
    gross = fixed - water * enthalpy_j_mol("H2O(L)", reference_k)
    return gross, fixed - water * enthalpy_j_mol("H2O", reference_k)


def gross_wobbe_j_m3(fuel: Fuel) -> float:
    """Return the gross Wobbe index in J/m3, combustion and metering at 15 degC, 101.325 kPa, ideal gas."""
    gross, _ = heating_values_j_mol(dict(fuel.composition), 288.15)
    return gross * STANDARD_PRESSURE_PA / (GAS_CONSTANT_J_MOL_K * 288.15) / math.sqrt(fuel.relative_density)


def _atoms(shares: Mapping[str, float]) -> tuple[float, float, float, float]:
    rows = [[x * n for n in COMPONENTS[c]] for c, x in shares.items()]
    carbon, hydrogen, oxygen, nitrogen = (math.fsum(column) for column in zip(*rows, strict=True))
    return carbon, hydrogen, oxygen, nitrogen


def _build(name: str, label: str, shares: dict[str, float]) -> Fuel:
    carbon, hydrogen, oxygen, nitrogen = _atoms(shares)
    o2 = carbon + hydrogen / 4 - oxygen / 2
    if not o2 > 0:
        raise OutOfDomain("nothing_to_burn", phrase("has_nothing_burns", label=label), quantity="fractions")
    air = o2 / AIR_O2
    gross, net = heating_values_j_mol(shares, HEATING_VALUE_REFERENCE_K)
    mass = sum(share * component_molar_mass_kg(gas) for gas, share in shares.items())
    return Fuel(
        name=name,
        label=label,
        composition=tuple(shares.items()),
        carbon=carbon,
        hydrogen=hydrogen,
        oxygen=oxygen,
        nitrogen=nitrogen,
        molar_mass_kg=mass,
        stoich_o2=o2,
        stoich_air=air,
        stoich_dry_flue=carbon + nitrogen + AIR_INERT * air,
        water=hydrogen / 2,
        gross_j_mol=gross,
        net_j_mol=net,
    )


_SHIPPED: dict[str, tuple[str, dict[str, float]]] = {
    "NG_H": ("natural gas", {"CH4": 0.93, "C2H6": 0.035, "C3H8": 0.008, "nC4H10": 0.003, "CO2": 0.009, "N2": 0.015}),
    "NG_L": ("natural gas, low group", {"CH4": 0.83, "C2H6": 0.035, "C3H8": 0.005, "CO2": 0.012, "N2": 0.118}),
    "CH4": ("methane", {"CH4": 1.0}),
    "LPG_C3_COMM": ("LP mix, mostly propane", {"C3H8": 0.95, "C3H6": 0.03, "nC4H10": 0.02}),
    "C3H8": ("propane", {"C3H8": 1.0}),
    "BUTANE": ("butane", {"nC4H10": 0.7, "iC4H10": 0.3}),
    "NG_H_H2_20": (
        "natural gas with 20 % hydrogen",
        {"CH4": 0.744, "C2H6": 0.028, "C3H8": 0.0064, "nC4H10": 0.0024, "H2": 0.2, "CO2": 0.0072, "N2": 0.012},
    ),
}
FUEL_NAMES = tuple(_SHIPPED)
LP_FUELS = ("LPG_C3_COMM", "C3H8", "BUTANE")  # from a tank: no meter, other pressures


_LP_FROM_CO2_MAX_PCT = 13.0  # natural gases lie under 12.1 %, propane and butane over 13.7 %


def fuel_to_tell_apart(fuel: "Fuel") -> "Fuel":
    """Return the fuel that ``fuel`` is most easily mistaken for: natural gas for LP, propane for natural gas.

    >>> fuel_to_tell_apart(shipped_fuel("C3H8")).name
    'NG_H'
    """
    return shipped_fuel("NG_H" if fuel.co2_max_dry_pct > _LP_FROM_CO2_MAX_PCT else "C3H8")


@cache
def shipped_fuel(name: str) -> Fuel:
    """Return the shipped fuel called ``name`` (see FUEL_NAMES). Raises UnknownName."""
    if name not in _SHIPPED:
        message = phrase("no_fuel_called", name=name, fuel_names=", ".join(FUEL_NAMES))
        raise UnknownName("fuel_unknown", message, quantity="fuel", value=name)
    label, shares = _SHIPPED[name]
    return _build(name, label, shares)
