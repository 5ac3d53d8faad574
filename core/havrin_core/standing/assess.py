"""``assess``: unit, house rules and tape in, assessment out. No clock, no files, no state."""

from dataclasses import replace

from havrin_core.errors import UnknownName
from havrin_core.facts.facts import Facts
from havrin_core.facts.plate_values import plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.rules.dangers import danger_reasons, shut_down_reasons
from havrin_core.rules.flue import flue_reasons, flue_views
from havrin_core.rules.fumes import fume_reasons
from havrin_core.rules.leaks import leak_reasons
from havrin_core.rules.mistakes import mistake_reasons
from havrin_core.rules.model import LEAVE, NOT_YET, SHUT_DOWN, Missing, Reason
from havrin_core.rules.pairs import changes_between
from havrin_core.rules.practice import remarks_of
from havrin_core.rules.proofs import Case, cycles_since, missing
from havrin_core.rules.readings import reading_reasons, reading_views
from havrin_core.rules.told import told_reasons
from havrin_core.rules.venting import venting_reasons
from havrin_core.standing.ledger import ledger_of
from havrin_core.standing.model import NOT_SHOWN_TITLE, TITLES, Assessment
from havrin_core.standing.next_step import next_step
from havrin_core.standing.stations import station_views
from havrin_core.tape.visit import REASONS_FOR_VISIT, VisitTape
from havrin_core.vocabulary.actions import deed, is_deed


def assess(unit: Unit, rules: HouseRules, visit: VisitTape, system: str = "us") -> Assessment:
    """Return the standing of ``unit`` after ``visit``; texts in unit system ``us`` or ``metric``.

    Worst reason wins. What is missing holds the level at 3 whatever else is good, for "leave
    running" is said only of what was shown. Raises UnknownName (visit reason, unit system).
    """
    if visit.reason not in REASONS_FOR_VISIT:
        known = ", ".join(REASONS_FOR_VISIT)
        raise UnknownName("reason_unknown", f"No visit reason is called {visit.reason!r}: {known}.", value=visit.reason)
    unit = plated(unit, visit.entries)
    case = Case(unit, rules, visit.reason, Facts(visit.entries, visit.open_before), visit.accuracies)
    readings, flue, open_proofs = reading_views(case), flue_views(case), missing(case)
    jumpers = case.facts.jumpers_in()
    reasons = danger_reasons(case, jumpers) + fume_reasons(case) + leak_reasons(case, system) + shut_down_reasons(case)
    reasons += reading_reasons(case, readings, system) + flue_reasons(case, flue) + venting_reasons(case, flue, system)
    reasons += told_reasons(case, flue, system) + mistake_reasons(case)
    reasons = sorted(_with_overrides(case, _dated(case, reasons), open_proofs), key=lambda reason: -reason.level)
    level = _level(case, reasons, open_proofs)
    settled = not open_proofs or any(reason.level >= NOT_YET for reason in reasons)
    return Assessment(
        level=level, title=TITLES[level] if settled else NOT_SHOWN_TITLE, settled=settled,
        reasons=tuple(reasons), missing=tuple(open_proofs),
        next_step=next_step(reasons, open_proofs, jumpers, _is_to_tell(case)),
        stations=tuple(station_views(case, readings, flue, open_proofs, reasons)), flue=tuple(flue),
        jumpers=tuple(jumpers), put_backs=_put_backs(case), cycles_shown=cycles_since(case, None),
        changes=tuple(changes_between(case, system)), not_judged=tuple(_not_judged(unit)), shut_down=bool(case.facts.out_of_service("shut_down")), to_tell=_is_to_tell(case),
        remarks=tuple(remarks_of(case)), ledger=tuple(ledger_of(case.facts)),
    )  # fmt: skip


def _dated(case: Case, reasons: list[Reason]) -> list[Reason]:
    """Return the reasons, each that an earlier visit left open with that visit's day."""
    days = {entry.id: entry.at for entry in case.facts.entries if entry.id in case.facts.before}
    return [
        replace(r, text=f"{r.text} Open since the visit of {days[r.entry_id]:%d %B %Y}.") if r.entry_id in days else r
        for r in reasons
    ]


def _is_to_tell(case: Case) -> bool:
    """Tell whether this visit shut the unit down and nobody was told yet, in a line of its own or in the same words."""
    own = [body for e, body in case.facts.out_of_service("shut_down") if e.id not in case.facts.before]
    told = case.facts.decisions("told") or case.facts.decisions("refused")
    return bool(own) and not told and not any("told" in body.text.lower() for body in own)


def _level(case: Case, reasons: list[Reason], open_proofs: list[Missing]) -> int:
    level = max((reason.level for reason in reasons), default=LEAVE)
    if open_proofs:
        level = max(level, NOT_YET)
    level = _milder(case, level, reasons, open_proofs)
    stricter = [b.level for _, b in case.facts.decisions("stricter") if b.level]
    return max([level, *stricter[-1:]])


def _milder(case: Case, level: int, reasons: list[Reason], open_proofs: list[Missing]) -> int:
    """Return the level under the newest supervisor's override: it covers what was known when it was set, never level 4."""
    overrides = [(e, b) for e, b in case.facts.decisions("override") if b.by_supervisor and b.level]
    if not overrides or level >= SHUT_DOWN:
        return level
    entry, body = overrides[-1]
    times = {e.id: e.at for e in case.facts.entries}
    newer = [r.level for r in reasons if r.entry_id in times and times[r.entry_id] > entry.at]
    newer += [NOT_YET for item in open_proofs if item.since is not None and item.since > entry.at]
    return min(level, max([body.level or level, *newer]))


def _with_overrides(case: Case, reasons: list[Reason], open_proofs: list[Missing]) -> list[Reason]:
    extra = []
    for entry, body in [*case.facts.decisions("stricter"), *case.facts.decisions("override")]:
        if body.level is None or (body.decision == "override" and not body.by_supervisor):
            continue
        who = "Set stricter by" if body.decision == "stricter" else "Set milder by the supervisor,"
        text = f"{who} {entry.author}: {body.text}"
        extra.append(
            Reason(
                body.level,
                body.decision,
                text,
                "It holds until the decision is taken back (“Strike” on the tape).",
                "",
                "",
                "",
                entry.author,
                entry.id,
            )
        )
    return [*reasons, *extra]


def _put_backs(case: Case) -> tuple[str, ...]:
    open_: dict[str, str] = {}
    for entry, body in case.facts.deeds():
        if is_deed(body.action) and deed(body.action).leaves_off:
            confirmed = case.facts.checks("put_back", entry.at)
            if not any(b.device in ("", body.action) for _, b in confirmed):
                open_[body.action] = deed(body.action).leaves_off
    return tuple(open_.values())


def _not_judged(unit: Unit) -> list[str]:
    plate = unit.plate
    read_here = {station.quantity for station in unit.stations()}
    wanted = (
        ("flame_current_a", "the flame signal's minimum", plate.flame_min_a),
        ("temperature_rise_k", "the temperature rise range", plate.rise_min_k),
        ("external_static_pa", "the most external static", plate.static_max_pa),
        ("water_rise_k", "the water rise range", plate.water_rise_min_k),
    )
    lacking = [name for quantity, name, value in wanted if value is None and quantity in read_here]
    for stage in plate.stages:
        label = f" ({stage.key} fire)" if stage.key != "only" else ""
        parts = (
            ("manifold_pa", "manifold pressure", stage.manifold_pa),
            ("draft_pa", "pressure switch point", stage.switch_makes_pa),
            ("input_w", "input", stage.input_w),
        )
        lacking += [f"the {name}{label}" for quantity, name, value in parts if value is None and quantity in read_here]
    return [f"Not judged: the plate's value for {name} was not entered." for name in lacking]
