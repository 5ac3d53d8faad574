"""The board: days and people, what is on no day, and what nobody has planned yet."""

from collections.abc import Iterable, Mapping
from datetime import date, timedelta

from havrin_core.follow_up.urgency import level_of
from havrin_core.wording.names import VISIT_REASONS, visit_reason
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows
from havrin_server.units.models import Unit
from havrin_server.visits.days import between, on_no_day, waiting
from havrin_server.visits.models import Visit
from havrin_server.visits.pages.round import closed_words
from havrin_server.visits.planning import who_goes_out
from havrin_server.visits.schemas.round import Board, BoardPerson, BoardVisit, LeftUnit
from havrin_server.visits.standing_now import NOT_BEGUN, Stands, stands_of
from havrin_server.visits.unplanned import due, left_bad

MOST_DUE = 30


def board_page(person: Person, first: date, days: int, today: date) -> Board:
    """Return the board of ``days`` days from ``first`` on."""
    last = first + timedelta(days=days - 1)
    planned, waits = between(person, first, last), on_no_day(person, today)
    stands = stands_of([visit for visit in (*planned, *waits) if visit.closed_at is None])
    overdue = due(person, today)
    return Board(
        today=today,
        days=[first + timedelta(days=n) for n in range(days)],
        people=[BoardPerson.of(one, name=one.full_name) for one in who_goes_out(person)],
        visits=[board_visit(visit, today, stands) for visit in planned],
        on_no_day=[board_visit(visit, today, stands) for visit in waits],
        left_bad=_units(left_bad(person)),
        due=_units(overdue[:MOST_DUE]),
        due_in_all=overdue.count(),
        reasons=dict(VISIT_REASONS),
        may_plan=allows(person, "visit.plan"),
    )


def board_visit(visit: Visit, today: date, stands: Mapping[int, Stands] | None = None) -> BoardVisit:
    """Return one visit as the board shows it."""
    unit, now = visit.unit, (stands or {}).get(visit.pk, NOT_BEGUN)
    state = "closed" if visit.closed_at else "under_way" if visit.version else "planned"
    shown = {
        "closed": (visit.closed_level or 0, closed_words(visit)),
        "under_way": (now.level, now.title),
        "planned": (unit.left_level or 0, unit.left_title),
    }
    level, title = shown[state]
    return BoardVisit.of(
        visit,
        label=unit.label,
        place=unit.place,
        site=unit.site.name,
        zone=unit.site.zoneinfo().key,
        reason_key=visit.reason,
        reason=visit_reason(visit.reason),
        helpers=[one.pk for one in visit.helpers.all()],
        state=state,
        level=level,
        title=title,
        urgent=max(level_of(waiting(visit, today)), now.level),
        vulnerable=unit.vulnerable,
        over=0 if visit.closed_at else max((today - visit.day).days, 0),
    )


def _units(rows: Iterable[Unit]) -> list[LeftUnit]:
    return [
        LeftUnit.of(unit, site=unit.site.name, level=unit.left_level, title=unit.left_title, day=unit.left_day)
        for unit in rows
    ]
