"""A flue sample as read, and everything that follows from it, with uncertainty."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from havrin_core.physics.combustion.balance import Balance, balance, check_sample
from havrin_core.physics.combustion.carbon_monoxide import (
    co_air_free_ppm,
    co_at_reference_o2_ppm,
    co_co2_ratio,
    co_mg_kwh,
    co_mg_m3,
)
from havrin_core.physics.combustion.losses import Losses, Surroundings, losses
from havrin_core.physics.constants import STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel
from havrin_core.quantities.uncertainty import Accuracy, propagate

DEFAULT_ACCURACY: Mapping[str, Accuracy] = {
    "o2_dry_pct": Accuracy(0.3),
    "co_ppm_dry": Accuracy(5.0, 0.05),
    "flue_temp_k": Accuracy(1.0, 0.003, adds=True),
    "air_temp_k": Accuracy(1.0),
    "co2_dry_pct": Accuracy(0.3),
}
ASSUMED_AIR_RH_PCT = 40.0
INDOORS = Surroundings(293.15, ASSUMED_AIR_RH_PCT, STANDARD_PRESSURE_PA)


@dataclass(frozen=True, slots=True)
class FlueSample:
    """One steady flue sample. Temperature and CO2 may not have been read."""

    o2_dry_pct: float
    co_ppm_dry: float
    flue_temp_k: float | None = None
    co2_dry_pct: float | None = None  # as measured, not computed
    around: Surroundings = INDOORS


@dataclass(frozen=True, slots=True)
class FlueResult:
    """What a sample means; ``values`` and ``half_widths`` share their keys (see why.py)."""

    sample: FlueSample
    fuel: Fuel
    flue: Balance
    losses: Losses | None
    values: Mapping[str, float]
    half_widths: Mapping[str, float] = field(default_factory=dict)


def analyse(fuel: Fuel, sample: FlueSample, accuracy: Mapping[str, Accuracy] = DEFAULT_ACCURACY) -> FlueResult:
    """Return the results of ``sample`` with their half-widths. Raises OutOfDomain."""
    return _analysed(fuel, sample, tuple(sorted(accuracy.items())))


@lru_cache(maxsize=2048)  # a tape is judged again with every line, and its samples are the same each time
def _analysed(fuel: Fuel, sample: FlueSample, accuracies: tuple[tuple[str, Accuracy], ...]) -> FlueResult:
    accuracy = dict(accuracies)
    inputs = _inputs(sample)
    widths = {name: accuracy[name].at(_as_read(name, value)) for name, value in inputs.items() if name in accuracy}

    def compute(values: Mapping[str, float]) -> dict[str, float]:
        return _values(fuel, values, sample)

    flue = balance(fuel, sample.o2_dry_pct, sample.co_ppm_dry)
    found = losses(fuel, flue, sample.flue_temp_k, sample.around) if sample.flue_temp_k is not None else None
    return FlueResult(sample, fuel, flue, found, compute(inputs), propagate(compute, inputs, widths))


def _inputs(sample: FlueSample) -> dict[str, float]:
    inputs = {"o2_dry_pct": sample.o2_dry_pct, "co_ppm_dry": sample.co_ppm_dry}
    if sample.flue_temp_k is not None:
        inputs |= {"flue_temp_k": sample.flue_temp_k, "air_temp_k": sample.around.air_temp_k}
    return inputs


def _as_read(name: str, value: float) -> float:
    # An instrument's share "of reading" is of the Celsius reading, not of kelvins.
    return value - 273.15 if name.endswith("_temp_k") else value


def _values(fuel: Fuel, inputs: Mapping[str, float], sample: FlueSample) -> dict[str, float]:
    o2, co = inputs["o2_dry_pct"], max(inputs["co_ppm_dry"], 0.0)
    check_sample(o2, co)
    flue = balance(fuel, o2, co)
    values = {
        "co_air_free_ppm": co_air_free_ppm(o2, co),
        "co_at_3pct_o2_ppm": co_at_reference_o2_ppm(o2, co, 3.0),
        "co_pct": 1e-4 * co,
        "co_mg_m3_3pct": co_mg_m3(co_at_reference_o2_ppm(o2, co, 3.0)),
        "co_mg_kwh_net": co_mg_kwh(flue, fuel.net_j_mol),
        "excess_air_pct": flue.excess_air_pct,
        "co2_from_o2_pct": flue.co2_dry_pct,
        "co_co2_ratio": co_co2_ratio(flue),
    }
    if "flue_temp_k" in inputs:
        around = Surroundings(inputs["air_temp_k"], sample.around.air_rh_pct, sample.around.baro_pa)
        found = losses(fuel, flue, inputs["flue_temp_k"], around)
        values |= {
            "dew_point_k": found.dew_point_k,
            "efficiency_gross_pct": found.efficiency_gross_pct,
            "efficiency_net_pct": found.efficiency_net_pct,
            "net_stack_k": inputs["flue_temp_k"] - inputs["air_temp_k"],
        }
    return values
