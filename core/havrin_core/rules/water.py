"""Water: a condensing boiler whose return is too warm to condense, or another whose return is so cold that it does."""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.computed import by_manual, gross_input_w
from havrin_core.limits.model import DEFAULT, PLATE
from havrin_core.limits.table import bound
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, TELL, FlueView, Lift, Reason, Sample


def water_reasons(context: Context, views: list[FlueView]) -> Iterator[Reason]:
    """Yield what the owner has to know of a return that does not suit the boiler."""
    back = context.facts.newest("water_return_temp_k", None)
    if back is not None and not context.unit.kind.condensing:
        yield from _too_cool(context, back)
        return
    losses = next((v.result.losses for v in reversed(views) if v.result and v.result.losses), None)
    if back is None or losses is None:
        return
    facts = {"value": back.value, "limit": losses.dew_point_k}
    lifts = (Lift("reading", part="water_return_temp_k"),)
    if back.value > losses.dew_point_k:
        yield Reason(
            TELL, "cannot_condense", "return_water", facts, lifts, DEFAULT, (back.entry_id,), "cannot_condense"
        )


def relief_reasons(context: Context) -> Iterator[Reason]:
    """A relief valve that carries off less than the burner can give does not hold the boiler's pressure down."""
    rated, plate = (
        context.facts.newest("relief_rated_w", None),
        gross_input_w(context.unit, context.unit.stage_keys[-1]),
    )
    if rated is None or plate is None or rated.value >= plate:
        return
    facts = {"value": rated.value, "limit": plate}
    lifts = (Lift("reading", part="relief_rated_w"),)
    yield Reason(NOT_YET, "relief_small", "relief", facts, lifts, PLATE, (rated.entry_id,), "relief_small")


def _too_cool(context: Context, back: ReadingFact) -> Iterator[Reason]:
    """A boiler that is not made to condense wants its maker's least return; long before the sample's dew point is met."""
    limit = context.unit.manual_limit("water_return_temp_k", None)
    band = by_manual(limit) if limit is not None and limit.low is not None else bound("return.dry")
    if band.low is None or (band.near_low or band.low) <= back.value:
        return
    facts = {"value": back.value, "limit": band.low if back.value < band.low else band.near_low}
    lifts = (Lift("reading", part="water_return_temp_k"),)
    yield Reason(TELL, "condenses", "return_water", facts, lifts, band.source, (back.entry_id,), "condenses")


SAMPLES = (
    Sample(
        "relief_small",
        opens=("relief rated 5 kbtu",),
        not_opens=("relief rated 900 kbtu",),
        lifted=("relief rated 5 kbtu | did change relief | relief rated 900 kbtu",),
        not_lifted=("relief rated 5 kbtu | did change relief",),
        needs=("water",),
    ),
)
