"""The bounds of data/bounds.toml, by name and by quantity."""

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.limits.model import Band

NATURAL, LP = "natural", "lp"
NORTH_AMERICA, METRIC = "north_america", "metric"
_NUMBERS = ("low", "high", "near_low", "near_high")


@cache
def _rows() -> Mapping[str, Mapping[str, Any]]:
    text = (resources.files("havrin_core.limits") / "data" / "bounds.toml").read_text(encoding="utf-8")
    return tomllib.loads(text)


@cache
def bound(name: str) -> Band:
    """Return the bound called ``name``; KeyError for one that is not in the table."""
    row = _rows()[name]
    low, high, near_low, near_high = (float(row[key]) if key in row else None for key in _NUMBERS)
    return Band(row["source"], low, high, near_low, near_high, row["note"], acquits=row.get("acquits", True))


def most(name: str) -> float:
    """Return the upper end of the bound called ``name``."""
    high = bound(name).high
    assert high is not None, name
    return high


@cache
def usual(quantity: str, fuel: str, traits: frozenset[str], region: str = NORTH_AMERICA) -> Band | None:
    """Return the bound that holds without a plate for ``quantity``; None where there is none.

    ``fuel`` is NATURAL or LP, ``traits`` are the unit's own (machine/traits.py), ``region`` the house's own.
    """
    for name, row in _rows().items():
        if row["quantity"] == quantity and "." not in name and _holds(row, fuel, traits, region):
            return bound(name)
    return bound(_NAMED[quantity]) if quantity in _NAMED else None


def _holds(row: Mapping[str, Any], fuel: str, traits: frozenset[str], region: str) -> bool:
    needed, barred = row.get("only"), row.get("never")
    if row.get("region", region) != region:
        return False
    return row.get("fuels", fuel) == fuel and (needed is None or needed in traits) and barred not in traits


# quantities whose own bound has a name because rules ask for it, too
_NAMED = {
    "room_co_ppm": "room_co.source",
    "intake_co_ppm": "room_co.source",
    "spillage_s": "spillage.most",
    "o2_step_pct": "o2_step.most",
    "co_step_ppm": "co_step.most",
    "gas_leak_m3_s": "gas_leak.most",
    "gas_lel_pct": "gas.none",
}
