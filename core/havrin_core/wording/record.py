"""What is told of a visit later: advice given, readings, how a reading moved over the years."""

from collections.abc import Sequence

from havrin_core.follow_up.trends import Trend
from havrin_core.quantities.display import sentence, show
from havrin_core.quantities.formats import month_words
from havrin_core.rules.model import ReadingView
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import Entry, Note, Said
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import text
from havrin_core.wording.names import quantity_name

_ADVICE = {"advise": "Advised: {words}", "refuse": "Refused: {words}"}


def advice_words(tape: Sequence[Entry]) -> list[str]:
    """Return the advice given on a visit, and what was written down for the owner."""
    bodies = [line.body for line in effective(tuple(tape))]
    said = [text(_ADVICE[b.what], words=b.text) for b in bodies if isinstance(b, Said) and b.what in _ADVICE]
    return said + [b.text for b in bodies if isinstance(b, Note) and b.for_owner]


def reading_line(view: ReadingView, system: str) -> str:
    """Return a reading in one line: its name, its stage, number and unit."""
    name = quantity_name(view.quantity, view.stage if view.stage in ("low", "high") else None)
    return f"{name} {sentence(view.value, measurand(view.quantity).dimension, system)}"


def trend_words(trend: Trend | None, quantity: str, system: str) -> str:
    """Return how a reading moves over the years; "" where it does not."""
    if trend is None:
        return ""
    dimension = measurand(quantity).dimension
    shown = "temperature_difference" if dimension == "temperature" else dimension
    moved, width = show(abs(trend.per_year), shown, system), show(trend.half_width, shown, system)
    source = "falls {moved} ± {width} {unit} a year" if trend.per_year < 0 else "rises {moved} ± {width} {unit} a year"
    said = text(source, moved=moved.text, width=width.text, unit=moved.unit)
    if trend.earliest is None:
        return said
    first = month_words(trend.earliest)
    if trend.latest is None:
        return text("{moves}; may reach its limit from {month} on", moves=said, month=first)
    last = month_words(trend.latest)
    if first == last:
        return text("{moves}; reaches its limit about {month}", moves=said, month=first)
    return text("{moves}; reaches its limit between {first} and {last}", moves=said, first=first, last=last)
