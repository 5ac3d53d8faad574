"""Whose visits are on which day, and what is on nobody's."""

from collections.abc import Iterable
from datetime import date, timedelta

from django.db.models import Q, QuerySet
from django.db.models.fields.json import KT

from havrin_core.follow_up.urgency import Waiting, urgency
from havrin_core.tape.entries import Entry
from havrin_server.people.models import Person, Role
from havrin_server.units.queries import appliances_of
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import tapes_of

MOST_OVERDUE_DAYS = 3660  # what was forgotten for longer than that is found by search
_HEAVY = ("frozen", "pinned", "opened_with", "left_open", "past", "signature", "seal", "house_rules")


def planned(person: Person) -> "QuerySet[Visit, Visit]":
    """Return the visits of the firm that are not cancelled, without what is read of a visit itself alone.

    How a closed one left its unit is ``left_title``: the whole of what was stored of it is not fetched for that.
    """
    rows = Visit.objects.filter(unit__site__firm_id=person.own_firm_id, cancelled_at=None)
    rows = rows.select_related("unit__site__firm", "technician").annotate(left_title=KT("frozen__us__title"))
    return rows.defer(*_HEAVY, "unit__plate")


def _with_units(rows: "QuerySet[Visit, Visit]") -> "QuerySet[Visit, Visit]":
    """Return ``rows`` with all that describes their units: a day has few stops."""
    return rows.select_related("unit__model").defer(None).defer("frozen", "left_open", "past", "signature", "seal")


def own(person: Person) -> Q:
    """Return what makes a visit the person's own: theirs, or they help on it. The office and supervisors see everybody's."""
    if person.role != Role.TECHNICIAN:
        return Q(technician__isnull=False)
    return Q(technician=person) | Q(pk__in=person.helps_on.values("pk"))


def day_of(person: Person, day: date) -> list[Visit]:
    """Return the person's visits of ``day``, in the order to drive."""
    rows = _with_units(planned(person)).filter(own(person), day=day, technician__isnull=False)
    return list(rows.order_by("technician__first_name", "technician_id", "turn", "start", "pk"))


def left_over(person: Person, today: date) -> list[Visit]:
    """Return the person's visits of days before ``today`` that nobody closed or cancelled, oldest first."""
    since = today - timedelta(days=MOST_OVERDUE_DAYS)
    rows = _with_units(planned(person)).filter(own(person), closed_at=None, day__lt=today, day__gte=since)
    return list(rows.filter(technician__isnull=False).order_by("day", "turn", "pk"))


def between(person: Person, first: date, last: date) -> list[Visit]:
    """Return the firm's visits on somebody's day, from ``first`` to ``last``, as a board shows them."""
    rows = planned(person).filter(day__gte=first, day__lte=last, technician__isnull=False)
    return list(rows.order_by("day", "turn", "start", "pk").prefetch_related("helpers"))


def on_no_day(person: Person, today: date) -> list[Visit]:
    """Return what is nobody's and what somebody's day left over, worst first: danger, who is there, days overdue."""
    since = today - timedelta(days=MOST_OVERDUE_DAYS)
    waits = Q(technician=None) | Q(day__lt=today, day__gte=since)
    rows = planned(person).filter(waits, closed_at=None)
    return sorted(rows.prefetch_related("helpers"), key=lambda visit: urgency(waiting(visit, today)))


def waiting(visit: Visit, today: date) -> Waiting:
    """Return what says how urgent a visit is."""
    unit = visit.unit
    return Waiting(unit.left_level, visit.reason, bool(unit.vulnerable), (today - visit.day).days)


def last_closed(unit_ids: Iterable[int]) -> dict[int, Visit]:
    """Return the newest closed visit of each appliance, by the id that it goes by; what it says is ``left_title``."""
    appliances = appliances_of(unit_ids)
    rows = Visit.objects.filter(unit__in=appliances, closed_at__isnull=False).defer(*_HEAVY)
    newest: dict[int, Visit] = {}
    for visit in (
        rows.annotate(left_title=KT("frozen__us__title")).order_by("unit_id", "-day", "-pk").distinct("unit_id")
    ):
        other = newest.setdefault(appliances[visit.unit_id], visit)
        if (visit.day, visit.pk) > (other.day, other.pk):
            newest[appliances[visit.unit_id]] = visit
    return newest


def said_there(visits: Iterable[Visit]) -> dict[int, tuple[Entry, ...]]:
    """Return the tapes of visits, by their ids."""
    return tapes_of(visit.pk for visit in visits)
