"""The end of a visit for the page: steps in the order hands do them, with what holds each."""

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.frost import FROST_LINES, ShutdownPlan, frost_says, shutdown_plan_of
from havrin_core.follow_up.plan import Return, follow_up_of
from havrin_core.standing.closing import leaves_without_heat
from havrin_core.standing.model import LedgerRow
from havrin_core.wording.closing import remark_words, scheme_words, signature_words
from havrin_core.wording.closing_steps import closing_steps
from havrin_core.wording.ledger import ledger_line, ledger_text
from havrin_core.wording.names import visit_reason
from havrin_server.people.models import Person
from havrin_server.visits.models import Visit
from havrin_server.visits.planning import is_planned
from havrin_server.visits.queries import assess_visit, tape_of, unit_of
from havrin_server.visits.schemas.closing import (
    ClosingOut,
    ClosingStepOut,
    FrostOut,
    LedgerOut,
    OrderPartOut,
    ReturnOut,
)


def closing_page(visit: Visit, person: Person) -> ClosingOut:
    """Return what closing ``visit`` takes, in the order in which hands do it."""
    tape, rules, system = tape_of(visit), visit.rules(), person.unit_system
    found, facts, unit = assess_visit(visit, tape), Facts(tape), unit_of(visit, tape)
    follow = follow_up_of(facts, rules, visit.reason, visit.day)
    steps = closing_steps(found, facts, unit, follow, rules, system)
    return ClosingOut(
        steps=[ClosingStepOut.of(step) for step in steps],
        at_signature=signature_words(found),
        words=scheme_words(found, found.level, rules),
        remarks=[remark_words(remark) for remark in found.remarks],
        ledger=[_ledger(row) for row in found.ledger],
        parts=[OrderPartOut.of(line) for line in follow.parts],
        returns=[_return(row, visit) for row in follow.returns],
        frost=_frost(shutdown_plan_of(facts), system) if leaves_without_heat(found) else None,
    )


def _ledger(row: LedgerRow) -> LedgerOut:
    return LedgerOut.of(row, text=ledger_text(row), put_back=ledger_line(row))


def _return(row: Return, visit: Visit) -> ReturnOut:
    planned = row.day is not None and is_planned(visit.unit, row.reason, row.day)
    return ReturnOut.of(row, name=visit_reason(row.reason), planned=planned, parts=list(row.parts))


def _frost(plan: ShutdownPlan, system: str) -> FrostOut:
    return FrostOut.of(plan, says=frost_says(plan, system), asked=list(FROST_LINES))
