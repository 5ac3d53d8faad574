"""Visits to come: put on somebody's round."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from django.db import transaction
from django.db.models import Max

from havrin_core.tape.visit import REASONS_FOR_VISIT
from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows, require
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit
from havrin_server.visits.services import open_visit_rules

FARTHEST_DAYS = 800  # two heating seasons
MOST_WORDS = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanVisit:
    """A visit of a unit on a day, with its reason (a key of REASONS_FOR_VISIT) and the complaint in the customer's words."""

    unit_id: int
    reason: str
    day: date
    complaint: str


@transaction.atomic
def plan_visit(command: PlanVisit, *, actor: Person, now: datetime) -> Visit:
    """Put a visit at the end of a round; asked twice, it is one visit. Raises NotAllowed, NotFound, NotWritable.

    It goes on the round of who plans it; what the office plans, on that of who was last at the unit.
    """
    require(actor, "visit.plan")
    rows = Unit.objects.select_for_update(of=("self",)).filter(pk=command.unit_id, site__firm_id=actor.own_firm_id)
    unit = rows.first()
    if unit is None:
        raise NotFound("There is no such unit in your firm.")
    _check(command, unit.site.today(now))
    same = unit.visit_set.filter(day=command.day, reason=command.reason, closed_at=None).first()
    if same is not None:
        return same
    who = _technician(unit, actor)
    turn = Visit.objects.filter(technician=who, day=command.day).aggregate(last=Max("turn"))["last"] or 0
    return Visit.objects.create(
        unit=unit,
        reason=command.reason,
        day=command.day,
        turn=turn + 1,
        complaint=command.complaint.strip(),
        technician=who,
        house_rules=open_visit_rules(actor),
    )


def is_planned(unit: Unit, reason: str, day: date) -> bool:
    """Tell whether an open visit of ``unit`` for ``reason`` stands on ``day``."""
    return unit.visit_set.filter(day=day, reason=reason, closed_at=None).exists()


def _check(command: PlanVisit, today: date) -> None:
    if command.reason not in REASONS_FOR_VISIT:
        known = ", ".join(REASONS_FOR_VISIT)
        raise NotWritable(f"No visit reason is called {command.reason!r}: {known}.", code="reason_unknown")
    if not today <= command.day <= today + timedelta(days=FARTHEST_DAYS):
        message = f"A visit is planned for today or a day to come, at most {FARTHEST_DAYS} days ahead."
        raise NotWritable(message, code="visit_day")
    if len(command.complaint) > MOST_WORDS:
        raise NotWritable(f"The complaint: at most {MOST_WORDS} characters.", code="complaint_long")


def _technician(unit: Unit, actor: Person) -> Person:
    if allows(actor, "visit.write"):
        return actor
    last = unit.visit_set.order_by("-day", "-pk").select_related("technician").first()
    if last is None:
        raise NotWritable(
            "Nobody was at this unit yet: a technician puts its first visit on the round.", code="nobody_yet"
        )
    return last.technician
