"""A walk as it is edited: each stop with what can be answered there, and what could be added."""

from dataclasses import replace

from havrin_core.errors import CoreError
from havrin_core.facts.facts import Facts
from havrin_core.machine.traits import parts_of
from havrin_core.machine.unit import Unit
from havrin_core.vocabulary.catalogue import SEEN, conditions, part, parts, verbs, verdict_of
from havrin_core.vocabulary.measurands import MEASURANDS
from havrin_core.walks.documents import WALKS, shipped_stops, stop_to_dict
from havrin_core.walks.model import ARRIVAL, Stop, Walk
from havrin_core.walks.progress import progress
from havrin_core.wording.names import condition_name, part_name, quantity_name, verb_name, visit_reason
from havrin_core.wording.phrases import words
from havrin_core.wording.walks import arrival_name, stop_name
from havrin_server.people.models import Person
from havrin_server.shop import services
from havrin_server.shop.circuit_schemas import Named
from havrin_server.shop.library import whole_library
from havrin_server.shop.schemas import DocumentIn, ProblemOut, WalkCheck, WalkMore, WalkStopRow

_UNSAID = ("try", "test", "zero", "power_cycle")  # verbs that have lines of their own


def walk_check(given: DocumentIn, person: Person) -> WalkCheck:
    """Return the stops of a walk; a document that is not valid is answered, not refused."""
    try:
        with services.bad_document("walk"):
            walk, unit = services.walk_unit(given.document, whole_library(person.own_firm_id))
    except CoreError as refusal:
        problem = ProblemOut.of(refusal, text=words(refusal.said), element=str(refusal.value or ""))
        return WalkCheck(problem=problem, stops=[], more=[], walks=_walks())
    there = {state.stop.key for state in progress(walk, unit, Facts(()))}
    return WalkCheck(
        problem=None,
        stops=[_row(stop, stop.key in there) for stop in walk.stops],
        more=_more(walk, unit),
        walks=_walks(),
    )


def _walks() -> list[Named]:
    return [Named(key=key, name=arrival_name() if key == ARRIVAL else visit_reason(key)) for key in WALKS]


def _row(stop: Stop, there: bool) -> WalkStopRow:
    own = part(stop.part)
    return WalkStopRow(
        key=stop.key,
        name=stop_name(stop),
        there=there,
        proves=own.safety,
        found=[Named(key=k, name=condition_name(k)) for k in conditions() if verdict_of(stop.part, k) != SEEN],
        did=[Named(key=k, name=verb_name(k)) for k in verbs() if k not in _UNSAID],
        read=[Named(key=m.key, name=quantity_name(m.key)) for m in MEASURANDS if m.station == own.station]
        + [Named(key=q, name=quantity_name(q)) for q in stop.read if _elsewhere(q, own.station)],
    )


def _elsewhere(quantity: str, station: str) -> bool:
    return all(m.key != quantity or m.station != station for m in MEASURANDS)


def _more(walk: Walk, unit: Unit) -> list[WalkMore]:
    """Return the shipped stops that the walk does not have, then a stop for each part that has none."""
    own, there = parts_of(unit), {stop.key for stop in walk.stops}
    shipped = [stop for key, stop in shipped_stops().items() if key not in there and stop.part in own]
    known = {stop.part for stop in (*walk.stops, *shipped_stops().values())}
    plain = [Stop(key, key, found=("ok",)) for key in parts() if key in own and key not in known]
    plain = [replace(stop, found=_good(stop.part)) for stop in plain if stop.key not in there]
    return [
        WalkMore(key=stop.key, name=stop_name(stop), stop=stop_to_dict(stop))
        for stop in sorted((*shipped, *plain), key=lambda stop: part_name(stop.part))
        if stop.found or stop.read or stop.proved or stop.check
    ]


def _good(key: str) -> tuple[str, ...]:
    return tuple(like for like in ("ok", "not_ok") if verdict_of(key, like) != SEEN)
