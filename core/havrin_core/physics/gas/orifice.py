"""Input through an orifice, and the pressure or orifice that a wanted input needs."""

import math
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.constants import GAS_CONSTANT_J_MOL_K, STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel
from havrin_core.physics.states import METERING_K, density_kg_m3, require

# A drilled spud with an angle of approach: 0.85 to 0.90, single ones 0.82 to 0.92. A maker's own figure goes before it.
USUAL_DISCHARGE, USUAL_DISCHARGE_SHARE = 0.87, 0.06


@dataclass(frozen=True, slots=True)
class OrificeFlow:
    """What one orifice passes: SI; input gross and net at the 25 degC heating values."""

    mass_flow_kg_s: float
    flow_m3_s_standard: float  # 15 degC, 101.325 kPa
    input_gross_w: float
    input_net_w: float


def orifice_flow(
    fuel: Fuel, diameter_m: float, manifold_pa: float, discharge: float, baro_pa: float, gas_temp_k: float
) -> OrificeFlow:
    """Return what one orifice passes.

    Args:
        diameter_m: 0.1 mm to 20 mm.
        manifold_pa: gauge, 0 to 20 kPa.
        discharge: coefficient, 0.3 to 1.
        baro_pa: 50 to 110 kPa.
        gas_temp_k: 230 to 340.

    Source: incompressible orifice equation, m = Cd A sqrt(2 rho dp), rho at the barometric pressure. Raises OutOfDomain.
    """
    _check(diameter_m, manifold_pa, discharge, baro_pa, gas_temp_k)
    density = density_kg_m3(fuel.molar_mass_kg, baro_pa, gas_temp_k)
    mass = discharge * math.pi * diameter_m**2 / 4 * math.sqrt(2 * density * manifold_pa)
    moles = mass / fuel.molar_mass_kg
    standard = moles * GAS_CONSTANT_J_MOL_K * METERING_K / STANDARD_PRESSURE_PA
    return OrificeFlow(mass, standard, moles * fuel.gross_j_mol, moles * fuel.net_j_mol)


def pressure_for_input_pa(manifold_pa: float, input_w: float, wanted_w: float) -> float:
    """Return the manifold pressure that would give ``wanted_w``: flow goes with its square root. Raises OutOfDomain."""
    require("manifold_pa", manifold_pa, 1.0, 20_000.0, phrase("manifold_pressure"))
    if not (input_w > 0 and wanted_w > 0):
        raise OutOfDomain(
            "input_range", phrase("input_above_nothing"), quantity="input_w", value=min(input_w, wanted_w)
        )
    return manifold_pa * (wanted_w / input_w) ** 2


def input_at_pressure_w(input_w: float, at_pa: float, manifold_pa: float) -> float:
    """Return the input at ``manifold_pa`` when it is ``input_w`` at ``at_pa``. Raises OutOfDomain."""
    require("at_pa", at_pa, 1.0, 20_000.0, phrase("manifold_pressure"))
    require("manifold_pa", manifold_pa, 0.0, 20_000.0, phrase("manifold_pressure"))
    return input_w * math.sqrt(manifold_pa / at_pa)


def diameter_for_input_m(
    fuel: Fuel,
    input_gross_w: float,
    count: int,
    manifold_pa: float,
    discharge: float,
    baro_pa: float,
    gas_temp_k: float,
) -> float:
    """Return the diameter of each of ``count`` orifices that together pass ``input_gross_w``. Raises OutOfDomain."""
    if count < 1 or not input_gross_w > 0:
        raise OutOfDomain("orifice_count", phrase("least_one_orifice_input_above"), quantity="count", value=count)
    trial = 0.002
    passed = count * orifice_flow(fuel, trial, manifold_pa, discharge, baro_pa, gas_temp_k).input_gross_w
    return trial * math.sqrt(input_gross_w / passed)


def _check(diameter_m: float, manifold_pa: float, discharge: float, baro_pa: float, gas_temp_k: float) -> None:
    require("diameter_m", 1000 * diameter_m, 0.1, 20.0, phrase("orifice_diameter_mm"))
    require("manifold_pa", manifold_pa, 0.0, 20_000.0, phrase("manifold_pressure_pa"))
    require("discharge", discharge, 0.3, 1.0, phrase("discharge_coefficient"))
    require("baro_pa", baro_pa, 50_000.0, 110_000.0, phrase("barometric_pressure_pa"))
    require("gas_temp_k", gas_temp_k, 230.0, 340.0, phrase("gas_temperature_k"))
