"""What was seen of an exchanger, part by part, and the findings in their places."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.exchanger import Exchanger, place_on
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Condition
from havrin_core.vocabulary.catalogue import BAD, GOOD, LEVEL_OF_VERDICT, part, verdict_of
from havrin_core.vocabulary.methods import FINDS, USUAL

RENEWED = ("exchanger", "boiler_section", "unit")
WHOLE_AT_ONCE = "pressure test"


@dataclass(frozen=True, slots=True)
class Placed:
    """One finding on the drawing; ``part`` and ``zone`` are "" where its place, as written, names none."""

    entry_id: str
    look: Condition
    verdict: str
    part: str
    zone: str
    x: float | None
    y: float | None


@dataclass(frozen=True, slots=True)
class Coverage:
    """Seen ``seen`` of ``of`` parts by ``method``; ``finds`` is the share of breaches that this would have found."""

    seen: int
    of: int
    method: str
    finds: float
    entry_id: str


def since_renewed(facts: Facts) -> list[tuple[Line, Condition]]:
    """Return what parts were like since the exchanger was changed; all of it where it was not."""
    changed = [line for line, body in facts.actions("change") if body.part in RENEWED]
    rows = [(line, look) for line, look in facts.conditions() if not look.absent]
    return [(line, look) for line, look in rows if not changed or line.moment.surely_after(changed[-1].moment)]


def coverages(facts: Facts, parts: int) -> list[Coverage]:
    """Return what was seen without a breach, each method's newest; the best first."""
    newest: dict[str, Coverage] = {}
    for line, look in since_renewed(facts):
        if look.part != "exchanger" or verdict_of(look.part, look.condition) != GOOD or line.phase == "trial":
            continue
        method = look.method or USUAL
        of = max(look.of or parts, parts)
        seen = look.seen if look.seen is not None else (of if method == WHOLE_AT_ONCE or of <= 1 else 0)
        newest[method] = Coverage(seen, of, method, FINDS[method] * min(seen / max(of, 1), 1.0), line.entry.id)
    return sorted((row for row in newest.values() if row.seen), key=lambda row: -row.finds)


def found_by_now(rows: list[Coverage]) -> float:
    """Return the share of breaches that all looks together would have found: coverage and method combined once.

    Whatever a mirror finds a borescope finds too, so that of each part only the best way of looking counts; parts that a
    lesser way saw besides are added by its own share.
    """
    found = seen = 0.0
    for row in sorted(rows, key=lambda row: -FINDS[row.method]):
        share = min(row.seen / max(row.of, 1), 1.0)
        found += FINDS[row.method] * max(share - seen, 0.0)
        seen = max(seen, share)
    return found


def part_state(key: str, exchanger: Exchanger, rows: list[Placed], seen: list[Coverage]) -> str:
    """Return how a part is marked: out or near (something found), in (seen, nothing found), none (not seen)."""
    worst = max((LEVEL_OF_VERDICT[row.verdict] for row in rows if row.part == key), default=0)
    if worst:
        return "out" if worst >= LEVEL_OF_VERDICT[BAD] else "near"
    whole = any(row.seen >= row.of for row in seen) and key in {part.key for part in exchanger.primary}
    return "in" if whole else "none"


def placed(facts: Facts, exchanger: Exchanger) -> list[Placed]:
    """Return the findings at the exchanger in their places, oldest first."""
    rows = []
    for line, look in since_renewed(facts):
        verdict = verdict_of(look.part, look.condition)
        if part(look.part).station != "exchanger" or verdict == GOOD:
            continue
        where, zone = place_on(exchanger, look.place)
        spot = zone or (where.zones[len(where.zones) // 2] if where else None)
        rows.append(
            Placed(
                line.entry.id,
                look,
                verdict,
                where.key if where else "",
                zone.key if zone else "",
                spot.x if spot else None,
                spot.y if spot else None,
            )
        )
    return rows
