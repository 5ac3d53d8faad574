"""Every unit that people type or read, with its dimension and its way to SI.

Canonical units: Pa, K, W, V, A, s, m; gas fractions keep the trade's own basis,
ppm and % by volume, and are named so (``co_ppm_dry``, ``o2_dry_pct``).
"""

from dataclasses import dataclass

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase

INWC_PA = 249.08891  # inch of water column at 4 degC, Pa (docs/formulas.md section 1)
PSI_PA = 6894.757293  # pound-force per square inch, Pa (same)
BTU_J = 1055.05585262  # International Table BTU, J (same)
FOOT_M = 0.3048  # exact, international foot
CUBIC_FOOT_M3 = FOOT_M**3
US_GALLON_M3 = 0.003785411784  # exact
ICE_POINT_K = 273.15


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit: ``si = typed * scale + offset``; ``decimals`` is how finely it is shown."""

    symbol: str
    dimension: str
    scale: float
    offset: float = 0.0
    decimals: int = 1
    aliases: tuple[str, ...] = ()

    def to_si(self, typed: float) -> float:
        """Return ``typed``, in this unit, as the SI value of the dimension."""
        return typed * self.scale + self.offset

    def from_si(self, value_si: float) -> float:
        """Return an SI value in this unit."""
        return (value_si - self.offset) / self.scale


_F_SCALE = 5.0 / 9.0

UNITS: tuple[Unit, ...] = (
    Unit("inWC", "pressure", INWC_PA, decimals=2, aliases=('"wc', "inwc", "iwc", "inh2o", "in.w.c.", '"', "wc")),
    Unit("Pa", "pressure", 1.0, decimals=0, aliases=("pa",)),
    Unit("hPa", "pressure", 100.0, decimals=2, aliases=("hpa",)),
    Unit("kPa", "pressure", 1000.0, decimals=3, aliases=("kpa",)),
    Unit("mbar", "pressure", 100.0, decimals=2, aliases=("mb",)),
    Unit("bar", "pressure", 1e5, decimals=2),
    Unit("psi", "pressure", PSI_PA, decimals=2, aliases=("psig",)),
    Unit("inWC", "draft", INWC_PA, decimals=3, aliases=('"wc', "inwc", "iwc", "inh2o", "in.w.c.", '"', "wc")),
    Unit("Pa", "draft", 1.0, decimals=1, aliases=("pa",)),
    Unit("hPa", "draft", 100.0, decimals=3, aliases=("hpa",)),
    Unit("kPa", "draft", 1000.0, decimals=4, aliases=("kpa",)),
    Unit("mbar", "draft", 100.0, decimals=3, aliases=("mb",)),
    Unit("psi", "water_pressure", PSI_PA, decimals=1, aliases=("psig",)),
    Unit("bar", "water_pressure", 1e5, decimals=2),
    Unit("kPa", "water_pressure", 1000.0, decimals=0, aliases=("kpa",)),
    Unit("°F", "temperature", _F_SCALE, ICE_POINT_K - 32 * _F_SCALE, decimals=0, aliases=("f", "degf", "ºf")),
    Unit("°C", "temperature", 1.0, ICE_POINT_K, decimals=1, aliases=("c", "degc", "ºc")),
    Unit("K", "temperature", 1.0, decimals=1, aliases=("k", "kelvin")),
    Unit("°F", "temperature_difference", _F_SCALE, decimals=0, aliases=("f", "degf", "ºf")),
    Unit("K", "temperature_difference", 1.0, decimals=1, aliases=("k", "°c", "c", "degc", "ºc")),
    Unit("kBtu/h", "power", 1000 * BTU_J / 3600, decimals=1, aliases=("kbtu", "kbtuh", "kbtu/h", "mbh")),
    Unit("Btu/h", "power", BTU_J / 3600, decimals=0, aliases=("btu", "btuh", "btu/h")),
    Unit("kW", "power", 1000.0, decimals=2, aliases=("kw",)),
    Unit("W", "power", 1.0, decimals=0, aliases=("w",)),
    Unit("V", "voltage", 1.0, decimals=1, aliases=("v", "volt", "volts")),
    Unit("mV", "voltage", 1e-3, decimals=0, aliases=("mv",)),
    Unit("A", "current", 1.0, decimals=2, aliases=("a", "amp", "amps")),
    Unit("mA", "current", 1e-3, decimals=1, aliases=("ma",)),
    Unit("Ω", "resistance", 1.0, decimals=0, aliases=("ohm", "ohms")),
    Unit("µA", "current_small", 1e-6, decimals=2, aliases=("ua", "μa", "microamp", "microamps")),
    Unit("ppm", "ppm", 1.0, decimals=0),
    Unit("ppm", "ppm_fine", 1.0, decimals=1),
    Unit("%", "percent", 1.0, decimals=1, aliases=("pct",)),
    Unit("%", "fine_percent", 1.0, decimals=4),
    Unit("mg/m³", "mass_per_volume", 1.0, decimals=0),
    Unit("mg/kWh", "mass_per_heat", 1.0, decimals=0),
    Unit("mV", "millivolts", 1e-3, decimals=1, aliases=("mv",)),
    Unit("V", "millivolts", 1.0, decimals=3, aliases=("v", "volt", "volts")),
    Unit("in²", "opening", (FOOT_M / 12) ** 2, decimals=0, aliases=("in2", "sq.in.", "sqin")),
    Unit("cm²", "opening", 1e-4, decimals=0, aliases=("cm2",)),
    Unit("ft³", "room", CUBIC_FOOT_M3, decimals=0, aliases=("ft3", "cf")),
    Unit("m³", "room", 1.0, decimals=1, aliases=("m3",)),
    Unit("rpm", "speed", 1.0, decimals=0, aliases=("1/min", "r/min")),
    Unit("gal", "content", US_GALLON_M3, decimals=1, aliases=("gallon", "gallons")),
    Unit("l", "content", 0.001, decimals=1, aliases=("litre", "litres")),
    Unit("turns", "turns", 1.0, decimals=2, aliases=("turn",)),
    Unit("h", "hours", 3600.0, decimals=1, aliases=("hour", "hours")),
    Unit("s", "time", 1.0, decimals=0, aliases=("sec", "second", "seconds")),
    Unit("min", "time", 60.0, decimals=0, aliases=("minute", "minutes")),
    Unit("m", "length", 1.0, decimals=0, aliases=("metre", "metres")),
    Unit("ft", "length", FOOT_M, decimals=0, aliases=("feet", "foot")),
    Unit("mm", "bore", 0.001, decimals=2),
    Unit("in", "bore", 0.0254, decimals=4, aliases=("inch",)),
    Unit("CFM", "airflow", CUBIC_FOOT_M3 / 60, decimals=0, aliases=("cfm",)),
    Unit("m³/h", "airflow", 1 / 3600, decimals=0, aliases=("m3/h",)),
    Unit("ft³/h", "gasflow", CUBIC_FOOT_M3 / 3600, decimals=1, aliases=("ft3/h", "cfh")),
    Unit("m³/h", "gasflow", 1 / 3600, decimals=3, aliases=("m3/h",)),
    Unit("gal/min", "waterflow", US_GALLON_M3 / 60, decimals=1, aliases=("gpm",)),
    Unit("l/min", "waterflow", 1e-3 / 60, decimals=1, aliases=("lpm",)),
    Unit("µF", "capacitance", 1e-6, decimals=1, aliases=("uf", "mfd", "μf")),
    Unit("", "count", 1.0, decimals=0),
    Unit("ft²", "floor", FOOT_M**2, decimals=0, aliases=("ft2", "sqft", "sq.ft.", "sf")),
    Unit("m²", "floor", 1.0, decimals=0, aliases=("m2", "sqm")),
    Unit("ft³", "volume", CUBIC_FOOT_M3, decimals=2, aliases=("ft3", "cf")),
    Unit("l", "volume", 0.001, decimals=1),
    Unit("m³", "volume", 1.0, decimals=3, aliases=("m3",)),
    Unit("Btu/ft³", "heating_value", BTU_J / CUBIC_FOOT_M3, decimals=0),
    Unit("MJ/m³", "heating_value", 1e6, decimals=2),
    Unit("l/h", "condensate", 1e-3 / 3600, decimals=1),
    Unit("l/h", "leak", 1e-3 / 3600, decimals=2),
    Unit("ft³/h", "leak", CUBIC_FOOT_M3 / 3600, decimals=3, aliases=("ft3/h", "cfh")),
)

DIMENSION_NAMES = {
    "pressure": "a pressure",
    "draft": "a draft",
    "water_pressure": "a water pressure",
    "temperature": "a temperature",
    "temperature_difference": "a difference of temperatures",
    "power": "a heat input",
    "voltage": "a voltage",
    "current": "a current",
    "current_small": "a flame current",
    "resistance": "a resistance",
    "ppm": "a gas fraction in ppm",
    "ppm_fine": "a gas fraction in ppm",
    "percent": "a percentage",
    "time": "a time",
    "length": "a length",
    "bore": "an orifice's diameter",
    "airflow": "an airflow",
    "gasflow": "a gas flow",
    "waterflow": "a water flow",
    "capacitance": "a capacitance",
    "count": "a count",
    "volume": "a volume",
    "fine_percent": "a percentage",
    "mass_per_volume": "a mass in a volume",
    "mass_per_heat": "a mass for a heat",
    "millivolts": "a voltage",
    "opening": "the area of an opening",
    "speed": "a speed",
    "content": "a content",
    "room": "a room",
    "hours": "a time",
    "turns": "turns of a screw",
    "floor": "a floor area",
    "heating_value": "a heating value",
    "condensate": "an amount of condensate",
    "leak": "a leak",
}


def _spellings(unit: Unit) -> set[str]:
    return {unit.symbol, unit.symbol.lower(), *unit.aliases}


_BY_SPELLING = {(unit.dimension, name): unit for unit in UNITS for name in _spellings(unit)}
ALL_SPELLINGS = frozenset(name for _, name in _BY_SPELLING)


def find_unit(spelling: str, dimension: str) -> Unit | None:
    """Return the unit of ``dimension`` that ``spelling`` names, or None if it names none there."""
    key = spelling.strip()
    return _BY_SPELLING.get((dimension, key)) or _BY_SPELLING.get((dimension, key.lower()))


def dimensions_of(spelling: str) -> tuple[str, ...]:
    """Return the dimensions in which ``spelling`` is a unit; empty when it is no unit at all."""
    key = spelling.strip()
    return tuple(d for d in DIMENSION_NAMES if find_unit(key, d))


def units_of(dimension: str) -> tuple[Unit, ...]:
    """Return all units of ``dimension``, the usual ones first. Raises UnknownName."""
    if dimension not in DIMENSION_NAMES:
        raise UnknownName("dimension_unknown", phrase("no_dimension_called", dimension=dimension), value=dimension)
    return tuple(unit for unit in UNITS if unit.dimension == dimension)


_SYSTEMS = {
    "us": {
        "pressure": "inWC",
        "draft": "inWC",
        "water_pressure": "psi",
        "temperature": "°F",
        "temperature_difference": "°F",
        "power": "kBtu/h",
        "length": "ft",
        "airflow": "CFM",
        "gasflow": "ft³/h",
        "waterflow": "gal/min",
        "volume": "ft³",
        "floor": "ft²",
        "opening": "in²",
        "content": "gal",
        "room": "ft³",
        "heating_value": "Btu/ft³",
        "leak": "ft³/h",
    },
    "metric": {
        "pressure": "mbar",
        "draft": "mbar",
        "water_pressure": "bar",
        "temperature": "°C",
        "temperature_difference": "K",
        "power": "kW",
        "length": "m",
        "airflow": "m³/h",
        "gasflow": "m³/h",
        "waterflow": "l/min",
        "volume": "l",
        "floor": "m²",
        "opening": "cm²",
        "content": "l",
        "room": "m³",
        "heating_value": "MJ/m³",
        "leak": "l/h",
    },
}
_SHARED = {
    "voltage": "V",
    "current": "A",
    "current_small": "µA",
    "resistance": "Ω",
    "ppm": "ppm",
    "ppm_fine": "ppm",
    "percent": "%",
    "time": "s",
    "fine_percent": "%",
    "mass_per_volume": "mg/m³",
    "mass_per_heat": "mg/kWh",
    "millivolts": "mV",
    "speed": "rpm",
    "hours": "h",
    "turns": "turns",
    "bore": "mm",
    "capacitance": "µF",
    "count": "",
    "condensate": "l/h",
}


def shown_unit(dimension: str, system: str) -> Unit:
    """Return the unit in which ``dimension`` is shown in unit system ``us`` or ``metric``. Raises UnknownName."""
    if system not in _SYSTEMS:
        raise UnknownName("unit_system_unknown", phrase("unit_systems_are_us_metric", system=system), value=system)
    symbol = _SYSTEMS[system].get(dimension) or _SHARED[dimension]
    unit = find_unit(symbol, dimension)
    assert unit is not None, f"display table names no unit for {dimension}"
    return unit
