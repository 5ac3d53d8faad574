"""Taking a list in, as its dry run says and as somebody chose row by row; and taking it back, as one."""

from collections.abc import Mapping, Sequence
from typing import Any

from django.utils import timezone

from havrin_server.cards.bulk import Bulk
from havrin_server.cards.fields import BadFields
from havrin_server.cards.looking import BATCH
from havrin_server.cards.models import ImportRow, ImportRun, ImportState, RowStatus
from havrin_server.cards.services import must_fit, put_all
from havrin_server.cards.sorts import CardSort, find_sort
from havrin_server.errors import NotWritable
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.work.doing import Progress, does
from havrin_server.work.models import LongWork

LEAVE, AS_NEW = "leave", "new"


@does("import_take")
def take(work: LongWork, progress: Progress) -> dict[str, int]:
    """Do what the rows say; return how many cards were made, changed and left alone. Raises NotWritable."""
    run = _run(work, ImportState.LOOKED, "This list is taken in already, or was not looked at yet.")
    sort = find_sort(run.sort)
    bulk = Bulk(sort, work.person, timezone.now(), f"from the list {run.name}")
    rows = list(run.rows.order_by("number"))
    progress.of(len(rows))
    counts = {"made": 0, "changed": 0, "left": 0}
    for start in range(0, len(rows), BATCH):
        batch = rows[start : start + BATCH]
        _take_batch(sort, bulk, batch, counts, work.person)
        ImportRow.objects.bulk_update(batch, ["took", "why"])
        progress.step(len(batch))
    run.state, run.counts = ImportState.TAKEN, {**run.counts, **counts}
    run.save(update_fields=["state", "counts"])
    record("imported", work.person, f"{run.name}: {counts['made']} made, {counts['changed']} changed")
    return counts


def _take_batch(sort: CardSort, bulk: Bulk, batch: Sequence[ImportRow], counts: dict[str, int], person: Person) -> None:
    new = [row for row in batch if _is_new(sort, row) and _can_stand(sort, row, person)]
    for row, pk in zip(new, bulk.make([row.values for row in new]), strict=True):
        row.took = {"card": pk, "made": True}
    wanted = {card: row for row in batch if (card := _changes(row)) is not None}
    given = {card: _given(row) for card, row in wanted.items()}
    before = bulk.change(given)
    for card, was in before.items():
        wanted[card].took = {"card": card, "made": False, "before": was, "after": given[card]}
    counts["made"] += len(new)
    counts["changed"] += len(before)
    counts["left"] += len(batch) - len(new) - len(before)


def _is_new(sort: CardSort, row: ImportRow) -> bool:
    complete = all(row.values.get(field.key) for field in sort.fields if field.required)
    return complete and (row.choice == AS_NEW or (not row.choice and row.status == RowStatus.NEW))


def _can_stand(sort: CardSort, row: ImportRow, person: Person) -> bool:
    """Tell whether a card that somebody chose to be new can stand beside the others; where not, the row says why.

    What the dry run calls new was looked at there.
    """
    if row.choice != AS_NEW:
        return True
    thing = sort.model()
    if sort.of == "firm_id":
        setattr(thing, "firm_id", person.own_firm_id)  # noqa: B010
    try:
        put_all(sort, thing, row.values)
        must_fit(sort, thing)
    except BadFields as error:
        row.why = f"Not taken in: {error.message}"[:300]
        return False
    return True


def _changes(row: ImportRow) -> int | None:
    """Return the card that a row changes; None where it changes none."""
    if row.choice.isdigit() and row.values:
        return int(row.choice)
    return row.card if not row.choice and row.status == RowStatus.CHANGED else None


def _given(row: ImportRow) -> dict[str, Any]:
    """Return what a row changes; all that it says where somebody named the card."""
    return dict(row.values) if row.choice else {key: after for key, (_, after) in row.changes.items()}


@does("import_undo")
def undo(work: LongWork, progress: Progress) -> dict[str, int]:
    """Take a list back: what it made is retired, what it changed is as it was, unless somebody changed it since. Raises NotWritable."""
    run = _run(work, ImportState.TAKEN, "Only a list that was taken in is taken back.")
    sort = find_sort(run.sort)
    bulk = Bulk(sort, work.person, timezone.now(), f"the list {run.name} taken back")
    rows = list(run.rows.exclude(took=None).order_by("number"))
    progress.of(len(rows))
    counts = {"retired": 0, "restored": 0, "kept": 0}
    for start in range(0, len(rows), BATCH):
        batch = rows[start : start + BATCH]
        _undo_batch(sort, bulk, batch, counts, work.person)
        progress.step(len(batch))
    run.state, run.counts = ImportState.UNDONE, {**run.counts, **counts}
    run.save(update_fields=["state", "counts"])
    record("import_undone", work.person, run.name)
    return counts


def _undo_batch(sort: CardSort, bulk: Bulk, batch: Sequence[ImportRow], counts: dict[str, int], person: Person) -> None:
    made = [row.took["card"] for row in batch if row.took["made"]]
    live = sort.all_of(person).filter(pk__in=made, retired_at=None)
    counts["retired"] += live.order_by().update(retired_at=timezone.now())
    changed = {row.took["card"]: row.took for row in batch if not row.took["made"]}
    now = {thing.pk: sort.document(thing) for thing in sort.all_of(person).filter(pk__in=changed)}
    back = {pk: values for pk, took in changed.items() if (values := _as_it_was(took, now.get(pk, {})))}
    bulk.change(back)
    counts["restored"] += len(back)
    counts["kept"] += len(changed) - len(back)


def _as_it_was(took: Mapping[str, Any], now: Mapping[str, Any]) -> dict[str, Any]:
    """Return the fields that still say what the list said, as they were before it."""
    return {key: was for key, was in took["before"].items() if key in now and now[key] == took["after"][key] != was}


def _run(work: LongWork, state: str, message: str) -> ImportRun:
    run = ImportRun.objects.select_for_update().get(pk=work.given["run"], firm_id=work.firm_id)
    if run.state != state:
        raise NotWritable(message, code="import_state")
    return run
