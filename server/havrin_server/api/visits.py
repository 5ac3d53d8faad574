"""A visit's page, and everything that is written on its tape."""

import json

from django.http import HttpRequest
from django.utils import timezone
from ninja import File, Form, Router, UploadedFile

from havrin_core.shorthand.model import Line, Situation
from havrin_core.shorthand.reader import read_line
from havrin_core.wording.entries import line_echo
from havrin_core.wording.phrases import words
from havrin_server.api.papers import record_address
from havrin_server.api.present import visit_page
from havrin_server.api.present_arrival import arrival_page
from havrin_server.api.present_closing import closing_page
from havrin_server.api.present_exchanger import exchanger_page
from havrin_server.api.present_log import log_page
from havrin_server.api.present_string import meter_out, string_page
from havrin_server.api.present_words import pickable_lines
from havrin_server.api.present_workings import workings_page
from havrin_server.api.schemas import (
    CloseIn,
    CorrectionIn,
    LineIn,
    LineProblem,
    LineQuestion,
    NearMeaning,
    ReadBack,
    ReadBackIn,
    VisitPage,
    Vocabulary,
)
from havrin_server.api.schemas_arrival import ArrivalOut
from havrin_server.api.schemas_closing import ClosingOut
from havrin_server.api.schemas_exchanger import ExchangerOut
from havrin_server.api.schemas_logs import LogPage
from havrin_server.api.schemas_string import MeterOut, StringOut
from havrin_server.api.schemas_workings import WorkingsOut
from havrin_server.captures import photos
from havrin_server.captures import services as captures
from havrin_server.errors import NotWritable
from havrin_server.journal import services
from havrin_server.journal.queries import find_visit, situation
from havrin_server.people.permissions import require
from havrin_server.reports.kept import print_soon

router = Router(tags=["visits"])


def _page(request: HttpRequest, visit_id: int) -> VisitPage:
    return visit_page(find_visit(visit_id, request.user), request.user)


@router.get("/{int:visit_id}", response=VisitPage)
def page(request: HttpRequest, visit_id: int) -> VisitPage:
    """Return everything that the page of a visit draws."""
    require(request.user, "read")
    return _page(request, visit_id)


@router.get("/{int:visit_id}/arrival", response=ArrivalOut)
def arrival(request: HttpRequest, visit_id: int) -> ArrivalOut:
    """Return what is asked and looked at before anything is touched."""
    require(request.user, "read")
    return arrival_page(find_visit(visit_id, request.user), request.user.unit_system)


@router.get("/{int:visit_id}/closing", response=ClosingOut)
def closing(request: HttpRequest, visit_id: int) -> ClosingOut:
    """Return what closing the visit takes, in the order in which hands do it."""
    require(request.user, "read")
    return closing_page(find_visit(visit_id, request.user), request.user)


@router.get("/{int:visit_id}/exchanger", response=ExchangerOut)
def exchanger(request: HttpRequest, visit_id: int) -> ExchangerOut:
    """Return the exchanger of the visit's unit with its findings, coverage and evidence."""
    require(request.user, "read")
    return exchanger_page(find_visit(visit_id, request.user))


@router.get("/{int:visit_id}/string", response=StringOut)
def string(request: HttpRequest, visit_id: int, state: str = "") -> StringOut:
    """Return the circuit of the visit's unit with what was read on it, the sequence, and the suspects."""
    require(request.user, "read")
    return string_page(find_visit(visit_id, request.user), state)


@router.get("/{int:visit_id}/workings", response=WorkingsOut)
def workings(request: HttpRequest, visit_id: int) -> WorkingsOut:
    """Return the computed figures of gas, draft, air and water."""
    require(request.user, "read")
    return workings_page(find_visit(visit_id, request.user), request.user.unit_system)


@router.get("/{int:visit_id}/meter", response=MeterOut | None)
def meter(request: HttpRequest, visit_id: int, state: str, a: str, b: str) -> MeterOut | None:
    """Return what a voltmeter shows between two nodes of the sound circuit in ``state``."""
    require(request.user, "read")
    return meter_out(find_visit(visit_id, request.user), state, a, b)


@router.get("/{int:visit_id}/vocabulary", response=Vocabulary)
def vocabulary(request: HttpRequest, visit_id: int) -> Vocabulary:
    """Return the lines that can be picked at the visit's unit."""
    require(request.user, "read")
    return pickable_lines(find_visit(visit_id, request.user).described())


@router.get("/{int:visit_id}/version", response=int)
def version(request: HttpRequest, visit_id: int) -> int:
    """Return how many entries the tape has, to learn cheaply whether somebody wrote."""
    require(request.user, "read")
    return find_visit(visit_id, request.user).version


@router.post("/{int:visit_id}/read-back", response=ReadBack)
def read_back(request: HttpRequest, visit_id: int, payload: ReadBackIn) -> ReadBack:
    """Say what a line means, without writing it."""
    require(request.user, "read")
    visit = find_visit(visit_id, request.user)
    there = situation(visit, payload.stage, payload.phase, request.user.unit_system)
    return _read_back(read_line(payload.text, there), there)


def _read_back(line: Line, there: Situation) -> ReadBack:
    problems = [
        LineProblem(
            piece=p.piece,
            text=words(p.text),
            meanings=[NearMeaning(line=near, meaning=words(meaning)) for near, meaning in p.meanings],
        )
        for p in line.problems
    ]
    return ReadBack(
        echo=line_echo(line, there),
        problems=problems,
        asks=[LineQuestion(question=words(ask.question), choices=list(ask.choices)) for ask in line.asks],
        unread=list(line.unread),
        offers_note=line.offers_note,
        doubts=[words(doubt) for doubt in line.doubts],
        writable=line.writable,
        station=line.station,
        phase=line.phase,
        stage=line.stage,
    )


@router.post("/{int:visit_id}/lines", response=VisitPage)
def write(request: HttpRequest, visit_id: int, payload: LineIn) -> VisitPage:
    """Write a line on the tape; return the page as it stands then."""
    command = services.WriteLine(
        visit_id=visit_id,
        line_id=payload.id,
        text=payload.text,
        stage=payload.stage,
        phase=payload.phase,
        at=payload.at,
        instrument_id=payload.instrument,
        sent_at=payload.sent_at,
        device=payload.device,
        as_note=payload.as_note,
    )
    return visit_page(services.write_line(command, actor=request.user, now=timezone.now()), request.user)


@router.post("/{int:visit_id}/corrections", response=VisitPage)
def correct(request: HttpRequest, visit_id: int, payload: CorrectionIn) -> VisitPage:
    """Write a correction beside an entry."""
    command = services.CorrectEntry(
        visit_id=visit_id,
        correction_id=payload.id,
        corrects=payload.corrects,
        text=payload.text,
        at=payload.at,
        why=payload.why,
        sent_at=payload.sent_at,
        device=payload.device,
    )
    return visit_page(services.correct_entry(command, actor=request.user, now=timezone.now()), request.user)


@router.post("/{int:visit_id}/close", response=VisitPage)
def close(request: HttpRequest, visit_id: int, payload: CloseIn) -> VisitPage:
    """Close the visit."""
    command = services.CloseVisit(visit_id=visit_id, **payload.model_dump())
    services.close_visit(command, actor=request.user, now=timezone.now())
    visit = find_visit(visit_id, request.user)
    print_soon(visit, record_address(request, visit.unit_id))
    return visit_page(visit, request.user)


@router.post("/{int:visit_id}/newest", response=VisitPage)
def judge_by_newest(request: HttpRequest, visit_id: int) -> VisitPage:
    """Judge an open visit by the newest version of its unit, model, kind, circuit and instruments."""
    services.judge_by_newest(visit_id, actor=request.user, now=timezone.now())
    return _page(request, visit_id)


@router.post("/{int:visit_id}/bundle", response=VisitPage)
def take_in_bundle(request: HttpRequest, visit_id: int, file: UploadedFile = File(...)) -> VisitPage:
    """Merge a visit bundle's entries into this visit."""
    try:
        data = json.loads(file.read().decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError) as error:
        raise NotWritable("This file is no JSON: a visit bundle is.", code="bundle_not_json") from error
    services.take_in_bundle(visit_id, data, actor=request.user, now=timezone.now())
    return _page(request, visit_id)


@router.post("/{int:visit_id}/logs", response=LogPage)
def take_log(
    request: HttpRequest, visit_id: int, file: UploadedFile = File(...), instrument: int | None = Form(None)
) -> LogPage:
    """Take in an analyzer's log."""
    log, remembered = captures.take_log(
        visit_id, file, instrument_id=instrument, actor=request.user, now=timezone.now()
    )
    return log_page(log, request.user.unit_system, remembered=remembered)


@router.post("/{int:visit_id}/photos", response=VisitPage)
def take_photo(
    request: HttpRequest,
    visit_id: int,
    file: UploadedFile = File(...),
    station: str = Form(""),
    caption: str = Form(""),
) -> VisitPage:
    """Take in a photo."""
    photos.take_photo(visit_id, file, station=station, caption=caption, actor=request.user, now=timezone.now())
    return _page(request, visit_id)
