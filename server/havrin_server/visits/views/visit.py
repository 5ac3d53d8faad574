"""A visit's page, and everything that is written on its tape."""

import json

from django.http import HttpResponse
from django.utils import timezone
from ninja import File, Router, UploadedFile

from havrin_server.errors import NotWritable
from havrin_server.instruments import services as instruments
from havrin_server.instruments.schemas import InHandIn
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.visits import services
from havrin_server.visits.bundles import take_in_bundle
from havrin_server.visits.models import Visit
from havrin_server.visits.own_circuit import ChangeCircuit, change_circuit, keep_for_model
from havrin_server.visits.pages.arrival import arrival_page
from havrin_server.visits.pages.closing import closing_page
from havrin_server.visits.pages.exchanger import exchanger_page
from havrin_server.visits.pages.read_back import read_back_page
from havrin_server.visits.pages.string import meter_out, search_page, string_page
from havrin_server.visits.pages.visit import visit_answer
from havrin_server.visits.pages.vocabulary import pickable_lines
from havrin_server.visits.pages.walks import walks_page
from havrin_server.visits.pages.workings import workings_page
from havrin_server.visits.queries import find_visit, version_of
from havrin_server.visits.schemas.arrival import ArrivalOut
from havrin_server.visits.schemas.closing import ClosingOut
from havrin_server.visits.schemas.exchanger import ExchangerOut
from havrin_server.visits.schemas.lines import (
    CorrectionIn,
    LineIn,
    ReadBack,
    ReadBackIn,
    Vocabulary,
)
from havrin_server.visits.schemas.own_circuit import CircuitChangeIn
from havrin_server.visits.schemas.string import MeterOut, SearchStepOut, StringOut
from havrin_server.visits.schemas.visit import CloseIn, VisitPage
from havrin_server.visits.schemas.walks import WalksOut
from havrin_server.visits.schemas.workings import WorkingsOut
from havrin_server.visits.signals import visit_closed
from havrin_server.visits.views.addresses import record_address
from havrin_server.visits.whole import whole_or_nothing

router = Router(tags=["visits"])


@router.get("/visits/{int:visit_id}", response=VisitPage)
def page(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return everything that the page of a visit draws."""
    require(request.user, "read")
    return visit_answer(find_visit(visit_id, request.user), request.user)


@router.get("/visits/{int:visit_id}/arrival", response=ArrivalOut)
def arrival(request: SignedIn, visit_id: int) -> ArrivalOut:
    """Return what is asked and looked at before anything is touched."""
    require(request.user, "read")
    return arrival_page(find_visit(visit_id, request.user), request.user.unit_system)


@router.get("/visits/{int:visit_id}/walks", response=WalksOut)
def walks(request: SignedIn, visit_id: int) -> WalksOut:
    """Return the walks of the visit: what is looked at and read in order, with what was said so far."""
    require(request.user, "read")
    return walks_page(find_visit(visit_id, request.user), request.user.unit_system)


@router.get("/visits/{int:visit_id}/closing", response=ClosingOut)
def closing(request: SignedIn, visit_id: int) -> ClosingOut:
    """Return what closing the visit takes, in the order in which hands do it."""
    require(request.user, "read")
    return closing_page(find_visit(visit_id, request.user), request.user)


@router.get("/visits/{int:visit_id}/exchanger", response=ExchangerOut)
def exchanger(request: SignedIn, visit_id: int) -> ExchangerOut:
    """Return the exchanger of the visit's unit with its findings, coverage and evidence."""
    require(request.user, "read")
    return exchanger_page(find_visit(visit_id, request.user))


@router.get("/visits/{int:visit_id}/search-history", response=list[SearchStepOut])
def search_history(request: SignedIn, visit_id: int) -> list[SearchStepOut]:
    """Return how the search for the cause went, an entry a step."""
    require(request.user, "read")
    return search_page(find_visit(visit_id, request.user))


@router.get("/visits/{int:visit_id}/string", response=StringOut)
def string(request: SignedIn, visit_id: int, state: str = "") -> StringOut:
    """Return the circuit of the visit's unit with what was read on it, the sequence, and the suspects."""
    require(request.user, "read")
    return string_page(find_visit(visit_id, request.user), state)


@router.post("/visits/{int:visit_id}/circuit", response=StringOut)
def change_own_circuit(request: SignedIn, visit_id: int, payload: CircuitChangeIn) -> StringOut:
    """Put the circuit of the visit's unit right: a device put in, a wire moved, a node named, the string begun blank."""
    command = ChangeCircuit(visit_id=visit_id, change=payload.change.change(), chosen=payload.chosen)
    return string_page(change_circuit(command, actor=request.user, now=timezone.now()), "")


@router.post("/visits/{int:visit_id}/circuit/for-model", response=StringOut)
def keep_circuit_for_model(request: SignedIn, visit_id: int) -> StringOut:
    """Keep the circuit of the visit's unit for all units of its model."""
    return string_page(keep_for_model(visit_id, actor=request.user, now=timezone.now()), "")


@router.get("/visits/{int:visit_id}/workings", response=WorkingsOut)
def workings(request: SignedIn, visit_id: int) -> WorkingsOut:
    """Return the computed figures of gas, draft, air and water."""
    require(request.user, "read")
    return workings_page(find_visit(visit_id, request.user), request.user.unit_system)


@router.get("/visits/{int:visit_id}/meter", response=MeterOut | None)
def meter(request: SignedIn, visit_id: int, state: str, a: str, b: str) -> MeterOut | None:
    """Return what a voltmeter shows between two nodes of the sound circuit in ``state``."""
    require(request.user, "read")
    return meter_out(find_visit(visit_id, request.user), state, a, b)


@router.get("/visits/{int:visit_id}/vocabulary", response=Vocabulary)
def vocabulary(request: SignedIn, visit_id: int) -> Vocabulary:
    """Return the lines that can be picked at the visit's unit."""
    require(request.user, "read")
    return pickable_lines(find_visit(visit_id, request.user))


@router.get("/visits/{int:visit_id}/version", response=int)
def version(request: SignedIn, visit_id: int) -> int:
    """Return how many entries the tape has, to learn cheaply whether somebody wrote."""
    require(request.user, "read")
    return version_of(visit_id, request.user)


@router.post("/visits/{int:visit_id}/read-back", response=ReadBack)
def read_back(request: SignedIn, visit_id: int, payload: ReadBackIn) -> ReadBack:
    """Say what a line means, without writing it."""
    require(request.user, "read")
    return read_back_page(find_visit(visit_id, request.user), payload, request.user)


@router.post("/visits/{int:visit_id}/lines", response=VisitPage)
@whole_or_nothing()
def write(request: SignedIn, visit_id: int, payload: LineIn) -> HttpResponse:
    """Write a line on the tape; return the page as it stands then."""
    given = payload.model_dump()
    command = services.WriteLine(visit_id=visit_id, line_id=given.pop("id"), **given)
    return visit_answer(services.write_line(command, actor=request.user, now=timezone.now()), request.user)


@router.put("/visits/{int:visit_id}/in-hand", response=VisitPage)
def take_in_hand(request: SignedIn, visit_id: int, payload: InHandIn) -> HttpResponse:
    """Say which instruments are worked with today; readings from now on are noted with them."""
    visit = find_visit(visit_id, request.user)
    day = services.local_day(visit, timezone.now())
    instruments.take_in_hand(payload.instruments, day, actor=request.user)
    return visit_answer(visit, request.user)


@router.post("/visits/{int:visit_id}/corrections", response=VisitPage)
@whole_or_nothing()
def correct(request: SignedIn, visit_id: int, payload: CorrectionIn) -> HttpResponse:
    """Write a correction beside an entry."""
    given = payload.model_dump()
    command = services.CorrectEntry(visit_id=visit_id, correction_id=given.pop("id"), **given)
    return visit_answer(services.correct_entry(command, actor=request.user, now=timezone.now()), request.user)


@router.post("/visits/{int:visit_id}/close", response=VisitPage)
def close(request: SignedIn, visit_id: int, payload: CloseIn) -> HttpResponse:
    """Close the visit."""
    command = services.CloseVisit(visit_id=visit_id, **payload.model_dump())
    services.close_visit(command, actor=request.user, now=timezone.now())
    visit = find_visit(visit_id, request.user)
    visit_closed.send(sender=Visit, visit=visit, address=record_address(request, visit.unit_id))
    return visit_answer(visit, request.user)


@router.post("/visits/{int:visit_id}/newest", response=VisitPage)
def judge_by_newest(request: SignedIn, visit_id: int) -> HttpResponse:
    """Judge an open visit by the newest version of its unit, model, kind, circuit and instruments."""
    services.judge_by_newest(visit_id, actor=request.user, now=timezone.now())
    return visit_answer(find_visit(visit_id, request.user), request.user)


@router.post("/visits/{int:visit_id}/bundle", response=VisitPage)
@whole_or_nothing()
def bundle(request: SignedIn, visit_id: int, file: File[UploadedFile]) -> HttpResponse:
    """Merge a visit bundle's entries into this visit."""
    require(request.user, "visit.write")  # who may, and where: before anything of the file is read
    find_visit(visit_id, request.user)
    try:
        data = json.loads(file.read().decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError) as error:
        raise NotWritable("This file is not JSON, as a visit bundle is.", code="bundle_not_json") from error
    take_in_bundle(visit_id, data, actor=request.user, now=timezone.now())
    return visit_answer(find_visit(visit_id, request.user), request.user)
