"""Units at which nothing is planned though something should be."""

from datetime import date, timedelta

from django.db.models import Exists, OuterRef, QuerySet

from havrin_core.rules.model import NOT_YET
from havrin_server.people.models import Person
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit

YEAR = timedelta(days=365)


def _with_nothing_planned(person: Person) -> "QuerySet[Unit, Unit]":
    planned = Visit.objects.filter(unit=OuterRef("pk"), closed_at=None, cancelled_at=None)
    kept = Unit.objects.filter(site__firm_id=person.own_firm_id, retired_at=None).select_related("site")
    return kept.exclude(Exists(planned))


def left_bad(person: Person) -> "QuerySet[Unit, Unit]":
    """Return the units that were left off or in danger and at which nothing is planned, worst first."""
    rows = _with_nothing_planned(person).filter(left_level__gte=NOT_YET)
    return rows.order_by("-left_level", "-vulnerable", "left_day")


def due(person: Person, today: date) -> "QuerySet[Unit, Unit]":
    """Return the units whose last maintenance is a year ago and more, and at which nothing is planned, oldest first."""
    rows = _with_nothing_planned(person).filter(maintained_day__lte=today - YEAR)
    return rows.order_by("maintained_day", "pk")
