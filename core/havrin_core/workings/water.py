"""Water side: flow from output and rise; can it condense, does it where it must not?"""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.physics.hydronics import flow_m3_s, fluid
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.model import Working, spread, width_of
from havrin_core.workings.output import heat_given, output_of

_MEAN_K = 333.15
_WATER_MOLAR_KG = 0.018015


def water_workings(context: Context, flue: list[FlueView]) -> list[Working]:
    """Return the figures of the water side, stage by stage."""
    return [
        w
        for stage in context.unit.stage_keys
        for w in (*_flow(context, stage, flue), *_return(context, stage, flue), *_condensate(context, stage, flue))
    ]


def _flow(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    rise = context.facts.newest("water_rise_k", stage)
    output = output_of(context, stage, flue)
    if rise is None or output is None:
        return
    hot, cold = context.facts.newest("water_supply_temp_k", stage), context.facts.newest("water_return_temp_k", None)
    mean = 0.5 * (hot.value + cold.value) if hot and cold else _MEAN_K
    water = fluid("water")
    values = {"output": output.value_w, "rise": rise.value}
    widths = {"output": output.half_width_w, "rise": width_of(context, rise, "temperature_difference")}
    try:
        value = flow_m3_s(water, mean, rise.value, output.value_w)
    except OutOfDomain:
        return
    inputs = (
        Input("heat given to the water", output.value_w, "power"),
        Input("water rise", rise.value, "temperature_difference"),
        Input("mean of the water", mean, "temperature"),
    )
    why = Why(
        "output / (density × heat capacity × rise)",
        inputs,
        "docs/formulas.md section 10",
        "Plain water: with glycol the flow is a few percent more.",
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


def _return(context: Context, stage: str, flue: list[FlueView]) -> Iterator[Working]:
    cold = context.facts.newest("water_return_temp_k", None)
    view = next((v for v in flue if v.stage == stage and v.result and v.result.losses), None)
    if cold is None or view is None or view.result is None or view.result.losses is None:
        return
    dew = view.result.losses.dew_point_k
    condensing = context.unit.kind.condensing
    value = dew - cold.value if condensing else cold.value - dew
    inputs = (Input("dew point of this flue", dew, "temperature"), Input("return water", cold.value, "temperature"))
    formula = "dew point − return water" if condensing else "return water − dew point"
    why = Why(formula, inputs, "IAPWS-IF97; dew point from this flue's O₂ and humidity")
    good = value > 0
    said = {
        (True, True): "The return is below the dew point: it can condense.",
        (True, False): "The return is too warm: it cannot condense.",
        (False, True): "The return stays above the dew point.",
        (False, False): "It condenses where it is not made for it: raise the return.",
    }[condensing, good]
    width = width_of(context, cold, "temperature")
    yield Working(
        "return_margin_k",
        f"Return {'under' if condensing else 'above'} the dew point by",
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
        Input("input by meter", metered.value, "power"),
        Input("share of the water that condenses", 100 * share, "percent"),
    )
    why = Why(
        "input / heating value × water of combustion × share condensed",
        inputs,
        "docs/formulas.md section 5",
        "Catch it for a quarter of an hour and compare.",
    )
    yield Working(
        "condensate_m3_s", "Condensate per hour", litres_s / 1000, "condensate", why, 0.05 * litres_s / 1000, stage
    )
