"""Air side: airflow from output and rise at this altitude; capacitor and phases."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.airflow import SEA_LEVEL_FACTOR, airflow
from havrin_core.physics.electrical import (
    CAPACITOR_TOLERANCE,
    CURRENT_IMBALANCE_MOST_PCT,
    VOLTAGE_IMBALANCE_MOST_PCT,
    capacitor_share,
)
from havrin_core.quantities.units import BTU_J, CUBIC_FOOT_M3
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.blower import blower_workings
from havrin_core.workings.model import Working, signed, spread, width_of
from havrin_core.workings.output import heat_given, output_of

_RETURN_K = 294.15
_BTU_H_W = 3600 / BTU_J


def air_workings(context: Context, flue: list[FlueView], system: str) -> list[Working]:
    """Return the figures of the air side, stage by stage, then the blower's."""
    return [
        *(w for stage in context.unit.stage_keys for w in _flow(context, stage, flue)),
        *blower_workings(context, system),
        *_capacitor(context),
        *_phases(context),
    ]


def _flow(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    rise, cold = context.facts.newest("temperature_rise_k", stage), context.facts.newest("return_air_temp_k", None)
    output = output_of(context, stage, flue)
    if rise is None or output is None:
        return
    cold_k = cold.value if cold else _RETURN_K

    def cubic_metres(v: dict[str, float]) -> float:
        return airflow(v["output"], v["cold"], v["rise"], context.unit.baro_pa).flow_m3_s_return

    values = {"output": output.value_w, "cold": cold_k, "rise": rise.value}
    widths = {
        "output": output.half_width_w,
        "cold": width_of(context, cold, "temperature"),
        "rise": width_of(context, rise, "temperature_difference"),
    }
    try:
        value = cubic_metres(values)
    except OutOfDomain:
        return
    yield heat_given(output, stage, "air")
    inputs = (
        Input(phrase("heat_given_air"), output.value_w, "power"),
        Input("rise", rise.value, "temperature_difference"),
        Input(phrase("return_air"), cold_k, "temperature"),
        Input(phrase("barometer_here"), context.unit.baro_pa, "pressure"),
    )
    simple = output.value_w * _BTU_H_W / (SEA_LEVEL_FACTOR * rise.value * 1.8) * CUBIC_FOOT_M3 / 60
    off = signed(100 * (simple / value - 1))
    note = phrase("sea_level_factor_would_read", sea_level_factor=SEA_LEVEL_FACTOR, off=off)
    why = Why(phrase("output_density_heat_capacity_rise"), inputs, phrase("docs_formulas_md_section_9"), note)
    yield Working(
        "airflow_m3_s",
        phrase("airflow_return"),
        value,
        "airflow",
        why,
        spread(lambda v: cubic_metres(dict(v)), values, widths),
        stage,
    )


def _capacitor(context: Context) -> Iterator[Working]:
    fact = context.facts.newest("capacitor_f", None)
    rated = dict(fact.computed_from).get("rated_f") if fact else None
    if fact is None or not rated:
        return
    share = 100 * capacitor_share(fact.value, rated)
    inputs = (Input(phrase("read"), fact.value, "capacitance"), Input("rating", rated, "capacitance"))
    limit = 100 * dict(fact.computed_from).get("tolerance_share", CAPACITOR_TOLERANCE)
    state = "out" if abs(share) > limit else "near" if abs(share) > 0.8 * limit else "in"
    why = Why(phrase("100_read_rating_1"), inputs, phrase("unless_stamped_otherwise_havrins_default", limit=limit))
    said = phrase("discharged_before_read_power_off") if abs(share) > 60 else ""
    yield Working(
        "capacitor_pct", phrase("capacitor_against_its_rating"), share, "percent", why, 0.0, None, state, said
    )


def _phases(context: Context) -> Iterator[Working]:
    rows = (
        ("voltage_imbalance_pct", phrase("imbalance_voltages"), VOLTAGE_IMBALANCE_MOST_PCT),
        ("current_imbalance_pct", phrase("imbalance_currents"), CURRENT_IMBALANCE_MOST_PCT),
    )
    for quantity, name, most in rows:
        fact = context.facts.newest(quantity, None)
        if fact is None:
            continue
        dimension = "voltage" if quantity.startswith("voltage") else "current"
        inputs = tuple(Input(f"phase {i}", value, dimension) for i, (_, value) in enumerate(fact.computed_from, 1))
        state = "out" if fact.value > most else "near" if fact.value > 0.8 * most else "in"
        why = Why(phrase("100_largest_distance_from_mean"), inputs, phrase("most_havrins_default_guidance", most=most))
        yield Working(quantity, name, fact.value, "percent", why, 0.0, None, state)
