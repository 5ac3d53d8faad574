"""What the fire gives to air or water: input as measured, times efficiency as measured."""

from dataclasses import dataclass

from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.phrases import Saying, in_a_row, phrase
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.model import Working, width_of

_USUAL_EFFICIENCY = {True: 92.0, False: 80.0}  # condensing, others: % gross
_USUAL_WIDTH_PCT = 3.0


@dataclass(frozen=True, slots=True)
class Output:
    """Heat given, W, with its half-width, what it came from, and what had to be taken for granted."""

    value_w: float
    half_width_w: float
    inputs: tuple[Input, ...]
    note: Saying


def output_of(context: Context, stage: str, flue: list[FlueView]) -> Output | None:
    """Return the output at ``stage``; None where not even the plate knows the input."""
    metered = context.facts.newest("input_w", stage)
    rated = input_at_altitude_w(context.unit, context.rules, stage)
    if metered is None and rated is None:
        return None
    watts = metered.value if metered else rated or 0.0
    watts_width = width_of(context, metered, "power") if metered else 0.05 * watts
    view = next((v for v in flue if v.stage == stage and v.result and "efficiency_gross_pct" in v.result.values), None)
    if view is not None and view.result is not None:
        share, width = (
            view.result.values["efficiency_gross_pct"],
            view.result.half_widths.get("efficiency_gross_pct", 0.5),
        )
    else:
        share, width = _USUAL_EFFICIENCY[context.unit.kind.condensing], _USUAL_WIDTH_PCT
    taken: list[Saying] = [] if metered else [phrase("input_taken_from_plate_altitude")]
    taken += [] if view else [phrase("efficiency_taken_usual_kind_not")]
    inputs = (
        Input(phrase("input_meter_2") if metered else phrase("rated_input_here_2"), watts, "power"),
        Input(phrase("efficiency_gross"), share, "percent"),
    )
    half = watts * share / 100 * ((watts_width / watts) ** 2 + (width / share) ** 2) ** 0.5
    return Output(watts * share / 100, half, inputs, in_a_row(taken, " "))


def heat_given(output: Output, stage: str, to: str) -> Working:
    """Return the output as a figure of the page; ``to`` is what takes it up."""
    why = Why(phrase("input_gross_efficiency"), output.inputs, phrase("measured"), output.note)
    return Working(
        "output_w",
        phrase("heat_given", to=to),
        output.value_w,
        "power",
        why,
        output.half_width_w,
        stage,
        "",
        output.note,
    )
