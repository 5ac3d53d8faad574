"""Making, changing and retiring cards: each change with who, when and why, and never over somebody else's."""

import uuid
from collections.abc import Mapping
from datetime import datetime
from functools import partial
from typing import Any

from django.db import transaction

from havrin_core.errors import CoreError
from havrin_core.wording.phrases import words
from havrin_server.cards.fields import BadField, BadFields, Taking
from havrin_server.cards.history import key_of, newest_number, steps_of
from havrin_server.cards.models import Made
from havrin_server.cards.sorts import CONTACT, FIRM, INSTRUMENT, PART, SITE, UNIT, CardSort
from havrin_server.errors import NotWritable, ServerError
from havrin_server.instruments.models import Instrument
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.shop.models import Part
from havrin_server.units.models import Site, Unit
from havrin_server.units.plates import own_plate
from havrin_server.versions.models import Sort
from havrin_server.versions.services import keep_change, keep_version
from havrin_server.visits.planning import open_visits


class CardMoved(ServerError):
    """Somebody changed the card since it was seen: ``fields`` says what, who and when."""

    code, status = "card_moved", 409

    def __init__(self, message: str, fields: Mapping[str, str]) -> None:
        super().__init__(message, details=list(fields.values()))
        self.fields = dict(fields)


def taken(sort: CardSort, values: Mapping[str, Any], by: Taking, *, whole: bool) -> dict[str, Any]:
    """Return the values as they are stored; ``whole``: fields that are not given count as empty. Raises BadFields."""
    bad: dict[str, str] = {}
    found: dict[str, Any] = {}
    known = {field.key for field in sort.fields}
    bad |= {name: f"No field of a {sort.name.lower()} is called {name!r}." for name in values if name not in known}
    for field in sort.fields:
        if field.key not in values and not whole:
            continue
        try:
            found[field.key] = field.taken(values.get(field.key), by)
        except BadField as error:
            bad[field.key] = str(error)
    if bad:
        raise BadFields(bad)
    return found


@transaction.atomic
def make(
    sort: CardSort, values: Mapping[str, Any], *, card_id: uuid.UUID, actor: Person, now: datetime, reason: str = ""
) -> Any:
    """Make a card; asked twice under one id it is made once. Raises NotAllowed, BadFields, NotWritable."""
    require(actor, sort.write)
    if not sort.made_here:
        raise NotWritable(f"A {sort.name.lower()} is not made here.", code="not_made_here")
    before = Made.objects.filter(pk=card_id, firm_id=actor.own_firm_id, sort=sort.key).first()
    if before is not None:
        return sort.find(before.number, actor)
    thing = made_of(sort, taken(sort, values, Taking(actor), whole=True), actor)
    Made.objects.create(pk=card_id, firm_id=actor.own_firm_id, sort=sort.key, number=thing.pk)
    keep_version(
        actor.own_firm_id,
        Sort.CARD,
        key_of(sort, thing.pk),
        sort.document(thing),
        now=now,
        author=actor,
        reason=reason,
    )
    record("card_made", actor, f"{sort.name} {sort.title(thing)}")
    return thing


def made_of(sort: CardSort, values: Mapping[str, Any], actor: Person) -> Any:
    """Return a new thing with ``values``, stored. Raises BadFields."""
    thing = sort.model()
    if sort.of == "firm_id":
        setattr(thing, "firm_id", actor.own_firm_id)  # noqa: B010 - which model it is, is known at run time alone
    put_all(sort, thing, values)
    must_fit(sort, thing)
    thing.save()
    return thing


def put_all(sort: CardSort, thing: Any, values: Mapping[str, Any]) -> None:
    """Put values on a thing that is not stored yet. Raises BadFields."""
    for field in sort.fields:
        if field.key in values:
            try:
                field.put_on(thing, values[field.key])
            except BadField as error:
                raise BadFields({field.key: str(error)}) from None


@transaction.atomic
def change(
    sort: CardSort,
    pk: int,
    values: Mapping[str, Any],
    *,
    seen: int,
    actor: Person,
    now: datetime,
    reason: str = "",
) -> Any:
    """Change fields of a card as it was ``seen`` (its version then). Raises NotAllowed, NotFound, BadFields, CardMoved."""
    require(actor, sort.write)
    thing = locked(sort, pk, actor)
    given = taken(sort, values, Taking(actor), whole=False)
    _must_be_as_seen(sort, thing, seen, actor)
    changed(sort, thing, given, actor=actor, now=now, reason=reason)
    record("card_changed", actor, f"{sort.name} {sort.title(thing)}: {', '.join(given)}")
    return thing


def changed(sort: CardSort, thing: Any, given: Mapping[str, Any], *, actor: Person, now: datetime, reason: str) -> None:
    """Change a thing and keep what it was and became: of a unit also what it is judged by. Raises BadFields."""
    before, plates = sort.document(thing), _plates(sort, thing)
    put_all(sort, thing, given)
    must_fit(sort, thing)
    thing.save()
    keep = partial(keep_change, actor.own_firm_id, now=now, author=actor, reason=reason)
    keep(Sort.CARD, key_of(sort, thing.pk), before, sort.document(thing))
    for key, (unit, was) in plates.items():
        unit.refresh_from_db()
        if own_plate(unit) != was:
            keep(Sort.UNIT, key, was, own_plate(unit))


def locked(sort: CardSort, pk: int, actor: Person) -> Any:
    """Return a card's thing, locked until the transaction ends. Raises NotFound."""
    sort.find(pk, actor)
    return sort.all_of(actor).select_for_update(of=("self",)).get(pk=pk)


@transaction.atomic
def retire(sort: CardSort, pk: int, *, gone: bool, actor: Person, now: datetime, reason: str) -> Any:
    """Retire a card, or take it into use again: it is in no list of what there is, and stays where evidence names it.

    Raises NotAllowed, NotFound, NotWritable (what still hangs on it).
    """
    require(actor, "cards.retire")
    if not sort.retires:
        raise NotWritable(f"A {sort.name.lower()} is not retired here.", code="not_retired_here")
    thing = locked(sort, pk, actor)
    if getattr(thing, "merged_into_id", None) is not None:
        raise NotWritable("It was merged into another: undo that instead.", code="merged")
    if gone:
        _must_be_free(thing)
    thing.retired_at = now if gone else None
    thing.save(update_fields=["retired_at"])
    record("card_retired", actor, f"{sort.name} {sort.title(thing)}: {'retired' if gone else 'in use again'}; {reason}")
    return thing


def _must_be_free(thing: Any) -> None:
    if isinstance(thing, Unit) and (planned := open_visits(thing).count()):
        message = f"{planned} of its visits are planned or under way: close, move or cancel them first."
        raise NotWritable(message, code="unit_has_visits")
    if isinstance(thing, Site) and (units := thing.unit_set.filter(retired_at=None).count()):
        raise NotWritable(f"{units} units stand there: move or retire them first.", code="site_has_units")


def _must_be_as_seen(sort: CardSort, thing: Any, seen: int, actor: Person) -> None:
    """Raise CardMoved, saying what became of each field, where somebody changed the card meanwhile."""
    if newest_number(sort, thing.pk, actor.own_firm_id) <= seen:
        return
    said: dict[str, str] = {}
    for step in steps_of(sort, thing.pk, actor.own_firm_id, after=seen):
        if step.author is None:
            continue  # as it was found before it was ever changed: that is what was seen
        who = step.author.full_name
        for one in step.changes:
            field = sort.field(one.field)
            if field is not None and one.field not in said:
                shown = field.shown(one.after, actor)
                said[one.field] = f"{field.label} is “{shown if shown is not None else ''}” now, by {who}."
    raise CardMoved("Somebody changed this card while you did: look what, then save again.", said)


def _plates(sort: CardSort, thing: Any) -> dict[str, tuple[Unit, dict[str, Any]]]:
    """Return what the units that hang on a card are judged by, before it is changed."""
    units = [thing] if sort is UNIT else list(thing.unit_set.select_related("site", "model")) if sort is SITE else []
    return {str(unit.pk): (unit, own_plate(unit)) for unit in units}


def must_fit(sort: CardSort, thing: Any) -> None:
    """Raise BadFields where a card cannot stand beside the others, or a unit cannot be judged."""
    if sort is UNIT:
        _must_be_a_unit(thing)
    elif sort is INSTRUMENT:
        _must_be_alone(
            Instrument, thing, "name", "Another instrument has this name: readings would not tell them apart."
        )
    elif sort is PART:
        _must_be_alone(Part, thing, "number", "Another part has this number.")
    elif sort is CONTACT and not (thing.phone or thing.mail):
        raise BadFields({"phone": "Phone: a number or a mail address is needed, or nobody can be reached."})
    elif sort is FIRM and len(thing.currency) != 3:
        raise BadFields({"currency": "Currency: three letters, like USD."})


def _must_be_alone(model: type[Instrument] | type[Part], thing: Any, name: str, message: str) -> None:
    same = model.objects.filter(firm_id=thing.firm_id, retired_at=None, **{f"{name}__iexact": getattr(thing, name)})
    if same.exclude(pk=thing.pk).exists():
        raise BadFields({name: message})


def _must_be_a_unit(unit: Unit) -> None:
    same = Unit.objects.filter(site_id=unit.site_id, label__iexact=unit.label, retired_at=None)
    if same.exclude(pk=unit.pk).exists():
        raise BadFields({"label": f"Another unit of this site is tagged {unit.label}."})
    try:
        unit.described()
    except CoreError as error:
        raise BadFields({"model": f"A unit of this model cannot be judged there: {words(error.said)}"}) from None
