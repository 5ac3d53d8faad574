"""The day of a person: its stops, each with what was last found there. As many queries for ten stops as for one."""

from collections.abc import Mapping, Sequence
from datetime import date

from havrin_core.wording.names import title, visit_reason
from havrin_core.wording.record import advice_words
from havrin_core.wording.stations import unit_line
from havrin_server.people.models import Person
from havrin_server.units.models import Contact
from havrin_server.units.queries import contacts_of
from havrin_server.visits.days import day_of, last_closed, left_over, said_there
from havrin_server.visits.models import Visit
from havrin_server.visits.schemas.round import Round, RoundVisit
from havrin_server.visits.standing_now import stands_of


def round_page(person: Person, day: date, today: date) -> Round:
    """Return the person's stops of ``day``; on ``today`` also what days before left over."""
    visits = day_of(person, day)
    older = left_over(person, today) if day == today else []
    stops = _stops([*visits, *older], person)
    return Round(day=day, today=today, stops=stops[: len(visits)], left_over=stops[len(visits) :])


def _stops(visits: Sequence[Visit], person: Person) -> list[RoundVisit]:
    last = last_closed(visit.unit.merged_into_id or visit.unit_id for visit in visits)
    tapes = said_there(last.values())
    there = contacts_of(visit.unit.site_id for visit in visits)
    stands = stands_of([visit for visit in visits if visit.closed_at is None])
    return [
        RoundVisit.of(
            visit,
            **_place(visit, there),
            unit_line=unit_line(visit.described(), person.unit_system),
            reason=visit_reason(visit.reason),
            whose=visit.technician_name,
            **_standing(visit, stands),
            closed=visit.closed_at is not None,
            entries=visit.version,
            **_before(last.get(visit.unit.merged_into_id or visit.unit_id), tapes),
        )
        for visit in visits
    ]


def _place(visit: Visit, there: Mapping[int, Contact]) -> dict[str, object]:
    site, contact = visit.unit.site, there.get(visit.unit.site_id)
    return {
        "site": site.name,
        "address": site.address,
        "access": site.access,
        "hours": site.hours,
        "hazards": site.hazards,
        "phone": f"{contact.name} {contact.phone}".strip() if contact else "",
        "vulnerable": visit.unit.vulnerable,
        "unit_name": visit.unit.name,
    }


def _standing(visit: Visit, stands: Mapping[int, object]) -> dict[str, object]:
    found = stands.get(visit.pk)
    if found is None:
        level = visit.closed_level or 0
        return {"level": level, "settled": True, "title": closed_words(visit)}
    return {name: getattr(found, name) for name in ("level", "settled", "title")}


def closed_words(visit: Visit) -> str:
    """Return how a closed visit left the unit."""
    listed = hasattr(visit, "left_title")  # as days.py fetches it, without the whole of what was stored
    said = getattr(visit, "left_title", None) if listed else (visit.frozen or {}).get("us", {}).get("title")
    return str(said) if said else (title(visit.closed_level) if visit.closed_level else "")


def _before(last: Visit | None, tapes: Mapping[int, Sequence[object]]) -> dict[str, object]:
    if last is None:
        return {"last_day": None, "last_title": "", "last_level": None, "last_words": "", "advice": []}
    return {
        "last_day": last.day,
        "last_title": closed_words(last),
        "last_level": last.closed_level,
        "last_words": last.customer_words,
        "advice": advice_words(tapes[last.pk]),  # type: ignore[arg-type]
    }
