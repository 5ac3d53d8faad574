"""Cards as the page shows them, in the person's units."""

from collections.abc import Iterable
from typing import Any

from havrin_core.quantities.formats import number
from havrin_server.cards.fields import CardField, Taking
from havrin_server.cards.history import Step, newest_number, steps_of
from havrin_server.cards.models import Merge
from havrin_server.cards.schemas import (
    CardList,
    CardOut,
    CardRow,
    CardStepOut,
    ChangeOut,
    ChoiceOut,
    FieldOut,
    MergeOut,
    SortOut,
)
from havrin_server.cards.sorts import SORTS, UNIT, CardSort
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows

PER_PAGE = 50


def sorts_out(person: Person) -> list[SortOut]:
    """Return every sort of cards with its fields, as the person may use them."""
    by = Taking(person)
    return [sort_out(sort, by) for sort in SORTS.values()]


def sort_out(sort: CardSort, by: Taking) -> SortOut:
    """Return one sort."""
    person = by.person
    live = sort.all_of(person).filter(retired_at=None) if sort.retires else sort.all_of(person)
    writes = allows(person, sort.write)
    return SortOut.of(
        sort,
        fields=fields_out(sort, by),
        may_write=writes,
        may_make=writes and sort.made_here,
        may_retire=sort.retires and allows(person, "cards.retire"),
        may_merge=sort.merges and allows(person, "cards.merge"),
        count=live.count(),
    )


def fields_out(sort: CardSort, by: Taking) -> list[FieldOut]:
    """Return how each field of a sort is asked for. Sites are found by searching, not picked from a list of hundreds."""
    return [
        FieldOut.of(
            field,
            unit=field.unit(by.person),
            choices=[] if field.sort == "site" else [ChoiceOut(key=k, name=n) for k, n in by.choices(field).items()],
        )
        for field in sort.fields
    ]


def card_row(sort: CardSort, thing: Any) -> CardRow:
    """Return a card as a list shows it."""
    gone = getattr(thing, "retired_at", None) is not None or getattr(thing, "is_active", True) is False
    return CardRow(id=thing.pk, title=sort.title(thing), line=sort.line(thing), retired=gone)


def card_list(sort: CardSort, person: Person, rows: Any, page: int) -> CardList:
    """Return one page of ``rows``."""
    count = rows.count()
    shown = rows[(page - 1) * PER_PAGE : page * PER_PAGE]
    return CardList(rows=[card_row(sort, one) for one in shown], count=count, page=page, per_page=PER_PAGE)


def card_out(sort: CardSort, thing: Any, person: Person) -> CardOut:
    """Return a card, whole."""
    by = Taking(person)
    kept = getattr(thing, "merged_into", None)
    return CardOut(
        sort=sort.key,
        id=thing.pk,
        title=sort.title(thing),
        values=shown_values(sort, sort.document(thing), person),
        version=newest_number(sort, thing.pk, person.own_firm_id),
        retired=card_row(sort, thing).retired,
        merged_into=card_row(sort, kept) if kept else None,
        merges=_merges(sort, thing, person),
        steps=[_step(sort, step, by) for step in steps_of(sort, thing.pk, person.own_firm_id)],
        photos=list(thing.plate_photos.order_by("-taken_at").values_list("pk", flat=True)) if sort is UNIT else [],
    )


def shown_values(sort: CardSort, document: dict[str, Any], person: Person) -> dict[str, Any]:
    """Return what a card says in the person's units."""
    return {field.key: field.shown(document.get(field.key), person) for field in sort.fields}


def changes_out(sort: CardSort, changes: Iterable[tuple[str, Any, Any]], by: Taking) -> list[ChangeOut]:
    """Return changed fields in words."""
    named = ((sort.field(key), before, after) for key, before, after in changes)
    return [
        ChangeOut(label=field.label, before=_words(field, before, by), after=_words(field, after, by))
        for field, before, after in named
        if field is not None
    ]


def _words(field: CardField, value: Any, by: Taking) -> str:
    if value is None or value == "" or value == []:
        return ""
    names = by.choices(field) if field.sort in ("choice", "choices", "site") else {}
    if isinstance(value, list):
        return ", ".join(names.get(str(one), str(one)) for one in value)
    shown = field.shown(value, by.person)
    text = number(shown, "g") if isinstance(shown, float) else names.get(str(shown), str(shown))
    return f"{text} {field.unit(by.person)}".strip()


def _step(sort: CardSort, step: Step, by: Taking) -> CardStepOut:
    rows = ((one.field, one.before, one.after) for one in step.changes)
    return CardStepOut.of(step, who=step.author.full_name if step.author else "", changes=changes_out(sort, rows, by))


def _merges(sort: CardSort, thing: Any, person: Person) -> list[MergeOut]:
    if not sort.merges:
        return []
    rows = Merge.objects.filter(firm_id=person.own_firm_id, sort=sort.key, undone_at=None).select_related("by")
    mine = [row for row in rows.order_by("-at") if thing.pk in (row.kept, row.gone)]
    names = {one.pk: sort.title(one) for one in sort.all_of(person).filter(pk__in=[row.gone for row in mine])}
    return [MergeOut.of(row, title=names.get(row.gone, ""), by=row.by.full_name) for row in mine]
