"""Photos: taken in, given out, marked."""

import uuid

from django.http import FileResponse, HttpResponse
from django.utils import timezone
from ninja import File, Form, Router, UploadedFile

from havrin_server.captures import photos
from havrin_server.captures.schemas.photos import MarksIn
from havrin_server.incoming import Moment
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.visits.pages.visit import visit_answer
from havrin_server.visits.queries import find_visit
from havrin_server.visits.schemas.visit import VisitPage

router = Router(tags=["photos"])


@router.post("/visits/{int:visit_id}/photos", response=VisitPage)
def take_photo(
    request: SignedIn,
    visit_id: int,
    file: File[UploadedFile],
    id: Form[uuid.UUID],
    at: Form[Moment],
    station: Form[str] = "",
    caption: Form[str] = "",
) -> HttpResponse:
    """Take in a photo, once under the id that the page gave it."""
    taken = photos.Taken(id=id, at=at, station=station, caption=caption)
    photos.take_photo(visit_id, file, taken, actor=request.user, now=timezone.now())
    return visit_answer(find_visit(visit_id, request.user), request.user)


@router.get("/photos/{uuid:photo_id}", response={200: None})
def photo(request: SignedIn, photo_id: uuid.UUID, small: bool = False) -> FileResponse:
    """Return a photo, or its thumbnail."""
    require(request.user, "read")
    found = photos.find_photo(photo_id, request.user)
    chosen = found.thumbnail if small and found.thumbnail else found.file
    return FileResponse(chosen.open("rb"), content_type="image/jpeg")


@router.put("/photos/{uuid:photo_id}/marks", response=VisitPage)
def marks(request: SignedIn, photo_id: uuid.UUID, payload: MarksIn) -> HttpResponse:
    """Lay arrows and words over a photo."""
    found = photos.mark_photo(photo_id, [mark.model_dump() for mark in payload.marks], actor=request.user)
    return visit_answer(find_visit(found.visit_id, request.user), request.user)
