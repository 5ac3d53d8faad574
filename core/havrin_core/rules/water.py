"""Water: a condensing boiler whose return is too warm to condense, or another whose return is so cold that it does."""

from collections.abc import Iterator

from havrin_core.limits.model import DEFAULT
from havrin_core.rules.context import Context
from havrin_core.rules.model import TELL, FlueView, Lift, Reason


def water_reasons(context: Context, views: list[FlueView]) -> Iterator[Reason]:
    """Yield what the owner has to know of a return that does not suit the boiler."""
    back = context.facts.newest("water_return_temp_k", None)
    losses = next((v.result.losses for v in reversed(views) if v.result and v.result.losses), None)
    if back is None or losses is None:
        return
    facts = {"value": back.value, "limit": losses.dew_point_k}
    lifts = (Lift("reading", part="water_return_temp_k"),)
    if context.unit.kind.condensing and back.value > losses.dew_point_k:
        yield Reason(
            TELL, "cannot_condense", "return_water", facts, lifts, DEFAULT, (back.entry_id,), "cannot_condense"
        )
    elif not context.unit.kind.condensing and back.value < losses.dew_point_k:
        yield Reason(TELL, "condenses", "return_water", facts, lifts, DEFAULT, (back.entry_id,), "condenses")
