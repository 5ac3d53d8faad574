"""Reading a table of cards: whatever its encoding and its separator, and a guess which column is which field."""

import csv
import io
import re
from collections.abc import Sequence

from havrin_core.quantities.strict import is_printable
from havrin_server.cards.sorts import CardSort
from havrin_server.errors import FileRefused

LARGEST_LIST = 10 * 1024 * 1024
MOST_ROWS, MOST_COLUMNS, MOST_CELL = 20_000, 60, 600
_SEPARATORS = ",;\t|"


def read_table(content: bytes) -> tuple[list[str], list[list[str]]]:
    """Return the columns' names and the rows of a table. Raises FileRefused, saying which row it stumbles over."""
    if len(content) > LARGEST_LIST:
        raise FileRefused(f"The list is larger than {LARGEST_LIST // 2**20} MB: bring it in parts.")
    text = _text(content)
    csv.field_size_limit(1_000_000)
    try:
        rows = [
            [" ".join(cell.split()) for cell in row]
            for row in csv.reader(io.StringIO(text), delimiter=_separator(text))
        ]
    except csv.Error as error:
        raise FileRefused(f"This is no table that can be read: {error}.") from error
    numbered = [(number, row) for number, row in enumerate(rows, 1) if any(row)]
    if len(numbered) < 2:
        raise FileRefused("The list needs a row with the columns' names and at least one more.")
    if len(numbered) - 1 > MOST_ROWS:
        raise FileRefused(f"The list has {len(numbered) - 1} rows: bring at most {MOST_ROWS} at once.")
    head = numbered[0][1]
    if len(head) > MOST_COLUMNS:
        raise FileRefused(f"The list has {len(head)} columns: at most {MOST_COLUMNS} are taken.")
    return head, [_checked(number, row, len(head)) for number, row in numbered[1:]]


def _text(content: bytes) -> str:
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return content.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise FileRefused("The list is in no encoding that is known here: save it as CSV UTF-8.")


def _separator(text: str) -> str:
    head = text.splitlines()[0] if text else ""
    return max(_SEPARATORS, key=head.count)


def _checked(number: int, row: list[str], columns: int) -> list[str]:
    if len(row) > columns and any(row[columns:]):
        raise FileRefused(
            f"Row {number} has {len(row)} cells, and the columns are {columns}: is a separator in its text?"
        )
    for cell in row:
        if len(cell) > MOST_CELL or not is_printable(cell):
            raise FileRefused(f"Row {number}: “{cell[:30]}…” is too long or cannot be printed.")
    return (row + [""] * columns)[:columns]


def guessed(sort: CardSort, columns: Sequence[str]) -> dict[str, str]:
    """Return which column (its number) is probably which field; each field once."""
    wanted = {_plain(name): field.key for field in sort.fields for name in (field.label, field.key)}
    found: dict[str, str] = {}
    for number, column in enumerate(columns):
        field = wanted.get(_plain(column))
        if field and field not in found.values():
            found[str(number)] = field
    return found


def _plain(name: str) -> str:
    return re.sub(r"[^0-9a-z]", "", re.sub(r"\[.*?\]", "", name.casefold()))
