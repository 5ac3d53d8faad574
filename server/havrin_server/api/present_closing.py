"""The end of a visit for the page: steps in the order hands do them, with what holds each."""

from django.utils import timezone

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.frost import ShutdownPlan, frost_says, shutdown_plan_of
from havrin_core.follow_up.plan import FollowUp, PartLine, Return, follow_up_of
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import SHUT_DOWN
from havrin_core.standing.closing import ABNORMAL, HOW, NOT_MADE_SAFE, NOT_SAFE_TO_RUN, TOLD
from havrin_core.standing.model import Assessment, LedgerRow
from havrin_core.wording.closing import remark_words, scheme_words, standing_title
from havrin_core.wording.ledger import ledger_line, ledger_text
from havrin_core.wording.missing import because_text, missing_starter, missing_text
from havrin_core.wording.names import visit_reason
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import reason_words
from havrin_server.api.schemas_closing import (
    ClosingOut,
    ClosingStep,
    FrostOut,
    LedgerOut,
    LinkOut,
    OrderPartOut,
    ReturnOut,
    StepLine,
)
from havrin_server.journal.models import Visit
from havrin_server.journal.planning import is_planned
from havrin_server.journal.queries import assess_visit, tape_of, unit_of
from havrin_server.journal.services import closing_obstacles
from havrin_server.people.models import Person
from havrin_server.reports.models import ShareLink
from havrin_server.reports.sharing import token_of


def closing_page(visit: Visit, person: Person) -> ClosingOut:
    """Return what closing ``visit`` takes, in the order in which hands do it."""
    tape = tape_of(visit)
    found, facts, system = assess_visit(visit, tape), Facts(tape), person.unit_system
    unit = unit_of(visit, tape)
    follow = follow_up_of(facts, visit.rules(), visit.reason, visit.day)
    return ClosingOut(
        steps=[
            _put_back(found),
            _shown(found, unit),
            _cycled(found),
            _stood(found, visit, system),
            _told(facts, found),
            _after(follow),
        ],
        obstacles=closing_obstacles(found, visit.signed_by or person.full_name),
        words=scheme_words(found, found.level, visit.rules()),
        remarks=[remark_words(remark) for remark in found.remarks],
        ledger=[_ledger(row) for row in found.ledger],
        parts=[part_out(line) for line in follow.parts],
        returns=[_return(row, visit) for row in follow.returns],
        frost=frost_out(shutdown_plan_of(facts), system),
    )


def _put_back(found: Assessment) -> ClosingStep:
    lines = [
        StepLine(text=ledger_text(row), state="noted" if row.disabled else "out", starter=ledger_line(row))
        for row in found.ledger
        if row.until is None
    ]
    return ClosingStep(
        key="put_back",
        title="Put everything back",
        lines=lines,
        holds=ABNORMAL in found.holds,
        good="No jumper, lifted lead, tee, open tap, part or setting is left.",
    )


def _shown(found: Assessment, unit: Unit) -> ClosingStep:
    lines = [
        StepLine(
            text=_with_work(missing_text(m), because_text(m)),
            state="none",
            starter=missing_starter(m, unit),
            station=m.station,
        )
        for m in found.missing
    ]
    return ClosingStep(
        key="shown",
        title="Still to show",
        lines=lines,
        holds=bool(lines) and NOT_SAFE_TO_RUN in found.holds,
        good="Everything that this visit must show is shown.",
    )


def _with_work(text: str, work: str) -> str:
    return f"{text} ({work.lower()})" if work else text


def _cycled(found: Assessment) -> ClosingStep:
    line = StepLine(
        text=f"{found.cycles_shown} full cycles watched, doors on",
        state="in" if found.cycles_shown else "none",
        starter="cycles ",
    )
    return ClosingStep(key="cycles", title="Cycle it from its own thermostat", lines=[line], holds=False, good="")


def _stood(found: Assessment, visit: Visit, system: str) -> ClosingStep:
    states = {1: "in", 2: "near", 3: "out", 4: "out"}
    said = [(reason, reason_words(reason, system)) for reason in found.reasons if reason.level > 1]
    lines = [
        StepLine(text=f"{why.text} {why.lifts}".strip(), state=states[r.level], station=r.station) for r, why in said
    ]
    holds = bool({NOT_SAFE_TO_RUN, NOT_MADE_SAFE} & set(found.holds))
    tag = words(visit.rules().words_for(found.level))
    return ClosingStep(key="standing", title=f"Standing: {standing_title(found)}", lines=lines, holds=holds, good=tag)


def _told(facts: Facts, found: Assessment) -> ClosingStep:
    lines = [StepLine(text=f"{name}: {body.text}", state="in") for key, name in _SAID for _, body in facts.said(key)]
    if found.level == SHUT_DOWN:
        lacking = [(key, how, starter) for key, how, starter in _MUST if not facts.said(key)]
        lines += [StepLine(text=how, state="none", starter=starter) for _, how, starter in lacking]
    return ClosingStep(
        key="told",
        title="Found, done, advised, refused, told",
        lines=lines,
        holds=bool({TOLD, NOT_MADE_SAFE} & set(found.holds)) or (HOW in found.holds and found.level == SHUT_DOWN),
        good="Nothing was advised or refused.",
    )


_SAID = (
    ("cause", "Cause"),
    ("advise", "Advised"),
    ("refuse", "Refused, in their words"),
    ("told", "Told"),
    ("leaves", "Left"),
    ("temporary", "For the time being"),
)
_MUST = (
    (
        "leaves",
        "Gas shut and capped where required, made unable to fire, tagged; cooling and frost protection left on",
        "shut down gas shut, tagged, ",
    ),
    ("told", "The responsible person told, in writing", "told "),
    ("vulnerable", "Who is there that cold would harm", "vulnerable "),
    ("tempheat", "Heat for the time being, or draining", "tempheat "),
)


def _after(follow: FollowUp) -> ClosingStep:
    lines = [
        StepLine(
            text=f"{row.name}: {row.state}{f' by {words(row.approver)}' if row.approver else ''}",
            state="in" if row.state == "approved" else "none",
            starter=f"approved owner {row.name.lower()}",
        )
        for row in follow.parts
    ]
    lines += [
        StepLine(text=f"{name}: order it?", state="noted", starter=f"part {name.lower()}") for name in follow.suggested
    ]
    lines += [
        StepLine(
            text=f"{visit_reason(r.reason)}, {f'{r.day:%d %B %Y}' if r.day else 'no day yet'}: {words(r.why)}",
            state="in" if r.day else "none",
            starter="again ",
        )
        for r in follow.returns
    ]
    return ClosingStep(
        key="after",
        title="Parts, approvals, return visits",
        lines=lines,
        holds=False,
        good="No part is to be ordered and nobody has to come back.",
    )


def _ledger(row: LedgerRow) -> LedgerOut:
    return LedgerOut(
        text=ledger_text(row),
        since=row.since,
        by=row.by,
        found=row.found,
        until=row.until,
        until_by=row.until_by,
        put_back=ledger_line(row),
    )


def part_out(line: PartLine) -> OrderPartOut:
    """Return a part to order."""
    return OrderPartOut(
        name=line.name,
        kit=list(line.kit),
        rule=line.rule,
        approver=words(line.approver),
        state=line.state,
        arrives=line.arrives,
    )


def _return(row: Return, visit: Visit) -> ReturnOut:
    planned = row.day is not None and is_planned(visit.unit, row.reason, row.day)
    return ReturnOut(
        reason=row.reason,
        name=visit_reason(row.reason),
        day=row.day,
        why=words(row.why),
        said=row.said,
        planned=planned,
    )


def frost_out(plan: ShutdownPlan, system: str) -> FrostOut:
    """Return the plan for the time without heat."""
    return FrostOut(
        says=words(frost_says(plan, system)),
        vulnerable=list(plan.vulnerable),
        temporary_heat=list(plan.temporary_heat),
        drained=list(plan.drained),
        refused=list(plan.refused),
        told=list(plan.told),
    )


def link_out(link: ShareLink) -> LinkOut:
    """Return a customer's link."""
    return LinkOut(
        id=link.pk,
        path=f"/shared/{token_of(link)}",
        made_by=link.made_by.full_name,
        expires_at=link.expires_at,
        revoked=link.revoked_at is not None,
        expired=link.expires_at <= timezone.now(),
        opened=link.opened,
    )
