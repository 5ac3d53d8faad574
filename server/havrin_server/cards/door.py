"""A unit at the door: made from a model or a unit beside it, before anything else is known; the plate is read later."""

import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import Count
from ninja import UploadedFile

from havrin_core.machine.kind_files import kind_document, kind_names
from havrin_core.physics.fuels import FUEL_NAMES
from havrin_server.captures.photos import checked_jpeg
from havrin_server.cards.models import UnitPhoto
from havrin_server.cards.services import make
from havrin_server.cards.sorts import UNIT
from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.shop.models import ShopDocument, Sort
from havrin_server.units.models import Site, Unit
from havrin_server.units.queries import find_unit
from havrin_server.versions.services import keep_version

NOT_READ = "Plate not read"
_STAGES = {"only": ("only",), "two": ("low", "high")}


@dataclass(frozen=True, slots=True)
class NotReadYet:
    """A unit of which nobody has read the plate: its kind, its fuel, and whether it has one stage or two."""

    kind: str
    fuel: str
    stages: str


@transaction.atomic
def make_at_door(
    values: Mapping[str, Any],
    of_kind: NotReadYet | None,
    *,
    card_id: uuid.UUID,
    actor: Person,
    now: datetime,
) -> Unit:
    """Make a unit of a model, or of a kind whose plate is still to be read. Raises as ``make``; NotWritable (no such kind)."""
    require(actor, "unit.write")
    given = dict(values)
    if of_kind is not None:
        given["model"] = _unread_model(of_kind, actor, now).key
    unit: Unit = make(UNIT, given, card_id=card_id, actor=actor, now=now, reason="at the door")
    return unit


def _unread_model(what: NotReadYet, actor: Person, now: datetime) -> ShopDocument:
    """Return the firm's model that stands for units of a kind until their plates are read."""
    if what.kind not in kind_names() or what.fuel not in FUEL_NAMES or what.stages not in _STAGES:
        raise NotWritable("No such kind, fuel or number of stages.", code="kind_unknown")
    key = f"not_read_{what.kind}_{what.fuel.lower()}_{what.stages}"
    document = {
        "format": "havrin-model",
        "version": 1,
        "key": key,
        "maker": NOT_READ,
        "name": kind_document(what.kind)["name"],
        "kind": what.kind,
        "plate": {"fuel": what.fuel, "stages": [{"key": stage} for stage in _STAGES[what.stages]]},
    }
    made, new = ShopDocument.objects.get_or_create(
        firm_id=actor.own_firm_id,
        sort=Sort.MODEL,
        key=key,
        defaults={"document": document, "changed_at": now, "changed_by": actor},
    )
    if new:
        why = {"now": now, "author": actor, "reason": "a unit at the door whose plate is not read yet"}
        keep_version(actor.own_firm_id, Sort.MODEL, key, document, **why)  # type: ignore[arg-type]
    return made


def usual_models(actor: Person) -> list[tuple[str, str, int]]:
    """Return the firm's models as key, name and how many units are of it, the most usual first; not the unread ones."""
    rows = ShopDocument.objects.filter(firm_id=actor.own_firm_id, sort=Sort.MODEL).exclude(key__startswith="not_read_")
    counted = rows.annotate(units=Count("unit")).order_by("-units", "key")
    named = counted.values_list("key", "document__maker", "document__name", "units")
    return [(key, f"{maker} {name}", units) for key, maker, name, units in named]


def free_labels(site: Site) -> list[str]:
    """Return tags that are free at a site, one after each row of tags that it has: F-3 after F-1 and F-2."""
    highest: dict[str, int] = {}
    for label in site.unit_set.values_list("label", flat=True):
        head, _, number = label.rpartition("-")
        if head and number.isdigit():
            highest[head] = max(highest.get(head, 0), int(number))
    return [f"{head}-{number + 1}" for head, number in sorted(highest.items())] or ["F-1", "B-1", "RT-1"]


@transaction.atomic
def keep_plate_photo(
    unit_id: int, file: UploadedFile, photo_id: uuid.UUID, *, actor: Person, now: datetime
) -> UnitPhoto:
    """Keep a picture of a unit's plate; sent twice it is kept once. Raises NotAllowed, NotFound, FileRefused, NotWritable."""
    require(actor, "unit.write")
    unit = find_unit(unit_id, actor)
    kept = UnitPhoto.objects.filter(pk=photo_id).first()
    if kept is not None:
        if kept.unit_id != unit.pk:
            raise NotWritable("Another picture has this id: take it anew.", code="photo_id")
        return kept
    photo = UnitPhoto(id=photo_id, unit=unit, taken_by=actor, taken_at=now)
    photo.file.save(f"{photo_id}.jpg", checked_jpeg(file), save=False)
    photo.save()
    return photo


def find_plate_photo(photo_id: uuid.UUID, actor: Person) -> UnitPhoto:
    """Return a picture of a plate. Raises NotFound."""
    found = UnitPhoto.objects.filter(pk=photo_id, unit__site__firm_id=actor.own_firm_id).first()
    if found is None:
        raise NotFound("There is no such picture in your firm.")
    return found
