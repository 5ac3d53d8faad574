"""The vocabulary as lines to pick: what the visit's own unit has, the usual first."""

from havrin_core.walks.model import ARRIVAL, MAINTENANCE
from havrin_core.wording.choices import part_choices, things_elsewhere
from havrin_server.shop.walks import walk_for
from havrin_server.visits.models import Visit
from havrin_server.visits.schemas.lines import PartWords, PathName, Vocabulary, WordOut
from havrin_server.visits.zones import is_cold_season


def pickable_lines(visit: Visit) -> Vocabulary:
    """Return everything that the bar's lists offer on ``visit``."""
    unit = visit.described()
    cold = is_cold_season(visit.day, visit.unit.site.zoneinfo().key)
    return Vocabulary(
        paths=[PathName.of(path) for path in unit.paths],
        parts=[PartWords.of(row) for row in part_choices(unit, _usual(visit, unit.kind.key), cold=cold)],
        elsewhere=[WordOut.of(choice) for choice in things_elsewhere()],
    )


def _usual(visit: Visit, kind: str) -> tuple[str, ...]:
    """Return the parts that are looked at on such a visit: those of its walk, else of arrival and then of maintenance."""
    firm = visit.unit.site.firm_id
    own = walk_for(firm, kind, visit.reason)
    walks = [own] if own is not None else [walk_for(firm, kind, key) for key in (ARRIVAL, MAINTENANCE)]
    return tuple(dict.fromkeys(stop.part for walk in walks if walk is not None for stop in walk.stops))
