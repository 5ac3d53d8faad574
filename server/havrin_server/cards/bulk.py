"""Many cards at once: made, changed and kept version by version in batches, as one at a time they are in services.py."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any

from havrin_server.cards.history import key_of
from havrin_server.cards.services import put_all
from havrin_server.cards.sorts import UNIT, CardSort
from havrin_server.people.models import Person
from havrin_server.units.plates import own_plate
from havrin_server.versions.models import Sort, Version
from havrin_server.versions.services import AS_FOUND


class Bulk:
    """Writes cards of one sort in batches. Each batch is locked as single changes are, so that the two wait for each other."""

    def __init__(self, sort: CardSort, actor: Person, now: datetime, reason: str) -> None:
        self.sort, self.actor, self.now, self.reason = sort, actor, now, reason

    def make(self, rows: Sequence[Mapping[str, Any]]) -> list[int]:
        """Make a card of each row's values; return their numbers."""
        things = []
        for values in rows:
            thing = self.sort.model()
            if self.sort.of == "firm_id":
                setattr(thing, "firm_id", self.actor.own_firm_id)  # noqa: B010
            put_all(self.sort, thing, self._whole(values))
            things.append(thing)
        made = self.sort.model._default_manager.bulk_create(things)
        self._keep({thing.pk: (None, self.sort.document(thing)) for thing in made}, Sort.CARD)
        return [thing.pk for thing in made]

    def change(self, rows: Mapping[int, Mapping[str, Any]]) -> dict[int, dict[str, Any]]:
        """Give each card the values that stand for its number; return what each said before of these fields."""
        locked = self.sort.all_of(self.actor).filter(pk__in=rows).order_by("pk").select_for_update(of=("self",))
        things = {thing.pk: thing for thing in locked}
        before = {pk: self.sort.document(thing) for pk, thing in things.items()}
        plates = {pk: own_plate(thing) for pk, thing in things.items()} if self.sort is UNIT else {}
        for pk, thing in things.items():
            put_all(self.sort, thing, rows[pk])
        if things:
            names = [one.name for one in self.sort.model._meta.concrete_fields if not one.primary_key]
            self.sort.model._default_manager.bulk_update(things.values(), names, batch_size=250)
        self._keep({pk: (before[pk], self.sort.document(thing)) for pk, thing in things.items()}, Sort.CARD)
        now = {pk: own_plate(things[pk]) for pk in plates}
        self._keep({pk: (was, now[pk]) for pk, was in plates.items() if was != now[pk]}, Sort.UNIT)
        return {pk: {key: before[pk][key] for key in rows[pk]} for pk in things}

    def _whole(self, values: Mapping[str, Any]) -> dict[str, Any]:
        empty = {field.key: field.value_of(self.sort.model()) for field in self.sort.fields if field.get is None}
        return {**empty, **values}

    def _keep(self, rows: Mapping[int, tuple[Any, Any]], sort: str) -> None:
        """Keep each change as a version; what stood there before any was kept is kept first."""
        keys = {pk: key_of(self.sort, pk) if sort == Sort.CARD else str(pk) for pk in rows}
        firm_id = self.actor.own_firm_id
        kept = Version.objects.filter(firm_id=firm_id, sort=sort, key__in=keys.values())
        newest = dict(kept.order_by("key", "number").values_list("key", "number"))
        versions = []
        for pk, (before, after) in rows.items():
            number = newest.get(keys[pk], 0)
            if number == 0 and before is not None:
                number = 1
                versions.append(self._version(sort, keys[pk], 1, before, None, AS_FOUND))
            versions.append(self._version(sort, keys[pk], number + 1, after, self.actor, self.reason))
        Version.objects.bulk_create(versions)

    def _version(self, sort: str, key: str, number: int, document: Any, author: Person | None, why: str) -> Version:
        return Version(
            firm_id=self.actor.own_firm_id,
            sort=sort,
            key=key,
            number=number,
            document=document,
            author=author,
            reason=why[:300],
            at=self.now,
        )
