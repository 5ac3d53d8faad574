"""Units as logs write them, and how each turns into the canonical unit of its quantity."""

import re
from collections.abc import Callable, Mapping

from havrin_core.quantities.units import INWC_PA

_C0 = 273.15
CO_MG_M3_PPM = 1.2497  # 1 ppm of CO at 0 °C and 101.325 kPa, mg/m3
_PERCENT = ("%", "pct", "vol%", "%vol", "vol.%", "vol.-%", "vol-%", "%v/v", "percent", "% vol", "vol. %", "prozent")
# dimension -> unit as it is told -> spellings (lower case), and from it to the canonical unit
_UNITS: Mapping[str, Mapping[str, tuple[tuple[str, ...], Callable[[float], float]]]] = {
    "percent": {
        "%": (_PERCENT, lambda v: v),
        "fraction": (("fraction", "ratio", "mol/mol", "1"), lambda v: 100 * v),
    },
    "ppm": {
        "ppm": (("ppm", "ppmv", "ppm v", "vpm"), lambda v: v),
        "%": (_PERCENT, lambda v: 1e4 * v),
        "mg/kWh": (("mg/kwh",), lambda v: v),  # stays so until the fuel is said: per_heat.py
        "mg/m³": (("mg/m³", "mg/m3", "mg/nm3", "mg/nm³"), lambda v: v / CO_MG_M3_PPM),
    },
    "temperature": {
        "°C": (("°c", "c", "degc", "deg c", "º c", "ºc", "grad c", "celsius", "° c"), lambda v: v + _C0),
        "°F": (("°f", "f", "degf", "deg f", "ºf", "fahrenheit", "° f"), lambda v: (v - 32) / 1.8 + _C0),
        "K": (("k", "kelvin"), lambda v: v),
    },
    "pressure": {
        "Pa": (("pa", "pascal"), lambda v: v),
        "hPa": (("hpa",), lambda v: 100 * v),
        "mbar": (("mbar", "mb"), lambda v: 100 * v),
        "kPa": (("kpa",), lambda v: 1000 * v),
        "mmH₂O": (("mmh2o", "mmh₂o", "mmwc", "mmws", "mmca", "mm h2o", "mm h₂o"), lambda v: 9.80665 * v),
        "inWC": (
            ("inwc", "in wc", "inh2o", "inh₂o", "in h2o", "in h₂o", '"wc', "iwc", "in.wc", "in. w.c.", "inwg"),
            lambda v: INWC_PA * v,
        ),
        "psi": (("psi", "psig"), lambda v: 6894.757293 * v),
    },
    "current": {"A": (("a", "amp", "amps"), lambda v: v), "mA": (("ma",), lambda v: 1e-3 * v)},
    "current_small": {
        "µA": (("µa", "ua", "μa", "microamp", "microamps"), lambda v: 1e-6 * v),
        "nA": (("na",), lambda v: 1e-9 * v),
    },
    "voltage": {"V": (("v", "volt", "volts"), lambda v: v), "mV": (("mv",), lambda v: 1e-3 * v)},
}
_TIMES = (
    "s",
    "sec",
    "secs",
    "seconds",
    "min",
    "minutes",
    "ms",
    "h",
    "hh:mm:ss",
    "h:m:s",
    "hh:mm",
    "mm:ss",
    "date",
    "time",
)
# known to the trade, but not to be turned into ppm without fuel and oxygen
_WANTS_MORE = ("g/gj", "mg/mj")
_SPELLINGS = {
    dimension: {spelling: unit for unit, (spellings, _) in units.items() for spelling in spellings}
    for dimension, units in _UNITS.items()
}
_IN_HEADER = re.compile(
    r"[\[(]\s*([^\])]*?)\s*[\])]\s*$|(?<=[\s_,/;-])(%|ppm|vol\.?-?%|°\s?[CFcf]|deg\s?[CFcf]|K|mbar|hPa|kPa|Pa|in\.?\s?(?:WC|H2O|w\.?c\.?)|mmH2O|s|sec|min|ms|µA|uA|mA|A|V|mV|mg/m[3³]|mg/kWh)\s*$|(?<=_)(pct|percent|c|f|degc|degf|psi|mmwc|na)$",
    re.IGNORECASE,
)


def unit_named(said: str, dimension: str) -> str | None:
    """Return the unit of ``dimension`` that ``said`` names; None for one that it does not have."""
    return _SPELLINGS[dimension].get(" ".join(said.strip().lower().split()))


def units_of(dimension: str) -> tuple[str, ...]:
    """Return the units of ``dimension`` as they are told."""
    return tuple(_UNITS[dimension])


def to_canonical(value: float, unit: str, dimension: str) -> float:
    """Return ``value`` in the canonical unit. KeyError for a unit that the dimension has not."""
    return _UNITS[dimension][unit][1](value)


def is_unit(said: str) -> bool:
    """Tell whether ``said`` is a unit of anything that logs hold."""
    low = " ".join(said.strip().lower().split())
    return low in _TIMES or low in _WANTS_MORE or any(low in spellings for spellings in _SPELLINGS.values())


def parted(header: str) -> tuple[str, str]:
    """Return a header's name, and the unit that stands in it; "" where none does.

    >>> parted("CO [ppm]"), parted("Flue temp. °C"), parted("O2")
    (('CO', 'ppm'), ('Flue temp.', '°C'), ('O2', ''))
    """
    match = _IN_HEADER.search(header)
    said = (match[1] or match[2] or match[3] or "").strip() if match else ""
    if not match or not said or not (is_unit(said) or match[2] or match[3]):
        return header.strip(), "" if not match or not match[1] or any(c.isspace() for c in said) or len(
            said
        ) > 12 else said
    return header[: match.start()].strip(" _,/;-"), said
