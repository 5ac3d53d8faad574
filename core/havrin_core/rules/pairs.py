"""As found against as left: what lies between two readings of the same thing is what changed it."""

from collections.abc import Iterator
from dataclasses import dataclass

from havrin_core.rules.context import Context
from havrin_core.tape.entries import Action


@dataclass(frozen=True, slots=True)
class Change:
    """One quantity found and left, canonical unit, with what was done between; more than one proves no cause."""

    quantity: str
    stage: str | None
    found: float
    left: float
    work: tuple[Action, ...]


def changes_between(context: Context) -> Iterator[Change]:
    """Yield a row for each quantity read as found and as left."""
    seen: set[tuple[str, str | None]] = set()
    for fact in context.facts.readings:
        key = (fact.quantity, fact.stage)
        if key in seen or fact.phase != "left":
            continue
        seen.add(key)
        found, left = context.facts.as_found(*key), context.facts.newest(*key)
        if found is None or left is None or left.phase != "left" or left.at <= found.at:
            continue
        work = tuple(body for line, body in context.facts.actions() if found.at <= line.moment.at <= left.at)
        yield Change(fact.quantity, fact.stage, found.value, left.value, work)
