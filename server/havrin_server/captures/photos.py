"""Use cases on photos: taken in with their content checked, marked, given out."""

import io
import uuid
from dataclasses import dataclass
from datetime import datetime
from math import isfinite
from typing import Any

from django.core.files.base import ContentFile
from django.db import transaction
from ninja import UploadedFile
from PIL import Image, ImageOps
from pillow_heif import register_heif_opener

from havrin_server.captures.models import Photo
from havrin_server.errors import FileRefused, NotFound, NotWritable, VisitClosed
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import find_visit

LARGEST_PHOTO = 20 * 1024 * 1024
FORMATS = ("JPEG", "PNG", "WEBP", "HEIF")
MOST_PIXELS = 80_000_000  # a picture that unpacks to more is refused before it is unpacked
MOST_MARKS, _MOST_WORDS = 20, 80
_EDGE, _THUMB_EDGE = 1600, 320  # pixels; enough to read a data plate
_GPS_IFD = 0x8825
register_heif_opener()
Image.MAX_IMAGE_PIXELS = None  # the size is looked at below, before anything is unpacked


@dataclass(frozen=True, slots=True)
class Taken:
    """What is told with a photo. ``id`` is made by the page: sent twice, the photo is kept once."""

    id: uuid.UUID
    at: datetime
    station: str = ""
    caption: str = ""


@transaction.atomic
def take_photo(visit_id: int, file: UploadedFile, taken: Taken, *, actor: Person, now: datetime) -> Photo:
    """Keep a photo: content checked, turned upright, metadata left behind.

    Raises NotAllowed, NotFound, VisitClosed, FileRefused, NotWritable (another visit's photo has the id).
    """
    require(actor, "visit.write")
    kept = Photo.objects.filter(pk=taken.id).first()
    if kept is not None:
        if kept.visit_id != find_visit(visit_id, actor).pk:
            raise NotWritable("Another photo has this id: take it anew.", code="photo_id")
        return kept
    visit = _open(visit_id, actor)
    upright, place = _upright(file)
    keeps_place = visit.rules().photo_place == "kept"
    photo = Photo(
        id=taken.id,
        visit=visit,
        taken_by=actor,
        taken_at=min(taken.at, now),
        station=taken.station[:40],
        caption=taken.caption[:200],
    )
    photo.file.save(f"{photo.id}.jpg", _jpeg(upright, _EDGE, place if keeps_place else None), save=False)
    photo.thumbnail.save(f"{photo.id}-small.jpg", _jpeg(upright, _THUMB_EDGE, None), save=False)
    photo.save()
    return photo


@transaction.atomic
def mark_photo(photo_id: uuid.UUID, marks: list[dict[str, Any]], *, actor: Person) -> Photo:
    """Lay arrows and words over a photo; the picture itself stays as it is. Raises NotAllowed, VisitClosed, NotWritable."""
    require(actor, "visit.write")
    photo = find_photo(photo_id, actor)
    if photo.visit.closed_at is not None:
        raise VisitClosed("This visit is closed; its photos stay as they are.")
    photo.marks = _checked(marks)
    photo.save(update_fields=["marks"])
    return photo


def find_photo(photo_id: uuid.UUID, actor: Person) -> Photo:
    """Return a photo of the person's firm. Raises NotFound."""
    rows = Photo.objects.filter(visit__unit__site__firm_id=actor.own_firm_id).select_related("visit")
    photo = rows.filter(pk=photo_id).first()
    if photo is None:
        raise NotFound("There is no such photo in your firm.")
    return photo


def checked_jpeg(file: UploadedFile) -> "ContentFile[bytes]":
    """Return a picture as it is kept: content checked, upright, no larger than needed, nothing with it. Raises FileRefused."""
    return _jpeg(_upright(file)[0], _EDGE, None)


def _upright(file: UploadedFile) -> tuple[Image.Image, dict[int, Any] | None]:
    """Return the picture as it is to be seen, and where it was taken. The content decides, not the name. Raises FileRefused."""
    if file.size is None or file.size > LARGEST_PHOTO:
        raise FileRefused(f"The photo is larger than {LARGEST_PHOTO // 2**20} MB.")
    try:
        with Image.open(file, formats=FORMATS) as image:
            if image.width * image.height > MOST_PIXELS:
                raise FileRefused(f"The photo has more than {MOST_PIXELS // 1_000_000} million points.")
            place = dict(image.getexif().get_ifd(_GPS_IFD)) or None
            return ImageOps.exif_transpose(image).convert("RGB"), place
    except (OSError, ValueError, SyntaxError, EOFError) as error:
        raise FileRefused("This is not a JPEG, PNG, WebP or HEIC picture, or it is broken.") from error


def _jpeg(picture: Image.Image, edge: int, place: dict[int, Any] | None) -> "ContentFile[bytes]":
    small = picture.copy()
    small.thumbnail((edge, edge))
    kept = io.BytesIO()
    exif = Image.Exif()
    if place:
        exif.get_ifd(_GPS_IFD).update(place)
    small.save(kept, "JPEG", quality=85, exif=exif.tobytes() if place else b"")
    return ContentFile(kept.getvalue())


def _checked(marks: list[dict[str, Any]]) -> list[dict[str, Any]]:
    if len(marks) > MOST_MARKS:
        raise NotWritable(f"A photo takes {MOST_MARKS} marks; these are {len(marks)}.", code="marks_many")
    checked = []
    for mark in marks:
        numbers = [mark.get(name) for name in ("x", "y", "to_x", "to_y")]
        if not all(isinstance(n, int | float) and isfinite(n) and 0 <= n <= 1 for n in numbers):
            raise NotWritable("A mark lies on the photo: 0 to 1 across and down.", code="mark_place")
        words = str(mark.get("text", "")).strip()
        if len(words) > _MOST_WORDS:
            raise NotWritable(f"Words on a photo: at most {_MOST_WORDS} characters.", code="mark_words")
        checked.append({"x": mark["x"], "y": mark["y"], "to_x": mark["to_x"], "to_y": mark["to_y"], "text": words})
    return checked


def _open(visit_id: int, actor: Person) -> Visit:
    visit = find_visit(visit_id, actor)
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; it takes no more files.")
    return visit
