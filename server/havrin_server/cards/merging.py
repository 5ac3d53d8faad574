"""Two cards of one thing made one, and apart again."""

from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_server.cards.models import Merge
from havrin_server.cards.services import locked
from havrin_server.cards.sorts import SITE, CardSort, find_sort
from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.units.models import Contact, Site, Unit
from havrin_server.visits.left import note_left
from havrin_server.visits.models import Visit


@transaction.atomic
def merge(sort: CardSort, gone_id: int, kept_id: int, *, actor: Person, now: datetime, why: str) -> Merge:
    """Let one card go under another: a unit's visits are read as the other's, a site's units and contacts go over.

    Nothing written is touched: visits stay where they were written, and are found from both. Raises NotAllowed, NotFound,
    NotWritable.
    """
    require(actor, "cards.merge")
    if not sort.merges:
        raise NotWritable(f"A {sort.name.lower()} is not merged; retire it.", code="not_merged_here")
    sort.find(gone_id, actor)
    if gone_id == kept_id:
        raise NotWritable("These are one card already.", code="merge_itself")
    first, second = sorted((gone_id, kept_id))  # always locked in one order: two who merge at once wait for each other
    things = {first: locked(sort, first, actor), second: locked(sort, second, actor)}
    gone, kept = things[gone_id], things[kept_id]
    if gone.merged_into_id or kept.merged_into_id or kept.retired_at:
        raise NotWritable("One of them is merged or retired already.", code="merged")
    moved = _site_goes(gone, kept) if sort is SITE else _unit_goes(gone, kept)
    gone.merged_into, gone.retired_at = kept, now
    gone.save(update_fields=["merged_into", "retired_at"])
    if isinstance(kept, Unit):
        note_left(kept.pk)
    about = f"{sort.name} {sort.title(gone)} into {sort.title(kept)}: {why}"
    record("card_merged", actor, about)
    return Merge.objects.create(
        firm_id=actor.own_firm_id,
        sort=sort.key,
        gone=gone_id,
        kept=kept_id,
        moved=moved,
        by=actor,
        at=now,
        why=why[:300],
    )


@transaction.atomic
def undo(merge_id: int, *, actor: Person, now: datetime) -> Merge:
    """Take two cards apart again, with what went over; undone twice is undone once. Raises NotAllowed, NotFound."""
    require(actor, "cards.merge")
    done = Merge.objects.select_for_update().filter(pk=merge_id, firm_id=actor.own_firm_id).first()
    if done is None:
        raise NotFound("Nothing was merged under that number in your firm.")
    if done.undone_at is not None:
        return done
    sort = find_sort(done.sort)
    gone = locked(sort, done.gone, actor)
    gone.merged_into = gone.retired_at = None
    gone.save(update_fields=["merged_into", "retired_at"])
    Unit.objects.filter(pk__in=done.moved.get("unit", ())).update(site_id=done.gone)
    Contact.objects.filter(pk__in=done.moved.get("contact", ())).update(site_id=done.gone)
    Visit.objects.filter(pk__in=done.moved.get("visit", ()), version=0).update(unit_id=done.gone)
    Unit.objects.filter(pk__in=done.moved.get("merged", ())).update(merged_into_id=done.gone)
    if isinstance(gone, Unit):
        note_left(done.kept)
        note_left(done.gone)
    done.undone_at, done.undone_by = now, actor
    done.save(update_fields=["undone_at", "undone_by"])
    record("merge_undone", actor, f"{sort.name} {sort.title(gone)}")
    return done


def _site_goes(gone: Site, kept: Site) -> dict[str, list[int]]:
    labels = set(kept.unit_set.filter(retired_at=None).values_list("label", flat=True))
    twice = sorted(labels & set(gone.unit_set.filter(retired_at=None).values_list("label", flat=True)))
    if twice:
        message = f"Both sites have a unit tagged {', '.join(twice)}: merge those first, or give one another tag."
        raise NotWritable(message, code="labels_twice")
    moved = {
        "unit": list(gone.unit_set.values_list("pk", flat=True)),
        "contact": list(gone.contact_set.values_list("pk", flat=True)),
    }
    gone.unit_set.update(site=kept)
    gone.contact_set.update(site=kept)
    return moved


def _unit_goes(gone: Unit, kept: Unit) -> dict[str, list[int]]:
    open_ones = Visit.objects.filter(unit=gone, closed_at=None)
    if open_ones.filter(version__gt=0).exists():
        raise NotWritable(f"A visit is under way at {gone.name}: close it first.", code="unit_has_visits")
    moved: dict[str, Any] = {"visit": list(open_ones.values_list("pk", flat=True))}
    open_ones.update(unit=kept)
    before = Unit.objects.filter(merged_into=gone)  # what went under it goes along, so that no chain grows
    moved["merged"] = list(before.values_list("pk", flat=True))
    before.update(merged_into=kept)
    return moved
