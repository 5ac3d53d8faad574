"""``assess``: unit, house rules and tape in, assessment out. No clock, no files, no state."""

from dataclasses import replace
from datetime import datetime

from havrin_core.errors import UnknownName
from havrin_core.facts.facts import Facts
from havrin_core.facts.passed_over import passed_over
from havrin_core.facts.plate_values import plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.machine.unit import Unit
from havrin_core.phrases import phrase
from havrin_core.rules.context import Context
from havrin_core.rules.demands import cycles_after
from havrin_core.rules.every import every_reason
from havrin_core.rules.flue import flue_views
from havrin_core.rules.model import LEAVE, NOT_YET, SHUT_DOWN, Missing, Reason
from havrin_core.rules.pairs import changes_between
from havrin_core.rules.practice import remarks_of
from havrin_core.rules.readings import reading_views
from havrin_core.rules.work import missing
from havrin_core.standing.closing import holds_of, leaving_of, nobody_told, put_backs_of
from havrin_core.standing.ledger import ledger_of
from havrin_core.standing.model import Assessment
from havrin_core.standing.next_step import next_step
from havrin_core.standing.stations import station_views
from havrin_core.tape.entries import NOT_TOUCHED, Said
from havrin_core.tape.visit import REASONS_FOR_VISIT, VisitTape


def context_of(unit: Unit, rules: HouseRules, visit: VisitTape) -> Context:
    """Return all that a rule may look at: the unit with what the tape read off its plate. Raises UnknownName (reason)."""
    if visit.reason not in REASONS_FOR_VISIT:
        known = ", ".join(REASONS_FOR_VISIT)
        raise UnknownName(
            "reason_unknown", phrase("no_visit_reason_called", reason=visit.reason, known=known), value=visit.reason
        )
    facts = Facts(visit.entries, visit.before.entries)
    return Context(plated(unit, visit.entries), rules, visit.reason, facts, visit.accuracies, visit.before.owed)


def assess(unit: Unit, rules: HouseRules, visit: VisitTape, leave: str | None = None) -> Assessment:
    """Return the standing of ``unit`` after ``visit``, to be left as ``leave`` (one of WAYS_LEFT; None: as was said).

    Worst reason wins. What is missing holds the level at 3 whatever else is good, for "leave running" is said only of
    what was shown; on a unit that was not touched nothing is asked for. Raises UnknownName (visit reason).
    """
    context = context_of(unit, rules, visit)
    leaving, waiting_for = leaving_of(context, leave)
    readings, flue = reading_views(context), flue_views(context)
    open_proofs = [] if leaving == NOT_TOUCHED else missing(context)
    reasons = [_carried(context, reason) for reason in every_reason(context, _bare(context, unit), flue)]
    reasons = sorted([*reasons, *_overrides(context)], key=lambda reason: -reason.level)
    level = _level(context, reasons, open_proofs)
    settled = leaving != NOT_TOUCHED and (not open_proofs or any(reason.level >= NOT_YET for reason in reasons))
    still = context.facts.still_abnormal()
    owner_notice_due = nobody_told(context)
    room_co = context.facts.newest("room_co_ppm", None)
    return Assessment(
        level=level,
        settled=settled,
        reasons=tuple(reasons),
        missing=tuple(open_proofs),
        leaving=leaving,
        waiting_for=waiting_for,
        holds=holds_of(context, level, reasons, leaving),
        next_step=next_step(reasons, open_proofs, still, owner_notice_due, passed_over(context.facts)),
        stations=tuple(station_views(context, readings, open_proofs, reasons)),
        readings=tuple(readings),
        flue=tuple(flue),
        abnormal=tuple(still),
        put_backs=put_backs_of(context),
        cycles_shown=cycles_after(context.facts, None),
        changes=tuple(changes_between(context)),
        not_judged=tuple(_not_judged(context)),
        made_safe=any(reason.code == "shut_down" for reason in reasons),
        owner_notice_due=owner_notice_due,
        remarks=tuple(remarks_of(context)),
        ledger=tuple(ledger_of(context)),
        room_co_ppm=room_co.value if room_co else None,
        carried=_days(context, reasons),
    )


def reasons_of(unit: Unit, rules: HouseRules, visit: VisitTape) -> tuple[Reason, ...]:
    """Return what is open on ``unit`` after ``visit``, without judging how it is left. Raises as ``assess`` does."""
    context = context_of(unit, rules, visit)
    return tuple(every_reason(context, _bare(context, unit), flue_views(context)))


def _bare(context: Context, unit: Unit) -> Context:
    """Return the context of the unit without what this tape read off its plate."""
    return context if context.unit is unit else replace(context, unit=unit)


def _carried(context: Context, reason: Reason) -> Reason:
    """Return a reason that an earlier visit opened with that visit's day."""
    days = [
        line.entry.at
        for line in context.facts.lines
        if line.entry.id in reason.entry_ids and line.entry.id in context.facts.before
    ]
    return replace(reason, facts={**reason.facts, "open_since": days[-1]}) if days else reason


def _days(context: Context, reasons: list[Reason]) -> dict[str, datetime]:
    ids = {entry_id for reason in reasons for entry_id in reason.entry_ids} & context.facts.before
    return {line.entry.id: line.entry.at for line in context.facts.lines if line.entry.id in ids}


def _level(context: Context, reasons: list[Reason], open_proofs: list[Missing]) -> int:
    level = max((reason.level for reason in reasons), default=LEAVE)
    if open_proofs:
        level = max(level, NOT_YET)
    level = _milder(context, level, reasons, open_proofs)
    stricter = [body.level for _, body in context.facts.own_said("stricter") if body.level]
    return max([level, *stricter[-1:]])


def _milder(context: Context, level: int, reasons: list[Reason], open_proofs: list[Missing]) -> int:
    """Return the level under the newest supervisor's override: it covers what was known when it was set, never level 4."""
    overrides = [(line, b) for line, b in context.facts.own_said("override") if b.by_supervisor and b.level]
    if not overrides or level >= SHUT_DOWN:
        return level
    line, body = overrides[-1]
    moments = {ln.entry.id: ln.known for ln in context.facts.lines}
    newer = [
        r.level
        for r in reasons
        if any(not line.moment.surely_after(moments[i]) for i in r.entry_ids if i in moments and i != line.entry.id)
    ]
    newer += [NOT_YET for item in open_proofs if item.since is not None and item.since > line.moment.at]
    return min(level, max([body.level or level, *newer]))


def _overrides(context: Context) -> list[Reason]:
    rows = [(line, body) for line, body in context.facts.own_said("stricter", "override") if body.level is not None]
    rows = [(line, body) for line, body in rows if body.what == "stricter" or body.by_supervisor]
    return [_override(line.entry.author, line.entry.id, body) for line, body in rows]


def _override(author: str, entry_id: str, body: Said) -> Reason:
    return Reason(
        body.level or LEAVE,
        body.what,
        "",
        {"who": author, "text": body.text},
        (),
        author,
        (entry_id,),
        "decision_stands",
    )


def _not_judged(context: Context) -> list[tuple[str, str | None]]:
    """Return what is read on this kind of unit and has no limit because the plate's value was not entered."""
    lacking: list[tuple[str, str | None]] = []
    here = {station.quantity for station in context.unit.stations()}
    for quantity in ("flame_current_a", "temperature_rise_k", "external_static_pa", "water_rise_k"):
        band = band_for(context.unit, context.rules, quantity, context.unit.stage_keys[-1])
        if quantity in here and (band is None or not band.acquits):
            lacking.append((quantity, None))
    for stage in context.unit.stage_keys:
        for quantity in ("manifold_pa", "draft_pa", "input_w"):
            band = band_for(context.unit, context.rules, quantity, stage)
            if quantity in here and (band is None or not band.acquits):
                lacking.append((quantity, stage))
    return lacking
