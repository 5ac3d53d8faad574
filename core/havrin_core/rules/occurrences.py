"""Readings beyond a bound: all of them, trials too, and what of them still stands."""

from collections.abc import Callable, Iterable

from havrin_core.facts.facts import ReadingFact, reading_of
from havrin_core.rules.context import Context
from havrin_core.tape.clock import Moment


def beyond(context: Context, quantity: str, is_over: Callable[[float], bool]) -> list[ReadingFact]:
    """Return every reading of ``quantity`` that is over, in order; a trial accuses as a reading does."""
    return [fact for fact in context.facts.ever(quantity) if is_over(fact.value)]


def last_known(context: Context, facts: Iterable[ReadingFact], is_over: Callable[[float], bool]) -> Moment:
    """Return when the last of ``facts`` was so and was known to be: what a correction brought is known since then."""
    moments = [_known(context, fact, is_over) for fact in facts]
    return max(moments, key=lambda m: (m.at, m.order))


def _known(context: Context, fact: ReadingFact, is_over: Callable[[float], bool]) -> Moment:
    if fact.known == fact.moment:
        return fact.moment
    line = next(line for line in context.facts.lines if line.entry.id == fact.entry_id)
    was = reading_of(line.was)
    same = was is not None and was.quantity == fact.quantity and is_over(was.value)
    return fact.moment if same else fact.known


def ids_of(facts: Iterable[ReadingFact]) -> tuple[str, ...]:
    """Return the entries of ``facts``, each once, in order."""
    return tuple(dict.fromkeys(fact.entry_id for fact in facts))
