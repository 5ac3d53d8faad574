"""Taking in a visit bundle: entries of a visit that was written elsewhere."""

import uuid
from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_core.tape.bundle import read_bundle
from havrin_core.tape.documents import body_to_dict
from havrin_core.tape.entries import Body, Correction, Entry
from havrin_server.errors import NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.chain import store
from havrin_server.visits.models import TapeEntry, Visit
from havrin_server.visits.services import (
    begin,
    entitled,
    locked_visit,
    must_be_open,
    offset_at,
    typed_columns,
)


@transaction.atomic
def take_in_bundle(visit_id: int, data: Any, *, actor: Person, now: datetime) -> int:
    """Merge a bundle's entries into a visit of the same unit; return how many were new.

    Entries that are here already are left alone. Raises NotAllowed, NotFound, VisitClosed,
    BadDocument (another format, newer version, unknown kind), NotWritable (another unit, an id twice).
    """
    require(actor, "visit.write")
    visit = locked_visit(visit_id, actor)
    must_be_open(visit)
    bundle = read_bundle(data)
    if bundle.unit.name != visit.unit.name or bundle.unit.kind.key != visit.unit.of_model().kind:
        raise NotWritable(
            f"The bundle is of “{bundle.unit.name}”, this visit is at “{visit.unit.name}”: nothing was taken in."
        )
    ids = _ids_here(visit, bundle.visit.entries)
    have = set(visit.entries.values_list("id", flat=True))
    new = [entry for entry in bundle.visit.entries if ids[entry.id] not in have]
    begin(visit, actor, now)
    store(visit, [_row(visit, entry, ids, actor, now) for entry in new])
    return len(new)


def _ids_here(visit: Visit, entries: Iterable[Entry]) -> Mapping[str, uuid.UUID]:
    """Return the id of each entry on this visit: its own, or one made of it where another visit has that one already."""
    stated = {entry.id: _uuid(entry.id) for entry in entries}
    if len(set(stated.values())) < sum(1 for _ in entries):
        raise NotWritable("Two entries of the bundle have one id: nothing was taken in.", code="bundle_id_twice")
    rows = TapeEntry.objects.filter(pk__in=stated.values()).exclude(visit=visit)
    elsewhere = set(rows.values_list("pk", flat=True))
    return {name: uuid.uuid5(key, str(visit.pk)) if key in elsewhere else key for name, key in stated.items()}


def _uuid(text: str) -> uuid.UUID:
    try:
        return uuid.UUID(text)
    except ValueError:
        raise NotWritable(f"The bundle's entry id “{text}” is no UUID: nothing was taken in.") from None


def _row(visit: Visit, entry: Entry, ids: Mapping[str, uuid.UUID], actor: Person, now: datetime) -> TapeEntry:
    body = entitled(_pointing_here(entry.body, ids), actor)
    return TapeEntry(
        id=ids[entry.id],
        visit=visit,
        unit_id=visit.unit_id,
        group=_uuid(entry.group) if entry.group else ids[entry.id],
        kind=entry.kind,
        phase=entry.phase,
        at=min(entry.at, now),
        zone=offset_at(visit, entry.at),
        recorded_at=now,
        author=actor,
        device=entry.device,
        data=body_to_dict(body),
        **typed_columns(body),
    )


def _pointing_here(body: Body, ids: Mapping[str, uuid.UUID]) -> Body:
    """Return a correction with the id that its entry has on this visit."""
    if isinstance(body, Correction) and body.corrects in ids:
        return replace(body, corrects=str(ids[body.corrects]))
    return body
