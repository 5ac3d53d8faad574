"""The walks of a visit: the one for its reason, and the look-over on arrival."""

from functools import lru_cache

from havrin_core.facts.facts import Facts
from havrin_core.walks.before import Before, newest_of, said_on
from havrin_core.walks.model import ARRIVAL, Walk
from havrin_core.walks.progress import progress
from havrin_core.wording.walks import stop_words
from havrin_server.shop.walks import walk_for
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import earlier_visits, tape_of, unit_of
from havrin_server.visits.schemas.walks import WalkOut, WalksOut, WalkStopOut


def walks_page(visit: Visit, system: str) -> WalksOut:
    """Return the visit's walks, each stop with what was said there today and before."""
    tape = tape_of(visit)
    unit, facts = unit_of(visit, tape), Facts(tape)
    rules = visit.rules()
    before = newest_of(_said_on(pk) for pk in earlier_visits(visit).values_list("pk", flat=True))

    def out(walk: Walk) -> WalkOut:
        states = progress(walk, unit, facts)
        stops = [WalkStopOut.of(stop_words(state, unit, rules, system, before)) for state in states]
        return WalkOut(key=walk.key, name=walk.name, own=bool(walk.kind), stops=stops)

    found = (walk_for(visit.unit.site.firm_id, unit.kind.key, key) for key in (visit.reason, ARRIVAL))
    return WalksOut(walks=[out(walk) for walk in found if walk is not None])


@lru_cache(maxsize=4096)
def _said_on(visit_id: int) -> Before:
    # A closed visit never changes: what it said is worked out once per process.
    visit = Visit.objects.get(pk=visit_id)
    return said_on(Facts(tape_of(visit)), visit.day)
