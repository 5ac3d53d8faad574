"""The dry run of a list: what each row would do, before anything is done."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from dataclasses import field as made_field
from typing import Any

from havrin_server.cards.fields import BadField, BadFields, Taking
from havrin_server.cards.models import ImportRow, ImportRun, ImportState, RowStatus
from havrin_server.cards.services import must_fit, put_all
from havrin_server.cards.sorts import UNIT, CardSort, find_sort
from havrin_server.work.doing import Progress, does
from havrin_server.work.models import LongWork

BATCH = 500
# What tells one thing from another: where a list says something else than the card, somebody has to look.
TELLS_APART = {"unit": ("model", "serial", "site"), "instrument": ("kind",), "part": ("part",)}


@dataclass
class Here:
    """What the firm has of a sort: each card's document, and by what each can be known."""

    sort: CardSort
    documents: dict[int, dict[str, Any]]
    titles: dict[int, str]
    known: list[tuple[tuple[str, ...], dict[tuple[str, ...], list[int]]]] = made_field(default_factory=list)

    def meant_by(self, values: Mapping[str, Any]) -> list[tuple[tuple[str, ...], list[int]]]:
        """Return, for each way of knowing a card that ``values`` fill, which cards they mean."""
        found = []
        for fields, index in self.known:
            if all(values.get(name) for name in fields):
                found.append((fields, index.get(_plain(values, fields), [])))
        return found


def here(sort: CardSort, by: Taking) -> Here:
    """Return what the person's firm has of a sort, in use."""
    things = list(sort.all_of(by.person).filter(retired_at=None))
    documents = {thing.pk: sort.document(thing) for thing in things}
    found = Here(sort, documents, {thing.pk: sort.title(thing) for thing in things})
    for fields in sort.known_by:
        index: dict[tuple[str, ...], list[int]] = defaultdict(list)
        for pk, document in documents.items():
            if all(document.get(name) for name in fields):
                index[_plain(document, fields)].append(pk)
        found.known.append((fields, index))
    return found


def _plain(values: Mapping[str, Any], fields: Iterable[str]) -> tuple[str, ...]:
    return tuple(" ".join(str(values[name]).casefold().split()) for name in fields)


@does("import_look")
def look(work: LongWork, progress: Progress) -> dict[str, int]:
    """Say of every row of a list what it would do; nothing is done."""
    run = ImportRun.objects.select_for_update().get(pk=work.given["run"], firm_id=work.firm_id)
    sort, by = find_sort(run.sort), Taking(work.person)
    rows = list(run.rows.order_by("number"))
    progress.of(len(rows))
    _Look(sort, by, run.mapping, here(sort, by)).over(rows, progress)
    counts: dict[str, int] = defaultdict(int)
    for row in rows:
        counts[row.status] += 1
    run.counts, run.state = dict(counts), ImportState.LOOKED
    run.save(update_fields=["counts", "state"])
    return dict(counts)


class _Look:
    """One dry run over the rows of a list."""

    def __init__(self, sort: CardSort, by: Taking, mapping: Mapping[str, str], there: Here) -> None:
        self.sort, self.by, self.there = sort, by, there
        self.columns = {int(number): sort.field(key) for number, key in mapping.items()}
        self.said: dict[object, int] = {}  # a card, or what a new one would be known by -> the row that says so

    def over(self, rows: Sequence[ImportRow], progress: Progress) -> None:
        """Look at each row and keep what it would do."""
        columns = ["status", "why", "card", "candidates", "values", "changes", "choice"]
        for start in range(0, len(rows), BATCH):
            batch = rows[start : start + BATCH]
            for row in batch:
                row.card, row.candidates, row.changes, row.why, row.choice = None, [], {}, "", ""
                self._row(row)
            ImportRow.objects.bulk_update(batch, columns)
            progress.step(len(batch))

    def _row(self, row: ImportRow) -> None:
        row.values, bad = self._values(row.cells)
        if bad:
            return self._unclear(row, " ".join(bad))
        meant = self.there.meant_by(row.values)
        cards = list(dict.fromkeys(pk for _, found in meant for pk in found))
        first = next((found for _, found in meant if found), [])
        if len(first) > 1:
            return self._unclear(row, "It may be each of several cards.", cards)
        if len(cards) > 1:
            names = " and ".join(self.there.titles[pk] for pk in cards)
            return self._unclear(row, f"It says what tells {names} apart.", cards)
        return self._known(row, cards[0]) if cards else self._new(row)

    def _values(self, cells: Sequence[str]) -> tuple[dict[str, Any], list[str]]:
        """Return what the cells give, and what is wrong with them; an empty cell says nothing."""
        values: dict[str, Any] = {}
        bad: list[str] = []
        for number, one in self.columns.items():
            if one is None or not cells[number]:
                continue
            try:
                values[one.key] = one.taken(cells[number], self.by)
            except BadField as error:
                bad.append(str(error))
        return values, bad

    def _known(self, row: ImportRow, card: int) -> None:
        before = self.there.documents[card]
        row.card = card
        if (other := self.said.setdefault(card, row.number)) != row.number:
            return self._unclear(row, f"Row {other} is the same card.", [card])
        row.changes = {key: [before[key], v] for key, v in row.values.items() if self._differs(key, before[key], v)}
        apart = [key for key in TELLS_APART.get(self.sort.key, ()) if key in row.changes and row.changes[key][0]]
        if apart:
            labels = ", ".join(one.label.lower() for key in apart if (one := self.sort.field(key)))
            return self._unclear(row, f"It is known here with another {labels}: the same thing, or another?", [card])
        row.status = RowStatus.CHANGED if row.changes else RowStatus.SAME
        return None

    def _differs(self, key: str, before: Any, value: Any) -> bool:
        """Tell whether a value is another one also as it is shown: a table holds a rounded altitude."""
        field = self.sort.field(key)
        person = self.by.person
        return field is not None and before != value and field.shown(before, person) != field.shown(value, person)

    def _new(self, row: ImportRow) -> None:
        missing = [one.label for one in self.sort.fields if one.required and not row.values.get(one.key)]
        if missing:
            return self._unclear(row, f"It is new here, and says nothing of: {', '.join(missing)}.")
        for fields in self.sort.known_by:
            if all(row.values.get(name) for name in fields):
                other = self.said.setdefault((fields, _plain(row.values, fields)), row.number)
                if other != row.number:
                    return self._unclear(row, f"Row {other} is the same card.")
        if said := self._cannot_stand(row.values):
            return self._unclear(row, said)
        row.status = RowStatus.NEW
        return None

    def _cannot_stand(self, values: Mapping[str, Any]) -> str:
        """Return why a new card would be refused; "" where it would not. A unit is judged when it is made, not here."""
        if self.sort is UNIT:
            return ""
        thing = self.sort.model()
        if self.sort.of == "firm_id":
            setattr(thing, "firm_id", self.by.person.own_firm_id)  # noqa: B010
        try:
            put_all(self.sort, thing, values)
            must_fit(self.sort, thing)
        except BadFields as error:
            return error.message
        return ""

    def _unclear(self, row: ImportRow, why: str, candidates: Sequence[int] = ()) -> None:
        row.status, row.why, row.candidates = RowStatus.UNCLEAR, why[:300], list(candidates)[:8]
