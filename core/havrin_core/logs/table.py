"""The table in a log: its delimiter, its header (of one or two rows), its units row, its rows of data, what is none."""

import csv
import re
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from havrin_core.errors import BadDocument
from havrin_core.logs.clocks import is_clock
from havrin_core.logs.columns import candidates
from havrin_core.logs.numbers import Cell, cell_of
from havrin_core.logs.units import is_unit
from havrin_core.phrases import Phrase, phrase

BLANKS = "blanks"  # columns that are set apart by two blanks or more
_DELIMITERS = (";", "\t", "|", ",", BLANKS)
_HEAD_ROWS = 400
_APART = re.compile(r" {2,}")
_PAIR = re.compile(r"\s*([^:=;,\t|]*?[A-Za-z₂][^:=;,\t|]*?)\s*(?:[:=;,\t|]|\s{2,})\s*(\S.*?)\s*")
_MOST_KEPT = 5

Row = tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Dropped:
    """Rows that were left out for one reason: how many, and the lines and cells of the first few."""

    why: Phrase
    count: int
    lines: tuple[tuple[int, str], ...]


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of data with their line numbers (from 1), headers, and the units of a units row ("" where none)."""

    delimiter: str
    header_line: int | None
    headers: Row
    units: Row
    rows: tuple[tuple[int, Row], ...]
    dropped: tuple[Dropped, ...]
    transposed: bool = False

    def column(self, index: int) -> Iterator[str]:
        """Yield the cells of one column, top to bottom."""
        return (row[index] for _, row in self.rows)


@dataclass(slots=True)
class _Left:
    """What was left out, counted by reason."""

    count: Counter[Phrase] = field(default_factory=Counter)
    lines: dict[Phrase, list[tuple[int, str]]] = field(default_factory=dict)

    def out(self, why: Phrase, line: int, text: str) -> None:
        self.count[why] += 1
        kept = self.lines.setdefault(why, [])
        if len(kept) < _MOST_KEPT:
            kept.append((line, text[:120]))

    def all(self) -> tuple[Dropped, ...]:
        return tuple(Dropped(why, count, tuple(self.lines[why])) for why, count in self.count.items())


def table_of(lines: Sequence[str]) -> Table:
    """Return the table in ``lines``. Raises BadDocument where there is none."""
    head = lines[:_HEAD_ROWS]
    found = max((_scored(head, mark) for mark in _DELIMITERS), key=lambda pair: pair[0])
    pairs = _pairs(lines)
    if found[0] <= 0 and pairs is None:
        raise BadDocument("log_no_table", phrase("text_but_no_table_numbers"), value="file")
    if pairs is not None and len(pairs.headers) > found[0]:
        return pairs
    whole = _whole(lines, found[1])
    return _turned(whole) or whole


def split(lines: Iterable[str], delimiter: str) -> Iterator[Row]:
    """Yield the cells of each line, trimmed; a quoted cell may hold the delimiter."""
    if delimiter == BLANKS:
        for line in lines:
            yield tuple(_APART.split(line.strip()))
        return
    for cells in csv.reader((line.replace("\0", "") for line in lines), delimiter=delimiter, skipinitialspace=True):
        yield tuple(cell.strip() for cell in cells)


def _scored(head: Sequence[str], mark: str) -> tuple[float, str]:
    """Return how much of a table ``mark`` makes of the head: values in rows of one width, less what is neither value nor nothing."""
    rows = [_without_tail(row) for row in split(head, mark)]
    widths = Counter(len(row) for row in rows if len(row) > 1 and _is_data(row))
    if not widths:
        return 0.0, mark
    width, count = max(widths.items(), key=lambda pair: (pair[1], pair[0]))
    table = [row for row in rows if len(row) == width]
    kinds = Counter(_kind(cell) for row in table for cell in row)
    values = sum(kinds[kind] for kind in ("number", "clock", "over", "under"))
    broken = kinds["other"] - sum(1 for cell in (table[0] if len(table) > count else ()) if _kind(cell) == "other")
    ragged = sum(len(row) > 1 and len(row) != width for row in rows)
    known = sum(bool(fits.plain) for row in table[:1] for fits in candidates(row).values())
    return (values - 1.5 * broken - ragged) * (1 + known), mark


@lru_cache(maxsize=1 << 17)
def _kind(cell: str) -> str:
    return "clock" if is_clock(cell) else cell_of(cell).kind


def _without_tail(row: Row) -> Row:
    return row[:-1] if len(row) > 1 and row[-1] == "" else row


def _is_data(row: Row) -> bool:
    """A row of data has a number or a clock, and more of them than words."""
    kinds = [_kind(cell) for cell in row]
    values = sum(kind in ("number", "clock", "over", "under") for kind in kinds)
    return values > 0 and values >= sum(kind == "other" for kind in kinds)


def _whole(lines: Sequence[str], delimiter: str) -> Table:
    rows = [(number, _without_tail(row)) for number, row in enumerate(split(lines, delimiter), 1)]
    head = [row for _, row in rows[:_HEAD_ROWS] if len(row) > 1]
    width = Counter(len(row) for row in head if _is_data(row)).most_common(1)[0][0]
    first = next(i for i, (_, row) in enumerate(rows) if len(row) == width and _is_data(row))
    header, units = _heading(rows[:first], width)
    names = header[1] if header else tuple("" for _ in range(width))
    left, data = _Left(), []
    # the last of the value columns: times, which never say the same twice, stand first
    sure = max(i for i, cell in enumerate(rows[first][1]) if _kind(cell) in ("number", "clock"))
    for number, row in rows[first:]:
        if len(row) == width and row != names and _kind(row[sure]) in ("number", "clock"):
            data.append((number, row))  # the usual case, first: logs have hundreds of thousands of such rows
        elif not any(row):
            continue
        elif row == names or (units and row == units):
            left.out(phrase("header_again"), number, " ".join(row))
        elif len(row) < width and _is_data(row) and len(row) >= width - 1:
            data.append((number, (*row, *("",) * (width - len(row)))))
        elif len(row) != width:
            left.out(phrase("other_number_of_columns", columns=len(row), width=width), number, " ".join(row))
        elif not _is_data(row):
            left.out(phrase("row_without_numbers"), number, " ".join(row))
        else:
            data.append((number, row))
    return Table(delimiter, header[0] if header else None, names, units, tuple(data), left.all())


def _heading(above: Sequence[tuple[int, Row]], width: int) -> tuple[tuple[int, Row] | None, Row]:
    """Return the header with its line, two rows of it joined, and the units row below it."""
    fitting = [(number, row) for number, row in above if width - 1 <= len(row) <= width and any(row)]
    padded = [(number, (*row, *("",) * (width - len(row)))) for number, row in fitting]
    units: Row = ()
    if len(padded) > 1 and _is_units(padded[-1][1]):
        units = tuple(cell.strip("[]() ") for cell in padded.pop()[1])
    if not padded or not any(any(c.isalpha() for c in cell) for cell in padded[-1][1]):
        return None, units
    number, names = padded[-1]
    if len(padded) > 1 and padded[-2][0] == number - 1 and all(_is_word(cell) for cell in padded[-2][1]):
        names = _joined(padded[-2][1], names)
    return (number, names), units


def _is_word(cell: str) -> bool:
    return cell == "" or (any(c.isalpha() for c in cell) and cell_of(cell).kind == "other")


def _joined(upper: Row, lower: Row) -> Row:
    """Return two header rows as one; a name that spans columns stands over its first one alone."""
    span, names = "", []
    for above, below in zip(upper, lower, strict=True):
        span = above or span
        names.append(f"{span} {below}".strip())
    return tuple(names)


def _is_units(row: Row) -> bool:
    bare = [cell.strip("[]() ") for cell in row if cell.strip("[]() -")]
    return bool(bare) and sum(is_unit(cell) for cell in bare) >= max(1, len(bare) - 1)


def _turned(table: Table) -> Table | None:
    """Return the table on its side where its quantities stand one below the other, each with its row of numbers."""
    if len(table.rows) > 60 or len(table.rows) < 2:
        return None
    rows = [row for _, row in table.rows]
    named = sum(
        cell_of(row[0]).kind == "other" and any(c.isalpha() for c in row[0]) and not is_clock(row[0]) for row in rows
    )
    if named < len(rows) or not all(any(cell_of(c).kind == "number" for c in row[1:]) for row in rows):
        return None
    first = table.headers
    numbers = [row for _, row in table.rows]
    if any(cell_of(cell).kind == "number" or is_clock(cell) for cell in first[1:]):
        numbers = [first, *numbers]
    headers = tuple(row[0] for row in numbers)
    turned = tuple((table.rows[0][0] + i, tuple(row[i] for row in numbers)) for i in range(1, len(numbers[0])))
    return Table(table.delimiter, None, headers, (), turned, table.dropped, transposed=True)


def _pairs(lines: Sequence[str]) -> Table | None:
    """Return a printout of one sample, name and value on each line, as a table of one row."""
    if len(lines) > 200:
        return None
    found: list[tuple[int, str, str]] = []
    for number, line in enumerate(lines, 1):
        match = _PAIR.fullmatch(line)
        if match and (cell_of(match[2]).kind != "other" or is_clock(match[2])) and cell_of(match[2]).kind != "nothing":
            found.append((number, match[1].strip(), match[2].strip()))
    values = [row for row in found if cell_of(row[2]).kind == "number"]
    if len(values) < 2 or len(found) < 0.3 * sum(bool(line.strip()) for line in lines):
        return None
    headers, cells = tuple(name for _, name, _ in found), tuple(value for _, _, value in found)
    return Table(":", None, headers, (), ((found[0][0], cells),), (), transposed=True)


def cells_of(table: Table, index: int) -> list[Cell]:
    """Return what the cells of a column say."""
    return [cell_of(text) for text in table.column(index)]
