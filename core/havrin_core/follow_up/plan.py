"""The plan after a visit: what is to be ordered, who says yes, when somebody comes back and why."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.parts import PARTS, kit_of, order_part, part_rule
from havrin_core.house.house_rules import HouseRules
from havrin_core.phrases import Saying, phrase
from havrin_core.quantities.dates import date_in
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import AS_TEMPORARY, NOT_FOUND, Action, Said

APPROVERS = {"owner": phrase("owner"), "tenant": phrase("tenant"), "manager": phrase("facility_manager")}
RECHECK_DAYS, AFTER_ARRIVAL_DAYS, YEAR_DAYS = 3, 1, 365
TO_ASK, APPROVED, DECLINED = "to ask", "approved", "declined"
_ANSWERS = {"approve": TO_ASK, "approved": APPROVED, "declined": DECLINED}
_OPENS = ("fluttering", "chattering")  # contacts that were seen to let go


@dataclass(frozen=True, slots=True)
class PartLine:
    """One part to order, by its key or in own words; ``state`` is "to ask", "approved" or "declined"; ``arrives`` None while nobody knows."""

    key: str
    name: str
    kit: tuple[str, ...]
    rule: str
    approver: Saying = ""
    state: str = TO_ASK
    arrives: date | None = None
    entry_id: str = ""


@dataclass(frozen=True, slots=True)
class Return:
    """One visit to come: reason (a key of REASONS_FOR_VISIT), day or None where it hangs on something, and why.

    ``parts`` is what is fitted then, each with what goes with it.
    """

    reason: str
    day: date | None
    why: Saying
    said: bool = False  # the technician said the day
    parts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class FollowUp:
    """Parts, parts that a finding suggests and nobody ordered yet, visits to come."""

    parts: tuple[PartLine, ...]
    suggested: tuple[str, ...]
    returns: tuple[Return, ...]


def follow_up_of(facts: Facts, rules: HouseRules, reason: str, today: date) -> FollowUp:
    """Return the plan that the tape makes, seen from ``today``."""
    parts = tuple(_with_answers(facts, line, today) for line in _parts(facts, rules))
    fitting = _fitting(parts)
    returns = (
        *_said(facts, today, fitting),
        *_hanging(parts, today, fitting),
        *_recheck(facts, rules, today),
        *_season(reason, today),
    )
    return FollowUp(parts, tuple(_suggested(facts, parts)), _one_of_each(returns))


def _fitting(parts: tuple[PartLine, ...]) -> tuple[str, ...]:
    """Return what is fitted at the return: each part that was not declined, and what goes with it."""
    wanted = (line for line in parts if line.state != DECLINED)
    return tuple(f"{line.name} with {', '.join(line.kit)}" if line.kit else line.name for line in wanted)


def workday(day: date) -> date:
    """Return ``day``, or the Monday after a weekend."""
    return day + timedelta(days=(7 - day.weekday()) % 7) if day.weekday() >= 5 else day


def _parts(facts: Facts, rules: HouseRules) -> Iterator[PartLine]:
    seen: set[str] = set()
    for line, body in facts.said("order"):
        for key in body.parts:
            if key.casefold() in seen:
                continue
            seen.add(key.casefold())
            known = order_part(key)
            if known is None:
                yield PartLine(key, key, (), "", entry_id=line.entry.id)
            else:
                kit, rule = kit_of(known, rules.inducer_switch), part_rule(known, rules.replacement_switch)
                yield PartLine(key, known.name, kit, rule, entry_id=line.entry.id)


def _with_answers(facts: Facts, line: PartLine, today: date) -> PartLine:
    """Return the line with the newest answer that names its part, or names none and so means all."""
    for _, body in facts.said(*_ANSWERS):
        if body.who in APPROVERS and _names(body, line):
            line = replace(line, approver=APPROVERS[body.who], state=_ANSWERS[body.what])
    for said, body in facts.said("arrives"):
        if _names(body, line):
            line = replace(line, arrives=_day_of(said, body))
    return line


def _names(body: Said, part: PartLine) -> bool:
    """Tell whether ``body`` names the part, or names no part at all."""
    return not body.parts or part.key.casefold() in {key.casefold() for key in body.parts}


def _suggested(facts: Facts, parts: tuple[PartLine, ...]) -> Iterator[str]:
    """A part that was found wrong is suggested until it is ordered or changed."""
    found = {(look.part, look.condition) for _, look in facts.conditions() if not look.absent}
    changed = {body.part for _, body in facts.actions("change")}
    have = {line.name for line in parts}
    for part in PARTS:
        if set(part.cures) & found and part.name not in have and not changed & {key for key, _ in part.cures}:
            yield part.name


def _day_of(line: Line, body: Said) -> date | None:
    return body.until or date_in(body.text, line.entry.at.date())


def _said(facts: Facts, today: date, fitting: tuple[str, ...]) -> Iterator[Return]:
    for line, body in facts.said("again")[-1:]:
        yield Return("return_parts", _day_of(line, body), body.text, said=True, parts=fitting)


def _hanging(parts: tuple[PartLine, ...], today: date, fitting: tuple[str, ...]) -> Iterator[Return]:
    wanted = [line for line in parts if line.state != DECLINED]
    if not wanted:
        return
    waiting = [line.name.lower() for line in wanted if line.arrives is None]
    if waiting:
        yield Return("return_parts", None, phrase("hangs_arrival", waiting=", ".join(waiting)), parts=fitting)
        return
    last = max(line.arrives for line in wanted if line.arrives is not None)
    names = ", ".join(line.name.lower() for line in wanted)
    yield Return(
        "return_parts",
        workday(max(last, today) + timedelta(days=AFTER_ARRIVAL_DAYS)),
        phrase("fit_all_here", names=names, last=last),
        parts=fitting,
    )


def _recheck(facts: Facts, rules: HouseRules, today: date) -> Iterator[Return]:
    soon = workday(today + timedelta(days=RECHECK_DAYS))
    for text, until in _temporary(facts):
        yield Return("recheck", workday(until) if until else soon, phrase("temporary_repair_2", text=text))
    causes = facts.said("cause")
    rare = bool(causes) and causes[-1][1].state == NOT_FOUND
    opened = any(look.condition in _OPENS for _, look in facts.conditions() if not look.absent)
    opened = opened or (bool(causes) and causes[-1][1].condition in _OPENS)
    if rare or opened or any(not proof.passed for _, proof in facts.tried("watch")):
        why = causes[-1][1].text if rare else phrase("contact_opened_once")
        yield Return("recheck", soon, phrase("intermittent_fault", why=why))
    if facts.actions("reset") and rules.manual_reset == "twelve_cycles":
        yield Return("recheck", soon, phrase("safety_trip_reset_house_comes"))


def _temporary(facts: Facts) -> Iterator[tuple[str, date | None]]:
    lasting = [line.moment for line, _ in facts.said("lasting")]
    rows: list[tuple[Line, Said | Action]] = [
        *facts.said("temporary"),
        *((ln, b) for ln, b in facts.actions() if b.sense == AS_TEMPORARY),
    ]
    for line, body in rows:
        if not any(m.surely_after(line.moment) for m in lasting):
            text = body.text if isinstance(body, Said) else body.detail
            yield text, body.until or date_in(text, line.entry.at.date())


def _season(reason: str, today: date) -> Iterator[Return]:
    if reason in ("maintenance", "start_up"):
        yield Return(
            "maintenance", workday(today + timedelta(days=YEAR_DAYS)), phrase("next_years_maintenance_before_cold")
        )


def _one_of_each(returns: tuple[Return, ...]) -> tuple[Return, ...]:
    """Return one visit for each reason: what the technician said first, then the earliest day."""
    kept: dict[str, Return] = {}
    for row in sorted(returns, key=lambda r: (not r.said, r.day is None, r.day or date.max)):
        kept.setdefault(row.reason, row)
    return tuple(kept.values())
