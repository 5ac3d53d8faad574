"""The 'why' behind a reading that was computed, not read."""

from havrin_core.judgement.standing.model import ReadingView
from havrin_core.machine.measurands import measurand
from havrin_core.quantities.why import Input, Why

_FORMULAS: dict[str, tuple[str, str, str]] = {
    "temperature_rise_k": (
        "supply air − return air",
        "by definition, from the two readings as last written",
        "A probe that sees the burner or the exchanger reads too high, and the rise with it.",
    ),
}


def why_of(view: ReadingView) -> Why | None:
    """Return how the reading was computed; None when it was read from an instrument."""
    if not view.computed_from:
        return None
    formula, source, note = _FORMULAS[view.quantity]
    inputs = tuple(Input(measurand(q).name, value, measurand(q).dimension) for q, value in view.computed_from)
    return Why(formula, inputs, source, note)
