"""What a visit leaves open for the next one: dangers and doubts with what was done about them, owed proofs, the tag.

Conservation: what is open at a close is open at the next visit, until what it names is shown. It is stored at the close.
"""

from dataclasses import replace

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, Reason
from havrin_core.standing.assess import assess, context_of
from havrin_core.standing.model import Assessment
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import NOT_TOUCHED, Abnormal, Action, Condition, Entry, Proof, Reading, Said, Trace
from havrin_core.tape.visit import LeftOpen, VisitTape
from havrin_core.vocabulary.catalogue import cured_with
from havrin_core.vocabulary.catalogue import parts as all_parts

_STAYS = ("temporary_repair",)  # whatever its level
_OF_ITS_VISIT = ("stricter", "override")  # a person's word on one visit
_ALONE = ("temporary_repair", "shut_down", "cannot_put_right")  # nothing but their own entry speaks of them


def left_open(unit: Unit, rules: HouseRules, visit: VisitTape, leave: str | None = None) -> LeftOpen:
    """Return what ``visit`` leaves open; what it found open already and did not clear included."""
    found = assess(unit, rules, visit, leave)
    context = context_of(unit, rules, visit)
    open_ = [r for r in found.reasons if r.code not in _OF_ITS_VISIT and (r.level >= NOT_YET or r.code in _STAYS)]
    kept = {entry_id for reason in open_ for entry_id in reason.entry_ids}
    kept |= {item.entry_id for item in found.missing if item.entry_id}
    kept |= {line.entry.id for reason in open_ if reason.code not in _ALONE for line in _about(context, reason)}
    entries = tuple(_as_it_counts(line) for line in context.facts.lines if line.entry.id in kept)
    return LeftOpen(entries, _owed(visit, found, leave))


def _owed(visit: VisitTape, found: Assessment, leave: str | None) -> tuple[str, ...]:
    """Return the proofs that were not shown: an untouched unit owes what it owed before, no more."""
    if (leave or found.leaving) == NOT_TOUCHED:
        return visit.before.owed
    return tuple(
        dict.fromkeys(item.proof for item in found.missing if item.because is None and item.proof != "plate_value")
    )


def _about(context: Context, reason: Reason) -> list[Line]:
    """Return what was done and shown about a reason since it first opened: part of its demands may be met already."""
    opened = [line for line in context.facts.lines if line.entry.id in reason.entry_ids]
    if not opened:
        return []
    first = min(line.moment.at for line in opened)
    parts, quantities = _subjects(reason)
    causes = {body.part for _, body in context.facts.said("cause")}
    return [
        line
        for line in context.facts.lines
        if line.moment.at >= first and _speaks_of(line, parts | _all_cured_with(causes), quantities)
    ]


def _subjects(reason: Reason) -> tuple[frozenset[str], frozenset[str]]:
    look, device = reason.facts.get("look"), reason.facts.get("device")
    parts = {look.part} if isinstance(look, Condition) else set()
    parts |= {device} if isinstance(device, str) and device else set()
    parts |= {lift.part for lift in reason.lifts if lift.part}
    quantities = {q for q in (reason.facts.get("quantity"),) if isinstance(q, str)} | _READ_FOR.get(
        reason.code.partition(".")[0], set()
    )
    return _all_cured_with(parts), frozenset(quantities)


_READ_FOR = {
    "room_co": {"room_co_ppm"},
    "people": {"room_co_ppm"},
    "co_alarm": {"room_co_ppm"},
    "room": {"room_co_ppm"},
    "register_co": {"supply_air_co_ppm", "room_co_ppm"},
    "spillage_time": {"spillage_s"},
    "line_leaks": {"gas_leak_m3_s"},
    "line_lets_by": {"gas_leak_m3_s"},
    "gas_in_the_air": {"gas_lel_pct"},
    "gas_valve": {"gas_leak_m3_s"},
    "co_action": {"co_ppm_dry", "o2_dry_pct"},
    "co_alone": {"co_ppm_dry", "o2_dry_pct"},
    "vent": {"spillage_s"},
}


def _all_cured_with(parts: set[str]) -> frozenset[str]:
    return frozenset(other for key in parts if key in all_parts() for other in cured_with(key)) | frozenset(parts)


def _speaks_of(line: Line, parts: frozenset[str], quantities: frozenset[str]) -> bool:
    match line.body:
        case Condition() | Action():
            return line.body.part in parts
        case Abnormal():
            return line.body.device in parts
        case Proof():
            return line.body.what in ("leak", "cycles") or line.body.device in parts
        case Said():
            return line.body.what in ("cause", "untag")
        case Reading():
            return line.body.quantity in quantities
        case Trace():
            return any(quantity in quantities for quantity, _, _ in line.body.means)
    return False


def _as_it_counts(line: Line) -> Entry:
    """Return the entry as it counts: corrections are settled when a visit is closed."""
    return replace(line.entry, body=line.body, phase=line.phase)
