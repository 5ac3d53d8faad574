"""Cards: what the firm keeps of its own, found, made, changed, retired, merged; and taken out as a table."""

import csv
import io
from typing import Annotated, Any

from django.db.models import Q, QuerySet
from django.http import HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from havrin_server.cards import merging, services
from havrin_server.cards.fields import Taking
from havrin_server.cards.pages import card_list, card_out, sort_out, sorts_out
from havrin_server.cards.schemas import (
    CardChangeIn,
    CardIn,
    CardList,
    CardOut,
    FoundOut,
    MergeIn,
    RetireIn,
    SortOut,
)
from havrin_server.cards.search import search
from havrin_server.cards.sorts import CardSort, find_sort
from havrin_server.files import file_answer, no_formula
from havrin_server.overviews import overview
from havrin_server.people.audit import record
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn

router = Router(tags=["cards"])
Page = Annotated[int, Field(ge=1, le=10_000)]
Asked = Annotated[str, Field(max_length=120)]


@router.get("/search", response=list[FoundOut])
@overview
def find(request: SignedIn, q: Asked = "") -> list[FoundOut]:
    """Return what has every word of ``q``: units, sites, contacts, parts, instruments, visits."""
    require(request.user, "read")
    return [FoundOut.of(one) for one in search(q, request.user)]


@router.get("/cards", response=list[SortOut])
def sorts(request: SignedIn) -> list[SortOut]:
    """Return every sort of cards with its fields."""
    require(request.user, "read")
    return sorts_out(request.user)


@router.get("/cards/{sort}", response=CardList)
@overview
def cards(
    request: SignedIn, sort: str, q: Asked = "", page: Page = 1, retired: bool = False, site: int = 0
) -> CardList:
    """Return a page of cards: those in use, or those that are retired; of one site where it is given."""
    require(request.user, "read")
    kept = find_sort(sort)
    rows = _saying(kept, kept.all_of(request.user), q)
    if kept.retires:
        rows = rows.filter(retired_at__isnull=not retired)
    if site and kept.field("site"):
        rows = rows.filter(site_id=site)
    return card_list(kept, request.user, rows, page)


@router.get("/cards/{sort}/form", response=SortOut)
def form(request: SignedIn, sort: str) -> SortOut:
    """Return one sort of cards with its fields."""
    require(request.user, "read")
    return sort_out(find_sort(sort), Taking(request.user))


@router.get("/cards/{sort}/all.csv", response={200: None})
def table(request: SignedIn, sort: str) -> HttpResponse:
    """Return every card of a sort as a table."""
    require(request.user, "cards.export")
    kept = find_sort(sort)
    record("exported", request.user, f"all {kept.many.lower()} as a table")
    return file_answer(
        _csv(kept, Taking(request.user)).encode("utf-8-sig"), "text/csv; charset=utf-8", f"{kept.key}.csv"
    )


@router.post("/cards/{sort}", response=CardOut)
def make(request: SignedIn, sort: str, payload: CardIn) -> CardOut:
    """Make a card."""
    kept = find_sort(sort)
    made = services.make(
        kept,
        payload.values,
        card_id=payload.id,
        actor=request.user,
        now=timezone.now(),
        reason=payload.reason,
    )
    return card_out(kept, kept.find(made.pk, request.user), request.user)


@router.get("/cards/{sort}/{int:card_id}", response=CardOut)
def card(request: SignedIn, sort: str, card_id: int) -> CardOut:
    """Return a card, whole, with what became of it."""
    require(request.user, "read")
    kept = find_sort(sort)
    return card_out(kept, kept.find(card_id, request.user), request.user)


@router.put("/cards/{sort}/{int:card_id}", response=CardOut)
def change(request: SignedIn, sort: str, card_id: int, payload: CardChangeIn) -> CardOut:
    """Change fields of a card."""
    kept = find_sort(sort)
    given = {"seen": payload.seen, "reason": payload.reason}
    services.change(kept, card_id, payload.values, actor=request.user, now=timezone.now(), **given)  # type: ignore[arg-type]
    return card_out(kept, kept.find(card_id, request.user), request.user)


@router.post("/cards/{sort}/{int:card_id}/retire", response=CardOut)
def retire(request: SignedIn, sort: str, card_id: int, payload: RetireIn) -> CardOut:
    """Retire a card, or take it into use again."""
    kept = find_sort(sort)
    services.retire(kept, card_id, gone=payload.retired, actor=request.user, now=timezone.now(), reason=payload.reason)
    return card_out(kept, kept.find(card_id, request.user), request.user)


@router.post("/cards/{sort}/{int:card_id}/merge", response=CardOut)
def merge(request: SignedIn, sort: str, card_id: int, payload: MergeIn) -> CardOut:
    """Let a card go under another; return the one that is kept."""
    kept = find_sort(sort)
    merging.merge(kept, card_id, payload.into, actor=request.user, now=timezone.now(), why=payload.why)
    return card_out(kept, kept.find(payload.into, request.user), request.user)


@router.post("/merges/{int:merge_id}/undo", response=CardOut)
def undo_merge(request: SignedIn, merge_id: int) -> CardOut:
    """Take two cards apart again; return the one that had gone."""
    done = merging.undo(merge_id, actor=request.user, now=timezone.now())
    kept = find_sort(done.sort)
    return card_out(kept, kept.find(done.gone, request.user), request.user)


def _saying(kept: CardSort, rows: "QuerySet[Any, Any]", asked: str) -> "QuerySet[Any, Any]":
    """Return the rows whose texts have every word of ``asked``."""
    texts = [field.key for field in kept.fields if field.sort in ("text", "long")]
    texts += ["site__name"] if kept.field("site") else []
    for term in asked.split()[:8]:
        found = Q()
        for name in texts:
            found |= Q(**{f"{name}__icontains": term})
        rows = rows.filter(found)
    return rows


def _csv(kept: CardSort, by: Taking) -> str:
    """Return the cards in use as a table whose columns an import takes again: links and choices by their names."""
    target = io.StringIO()
    writer = csv.writer(target)
    writer.writerow([_head(field.label, field.unit(by.person)) for field in kept.fields])
    rows = kept.all_of(by.person)
    for thing in (rows.filter(retired_at=None) if kept.retires else rows).iterator(2000):
        writer.writerow([_cell(field, field.value_of(thing), by) for field in kept.fields])
    return target.getvalue()


def _head(label: str, unit: str) -> str:
    return f"{label} [{unit}]" if unit else label


def _cell(field: Any, value: Any, by: Taking) -> str:
    if value is None or value == "" or value == []:
        return ""
    names = by.choices(field) if field.sort in ("choice", "choices", "site") else {}
    if isinstance(value, list):
        text = "; ".join(names.get(str(one), str(one)) for one in value)
    else:
        shown = field.shown(value, by.person)
        text = names.get(str(shown), f"{shown:g}" if isinstance(shown, float) else str(shown))
    return no_formula(text) if field.sort in ("text", "long") else text
