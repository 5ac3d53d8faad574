"""Lists taken in: the file, which column is which field, the dry run, what each row is to be, taking in and taking back."""

import uuid
from typing import Annotated, Any

from django.db import transaction
from django.utils import timezone
from ninja import File, Form, Router, UploadedFile
from pydantic import Field

from havrin_server.cards.fields import Taking
from havrin_server.cards.lists import LARGEST_LIST, guessed, read_table
from havrin_server.cards.models import ImportRow, ImportRun, ImportState
from havrin_server.cards.pages import PER_PAGE, card_row, changes_out, fields_out
from havrin_server.cards.schemas import (
    ColumnsIn,
    ImportIn,
    ImportOut,
    ImportRowOut,
    ImportRows,
    RowChoiceIn,
    WorkIn,
)
from havrin_server.cards.sorts import CardSort, find_sort
from havrin_server.cards.taking import AS_NEW, LEAVE
from havrin_server.errors import FileRefused, NotFound, NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.work.schemas import WorkOut
from havrin_server.work.services import ask_for

router = Router(tags=["imports"])
_SAMPLE, _MOST_LISTS, _BATCH = 3, 20, 1000
Page = Annotated[int, Field(ge=1, le=10_000)]


@router.get("/imports", response=list[ImportOut])
def lists(request: SignedIn) -> list[ImportOut]:
    """Return the newest lists that were brought."""
    require(request.user, "cards.import")
    rows = ImportRun.objects.filter(firm_id=request.user.own_firm_id).select_related("person").order_by("-at")
    return [_out(run, request.user) for run in rows[:_MOST_LISTS]]


@router.post("/imports", response=ImportOut)
@transaction.atomic
def bring(request: SignedIn, file: File[UploadedFile], given: Form[ImportIn]) -> ImportOut:
    """Bring a list; nothing of it is taken in yet."""
    require(request.user, "cards.import")
    sort = find_sort(given.sort)
    if file.size is None or file.size > LARGEST_LIST:
        raise FileRefused(f"The list is larger than {LARGEST_LIST // 2**20} MB: bring it in parts.")
    columns, rows = read_table(file.read())
    run = ImportRun.objects.create(
        id=uuid.uuid4(),
        firm_id=request.user.own_firm_id,
        person=request.user,
        sort=sort.key,
        name=(file.name or "list")[:200],
        columns=columns,
        mapping=guessed(sort, columns),
        at=timezone.now(),
    )
    kept = [ImportRow(run=run, number=number, cells=cells) for number, cells in enumerate(rows, 2)]
    ImportRow.objects.bulk_create(kept, batch_size=_BATCH)
    return _out(run, request.user)


@router.get("/imports/{uuid:import_id}", response=ImportOut)
def one(request: SignedIn, import_id: uuid.UUID) -> ImportOut:
    """Return a list that was brought."""
    require(request.user, "cards.import")
    return _out(_find(import_id, request.user), request.user)


@router.post("/imports/{uuid:import_id}/look", response=WorkOut)
@transaction.atomic
def look(request: SignedIn, import_id: uuid.UUID, payload: ColumnsIn) -> WorkOut:
    """Say which column is which field, and have the list looked through; nothing is taken in."""
    require(request.user, "cards.import")
    run = _find(import_id, request.user)
    if run.state not in (ImportState.COLUMNS, ImportState.LOOKED):
        raise NotWritable("This list is taken in already.", code="import_state")
    _check_mapping(run, payload.columns)
    run.mapping = payload.columns
    run.save(update_fields=["mapping"])
    return _asked("import_look", run, payload.work, request.user)


@router.put("/imports/{uuid:import_id}/rows/{int:number}", response=ImportRowOut)
def choose(request: SignedIn, import_id: uuid.UUID, number: int, payload: RowChoiceIn) -> ImportRowOut:
    """Say what a row is to be: a card, a new one, or nothing."""
    require(request.user, "cards.import")
    run = _find(import_id, request.user)
    row = run.rows.filter(number=number).first()
    if row is None:
        raise NotFound("The list has no such row.")
    if run.state != ImportState.LOOKED:
        raise NotWritable(
            "Rows are chosen after the list was looked through, and before it is taken in.", code="import_state"
        )
    sort = find_sort(run.sort)
    if payload.choice.isdigit():
        sort.find(int(payload.choice), request.user)
    elif payload.choice not in ("", AS_NEW, LEAVE):
        raise NotWritable("A row is a card, new, or left out.", code="row_choice")
    row.choice = payload.choice
    row.save(update_fields=["choice"])
    return _rows(sort, [row], request.user)[0]


@router.get("/imports/{uuid:import_id}/rows", response=ImportRows)
def rows(request: SignedIn, import_id: uuid.UUID, status: str = "", page: Page = 1) -> ImportRows:
    """Return a page of a list's rows, of one status where it is given."""
    require(request.user, "cards.import")
    run = _find(import_id, request.user)
    found = run.rows.filter(status=status) if status else run.rows.all()
    shown = list(found.order_by("number")[(page - 1) * PER_PAGE : page * PER_PAGE])
    out = _rows(find_sort(run.sort), shown, request.user)
    return ImportRows(rows=out, count=found.count(), page=page, per_page=PER_PAGE)


@router.post("/imports/{uuid:import_id}/take", response=WorkOut)
@transaction.atomic
def take(request: SignedIn, import_id: uuid.UUID, payload: WorkIn) -> WorkOut:
    """Take the list in, as the dry run says and as was chosen."""
    require(request.user, "cards.import")
    return _asked("import_take", _find(import_id, request.user), payload.work, request.user)


@router.post("/imports/{uuid:import_id}/undo", response=WorkOut)
@transaction.atomic
def undo(request: SignedIn, import_id: uuid.UUID, payload: WorkIn) -> WorkOut:
    """Take a list back, as one."""
    require(request.user, "cards.import")
    return _asked("import_undo", _find(import_id, request.user), payload.work, request.user)


def _asked(sort: str, run: ImportRun, work_id: uuid.UUID, actor: Person) -> WorkOut:
    work = ask_for(sort, {"run": str(run.pk)}, work_id=work_id, actor=actor, now=timezone.now())
    return WorkOut.of(work)


def _find(import_id: uuid.UUID, person: Person) -> ImportRun:
    found = ImportRun.objects.select_related("person").filter(pk=import_id, firm_id=person.own_firm_id).first()
    if found is None:
        raise NotFound("There is no such list in your firm.")
    return found


def _check_mapping(run: ImportRun, columns: dict[str, str]) -> None:
    sort = find_sort(run.sort)
    for number, key in columns.items():
        if not number.isdigit() or int(number) >= len(run.columns) or sort.field(key) is None:
            raise NotWritable(f"Column {number} cannot be {key!r}.", code="import_columns")
    if len(set(columns.values())) < len(columns):
        raise NotWritable("Two columns are the same field: which of the two?", code="import_columns")
    if not any(all(name in columns.values() for name in fields) for fields in sort.known_by):
        ways = " or ".join(" and ".join(_labels(sort, fields)) for fields in sort.known_by)
        raise NotWritable(
            f"Which card a row means is told by {ways}: say which columns these are.", code="import_columns"
        )


def _labels(sort: CardSort, fields: Any) -> list[str]:
    return [field.label.lower() for key in fields if (field := sort.field(key))]


def _out(run: ImportRun, person: Person) -> ImportOut:
    sort = find_sort(run.sort)
    return ImportOut.of(
        run,
        sample=[row.cells for row in run.rows.order_by("number")[:_SAMPLE]],
        rows_in_all=run.rows.count(),
        by=run.person.full_name,
        fields=[field.model_copy(update={"choices": []}) for field in fields_out(sort, Taking(person))],
    )


def _rows(sort: CardSort, shown: list[ImportRow], person: Person) -> list[ImportRowOut]:
    by = Taking(person)
    ids = {pk for row in shown for pk in (row.card, *row.candidates) if pk is not None}
    cards = {thing.pk: card_row(sort, thing) for thing in sort.all_of(person).filter(pk__in=ids)}
    return [
        ImportRowOut.of(
            row,
            card=cards.get(row.card) if row.card else None,
            candidates=[cards[pk] for pk in row.candidates if pk in cards],
            changes=changes_out(sort, ((key, was, then) for key, (was, then) in row.changes.items()), by),
            taken=row.took is not None,
        )
        for row in shown
    ]
