"""How a unit was left by its newest closed visit, kept with the unit: lists of thousands need not look for it."""

from django.db.models import Q
from django.db.models.fields.json import KT

from havrin_core.wording.names import title
from havrin_server.units.models import Unit
from havrin_server.units.queries import same_appliance
from havrin_server.visits.models import Visit


def note_left(unit_id: int) -> None:
    """Keep with a unit how its newest closed visit left it, and when it was last maintained."""
    closed = Visit.objects.filter(unit__in=same_appliance(unit_id), closed_at__isnull=False)
    rows = closed.order_by("-day", "-pk").annotate(said=KT("frozen__us__title")).values("day", "closed_level", "said")
    newest = rows.first()
    cared = rows.filter(Q(reason="maintenance") | Q(reason="start_up")).first()
    level = newest["closed_level"] if newest else None
    Unit.objects.filter(pk=unit_id).update(
        left_level=level,
        left_day=newest["day"] if newest else None,
        left_title=((newest["said"] if newest else None) or (title(level) if level else ""))[:200],
        maintained_day=cared["day"] if cared else None,
    )


def note_what_is_not_noted() -> None:
    """Fill it in for units whose visits were closed before it was kept."""
    closed = Visit.objects.filter(closed_at__isnull=False).values("unit_id")
    for unit_id in Unit.objects.filter(left_day=None, merged_into=None, pk__in=closed).values_list("pk", flat=True):
        note_left(unit_id)
