"""What earlier visits said at a walk's stops: the newest reading of each quantity, the newest look and action at each part."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date

from havrin_core.facts.facts import Facts
from havrin_core.tape.entries import Condition


@dataclass(frozen=True, slots=True)
class Before:
    """``read``: (quantity, stage) -> canonical value and day. ``found``, ``did``: part -> condition or verb, and day."""

    read: Mapping[tuple[str, str | None], tuple[float, date]] = field(default_factory=dict)
    found: Mapping[str, tuple[str, date]] = field(default_factory=dict)
    did: Mapping[str, tuple[str, date]] = field(default_factory=dict)


NOTHING_BEFORE = Before()


def said_on(facts: Facts, day: date) -> Before:
    """Return what one visit said, trials left out."""
    read = {(f.quantity, f.stage): (f.value, day) for f in facts.readings if f.phase != "trial"}
    looks = [look for line, look in facts.of(Condition) if line.entry.id not in facts.before and not look.absent]
    found = {look.part: (look.condition, day) for look in looks}
    did = {
        action.part: (action.verb, day) for line, action in facts.real_actions() if line.entry.id not in facts.before
    }
    return Before(read, found, did)


def newest_of(visits: Iterable[Before]) -> Before:
    """Return the newest of everything; ``visits`` come newest first."""
    rows = list(visits)[::-1]
    return Before(
        {key: said for row in rows for key, said in row.read.items()},
        {key: said for row in rows for key, said in row.found.items()},
        {key: said for row in rows for key, said in row.did.items()},
    )
