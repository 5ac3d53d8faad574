"""A unit at the door, and pictures of plates."""

import uuid
from typing import Literal

from django.http import FileResponse
from django.utils import timezone
from ninja import File, Form, Router, UploadedFile
from pydantic import Field

from havrin_core.machine.kind_files import kind_document, kind_names
from havrin_core.physics.fuels import FUEL_NAMES, shipped_fuel
from havrin_server.captures.photos import checked_jpeg
from havrin_server.cards import door
from havrin_server.cards.pages import card_out, card_row, shown_values
from havrin_server.cards.plate_reading import proposed, read_lines, reads_plates
from havrin_server.cards.schemas import CardOut, DoorModel, DoorOut, PlateRead, SisterOut, Values
from havrin_server.cards.sorts import SITE, UNIT
from havrin_server.incoming import Incoming, Key
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.units.queries import find_site

router = Router(tags=["door"])
_SISTERS = 20


class KindIn(Incoming):
    """A unit whose plate is still to be read: its kind, fuel, and stages."""

    kind: Key
    fuel: Key
    stages: Literal["only", "two"]


class DoorIn(Incoming):
    """A unit as it is found: of a model (among its values), or of a kind."""

    id: uuid.UUID
    values: Values
    of_kind: KindIn | None = None


class PhotoIn(Incoming):
    """The id under which a picture is kept, made by the page."""

    id: uuid.UUID = Field()


@router.get("/sites/{int:site_id}/door", response=DoorOut)
def at_door(request: SignedIn, site_id: int) -> DoorOut:
    """Return what a unit at the door is made from."""
    require(request.user, "read")
    site = find_site(site_id, request.user)
    sisters = site.unit_set.filter(retired_at=None).select_related("site__firm", "model").order_by("label")[:_SISTERS]
    return DoorOut(
        site=card_row(SITE, site),
        sisters=[
            SisterOut(id=unit.pk, name=unit.name, values=shown_values(UNIT, UNIT.document(unit), request.user))
            for unit in sisters
        ],
        models=[DoorModel(key=key, name=name, units=units) for key, name, units in door.usual_models(request.user)],
        kinds={key: kind_document(key)["name"] for key in kind_names()},
        fuels={key: shipped_fuel(key).label for key in FUEL_NAMES},
        free_labels=door.free_labels(site),
        reads_plates=reads_plates(),
    )


@router.post("/door/units", response=CardOut)
def make(request: SignedIn, payload: DoorIn) -> CardOut:
    """Make a unit at the door."""
    of_kind = door.NotReadYet(**payload.of_kind.model_dump()) if payload.of_kind else None
    unit = door.make_at_door(payload.values, of_kind, card_id=payload.id, actor=request.user, now=timezone.now())
    return card_out(UNIT, UNIT.find(unit.pk, request.user), request.user)


@router.post("/units/{int:unit_id}/plate-photos", response=CardOut)
def keep_photo(request: SignedIn, unit_id: int, file: File[UploadedFile], given: Form[PhotoIn]) -> CardOut:
    """Keep a picture of a unit's plate."""
    door.keep_plate_photo(unit_id, file, given.id, actor=request.user, now=timezone.now())
    return card_out(UNIT, UNIT.find(unit_id, request.user), request.user)


@router.get("/plate-photos/{uuid:photo_id}", response={200: None})
def photo(request: SignedIn, photo_id: uuid.UUID) -> FileResponse:
    """Return a picture of a plate."""
    require(request.user, "read")
    return FileResponse(door.find_plate_photo(photo_id, request.user).file.open("rb"), content_type="image/jpeg")


@router.post("/plates/read", response=PlateRead)
def read_plate(request: SignedIn, file: File[UploadedFile]) -> PlateRead:
    """Return what may stand on a plate, read off its picture; nothing is kept."""
    require(request.user, "unit.write")
    lines = read_lines(checked_jpeg(file).read())
    models = {key: name for key, name, _ in door.usual_models(request.user)}
    return PlateRead(lines=lines, proposed=proposed(lines, models))
