"""Append a version, find the newest."""

import json
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db import connection
from django.db.models import Q

from havrin_server.people.models import Person
from havrin_server.versions.models import Version

AS_FOUND = "as it was when a visit first used it"
MOST_REASON = 300


def keep_version(
    firm_id: int,
    sort: str,
    key: str,
    document: Any,
    *,
    now: datetime,
    author: Person | None = None,
    reason: str = AS_FOUND,
) -> int:
    """Append ``document`` as the newest version unless it is the newest already; return its number. Call in a transaction."""
    plain = json.loads(json.dumps(document))  # as the database gives it back, so that the two compare
    _one_at_a_time(f"{firm_id}/{sort}/{key}")
    newest = Version.objects.filter(firm_id=firm_id, sort=sort, key=key).order_by("-number").first()
    if newest is not None and newest.document == plain:
        return newest.number
    number = newest.number + 1 if newest is not None else 1
    Version.objects.create(
        firm_id=firm_id,
        sort=sort,
        key=key,
        number=number,
        document=plain,
        author=author,
        reason=reason[:MOST_REASON],
        at=now,
    )
    return number


def _one_at_a_time(what: str) -> None:
    """Wait for whoever appends to the same thing, until this transaction ends. Rows that may only be added are not locked."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(hashtextextended(%s, 0))", [what])


def keep_change(
    firm_id: int, sort: str, key: str, before: Any, after: Any, *, now: datetime, author: Person, reason: str
) -> int:
    """Append ``after``; what stood there ``before`` any version was kept is kept first. Return the newest number."""
    if before is not None and not Version.objects.filter(firm_id=firm_id, sort=sort, key=key).exists():
        keep_version(firm_id, sort, key, before, now=now)
    return keep_version(firm_id, sort, key, after, now=now, author=author, reason=reason)


def number_of(firm_id: int, sort: str, key: str, document: Any) -> int:
    """Return the number of the newest version that says just ``document``; 0 where none does."""
    plain = json.loads(json.dumps(document))
    rows = Version.objects.filter(firm_id=firm_id, sort=sort, key=key, document=plain)
    return rows.order_by("-number").values_list("number", flat=True).first() or 0


def newer_than(firm_id: int, pinned: Iterable[tuple[str, str, int]]) -> list[Version]:
    """Return, for each (sort, key, number), the newest version where it is newer than that number."""
    rows = list(pinned)
    if not rows:
        return []
    wanted = Q()
    for sort, key, number in rows:
        wanted |= Q(sort=sort, key=key, number__gt=number)
    found = Version.objects.filter(wanted, firm_id=firm_id).select_related("author").order_by("sort", "key", "-number")
    return list(found.distinct("sort", "key"))
