"""The gas line at load: what each run loses, and which starves."""

from collections.abc import Iterator

from havrin_core.limits.limits import band_for
from havrin_core.phrases import phrase
from havrin_core.quantities.display import sentence
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working
from havrin_core.workings.whys import computed_why

_LOSS_SHARE = 0.15  # roughness, true bores, fittings


def pipe_workings(context: Context, system: str) -> Iterator[Working]:
    """Yield the loss of every run that was written down, one after the other, and of them all together."""
    runs = [fact for fact in context.facts.readings if fact.quantity == "line_loss_pa" and fact.phase != "trial"]
    if not runs:
        return
    band = band_for(context.unit, context.rules, "line_loss_pa", None)
    total = sum(fact.value for fact in runs)
    worst = max(runs, key=lambda fact: fact.value)
    why = computed_why("line_loss_pa", worst.computed_from)
    said = phrase("of_it_this_run", value=sentence(worst.value, "pressure", system)) if len(runs) > 1 else ""
    state = band.verdict(total) if band else ""
    yield Working(
        "line_loss_pa", phrase("lost_in_the_line"), total, "pressure", why, _LOSS_SHARE * total, None, state, said
    )
