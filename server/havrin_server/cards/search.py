"""One field that finds anything: units, sites, contacts, parts, instruments, and visits by what was said on them."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from django.db import connections
from django.db.models import Q, Value
from django.db.models.functions import Replace

from havrin_core.quantities.formats import day_words
from havrin_core.wording.names import visit_reason
from havrin_server.cards.sorts import CONTACT, INSTRUMENT, PART, SITE, UNIT, CardSort
from havrin_server.overviews import read_from
from havrin_server.people.models import Person
from havrin_server.shop.models import ShopDocument, Sort
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit

MOST = 8  # of each sort
LEAST_FOR_VISITS = 3  # letters: fewer stand in nearly everything that was ever said
_FIELDS = {
    SITE.key: ("name", "address"),
    CONTACT.key: ("name", "phone", "mail"),
    PART.key: ("number", "name"),
    INSTRUMENT.key: ("name", "serial"),
}
_OF_UNIT = ("label", "place", "serial", "vulnerable", "site__name", "site__address", "plain_label")


@dataclass(frozen=True, slots=True)
class Found:
    """One thing that was found: which sort, its number, how it is called, and what stands under it."""

    sort: str
    id: int
    title: str
    line: str
    retired: bool = False
    level: int | None = None


def search(asked: str, person: Person) -> list[Found]:
    """Return what has every word of ``asked``, the likeliest sort first; nothing for an empty question."""
    terms = asked.casefold().split()[:8]
    if not terms:
        return []
    rows = [
        *_units(terms, person),
        *_cards(SITE, terms, person),
        *_cards(CONTACT, terms, person),
        *_cards(PART, terms, person),
        *_cards(INSTRUMENT, terms, person),
    ]
    visits = _visits(asked, person) if len("".join(terms)) >= LEAST_FOR_VISITS else []
    return [*rows, *visits]


def _units(terms: Sequence[str], person: Person) -> Iterable[Found]:
    models = _models_saying(terms, person)
    rows = Unit.objects.filter(site__firm_id=person.own_firm_id).select_related("site", "model")
    rows = rows.annotate(plain_label=Replace("label", Value("-"), Value("")))
    for term in terms:
        rows = rows.filter(_any_of(_OF_UNIT, term) | Q(model__in=models[term]))
    for unit in rows.order_by("retired_at", "site__name", "label")[:MOST]:
        gone = unit.retired_at is not None
        yield Found(UNIT.key, unit.merged_into_id or unit.pk, UNIT.title(unit), UNIT.line(unit), gone, unit.left_level)


def _models_saying(terms: Sequence[str], person: Person) -> dict[str, list[int]]:
    documents = ShopDocument.objects.filter(firm_id=person.own_firm_id, sort=Sort.MODEL)
    named = [
        (pk, f"{maker} {name}".casefold())
        for pk, maker, name in documents.values_list("pk", "document__maker", "document__name")
    ]
    return {term: [pk for pk, words in named if term in words] for term in terms}


def _cards(sort: CardSort, terms: Sequence[str], person: Person) -> Iterable[Found]:
    rows = sort.all_of(person)
    for term in terms:
        rows = rows.filter(_any_of(_FIELDS[sort.key], term))
    for thing in rows.order_by("retired_at", *sort.order)[:MOST]:
        number = thing.site_id if sort is CONTACT else thing.pk  # a contact is spoken with at a site: it opens that
        yield Found(sort.key, number, sort.title(thing), sort.line(thing), thing.retired_at is not None)


def _any_of(fields: Iterable[str], term: str) -> Q:
    found = Q()
    for field in fields:
        plain = re.sub(r"[^0-9a-z]", "", term) if field == "plain_label" else term
        if plain:
            found |= Q(**{f"{field}__icontains": plain})
    return found


def _visits(asked: str, person: Person) -> Iterable[Found]:
    """Return the newest visits on which it was said; asked of a function that looks behind the wall for this firm alone."""
    with connections[read_from()].cursor() as cursor:
        cursor.execute("SELECT visit_id FROM havrin_visits_saying(%s, %s, %s)", [person.own_firm_id, asked, MOST])
        ids = [row[0] for row in cursor.fetchall()]
    rows = Visit.objects.filter(pk__in=ids, unit__site__firm_id=person.own_firm_id).select_related("unit__site")
    for visit in rows.defer("frozen", "pinned", "left_open", "opened_with", "signature").order_by("-day", "-pk"):
        said = visit.complaint or visit.customer_words or visit.unit.site.name
        title = f"{visit.unit.name}, {day_words(visit.day)}: {visit_reason(visit.reason).lower()}"
        yield Found("visit", visit.pk, title, said[:160])
