"""What efficiency is worth in a season's bill: advice, never a reason."""

from collections.abc import Iterator

from havrin_core.phrases import phrase
from havrin_core.quantities.formats import number
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.model import Working

_CONDENSING_PCT, _CONDENSING_WIDTH_PCT = 95.0, 2.0  # gross, of a condensing unit over a season


def season_workings(context: Context, flue: list[FlueView]) -> Iterator[Working]:
    """Yield what a condensing unit would save of the season's cost that was entered; the top stage's efficiency as measured."""
    cost = context.facts.newest("season_cost", None)
    view = next((v for v in reversed(flue) if v.result and "efficiency_gross_pct" in v.result.values), None)
    if cost is None or view is None or view.result is None or context.unit.kind.condensing:
        return
    now, width = view.result.values["efficiency_gross_pct"], view.result.half_widths["efficiency_gross_pct"]
    saved = cost.value * (1 - now / _CONDENSING_PCT)
    half = (
        cost.value
        * now
        / _CONDENSING_PCT
        * ((width / now) ** 2 + (_CONDENSING_WIDTH_PCT / _CONDENSING_PCT) ** 2) ** 0.5
    )
    inputs = (
        Input(phrase("season_cost"), cost.value, "count"),
        Input(phrase("efficiency_gross"), now, "percent"),
        Input(phrase("condensing_over_a_season"), _CONDENSING_PCT, "percent"),
    )
    why = Why(
        phrase("cost_times_one_less_ratio"),
        inputs,
        phrase("havrins_default_guidance"),
        phrase("steady_fire_is_not_a_season"),
    )
    said = phrase("a_point_is_worth", worth=number(cost.value / now, ".0f"))
    yield Working("season_saving", phrase("condensing_would_save"), saved, "count", why, half, None, "", said)
