"""CO that a log gives per heat of its fuel: it becomes ppm by the fuel, which has to be said, and by the oxygen beside it."""

from collections.abc import Sequence
from functools import lru_cache
from math import isfinite, nan

from havrin_core.errors import OutOfDomain
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_mg_kwh
from havrin_core.physics.fuels import shipped_fuel

PER_HEAT = "mg/kWh"  # of the fuel's net heating value
_FIRST_GUESS_PPM, _ROUNDS = 100.0, 4


def ppm_of(values: Sequence[float], oxygen: Sequence[float], fuel: str) -> tuple[float, ...]:
    """Return CO in ppm, dry, of mg/kWh with the oxygen of the same row, %; NaN where either is missing or cannot be."""
    return tuple(_ppm(value, o2, fuel) for value, o2 in zip(values, oxygen, strict=True))


@lru_cache(maxsize=4096)
def _ppm(value_mg_kwh: float, o2_dry_pct: float, fuel: str) -> float:
    """The balance hardly depends on the CO itself, so that a few rounds of the rule of three close it."""
    if not isfinite(value_mg_kwh) or not isfinite(o2_dry_pct) or value_mg_kwh < 0:
        return nan
    burnt, ppm = shipped_fuel(fuel), _FIRST_GUESS_PPM
    try:
        for _ in range(_ROUNDS):
            ppm *= value_mg_kwh / co_mg_kwh(balance(burnt, o2_dry_pct, ppm), burnt.net_j_mol)
            if ppm == 0:
                break
    except OutOfDomain:
        return nan
    return ppm
