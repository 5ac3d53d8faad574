"""Combustion of many rows: ``./havrin calc combustion IN.csv OUT.csv``."""

import csv
from collections.abc import Iterable, Mapping
from typing import TextIO

from havrin_core.errors import CoreError, OutOfDomain
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm, co_at_reference_o2_ppm, co_co2_ratio
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.constants import ICE_POINT_K
from havrin_core.physics.fuels import shipped_fuel

NUMBERS_IN = ("o2_dry_pct", "co_dry_ppm", "flue_temp_c", "air_temp_c", "air_rh_pct", "baro_kpa")
COLUMNS_IN = ("row_id", "fuel", *NUMBERS_IN)
COLUMNS_COMPUTED = (
    "lambda", "excess_air_pct", "co2_dry_pct", "dry_air_m3_per_m3", "dry_flue_m3_per_m3", "wet_flue_m3_per_m3",
    "co_air_free_ppm", "co_at_3pct_o2_ppm", "co_co2_ratio", "flue_dew_point_c", "condensing",
    "loss_dry_pct_net", "loss_h2o_sensible_pct_net", "loss_co_pct_net", "loss_latent_full_pct_gross",
    "condensed_fraction_of_combustion_water", "eff_net_pct", "eff_gross_pct",
)  # fmt: skip


def compute_file(source: TextIO, target: TextIO) -> tuple[int, int]:
    """Read rows from ``source``, write them with their results to ``target``; return (rows, bad rows).

    A bad row keeps its inputs and gets its reason in the column ``error``. Raises OutOfDomain
    when a required column is missing altogether.
    """
    reader = csv.DictReader(source)
    names = [name.strip().lstrip("\ufeff") for name in reader.fieldnames or ()]
    reader.fieldnames = names
    missing = [name for name in COLUMNS_IN if name not in names]
    if missing:
        raise OutOfDomain("columns_missing", f"The file lacks the columns {', '.join(missing)}.", value=missing)
    writer = csv.writer(target, lineterminator="\n")
    writer.writerow([*COLUMNS_IN, *COLUMNS_COMPUTED, "error"])
    return _copy(reader, writer.writerow)


def _copy(reader: Iterable[Mapping[str, str]], write: object) -> tuple[int, int]:
    assert callable(write)
    rows = bad = 0
    for row in reader:
        rows += 1
        inputs = [row[name] for name in COLUMNS_IN]
        try:
            write([*inputs, *_results(row), ""])
        except CoreError as refusal:
            bad += 1
            write([*inputs, *[""] * len(COLUMNS_COMPUTED), refusal.message])
    return rows, bad


def _results(row: Mapping[str, str]) -> list[str]:
    fuel = shipped_fuel((row["fuel"] or "").strip())
    o2, co, flue_c, air_c, rh, baro = (_number(row, name) for name in NUMBERS_IN)
    flue = balance(fuel, o2, co)
    found = losses(fuel, flue, flue_c + ICE_POINT_K, Surroundings(air_c + ICE_POINT_K, rh, baro * 1000))
    values = (
        flue.excess_air_ratio, flue.excess_air_pct, flue.co2_dry_pct, flue.dry_air, flue.dry_flue, found.wet_flue,
        co_air_free_ppm(o2, co), co_at_reference_o2_ppm(o2, co, 3.0), co_co2_ratio(flue),
        found.dew_point_k - ICE_POINT_K, int(found.condensing), found.dry_pct_net, found.water_sensible_pct_net,
        found.co_pct_net, found.latent_full_pct_gross, found.condensed_fraction_of_combustion_water,
        found.efficiency_net_pct, found.efficiency_gross_pct,
    )  # fmt: skip
    return [f"{value:.8g}" for value in values]


def _number(row: Mapping[str, str], name: str) -> float:
    text = row[name]
    try:
        return float(text)
    except (TypeError, ValueError):
        shown = "empty" if not text else f"“{text}”"
        message = f"{name} is {shown}: a number is needed."
        raise OutOfDomain("not_a_number", message, quantity=name, value=text) from None
