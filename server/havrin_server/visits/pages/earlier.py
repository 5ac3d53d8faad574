"""Visits that are closed, as later ones look back on them."""

from functools import lru_cache

from havrin_core.quantities.formats import Formats, current
from havrin_core.wording.names import title, visit_reason
from havrin_core.wording.record import advice_words, reading_line
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import assess_visit, tape_of
from havrin_server.visits.schemas.visit import EarlierVisit


def earlier_out(visit_id: int, system: str) -> EarlierVisit:
    """Return a closed visit as later ones look back on it."""
    return _earlier(visit_id, system, current())


@lru_cache(maxsize=4096)
def _earlier(visit_id: int, system: str, formats: Formats) -> EarlierVisit:
    # A closed visit never changes: what it says is worked out once per process.
    visit = Visit.objects.select_related("unit__site", "unit__model", "technician").get(pk=visit_id)
    tape = tape_of(visit)
    found = assess_visit(visit, tape)
    return EarlierVisit.of(
        visit,
        reason=visit_reason(visit.reason),
        technician=visit.technician_name,
        level=visit.closed_level or found.level,
        title=closed_title(visit),
        words=visit.customer_words,
        advice=advice_words(tape),
        readings=[reading_line(reading, system) for reading in found.readings],
    )


def closed_title(visit: Visit) -> str:
    """Return how a closed visit left the unit, as it was stored; its level's name where it closed before that was stored."""
    if visit.frozen is not None:
        return str(visit.frozen["us"]["title"])
    return title(visit.closed_level) if visit.closed_level else ""
