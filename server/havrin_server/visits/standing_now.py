"""The standing of open visits for lists: worked out when the tape grew, kept with the visit until it grows again."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from django.db.models import Count, Sum

from havrin_core.wording.closing import standing_title
from havrin_server.units.queries import appliances_of
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.queries import assess_visit


@dataclass(frozen=True, slots=True)
class Stands:
    """How a unit stands on a visit: level 1 to 4, whether that is settled, and the answer in a few words."""

    level: int
    settled: bool
    title: str


NOT_BEGUN = Stands(0, False, "")


def stands_of(visits: Sequence[Visit]) -> dict[int, Stands]:
    """Return the standing of each open visit; what is not begun is NOT_BEGUN."""
    stamps = _stamps([visit for visit in visits if visit.version])
    return {visit.pk: _stands(visit, stamps[visit.pk]) if visit.version else NOT_BEGUN for visit in visits}


def _stamps(visits: Sequence[Visit]) -> dict[int, str]:
    """Return, for each visit, all that its standing hangs on counted: what is written of its appliance on any visit, and amended."""
    if not visits:
        return {}
    appliances = appliances_of(visit.unit_id for visit in visits)
    rows = Visit.objects.filter(unit__in=appliances).order_by().values_list("unit_id")
    written = dict(rows.annotate(total=Sum("version")))
    said = Amendment.objects.filter(visit__unit__in=appliances).order_by().values_list("visit__unit_id")
    amended = dict(said.annotate(total=Count("pk")))
    sums: dict[int, list[int]] = defaultdict(lambda: [0, 0])
    for unit_id, appliance in appliances.items():
        sums[appliance][0] += written.get(unit_id, 0)
        sums[appliance][1] += amended.get(unit_id, 0)
    return {visit.pk: "/".join(map(str, sums[appliances[visit.unit_id]])) for visit in visits}


def _stands(visit: Visit, stamp: str) -> Stands:
    kept = visit.stands
    if kept is None or kept["stamp"] != stamp:
        found = assess_visit(visit)
        kept = {"stamp": stamp, "level": found.level, "settled": found.settled, "title": standing_title(found)}
        Visit.objects.filter(pk=visit.pk, closed_at=None).update(stands=kept)
    return Stands(kept["level"], kept["settled"], kept["title"])
