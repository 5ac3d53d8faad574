"""What a visit leaves open for the next one: dangers, doubts that were seen, temporary repairs, the tag."""

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import NOT_YET, SHUT_DOWN
from havrin_core.standing.assess import assess
from havrin_core.tape.entries import Check, Decision, Entry, JumperIn, JumperOut, Look
from havrin_core.tape.visit import VisitTape

_STAYS = ("temporary_repair",)  # whatever its level
_OF_ITS_VISIT = ("stricter", "override")  # a person's word on one visit
_BODIES = (Look, Check, Decision, JumperIn, JumperOut)


def left_open(unit: Unit, rules: HouseRules, visit: VisitTape) -> tuple[Entry, ...]:
    """Return the entries that stand behind what ``visit`` left open; what it found open already and did not clear included.

    A reading under level 4 is left out: the next visit reads again, and its own number counts.
    """
    worst: dict[str, int] = {}
    for reason in assess(unit, rules, visit).reasons:
        if reason.code not in _OF_ITS_VISIT:
            level = SHUT_DOWN if reason.code in _STAYS else reason.level
            worst[reason.entry_id] = max(level, worst.get(reason.entry_id, 0))
    entries = Facts(visit.entries, visit.open_before).entries
    kept = [e for e in entries if _is_left(e, worst.get(e.id, 0))]
    bypassed = any(isinstance(entry.body, JumperIn | JumperOut) for entry in kept)
    return tuple(e for e in entries if e in kept or (bypassed and isinstance(e.body, JumperIn | JumperOut)))


def _is_left(entry: Entry, level: int) -> bool:
    return level >= (NOT_YET if isinstance(entry.body, _BODIES) else SHUT_DOWN)
