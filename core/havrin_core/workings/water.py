"""Water side: flow from output and rise; can it condense, does it where it must not?"""

import math
from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import Saying, phrase
from havrin_core.physics.hydronics import Fluid, flow_m3_s
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.model import Working, spread, width_of
from havrin_core.workings.output import heat_given, output_of
from havrin_core.workings.system import fluid_of, system_workings

_MEAN_K = 333.15
_WATER_MOLAR_KG = 0.018015
_SHARE_DOUBT = 0.06  # of the water that condenses: 1 K at the probe, 0.3 % O2, the humidity of the air


def water_workings(context: Context, flue: list[FlueView]) -> list[Working]:
    """Return the figures of the water side, stage by stage."""
    by_stage = [
        w
        for stage in context.unit.stage_keys
        for w in (*_flow(context, stage, flue), *_return(context, stage, flue), *_condensate(context, stage, flue))
    ]
    return [*by_stage, *system_workings(context, flue)]


def _flow(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    rise = context.facts.newest("water_rise_k", stage)
    output = output_of(context, stage, flue)
    if rise is None or output is None:
        return
    hot, cold = context.facts.newest("water_supply_temp_k", stage), context.facts.newest("water_return_temp_k", None)
    mean = 0.5 * (hot.value + cold.value) if hot and cold else _MEAN_K
    water, beside = fluid_of(context)
    values = {"output": output.value_w, "rise": rise.value}
    widths = {"output": output.half_width_w, "rise": width_of(context, rise, "temperature_difference")}
    try:
        value = flow_m3_s(water, mean, rise.value, output.value_w)
    except OutOfDomain:
        return
    inputs = (
        Input(phrase("heat_given_water"), output.value_w, "power"),
        Input(phrase("water_rise"), rise.value, "temperature_difference"),
        Input(phrase("mean_water"), mean, "temperature"),
    )
    why = Why(
        phrase("output_density_heat_capacity_rise_2"),
        inputs,
        phrase("docs_formulas_md_section_10"),
        _filled(context, water, beside),
    )
    yield heat_given(output, stage, "water")
    yield Working(
        "water_flow_m3_s",
        "Flow",
        value,
        "waterflow",
        why,
        spread(lambda v: flow_m3_s(water, mean, v["rise"], v["output"]), values, widths),
        stage,
    )


def _filled(context: Context, what: Fluid, beside_pct: float) -> Saying:
    """Return what was reckoned with: plain water, the nearest tabulated share, propylene in the place of ethylene."""
    glycol = context.facts.newest("glycol_pct", None)
    if glycol is None:
        return phrase("plain_water_glycol_flow_few")
    if dict(glycol.computed_from).get("ethylene"):
        return phrase("ethylene_as_propylene", label=what.label)
    return phrase("glycol_as_tabulated", label=what.label) if abs(beside_pct) > 1 else what.label


def _return(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    cold = context.facts.newest("water_return_temp_k", None)
    view = next((v for v in flue if v.stage == stage and v.result and v.result.losses), None)
    if cold is None or view is None or view.result is None or view.result.losses is None:
        return
    dew = view.result.losses.dew_point_k
    condensing = context.unit.kind.condensing
    value = dew - cold.value if condensing else cold.value - dew
    inputs = (
        Input(phrase("dew_point_flue"), dew, "temperature"),
        Input(phrase("return_water"), cold.value, "temperature"),
    )
    formula = phrase("dew_point_return_water") if condensing else phrase("return_water_dew_point")
    why = Why(formula, inputs, phrase("iapws_if97_dew_point_from"))
    good = value > 0
    said = {
        (True, True): phrase("return_below_dew_point_can"),
        (True, False): phrase("return_too_warm_cannot_condense"),
        (False, True): phrase("return_stays_above_dew_point"),
        (False, False): phrase("condenses_where_not_made_raise"),
    }[condensing, good]
    width = width_of(context, cold, "temperature")
    yield Working(
        "return_margin_k",
        phrase("return_dew_point", value="under" if condensing else "above"),
        value,
        "temperature_difference",
        why,
        width,
        stage,
        "in" if good else "near",
        said,
    )


def _condensate(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    view = next((v for v in flue if v.stage == stage and v.result and v.result.losses), None)
    metered = context.facts.newest("input_w", stage)
    if (
        not context.unit.kind.condensing
        or view is None
        or view.result is None
        or view.result.losses is None
        or metered is None
    ):
        return
    share = view.result.losses.condensed_fraction_of_combustion_water
    litres_s = (
        metered.value / context.unit.fuel.gross_j_mol * context.unit.fuel.water * _WATER_MOLAR_KG * max(share, 0.0)
    )
    inputs = (
        Input(phrase("input_meter_2"), metered.value, "power"),
        Input(phrase("share_water_condenses"), 100 * share, "percent"),
    )
    why = Why(
        phrase("input_heating_value_water_combustion"),
        inputs,
        phrase("docs_formulas_md_section_5"),
        phrase("catch_quarter_hour_compare"),
    )
    yield Working(
        "condensate_m3_s",
        phrase("condensate_per_hour"),
        litres_s / 1000,
        "condensate",
        why,
        math.hypot(width_of(context, metered, "power") / metered.value, _SHARE_DOUBT / max(share, _SHARE_DOUBT))
        * litres_s
        / 1000,
        stage,
    )
