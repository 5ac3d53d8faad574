"""Pressure lost by gas in a pipe at load: Darcy and Weisbach, friction by Haaland, fittings as lengths of pipe."""

import math
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.fuels import Fuel
from havrin_core.physics.gas.viscosity import fuel_medium
from havrin_core.physics.states import density_kg_m3, require

# Nominal steel pipe, schedule 40 -> inner diameter, mm
STEEL_MM = {"3/8": 12.5, "1/2": 15.8, "3/4": 20.9, "1": 26.6, "1 1/4": 35.1, "1 1/2": 40.9, "2": 52.5, "2 1/2": 62.7}
ROUGHNESS_M = 4.6e-5  # commercial steel
# Fittings as so many diameters of pipe: handbook values for screwed fittings
ELBOW_DIAMETERS, TEE_DIAMETERS, VALVE_DIAMETERS = 30.0, 60.0, 18.0
_LAMINAR, _TURBULENT = 2300.0, 4000.0


@dataclass(frozen=True, slots=True)
class Pipe:
    """A run of pipe: inner diameter and straight length, m; elbows, tees passed through the branch, valves."""

    bore_m: float
    length_m: float
    elbows: int = 0
    tees: int = 0
    valves: int = 0

    @property
    def equivalent_m(self) -> float:
        """The straight length that loses as much, m."""
        fittings = ELBOW_DIAMETERS * self.elbows + TEE_DIAMETERS * self.tees + VALVE_DIAMETERS * self.valves
        return self.length_m + fittings * self.bore_m


def line_loss_pa(fuel: Fuel, pipe: Pipe, input_gross_w: float, gauge_pa: float, baro_pa: float, temp_k: float) -> float:
    """Return the pressure that a run loses at ``input_gross_w``, Pa.

    Args:
        pipe: bore 4 to 200 mm, equivalent length up to 2 km.
        gauge_pa: at the run's beginning, 0 to 500 kPa.
        temp_k: of the gas, 230 to 340.

    Incompressible: right within 1 % while the loss is under a twentieth of the absolute pressure. Raises OutOfDomain.
    """
    require("bore_m", 1000 * pipe.bore_m, 4.0, 200.0, phrase("bore_mm"))
    require("length_m", pipe.equivalent_m, 0.0, 2000.0, phrase("length_m"))
    require("gauge_pa", gauge_pa, 0.0, 500_000.0, phrase("gauge_pressure_pa"))
    if not 0 < input_gross_w <= 1e8:
        raise OutOfDomain("load", phrase("input_above_nothing"), quantity="input_w", value=input_gross_w)
    medium = fuel_medium(fuel)
    density = density_kg_m3(fuel.molar_mass_kg, baro_pa + gauge_pa, temp_k)
    mass = input_gross_w / fuel.gross_j_mol * fuel.molar_mass_kg
    area = math.pi * pipe.bore_m**2 / 4
    velocity = mass / density / area
    reynolds = mass / area * pipe.bore_m / medium.viscosity_pa_s
    return _friction(reynolds, ROUGHNESS_M / pipe.bore_m) * pipe.equivalent_m / pipe.bore_m * density * velocity**2 / 2


def _friction(reynolds: float, roughness: float) -> float:
    """Return Darcy's factor; between laminar and turbulent the larger, for nobody knows which it is."""
    laminar = 64 / reynolds
    if reynolds < _LAMINAR:
        return laminar
    turbulent = (-1.8 * math.log10((roughness / 3.7) ** 1.11 + 6.9 / reynolds)) ** -2
    return max(laminar, turbulent) if reynolds < _TURBULENT else turbulent
