"""A stop of the day's round."""

from havrin_core.wording.closing import standing_title
from havrin_core.wording.names import visit_reason
from havrin_core.wording.record import advice_words
from havrin_core.wording.stations import unit_line
from havrin_server.people.models import Person
from havrin_server.visits.models import Visit
from havrin_server.visits.pages.earlier import closed_title
from havrin_server.visits.queries import assess_visit, earlier_visits, tape_of
from havrin_server.visits.schemas.round import RoundVisit


def round_stop(visit: Visit, person: Person) -> RoundVisit:
    """Return one stop of the round with what was last found there."""
    found = assess_visit(visit)
    last = earlier_visits(visit, 1).first()
    site = visit.unit.site
    return RoundVisit.of(
        visit,
        site=site.name,
        access=site.access,
        unit_name=visit.unit.name,
        unit_line=unit_line(visit.described(), person.unit_system),
        reason=visit_reason(visit.reason),
        level=found.level,
        title=standing_title(found),
        settled=found.settled,
        closed=visit.closed_at is not None,
        entries=visit.version,
        last_day=last.day if last else None,
        last_title=closed_title(last) if last else "",
        last_level=last.closed_level if last else None,
        last_words=last.customer_words if last else "",
        advice=advice_words(tape_of(last)) if last else [],
    )
