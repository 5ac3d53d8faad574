"""What entries say, read once per process: a tape is append-only, so that the words of an entry never change."""

from collections import OrderedDict
from collections.abc import Iterable, Mapping
from datetime import datetime
from threading import Lock
from typing import Any
from uuid import UUID

from havrin_core.errors import CoreError
from havrin_core.tape.documents import body_from_dict
from havrin_core.tape.entries import UNREADABLE, Body, Said
from havrin_core.wording.phrases import words
from havrin_server.visits.models import TapeEntry

# A line whose writing was rolled back may come again under its id: it is then received at another time.
Key = tuple[UUID, datetime]
_MOST = 50_000  # about a hundred long tapes
_READ: OrderedDict[Key, Body] = OrderedDict()
_LOCK = Lock()


def bodies_of(keys: Iterable[Key]) -> Mapping[Key, Body]:
    """Return the body of each entry, by id and time of receipt; those that were not read yet are read now."""
    wanted = list(keys)
    with _LOCK:
        found = {key: _READ[key] for key in wanted if key in _READ}
    fresh = _read([key[0] for key in wanted if key not in found])
    with _LOCK:
        _READ.update(fresh)
        while len(_READ) > _MOST:
            _READ.popitem(last=False)
    return {**found, **fresh}


def _read(ids: list[UUID]) -> dict[Key, Body]:
    if not ids:
        return {}
    rows = TapeEntry.objects.filter(pk__in=ids).values_list("id", "recorded_at", "kind", "data", "schema")
    return {(pk, received): body_of(kind, data, schema) for pk, received, kind, data, schema in rows}


def body_of(kind: str, data: Any, schema: int) -> Body:
    """Return what a stored entry says; one that cannot be read says so in its place, and ends nothing else."""
    try:
        return body_from_dict(kind, data, schema=schema)
    except CoreError as error:
        return Said(UNREADABLE, words(error.said))
