"""Cards for the page: their fields, their values, what became of them; search; lists taken in."""

import uuid
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field

from havrin_server.incoming import Incoming, Number
from havrin_server.view_model import ViewModel

Reason = Annotated[str, Field(max_length=300)]
Values = Annotated[dict[str, Any], Field(max_length=40)]


class ChoiceOut(ViewModel):
    """One thing that a field can be."""

    key: str
    name: str


class FieldOut(ViewModel):
    """How one field is asked for. ``choices`` are the keys and names that it takes; "" as a unit: none."""

    key: str
    label: str
    sort: str
    required: bool
    most: float
    unit: str
    hint: str
    choices: list[ChoiceOut]


class SortOut(ViewModel):
    """One sort of cards: its name, its fields, and what this person may do."""

    key: str
    name: str
    many: str
    fields: list[FieldOut]
    may_write: bool
    may_make: bool
    may_retire: bool
    may_merge: bool
    count: int


class CardRow(ViewModel):
    """One card in a list."""

    id: int
    title: str
    line: str
    retired: bool


class CardList(ViewModel):
    """A page of cards."""

    rows: list[CardRow]
    count: int
    page: int
    per_page: int


class ChangeOut(ViewModel):
    """One field of one step of a card's history."""

    label: str
    before: str
    after: str


class CardStepOut(ViewModel):
    """One step of a card's history."""

    number: int
    who: str
    at: datetime
    reason: str
    changes: list[ChangeOut]


class MergeOut(ViewModel):
    """What was merged into a card, or what it was merged into."""

    id: int
    title: str
    by: str
    at: datetime
    why: str


class CardOut(ViewModel):
    """A card, whole. ``version`` is given back with a change."""

    sort: str
    id: int
    title: str
    values: dict[str, Any]
    version: int
    retired: bool
    merged_into: CardRow | None
    merges: list[MergeOut]
    steps: list[CardStepOut]
    photos: list[uuid.UUID]


class CardIn(Incoming):
    """A new card; ``id`` is made by the page, so that asked twice it is made once."""

    id: uuid.UUID
    values: Values
    reason: Reason = ""


class CardChangeIn(Incoming):
    """Fields of a card as they are to be; ``seen`` is its version as it was shown."""

    values: Values
    seen: Number
    reason: Reason = ""


class RetireIn(Incoming):
    """Whether a card is retired, and why."""

    retired: bool
    reason: Reason = ""


class MergeIn(Incoming):
    """Into which card another goes, and why."""

    into: Number
    why: Reason = ""


class FoundOut(ViewModel):
    """One thing that was found."""

    sort: str
    id: int
    title: str
    line: str
    retired: bool
    level: int | None


class DoorModel(ViewModel):
    """A model that a unit can be made of at the door, the usual ones first."""

    key: str
    name: str
    units: int


class SisterOut(ViewModel):
    """A unit of the same site that a new one may be like: its values are a beginning."""

    id: int
    name: str
    values: dict[str, Any]


class DoorOut(ViewModel):
    """What a unit at the door is made from: the site, its other units, the models of the firm, a tag that is free."""

    site: CardRow
    sisters: list[SisterOut]
    models: list[DoorModel]
    kinds: dict[str, str]
    fuels: dict[str, str]
    free_labels: list[str]
    reads_plates: bool  # whether a picture of a plate is read here (tesseract is there)


class PlateRead(ViewModel):
    """What was read off a picture of a plate; nothing of it is taken unseen."""

    lines: list[str]
    proposed: dict[str, str]  # field -> what it may be


class ImportIn(Incoming):
    """Which sort of cards a list is of."""

    sort: Literal["site", "contact", "unit", "part", "instrument"]


class ColumnsIn(Incoming):
    """Which column is which field: column number to field, the others are left out."""

    columns: dict[str, Annotated[str, Field(max_length=40)]] = Field(max_length=60)
    work: uuid.UUID


class WorkIn(Incoming):
    """The id under which long work is done."""

    work: uuid.UUID


class RowChoiceIn(Incoming):
    """What a row of a list is to be: a card's number, "new", "leave", or "" for as the dry run says."""

    choice: Annotated[str, Field(max_length=20)]


class ImportRowOut(ViewModel):
    """One row of a list with what it would do."""

    number: int
    cells: list[str]
    status: str
    why: str
    card: CardRow | None
    candidates: list[CardRow]
    changes: list[ChangeOut]
    choice: str
    taken: bool


class ImportOut(ViewModel):
    """A list that was brought: its columns with a first look, the mapping, and how many rows would do what."""

    id: uuid.UUID
    sort: str
    name: str
    state: str
    columns: list[str]
    sample: list[list[str]]
    mapping: dict[str, str]
    counts: dict[str, int]
    rows_in_all: int
    at: datetime
    by: str
    fields: list[FieldOut]


class ImportRows(ViewModel):
    """A page of a list's rows."""

    rows: list[ImportRowOut]
    count: int
    page: int
    per_page: int
