"""Live capture: what devices send, what pages listen to, traces and what they say."""

import io
import uuid
from collections.abc import Callable

from asgiref.sync import sync_to_async
from django.contrib.auth import get_user
from django.db import InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.utils import timezone
from ninja import File, Form, Router, Status, UploadedFile
from ninja.errors import AuthenticationError
from ninja.security import HttpBearer
from pydantic import BaseModel

from havrin_core.traces.samples_csv import write_samples
from havrin_server.captures import fanout, from_traces, intake, live
from havrin_server.captures.pages.live import capture_out, dips_out, reading_out, traces_out
from havrin_server.captures.schemas.live import (
    BatchIn,
    BatchOut,
    CaptureIn,
    CaptureOut,
    DipsIn,
    DipsOut,
    EventIn,
    KeyOut,
    StepIn,
    TraceReadingOut,
    TracesOut,
    WindowMeansIn,
)
from havrin_server.errors import NotFound, NotWritable, ServerError
from havrin_server.instruments.queries import find_instrument
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows, require
from havrin_server.people.requests import SignedIn
from havrin_server.people.session_store import SessionStore
from havrin_server.streams import EVENTS
from havrin_server.visits.models import Visit
from havrin_server.visits.pages.visit import visit_answer
from havrin_server.visits.queries import find_visit
from havrin_server.visits.schemas.visit import VisitPage
from havrin_server.visits.whole import whole_or_nothing

router = Router(tags=["live"])
_CSV_MOST_BYTES = 60_000_000


class DeviceAuth(HttpBearer):
    """An instrument's program shows its key, nothing else; whose it is, is asked with the batch: one way to the database."""

    def authenticate(self, request: HttpRequest, token: str) -> str | None:
        """Return the key as it was shown."""
        return token or None


class FromDevice(HttpRequest):
    """A request of an instrument's program: for the types alone."""

    auth: str


@router.post("/capture/batches", response=BatchOut, auth=DeviceAuth())
def take_batch(request: FromDevice, payload: BatchIn) -> BatchOut:
    """Take a batch of samples in. It is acknowledged only when it is stored."""
    batch = intake.Batch(
        payload.device_time_s, payload.sequence, {q: (c.t, c.v) for q, c in payload.channels.items()}, payload.simulated
    )
    try:
        taken = intake.take_batch(request.auth, batch, timezone.now())
    except NotFound as unknown:
        raise AuthenticationError(message="No instrument has this key.") from unknown
    return BatchOut.of(taken)


@router.post("/instruments/{int:instrument_id}/key", response=KeyOut)
def make_key(request: SignedIn, instrument_id: int) -> KeyOut:
    """Make a new key for an instrument's program."""
    require(request.user, "shop.write")
    instrument = find_instrument(instrument_id, request.user)
    return KeyOut(key=live.make_key(instrument, timezone.now(), actor=request.user))


@router.delete("/instruments/{int:instrument_id}/key", response={204: None})
def revoke_key(request: SignedIn, instrument_id: int) -> Status[None]:
    """Take the key of an instrument's program back."""
    require(request.user, "shop.write")
    live.revoke_key(find_instrument(instrument_id, request.user), actor=request.user)
    return Status(204, None)


@router.get("/visits/{int:visit_id}/captures", response=list[CaptureOut])
def captures(request: SignedIn, visit_id: int) -> list[CaptureOut]:
    """Return the visit's captures, newest first."""
    require(request.user, "read")
    return [capture_out(c) for c in live.captures_of(find_visit(visit_id, request.user))]


@router.post("/visits/{int:visit_id}/captures", response=CaptureOut)
def start(request: SignedIn, visit_id: int, payload: CaptureIn) -> CaptureOut:
    """Let instruments record on this visit."""
    capture = live.start_capture(visit_id, payload.instruments, payload.stage, actor=request.user, now=timezone.now())
    return capture_out(capture)


@router.post("/visits/{int:visit_id}/captures/csv", response=CaptureOut)
def take_csv(request: SignedIn, visit_id: int, file: File[UploadedFile], instrument: Form[int]) -> CaptureOut:
    """Keep the samples of a CSV file (as ``samples.csv`` gives them) as a capture of this visit."""
    require(request.user, "visit.write")  # who may, and where: before anything of the file is read
    find_visit(visit_id, request.user)
    if (file.size or 0) > _CSV_MOST_BYTES:
        raise NotWritable("The file is over 60 MB: cut it.", code="csv_large")
    assert file.file is not None  # an upload that was taken in
    with io.TextIOWrapper(file.file, encoding="utf-8", errors="replace", newline="") as text:
        return capture_out(live.take_csv(visit_id, instrument, text, actor=request.user, now=timezone.now()))


@router.post("/captures/{uuid:capture_id}/end", response=CaptureOut)
def end(request: SignedIn, capture_id: uuid.UUID) -> CaptureOut:
    """End a capture."""
    capture = live.find_capture(capture_id, request.user)
    live.end_capture(capture, actor=request.user, now=timezone.now())
    capture.refresh_from_db()
    return capture_out(capture)


@router.get("/captures/{uuid:capture_id}/traces", response=TracesOut)
def traces(
    request: SignedIn, capture_id: uuid.UUID, start_s: float | None = None, end_s: float | None = None
) -> TracesOut:
    """Return a capture's channels for drawing."""
    require(request.user, "read")
    return traces_out(live.find_capture(capture_id, request.user), request.user.unit_system, start_s, end_s)


@router.get("/captures/{uuid:capture_id}/dips", response=DipsOut)
def dips(request: SignedIn, capture_id: uuid.UUID, quantity: str, set_point: float | None = None) -> DipsOut:
    """Return the dips of a channel, and which channel moved first in each."""
    require(request.user, "read")
    return dips_out(live.find_capture(capture_id, request.user), quantity, set_point, request.user.unit_system)


@whole_or_nothing()
def _written(write: Callable[..., Visit], request: SignedIn, capture_id: uuid.UUID, payload: BaseModel) -> HttpResponse:
    """Have ``write`` put on the tape what the payload says of a capture; return the visit as it stands then."""
    capture, given = live.find_capture(capture_id, request.user), payload.model_dump()
    visit = write(capture, given.pop("id"), **given, actor=request.user, now=timezone.now())
    return visit_answer(visit, request.user)


@router.post("/captures/{uuid:capture_id}/dips", response=VisitPage)
def write_dips(request: SignedIn, capture_id: uuid.UUID, payload: DipsIn) -> HttpResponse:
    """Write the worst of a channel on the tape with the trace attached, and the contact that let go where one is named."""
    return _written(from_traces.write_dips, request, capture_id, payload)


@router.get("/captures/{uuid:capture_id}/reading", response=TraceReadingOut)
def reading(request: SignedIn, capture_id: uuid.UUID) -> TraceReadingOut:
    """Return what a trace says by itself: still stretches, events, and what moved at each."""
    require(request.user, "read")
    return reading_out(live.find_capture(capture_id, request.user), request.user.unit_system)


@router.post("/captures/{uuid:capture_id}/events", response=TraceReadingOut)
def mark_event(request: SignedIn, capture_id: uuid.UUID, payload: EventIn) -> TraceReadingOut:
    """Mark an event on a trace."""
    capture = live.find_capture(capture_id, request.user)
    from_traces.mark_event(capture, payload.id, payload.kind, payload.at_s, actor=request.user, now=timezone.now())
    return reading_out(capture, request.user.unit_system)


@router.post("/captures/{uuid:capture_id}/step", response=VisitPage)
def write_step(request: SignedIn, capture_id: uuid.UUID, payload: StepIn) -> HttpResponse:
    """Write the O2 step at an event on the tape, with the trace attached."""
    return _written(from_traces.write_step, request, capture_id, payload)


@router.get("/captures/{uuid:capture_id}/samples.csv", include_in_schema=False)
def samples_csv(request: SignedIn, capture_id: uuid.UUID) -> HttpResponse:
    """Return every sample as it was stored: channel, seconds since the capture began, value in canonical units."""
    require(request.user, "read")
    text = io.StringIO()
    write_samples(text, live.traces(live.find_capture(capture_id, request.user)))
    return HttpResponse(text.getvalue(), content_type="text/csv; charset=utf-8")


@router.post("/captures/{uuid:capture_id}/means", response=VisitPage)
def write_means(request: SignedIn, capture_id: uuid.UUID, payload: WindowMeansIn) -> HttpResponse:
    """Write the means of a stretch on the tape, with the trace attached."""
    return _written(from_traces.write_means, request, capture_id, payload)


@router.get("/visits/{int:visit_id}/live", include_in_schema=False)
async def listen(request: SignedIn, visit_id: int) -> StreamingHttpResponse:
    """Stream the samples of this visit as they arrive, as server-sent events."""
    fanout.must_have_room(await _person_reading(request, visit_id))
    words = fanout.stream(visit_id, request.user.pk, lambda: _still_reads(request, visit_id))
    response = StreamingHttpResponse(words, content_type=EVENTS)
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"
    return response


@sync_to_async
def _person_reading(request: SignedIn, visit_id: int) -> int:
    """Return whose page listens. Raises NotAllowed, NotFound. The database is left: the page listens for hours."""
    try:
        require(request.user, "read")
        find_visit(visit_id, request.user)
        return request.user.pk
    finally:
        connection.close()


@sync_to_async
def _still_reads(request: SignedIn, visit_id: int) -> bool:
    """Tell whether the session that opened the page still stands, and its person may still read the visit."""
    try:
        person = get_user(_as_it_is_now(request))
        if not isinstance(person, Person) or not allows(person, "read"):
            return False
        find_visit(visit_id, person)
        return True
    except ServerError:
        return False
    except (OperationalError, InterfaceError):
        return True  # the database is away: asked again later
    finally:
        connection.close()


def _as_it_is_now(request: HttpRequest) -> HttpRequest:
    """Return a request with the session as it is stored now: what was read when the page opened may have ended since."""
    asked = HttpRequest()
    asked.session = SessionStore(request.session.session_key)
    return asked
