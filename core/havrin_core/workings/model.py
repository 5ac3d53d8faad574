"""One computed figure, and how its uncertainty is carried."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from havrin_core.facts.facts import ReadingFact
from havrin_core.phrases import Saying
from havrin_core.quantities.formats import number
from havrin_core.quantities.uncertainty import Accuracy, propagate
from havrin_core.quantities.why import Why
from havrin_core.rules.context import Context

# Stated accuracies where the instrument's record gives none: typical handhelds, for guidance
USUAL_ACCURACY: Mapping[str, Accuracy] = {
    "pressure": Accuracy(2.0, 0.005, adds=True),
    "draft": Accuracy(2.0, 0.005, adds=True),
    "temperature": Accuracy(1.0),
    "temperature_difference": Accuracy(1.4),
    "time": Accuracy(0.5),
    "power": Accuracy(0.0, 0.02),
    "percent": Accuracy(0.3),
    "current": Accuracy(0.05, 0.02, adds=True),
    "current_small": Accuracy(1e-7, 0.02, adds=True),
    "ppm": Accuracy(5.0, 0.05),
    "voltage": Accuracy(0.2, 0.01, adds=True),
    "resistance": Accuracy(0.5, 0.01, adds=True),
    "capacitance": Accuracy(1e-7, 0.02, adds=True),
    "water_pressure": Accuracy(7000.0, 0.01, adds=True),
    "bore": Accuracy(1e-5),
    "length": Accuracy(0.05, 0.02, adds=True),
}


@dataclass(frozen=True, slots=True)
class Working:
    """One figure: canonical value, half-width (0 where it has none of its own), why, state, and what it says.

    ``state`` is in, near, out or "" where nothing judges it.
    """

    key: str
    name: Saying
    value: float
    dimension: str
    why: Why
    half_width: float = 0.0
    stage: str | None = None
    state: str = ""
    says: Saying = ""


def signed(percent: float) -> str:
    """Return a whole number with its sign, the minus as it is printed."""
    return number(percent, "+.0f")


_WIDTHS = ("half_width_w", "half_width_m3_s")


def width_of(context: Context, fact: ReadingFact | None, dimension: str) -> float:
    """Return the half-width of a reading: that which it was computed with, its instrument's own, else its dimension's usual."""
    if fact is None:
        return 0.0
    computed = next((value for name, value in fact.computed_from if name in _WIDTHS), None)
    if computed is not None:
        return computed
    stated = context.accuracies.get(fact.instrument, {}).get(fact.quantity)
    return stated.at(_read(fact.value, dimension)) if stated else usual_half_width(dimension, fact.value)


def usual_half_width(dimension: str, value: float) -> float:
    """Return the half-width of a reading by what is usual for its dimension; 0 where nothing is."""
    usual = USUAL_ACCURACY.get(dimension)
    return usual.at(_read(value, dimension)) if usual else 0.0


def _read(value: float, dimension: str) -> float:
    return value - 273.15 if dimension == "temperature" else value


def spread(
    function: Callable[[Mapping[str, float]], float], values: Mapping[str, float], widths: Mapping[str, float]
) -> float:
    """Return the half-width of ``function`` of ``values`` with those half-widths."""
    return propagate(lambda given: {"it": function(given)}, values, widths)["it"]
