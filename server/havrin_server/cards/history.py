"""What became of a card: version by version, who changed what, when and why."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from havrin_server.cards.sorts import CardSort
from havrin_server.people.models import Person
from havrin_server.versions.models import Sort, Version

MOST_SHOWN = 60


@dataclass(frozen=True, slots=True)
class Change:
    """One field of one version: what it was and what it became, as stored."""

    field: str
    before: Any
    after: Any


@dataclass(frozen=True, slots=True)
class Step:
    """One version of a card. ``author`` None: as it was found when it was first changed."""

    number: int
    author: Person | None
    at: datetime
    reason: str
    changes: tuple[Change, ...]


def key_of(sort: CardSort, pk: int) -> str:
    """Return the key under which a card's versions are kept."""
    return f"{sort.key}:{pk}"


def newest_number(sort: CardSort, pk: int, firm_id: int) -> int:
    """Return the number of a card's newest version; 0 where none is kept."""
    rows = Version.objects.filter(firm_id=firm_id, sort=Sort.CARD, key=key_of(sort, pk))
    return rows.order_by("-number").values_list("number", flat=True).first() or 0


def steps_of(sort: CardSort, pk: int, firm_id: int, *, after: int = 0) -> list[Step]:
    """Return what was changed, newest first, since the version ``after``."""
    rows = Version.objects.filter(firm_id=firm_id, sort=Sort.CARD, key=key_of(sort, pk), number__gte=after)
    versions = list(rows.select_related("author").order_by("-number")[: MOST_SHOWN + 1])
    before: list[Mapping[str, Any]] = [one.document for one in versions[1:]]
    if len(before) < len(versions):
        before.append(versions[-1].document if after else {})
    return [
        Step(one.number, one.author, one.at, one.reason, _changes(was, one.document))
        for one, was in zip(versions, before, strict=True)
        if one.number > after
    ]


def _changes(before: Mapping[str, Any], after: Mapping[str, Any]) -> tuple[Change, ...]:
    keys = dict.fromkeys((*before, *after))
    return tuple(Change(k, before.get(k), after.get(k)) for k in keys if before.get(k) != after.get(k))
