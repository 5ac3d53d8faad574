"""Visits to come: planned, taken in as a call, moved, given to somebody, cancelled."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from django.db import transaction
from django.db.models import Max, QuerySet

from havrin_core.tape.visit import REASONS_FOR_VISIT
from havrin_server.errors import NotFound, NotWritable, PlanMoved
from havrin_server.people.audit import record
from havrin_server.people.models import Person, Role
from havrin_server.people.permissions import allows, require
from havrin_server.units.models import Unit
from havrin_server.units.queries import same_appliance
from havrin_server.visits.models import Visit
from havrin_server.visits.services import locked_visit, open_visit_rules

FARTHEST_DAYS = 800  # two heating seasons
MOST_WORDS = 500
MOST_HELPERS = 8
LAST_THERE = "last there"  # whoever was last at the unit; nobody where nobody was
GOES_OUT = (Role.TECHNICIAN, Role.SUPERVISOR, Role.ADMINISTRATOR)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanVisit:
    """A visit of a unit on a day, with its reason (a key of REASONS_FOR_VISIT) and the complaint in the customer's words.

    ``technician`` is a person's id, LAST_THERE, or None: on nobody's day yet, ``day`` being the one by which it is wanted.
    A return says from which visit it comes, what is to be done and what is to be fitted.
    """

    unit_id: int
    reason: str
    day: date
    complaint: str
    technician: int | str | None
    start: time | None = None
    there: str = ""
    since: str = ""
    task: str = ""
    parts: Sequence[str] = ()
    returns_from: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangePlan:
    """A plan as it is to be. ``seen`` is the plan's version that the page showed; ``technician`` None takes it off every day."""

    visit_id: int
    seen: int
    day: date
    technician: int | None
    helpers: Sequence[int]
    start: time | None
    before: int | None  # the visit of that day before which it stands; None: at the end
    reason: str
    complaint: str


@transaction.atomic
def plan_visit(command: PlanVisit, *, actor: Person, now: datetime) -> Visit:
    """Put a visit at the end of somebody's round, or on nobody's; asked twice, it is one visit.

    Raises NotAllowed, NotFound, NotWritable.
    """
    require(actor, "visit.plan")
    unit = _unit(command.unit_id, actor)
    _check(command.reason, command.day, unit.site.today(now))
    if len(command.complaint) > MOST_WORDS:
        raise NotWritable(f"The complaint: at most {MOST_WORDS} characters.", code="complaint_long")
    comes_from = _comes_from(command.returns_from, unit, actor)
    same = open_visits(unit).filter(day=command.day, reason=command.reason, task=command.task).first()
    if same is not None:
        return same
    who = _technician(command.technician, unit, actor)
    return Visit.objects.create(
        unit=unit,
        reason=command.reason,
        day=command.day,
        start=command.start,
        turn=_last_turn(who, command.day) + 1 if who else 0,
        complaint=command.complaint.strip(),
        there=command.there.strip(),
        since=command.since.strip(),
        task=command.task.strip(),
        parts=list(command.parts),
        returns_from=comes_from,
        technician=who,
        planned_by=actor,
        house_rules=open_visit_rules(actor),
    )


@transaction.atomic
def change_plan(command: ChangePlan, *, actor: Person, now: datetime) -> Visit:
    """Move a visit that is not closed: to another day, person, time or place in the row, with another reason or complaint.

    Raises NotAllowed, NotFound, NotWritable, PlanMoved (somebody changed it since it was seen; what it says by now stands).
    """
    require(actor, "visit.plan")
    visit = _open_plan(command.visit_id, actor)
    if visit.plan_version != command.seen:
        raise PlanMoved("Somebody changed this visit’s plan since you looked: it is shown as it is now.")
    _check_change(visit, command, now)
    who = _person(command.technician, actor) if command.technician is not None else None
    helpers = [_person(one, actor) for one in dict.fromkeys(command.helpers) if one != command.technician]
    if len(helpers) > MOST_HELPERS or (helpers and who is None):
        raise NotWritable(f"A visit of somebody’s takes up to {MOST_HELPERS} more.", code="helpers")
    visit.day, visit.technician, visit.start = command.day, who, command.start
    visit.reason, visit.complaint = command.reason, command.complaint.strip()
    visit.turn = 0
    visit.plan_version += 1
    visit.save(update_fields=["day", "technician", "start", "reason", "complaint", "turn", "plan_version"])
    visit.helpers.set(helpers)
    if who is not None:
        _put_in_row(visit, who, command.before)
    return visit


@transaction.atomic
def cancel_visit(visit_id: int, why: str, *, actor: Person, now: datetime) -> Visit:
    """Cancel a visit on which nothing is written, with a reason; cancelled twice it is cancelled once.

    Raises NotAllowed, NotFound, NotWritable.
    """
    require(actor, "visit.plan")
    visit = locked_visit(visit_id, actor)
    if visit.cancelled_at is not None:
        return visit
    if visit.version > 0:
        raise NotWritable("Something is written on this visit: close it, with “not touched” if so.", code="visit_begun")
    if not why.strip():
        raise NotWritable("Why is it cancelled? Whoever looks for it wants to know.", code="cancel_why")
    visit.cancelled_at, visit.cancelled_by, visit.cancelled_why = now, actor, why.strip()[:300]
    visit.plan_version += 1
    visit.save(update_fields=["cancelled_at", "cancelled_by", "cancelled_why", "plan_version"])
    record("visit_cancelled", actor, f"visit {visit.pk}, {visit.unit.name}: {visit.cancelled_why}")
    return visit


def open_visits(unit: Unit) -> QuerySet[Visit]:
    """Return what is planned or under way at an appliance."""
    return Visit.objects.filter(unit__in=same_appliance(unit.pk), closed_at=None, cancelled_at=None)


def is_planned(unit: Unit, reason: str, day: date) -> bool:
    """Tell whether an open visit of ``unit`` for ``reason`` stands on ``day``."""
    return open_visits(unit).filter(day=day, reason=reason).exists()


def who_goes_out(actor: Person) -> QuerySet[Person]:
    """Return the people of the firm on whose day a visit can be put."""
    rows = Person.objects.filter(firm_id=actor.own_firm_id, is_active=True, role__in=GOES_OUT)
    return rows.order_by("first_name", "last_name", "pk")


def _unit(unit_id: int, actor: Person) -> Unit:
    rows = Unit.objects.select_for_update(of=("self",)).filter(pk=unit_id, site__firm_id=actor.own_firm_id)
    unit = rows.select_related("site__firm").first()
    if unit is None:
        raise NotFound("There is no such unit in your firm.")
    if unit.retired_at is not None:
        raise NotWritable(f"{unit.name} is retired: no visit is planned there.", code="unit_retired")
    return unit


def _open_plan(visit_id: int, actor: Person) -> Visit:
    visit = locked_visit(visit_id, actor)
    if visit.closed_at is not None or visit.cancelled_at is not None:
        raise NotWritable("This visit is closed or cancelled: plan another.", code="visit_over")
    return visit


def _check(reason: str, day: date, today: date) -> None:
    if reason not in REASONS_FOR_VISIT:
        known = ", ".join(REASONS_FOR_VISIT)
        raise NotWritable(f"No visit reason is called {reason!r}: {known}.", code="reason_unknown")
    if not today <= day <= today + timedelta(days=FARTHEST_DAYS):
        message = f"A visit is planned for today or a day to come, at most {FARTHEST_DAYS} days ahead."
        raise NotWritable(message, code="visit_day")


def _check_change(visit: Visit, command: ChangePlan, now: datetime) -> None:
    if len(command.complaint) > MOST_WORDS:
        raise NotWritable(f"The complaint: at most {MOST_WORDS} characters.", code="complaint_long")
    # What is overdue keeps its day while only its person or its place in the row changes.
    day = max(command.day, visit.unit.site.today(now)) if command.day == visit.day else command.day
    _check(command.reason, day, visit.unit.site.today(now))
    if visit.version > 0 and (command.technician is None or command.reason != visit.reason):
        message = "Something is written on this visit: its reason stays, and it is somebody’s."
        raise NotWritable(message, code="visit_begun")


def _comes_from(visit_id: int | None, unit: Unit, actor: Person) -> Visit | None:
    if visit_id is None:
        return None
    found = Visit.objects.filter(pk=visit_id, unit__in=same_appliance(unit.pk)).first()
    if found is None:
        raise NotFound("There is no such visit of this unit to return from.")
    return found


def _technician(wanted: int | str | None, unit: Unit, actor: Person) -> Person | None:
    if wanted is None:
        return None
    if isinstance(wanted, int):
        return _person(wanted, actor)
    if allows(actor, "visit.write"):
        return actor
    there = Visit.objects.filter(unit__in=same_appliance(unit.pk), technician__is_active=True)
    last = there.order_by("-day", "-pk").select_related("technician").first()
    return last.technician if last else None


def _person(person_id: int, actor: Person) -> Person:
    found = who_goes_out(actor).filter(pk=person_id).first()
    if found is None:
        raise NotWritable("Nobody of that number goes out to visits in this firm.", code="not_out")
    return found


def _last_turn(who: Person, day: date) -> int:
    return Visit.objects.filter(technician=who, day=day).aggregate(last=Max("turn"))["last"] or 0


def _put_in_row(visit: Visit, who: Person, before: int | None) -> None:
    """Number the person's visits of that day anew, with ``visit`` before another of them, or at the end."""
    rows = Visit.objects.select_for_update(of=("self",)).filter(technician=who, day=visit.day, cancelled_at=None)
    others = list(rows.exclude(pk=visit.pk).order_by("turn", "pk"))
    at = next((index for index, one in enumerate(others) if one.pk == before), len(others))
    row = [*others[:at], visit, *others[at:]]
    for turn, one in enumerate(row, 1):
        one.turn = turn
    Visit.objects.bulk_update(row, ["turn"])
