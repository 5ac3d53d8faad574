"""The standing of open visits for lists: worked out when the tape grew, kept with the visit until it grows again."""

from collections.abc import Sequence
from dataclasses import dataclass

from django.db.models import Count, OuterRef, Q, QuerySet, Subquery, Sum
from django.db.models.functions import Coalesce

from havrin_core.wording.closing import standing_title
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.queries import assess_visit


@dataclass(frozen=True, slots=True)
class Stands:
    """How a unit stands on a visit: level 1 to 4, whether that is settled, and the answer in a few words."""

    level: int
    settled: bool
    title: str


NOT_BEGUN = Stands(0, False, "")


def with_stamp(visits: "QuerySet[Visit, Visit]") -> "QuerySet[Visit, Visit]":
    """Return ``visits`` with all that their standing hangs on counted: what is written of their unit on any visit, and amended."""
    same = Q(unit_id=OuterRef("unit_id")) | Q(unit__merged_into_id=OuterRef("unit_id"))
    written = Visit.objects.filter(same).order_by().annotate(one=Q(pk__gt=0)).values("one")
    said = Amendment.objects.filter(visit__unit_id=OuterRef("unit_id")).order_by().annotate(one=Q(number__gt=0))
    return visits.annotate(
        written=Coalesce(Subquery(written.annotate(total=Sum("version")).values("total")), 0),
        amended=Coalesce(Subquery(said.values("one").annotate(total=Count("pk")).values("total")), 0),
    )


def stands_of(visits: Sequence[Visit]) -> dict[int, Stands]:
    """Return the standing of each open visit that came ``with_stamp``; what is not begun is NOT_BEGUN."""
    return {visit.pk: _stands(visit) if visit.version else NOT_BEGUN for visit in visits}


def _stands(visit: Visit) -> Stands:
    stamp = f"{getattr(visit, 'written')}/{getattr(visit, 'amended')}"  # noqa: B009 - annotations
    kept = visit.stands
    if kept is None or kept["stamp"] != stamp:
        found = assess_visit(visit)
        kept = {"stamp": stamp, "level": found.level, "settled": found.settled, "title": standing_title(found)}
        Visit.objects.filter(pk=visit.pk, closed_at=None).update(stands=kept)
    return Stands(kept["level"], kept["settled"], kept["title"])
