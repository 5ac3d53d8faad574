"""A visit as the page draws it: the core's assessment in the person's units. No rule of the job here."""

from django.http import HttpResponse
from django.utils import timezone

from havrin_core.machine.exchanger import exchanger_of
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.physics.constants import O2_AMBIENT_PCT
from havrin_core.physics.fuels import Fuel, fuel_to_tell_apart
from havrin_core.quantities.formats import number
from havrin_core.rules.model import NOT_YET
from havrin_core.search.visit_search import is_searching
from havrin_core.standing.model import Assessment, NextStep
from havrin_core.standing.next_step import next_step_of
from havrin_core.tape.entries import WAYS_LEFT, Entry
from havrin_core.wording.closing import change_words
from havrin_core.wording.entries import echo
from havrin_core.wording.ledger import put_back_line, still_open, to_put_back
from havrin_core.wording.names import visit_reason, way_left
from havrin_core.wording.stations import unit_line
from havrin_server.figures.schemas import RangeOut, Shown
from havrin_server.instruments.pages import instruments_out
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows
from havrin_server.view_model import as_answer
from havrin_server.visits.amendments import entries_of, written_at
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.pages.earlier import earlier_out
from havrin_server.visits.pages.flue import flue_out
from havrin_server.visits.pages.standing import standing_out
from havrin_server.visits.pages.stations import paths_out
from havrin_server.visits.pages.tape import tape_out
from havrin_server.visits.pins import moved_on, moved_words
from havrin_server.visits.queries import assess_visit, earlier_visits, suspects_of, tape_of, unit_of
from havrin_server.visits.schemas.closing import AmendmentOut, KeptPaper
from havrin_server.visits.schemas.flue import FuelLine
from havrin_server.visits.schemas.visit import (
    CloseOut,
    JumperOut,
    LogOut,
    PhotoOut,
    StageOut,
    TieOut,
    VisitPage,
    WayOut,
)
from havrin_server.visits.services import local_day

assert O2_AMBIENT_PCT == 20.946  # the page draws its fuel lines to this point


def visit_answer(visit: Visit, person: Person) -> HttpResponse:
    """Return the page of ``visit`` as a call answers with it."""
    return as_answer(visit_page(visit, person))


def visit_page(visit: Visit, person: Person) -> VisitPage:
    """Return all that the page of ``visit`` shows to ``person``."""
    system, tape, rules, site = person.unit_system, tape_of(visit), visit.rules(), visit.unit.site
    unit = unit_of(visit, tape)
    found = assess_visit(visit, tape)
    flue = [flue_out(unit, rules, view, found, system) for view in found.flue]
    return VisitPage.of(
        visit,
        unit_name=visit.unit.name,
        unit_line=unit_line(unit, system),
        site=site.name,
        zone=site.zoneinfo().key,
        site_id=site.pk,
        reason=visit_reason(visit.reason),
        rules=rules.name,
        has_string=unit.circuit is not None,
        has_exchanger=exchanger_of(unit) is not None,
        writable=visit.closed_at is None and allows(person, "visit.write"),
        room_co=_room_co(found),
        stages=[StageOut.model_validate({"key": key, "label": STAGE_LABELS[key]}) for key in unit.stage_keys],
        paths=paths_out(unit, rules, found, flue, system),
        ties=[TieOut(device=device, feels=feels) for device, feels in unit.kind.ties],
        standing=standing_out(visit, found, _next_step(visit, unit, found, tape), unit, system),
        tape=tape_out(tape, unit, system),
        jumpers=_jumpers(found),
        flue=flue,
        fuel_line=_fuel_line(unit.fuel),
        other_fuel_line=_fuel_line(fuel_to_tell_apart(unit.fuel)),
        o2_doubt_pct=RangeOut(low=unit.kind.o2_doubt_pct[0], high=unit.kind.o2_doubt_pct[1]),
        earlier=[earlier_out(pk, system) for pk in earlier_visits(visit).values_list("pk", flat=True)],
        instruments=instruments_out(person, local_day(visit, timezone.now())),
        logs=[LogOut.of(log) for log in visit.logs.order_by("uploaded_at")],
        photos=[PhotoOut.of(photo) for photo in visit.photos.order_by("taken_at")],
        moved_on=[moved_words(version) for version in moved_on(visit)],
        close=_close(visit, found, system),
    )


def _next_step(visit: Visit, unit: Unit, found: Assessment, tape: tuple[Entry, ...]) -> NextStep | None:
    well = found.settled and found.level < NOT_YET and not found.missing
    if visit.closed_at is not None or not is_searching(visit.reason, tape, well=well):
        return found.next_step
    return next_step_of(found, suspects_of(visit, unit, tape, others=0))


def _fuel_line(fuel: Fuel) -> FuelLine:
    return FuelLine.of(fuel, name=fuel.label)


def _room_co(found: Assessment) -> Shown | None:
    return None if found.room_co_ppm is None else Shown(text=number(found.room_co_ppm, ".0f"), unit="ppm")


def _jumpers(found: Assessment) -> list[JumperOut]:
    return [
        JumperOut.of(still, text=still_open(still.how, still.device), put_back=put_back_line(still.how, still.device))
        for still in found.abnormal
    ]


def _close(visit: Visit, found: Assessment, system: str) -> CloseOut:
    # A visit that is open has neither, and this page is asked for with every line.
    papers = visit.papers.filter(amendment=None).defer("content").order_by("pk") if visit.closed_at else ()
    amendments = visit.amendments.select_related("author").order_by("at") if visit.closed_at else ()
    return CloseOut.of(
        visit,
        put_backs=[to_put_back(leaves) for leaves in found.put_backs],
        cycles_shown=found.cycles_shown,
        changes=[change_words(change, system) for change in found.changes],
        closed_by=visit.closed_by.full_name if visit.closed_by else "",
        ways=[WayOut(key=key, name=way_left(key)) for key in WAYS_LEFT],
        papers=[KeptPaper.of(paper, file=f"{paper.kind}.pdf") for paper in papers],
        amendments=[_amendment(row, system) for row in amendments],
    )


def _amendment(row: Amendment, system: str) -> AmendmentOut:
    return AmendmentOut.of(
        row,
        author=row.author.full_name,
        at=written_at(row),
        lines=[echo(entry.body, system) for entry in entries_of(row)],
        adds=bool(row.left_open["entries"]),
    )
