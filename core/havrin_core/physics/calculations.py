"""The calculations that ``./havrin calc`` offers, by name: columns in, columns out, in the files' own units."""

from collections.abc import Callable, Mapping

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase
from havrin_core.physics.airflow import airflow
from havrin_core.physics.atmosphere import barometric_pressure_pa, standard_density_kg_m3
from havrin_core.physics.bulk import Calculation, Values
from havrin_core.physics.chimney import chimney_draft, wet_flue_molar_mass_kg
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm, co_at_reference_o2_ppm, co_co2_ratio
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.combustion_air import air_wanted
from havrin_core.physics.constants import ICE_POINT_K
from havrin_core.physics.expansion import expanded_m3, precharge_pa, vessel_m3
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.physics.gas.lp_vapour import hours_left, sustained_input_w
from havrin_core.physics.gas.meter import dial_m3, meter_flow
from havrin_core.physics.gas.orifice import orifice_flow
from havrin_core.physics.gas.pipe import Pipe, line_loss_pa
from havrin_core.physics.gas.tightness import Closed, decay
from havrin_core.physics.hydronics import fluid, heat_w
from havrin_core.quantities.units import BTU_J

Words = Mapping[str, str]
_HOUR_S = 3600.0
_GAS_RESULTS = ("input_gross_kw", "input_net_kw", "input_gross_btu_h", "flow_m3_h_15c_101325pa")
_ROOM_C = 20.0
_REGISTRY: dict[str, Calculation] = {}


def calculation(name: str) -> Calculation:
    """Return the calculation called ``name``. Raises UnknownName."""
    if name not in _REGISTRY:
        raise UnknownName(
            "calculation_unknown", phrase("no_calculation_called", name=name, registry=", ".join(_REGISTRY)), value=name
        )
    return _REGISTRY[name]


def calculation_names() -> tuple[str, ...]:
    """Return the names of all calculations."""
    return tuple(_REGISTRY)


def _offers(
    name: str,
    words: tuple[str, ...],
    numbers: tuple[str, ...],
    results: tuple[str, ...],
    usual: Mapping[str, float] | None = None,
) -> Callable[[Callable[[Words, Values], Values]], Callable[[Words, Values], Values]]:
    def register(compute: Callable[[Words, Values], Values]) -> Callable[[Words, Values], Values]:
        _REGISTRY[name] = Calculation(name, words, numbers, results, compute, usual or {})
        return compute

    return register


@_offers(
    "combustion",
    ("fuel",),
    ("o2_dry_pct", "co_dry_ppm", "flue_temp_c", "air_temp_c", "air_rh_pct", "baro_kpa"),
    (
        "lambda",
        "excess_air_pct",
        "co2_dry_pct",
        "dry_air_m3_per_m3",
        "dry_flue_m3_per_m3",
        "wet_flue_m3_per_m3",
        "co_air_free_ppm",
        "co_at_3pct_o2_ppm",
        "co_co2_ratio",
        "flue_dew_point_c",
        "condensing",
        "loss_dry_pct_net",
        "loss_h2o_sensible_pct_net",
        "loss_co_pct_net",
        "loss_latent_full_pct_gross",
        "condensed_fraction_of_combustion_water",
        "eff_net_pct",
        "eff_gross_pct",
    ),
)
def _combustion(words: Words, row: Values) -> Values:
    fuel = shipped_fuel(words["fuel"])
    o2, co = row["o2_dry_pct"], row["co_dry_ppm"]
    flue = balance(fuel, o2, co)
    around = Surroundings(row["air_temp_c"] + ICE_POINT_K, row["air_rh_pct"], row["baro_kpa"] * 1000)
    found = losses(fuel, flue, row["flue_temp_c"] + ICE_POINT_K, around)
    return {
        "lambda": flue.excess_air_ratio,
        "excess_air_pct": flue.excess_air_pct,
        "co2_dry_pct": flue.co2_dry_pct,
        "dry_air_m3_per_m3": flue.dry_air,
        "dry_flue_m3_per_m3": flue.dry_flue,
        "wet_flue_m3_per_m3": found.wet_flue,
        "co_air_free_ppm": co_air_free_ppm(o2, co),
        "co_at_3pct_o2_ppm": co_at_reference_o2_ppm(o2, co, 3.0),
        "co_co2_ratio": co_co2_ratio(flue),
        "flue_dew_point_c": found.dew_point_k - ICE_POINT_K,
        "condensing": int(found.condensing),
        "loss_dry_pct_net": found.dry_pct_net,
        "loss_h2o_sensible_pct_net": found.water_sensible_pct_net,
        "loss_co_pct_net": found.co_pct_net,
        "loss_latent_full_pct_gross": found.latent_full_pct_gross,
        "condensed_fraction_of_combustion_water": found.condensed_fraction_of_combustion_water,
        "eff_net_pct": found.efficiency_net_pct,
        "eff_gross_pct": found.efficiency_gross_pct,
    }


@_offers(
    "orifice",
    ("fuel",),
    ("orifice_diameter_mm", "manifold_pressure_kpa", "discharge_coefficient", "baro_kpa", "gas_temp_c"),
    _GAS_RESULTS,
)
def _orifice(words: Words, row: Values) -> Values:
    found = orifice_flow(
        shipped_fuel(words["fuel"]),
        row["orifice_diameter_mm"] / 1000,
        row["manifold_pressure_kpa"] * 1000,
        row["discharge_coefficient"],
        row["baro_kpa"] * 1000,
        row["gas_temp_c"] + ICE_POINT_K,
    )
    return _gas(found.input_gross_w, found.input_net_w, found.flow_m3_s_standard)


@_offers(
    "meter",
    ("fuel", "dial_unit"),
    ("dial_volume", "revolutions", "time_s", "meter_temp_c", "meter_gauge_kpa", "baro_kpa"),
    _GAS_RESULTS,
)
def _meter(words: Words, row: Values) -> Values:
    found = meter_flow(
        shipped_fuel(words["fuel"]),
        dial_m3(row["dial_volume"], words["dial_unit"]),
        row["revolutions"],
        row["time_s"],
        row["meter_gauge_kpa"] * 1000,
        row["meter_temp_c"] + ICE_POINT_K,
        row["baro_kpa"] * 1000,
    )
    return _gas(found.input_gross_w, found.input_net_w, found.flow_m3_s_standard)


def _gas(gross_w: float, net_w: float, flow_m3_s: float) -> Values:
    values = (gross_w / 1000, net_w / 1000, gross_w * _HOUR_S / BTU_J, flow_m3_s * _HOUR_S)
    return dict(zip(_GAS_RESULTS, values, strict=True))


@_offers(
    "chimney",
    ("fuel",),
    ("height_m", "mean_flue_temp_c", "outdoor_temp_c", "baro_kpa", "o2_dry_pct", "air_rh_pct", "room_air_temp_c"),
    ("draft_pa",),
    {"room_air_temp_c": _ROOM_C},
)
def _chimney(words: Words, row: Values) -> Values:
    baro_pa = row["baro_kpa"] * 1000
    room_k = row["room_air_temp_c"] + ICE_POINT_K
    mass = wet_flue_molar_mass_kg(shipped_fuel(words["fuel"]), row["o2_dry_pct"], room_k, row["air_rh_pct"], baro_pa)
    flue_k, outdoor_k = row["mean_flue_temp_c"] + ICE_POINT_K, row["outdoor_temp_c"] + ICE_POINT_K
    return {"draft_pa": chimney_draft(row["height_m"], flue_k, outdoor_k, baro_pa, mass).draft_pa}


@_offers(
    "airflow",
    (),
    ("output_kw", "return_temp_c", "temp_rise_k", "altitude_m"),
    ("mass_flow_kg_h", "airflow_m3_h_at_return", "airflow_m3_h_at_supply"),
)
def _airflow(words: Words, row: Values) -> Values:
    baro_pa = barometric_pressure_pa(row["altitude_m"])
    found = airflow(row["output_kw"] * 1000, row["return_temp_c"] + ICE_POINT_K, row["temp_rise_k"], baro_pa)
    return {
        "mass_flow_kg_h": found.mass_flow_kg_s * _HOUR_S,
        "airflow_m3_h_at_return": found.flow_m3_s_return * _HOUR_S,
        "airflow_m3_h_at_supply": found.flow_m3_s_supply * _HOUR_S,
    }


@_offers(
    "decay",
    (),
    ("volume_l", "gauge1_pa", "gauge2_pa", "temp1_c", "temp2_c", "baro1_kpa", "baro2_kpa", "duration_min"),
    ("gauge_drop_corrected_pa", "leak_l_h_15c_101325pa"),
)
def _decay(words: Words, row: Values) -> Values:
    start, end = (
        Closed(row[f"gauge{n}_pa"], row[f"temp{n}_c"] + ICE_POINT_K, row[f"baro{n}_kpa"] * 1000) for n in (1, 2)
    )
    found = decay(row["volume_l"] / 1000, start, end, row["duration_min"] * 60)
    return {
        "gauge_drop_corrected_pa": found.drop_corrected_pa,
        "leak_l_h_15c_101325pa": 1000 * found.leak_m3_s_standard * _HOUR_S,
    }


@_offers("water", ("fluid",), ("mean_temp_c", "temp_diff_k", "flow_l_min"), ("heat_kw",))
def _water(words: Words, row: Values) -> Values:
    flow = row["flow_l_min"] / 60_000
    heat = heat_w(fluid(words["fluid"]), row["mean_temp_c"] + ICE_POINT_K, row["temp_diff_k"], flow)
    return {"heat_kw": heat / 1000}


@_offers("atmosphere", (), ("altitude_m",), ("pressure_kpa", "density_kg_m3"))
def _atmosphere(words: Words, row: Values) -> Values:
    altitude = row["altitude_m"]
    return {"pressure_kpa": barometric_pressure_pa(altitude) / 1000, "density_kg_m3": standard_density_kg_m3(altitude)}


@_offers(
    "pipe",
    ("fuel",),
    ("bore_mm", "length_m", "elbows", "tees", "valves", "input_kw", "gauge_kpa", "baro_kpa", "gas_temp_c"),
    ("equivalent_length_m", "loss_pa"),
    {"elbows": 0.0, "tees": 0.0, "valves": 0.0},
)
def _pipe(words: Words, row: Values) -> Values:
    counts = (int(row[name]) for name in ("elbows", "tees", "valves"))
    pipe = Pipe(row["bore_mm"] / 1000, row["length_m"], *counts)
    gauge, baro, temp = row["gauge_kpa"] * 1000, row["baro_kpa"] * 1000, row["gas_temp_c"] + ICE_POINT_K
    loss = line_loss_pa(shipped_fuel(words["fuel"]), pipe, row["input_kw"] * 1000, gauge, baro, temp)
    return {"equivalent_length_m": pipe.equivalent_m, "loss_pa": loss}


@_offers(
    "combustion-air",
    (),
    ("input_kw",),
    ("room_volume_m3", "indoor_opening_each_cm2", "outdoor_opening_each_cm2", "outdoor_single_opening_cm2"),
)
def _combustion_air(words: Words, row: Values) -> Values:
    wanted = air_wanted(row["input_kw"] * 1000)
    return {
        "room_volume_m3": wanted.volume_m3,
        "indoor_opening_each_cm2": 1e4 * wanted.indoor_each_m2,
        "outdoor_opening_each_cm2": 1e4 * wanted.outdoor_each_m2,
        "outdoor_single_opening_cm2": 1e4 * wanted.outdoor_one_m2,
    }


@_offers(
    "vessel",
    ("fluid",),
    ("system_l", "height_m", "cold_c", "hot_c", "most_gauge_kpa", "baro_kpa"),
    ("expansion_l", "precharge_kpa", "vessel_l"),
)
def _vessel(words: Words, row: Values) -> Values:
    cold, hot = row["cold_c"] + ICE_POINT_K, row["hot_c"] + ICE_POINT_K
    grown = expanded_m3(fluid(words["fluid"]), row["system_l"] / 1000, cold, hot)
    charge = precharge_pa(row["height_m"])
    whole = vessel_m3(grown, charge, row["most_gauge_kpa"] * 1000, row["baro_kpa"] * 1000)
    return {"expansion_l": 1000 * grown, "precharge_kpa": charge / 1000, "vessel_l": 1000 * whole}


@_offers(
    "lp-tank",
    ("fuel",),
    ("tank_l", "fill_pct", "outdoor_c", "least_kpa", "input_kw"),
    ("sustained_kw", "hours_left"),
)
def _lp_tank(words: Words, row: Values) -> Values:
    fuel, volume, fill = shipped_fuel(words["fuel"]), row["tank_l"] / 1000, row["fill_pct"] / 100
    sustained = sustained_input_w(fuel, volume, fill, row["outdoor_c"] + ICE_POINT_K, row["least_kpa"] * 1000)
    return {"sustained_kw": sustained / 1000, "hours_left": hours_left(fuel, volume, fill, row["input_kw"] * 1000)}
