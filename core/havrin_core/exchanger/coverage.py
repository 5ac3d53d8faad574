"""What was seen of an exchanger, part by part, and the findings in their places."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.exchanger import Exchanger, place_on
from havrin_core.tape.entries import Entry, Look
from havrin_core.vocabulary.findings import coverage_of, finding, is_finding
from havrin_core.vocabulary.methods import FINDS, USUAL


@dataclass(frozen=True, slots=True)
class Placed:
    """One finding on the drawing; ``part`` and ``zone`` are "" where its ``place``, as written, names none."""

    entry_id: str
    finding: str
    text: str
    place: str
    part: str
    zone: str
    x: float | None
    y: float | None
    size_m: float | None
    method: str
    sure: str
    level: int


@dataclass(frozen=True, slots=True)
class Coverage:
    """Seen ``seen`` of ``of`` parts by ``method``; ``finds`` is the share of breaches that this would have found."""

    seen: int
    of: int
    method: str
    finds: float
    entry_id: str


def since_renewed(facts: Facts) -> list[tuple[Entry, Look]]:
    """Return the looks since the exchanger was changed; all of them where it was not."""
    changed = [entry.at for entry, deed in facts.deeds() if deed.action == "change_exchanger"]
    return [(e, look) for e, look in facts.looks() if not changed or e.at >= changed[-1]]


def coverages(facts: Facts, parts: int) -> list[Coverage]:
    """Return what was seen without a breach, each method's newest; the best first."""
    newest: dict[str, Coverage] = {}
    for entry, look in since_renewed(facts):
        if look.finding != "exchanger_whole":
            continue
        seen, said = coverage_of(look.place) or (parts, parts)
        of, method = max(said, parts), look.method or USUAL
        newest[method] = Coverage(seen, of, method, FINDS[method] * min(seen / max(of, 1), 1.0), entry.id)
    return sorted(newest.values(), key=lambda row: -row.finds)


def placed(facts: Facts, exchanger: Exchanger) -> list[Placed]:
    """Return the findings at the exchanger in their places, oldest first."""
    rows = []
    for entry, look in since_renewed(facts):
        if (
            not is_finding(look.finding)
            or finding(look.finding).station != "exchanger"
            or look.finding == "exchanger_whole"
        ):
            continue
        part, zone = place_on(exchanger, look.place)
        what = finding(look.finding)
        spot = zone or (part.zones[len(part.zones) // 2] if part else None)
        rows.append(
            Placed(
                entry.id, look.finding, what.text, look.place, part.key if part else "", zone.key if zone else "",
                spot.x if spot else None, spot.y if spot else None, look.size_m, look.method, look.sure, what.level,
            )
        )  # fmt: skip
    return rows
