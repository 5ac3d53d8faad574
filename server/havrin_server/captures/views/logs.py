"""Logs: their page, the choice of columns, means over a window, and the entry on the tape."""

import uuid

from django.http import HttpResponse
from django.utils import timezone
from ninja import File, Form, Router, UploadedFile

from havrin_core.logs.columns import DIMENSIONS
from havrin_server.captures import services
from havrin_server.captures.pages.log import log_page, window_means
from havrin_server.captures.schemas.logs import AnswerIn, LogPage, MappingIn, MeanOut, WindowIn, WriteMeansIn
from havrin_server.captures.shares import share_of
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.visits.pages.visit import visit_answer
from havrin_server.visits.queries import find_visit
from havrin_server.visits.schemas.visit import VisitPage
from havrin_server.visits.whole import whole_or_nothing

router = Router(tags=["logs"])


@router.get("/logs/{uuid:log_id}", response=LogPage)
def page(request: SignedIn, log_id: uuid.UUID) -> LogPage:
    """Return a log with its trace."""
    require(request.user, "read")
    return log_page(services.find_log(log_id, request.user), request.user.unit_system)


@router.post("/logs/{uuid:log_id}/mapping", response=LogPage)
def map_columns(request: SignedIn, log_id: uuid.UUID, payload: MappingIn) -> LogPage:
    """Read the log by the columns that the person chose."""
    log = services.find_log(log_id, request.user)
    chosen = {quantity: c.column for quantity, c in payload.columns.items()}
    columns = {quantity: chosen.get(quantity) for quantity in DIMENSIONS}
    units = {str(c.column): c.unit for c in payload.columns.values()}
    services.answer(log, {"columns": {**columns, **chosen}, "units": units}, actor=request.user)
    return log_page(log, request.user.unit_system)


@router.post("/logs/{uuid:log_id}/answers", response=LogPage)
def answer(request: SignedIn, log_id: uuid.UUID, payload: AnswerIn) -> LogPage:
    """Answer a question about the log; it is read anew with the answer."""
    log = services.find_log(log_id, request.user)
    services.answer(log, _chosen(payload), actor=request.user)
    return log_page(log, request.user.unit_system)


def _chosen(given: AnswerIn) -> dict[str, object]:
    if given.about in ("time", "session", "fuel", "sign"):
        return {given.about: given.choice}
    if given.about == "column":
        return {"columns": {given.quantity: int(given.choice)} if given.choice.isdigit() else {given.quantity: None}}
    return {"units" if given.about == "unit" else "marks": {str(given.column): given.choice}}


@router.post("/logs/{uuid:log_id}/window", response=list[MeanOut])
def means(request: SignedIn, log_id: uuid.UUID, payload: WindowIn) -> list[MeanOut]:
    """Return the means over a window."""
    require(request.user, "read")
    return window_means(
        services.find_log(log_id, request.user), payload.start_s, payload.end_s, request.user.unit_system
    )


@router.post("/logs/{uuid:log_id}/means", response=VisitPage)
@whole_or_nothing()
def write(request: SignedIn, log_id: uuid.UUID, payload: WriteMeansIn) -> HttpResponse:
    """Write a window's means on the tape."""
    log = services.find_log(log_id, request.user)
    services.write_means(
        log,
        payload.id,
        payload.start_s,
        payload.end_s,
        stage=payload.stage,
        phase=payload.phase,
        at=payload.at,
        actor=request.user,
        now=timezone.now(),
    )
    return visit_answer(find_visit(log.visit_id, request.user), request.user)


@router.get("/log-shares/{uuid:upload}", response=float | None)
def share(request: SignedIn, upload: uuid.UUID) -> float | None:
    """Return how much of a log that was sent is read, 0 to 1; null where none of it is read just now."""
    require(request.user, "read")
    return share_of(upload)


@router.post("/visits/{int:visit_id}/logs", response=LogPage)
def take_log(
    request: SignedIn,
    visit_id: int,
    file: File[UploadedFile],
    instrument: Form[int | None] = None,
    upload: Form[uuid.UUID | None] = None,
) -> LogPage:
    """Take in an analyzer's log; ``upload`` is the page's own name for it, by which it asks how far it is read."""
    log, remembered = services.take_log(
        visit_id, file, instrument_id=instrument, actor=request.user, now=timezone.now(), upload=upload
    )
    return log_page(log, request.user.unit_system, remembered=remembered)
