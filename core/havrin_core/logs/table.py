"""The table in a log: its delimiter, its header (of one or two rows), its units row, its rows of data, and the lines that are not data."""

import csv
import re
from array import array
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from havrin_core.errors import BadDocument
from havrin_core.logs.clocks import is_clock
from havrin_core.logs.columns import TIME, candidates
from havrin_core.logs.numbers import Cell, cell_of
from havrin_core.logs.units import is_unit
from havrin_core.phrases import Phrase, phrase

BLANKS = "blanks"  # columns that are set apart by two blanks or more
ONE_BLANK = "one blank"
_DELIMITERS = (";", "\t", "|", ",", BLANKS, ONE_BLANK)
_WORD = re.compile(r"\S+(?: [\[(][^\])]*[\])])?")  # a unit in brackets belongs to the name before it
_ROWS_BETWEEN = 20_000  # rows read between two words of how far it is
_HEAD_ROWS = 400
_APART = re.compile(r" {2,}")
_SIMPLE_PAIR = re.compile(r"\s*([A-Za-z][^:=;,\t|]*?)\s+([<>+\-−]?\d\S*(?:\s?[^\s\d]\S{0,8})?)\s*")
_PAIR = re.compile(r"\s*([^:=;,\t|]*?[A-Za-z₂][^:=;,\t|]*?)\s*(?:[:=;,\t|]|\s{2,})\s*(\S.*?)\s*")
_MOST_KEPT = 5
_VALUES = ("number", "clock")
_AT_ONCE, _MOST_SAME = 4096, 20_000

Row = tuple[str, ...]
Progress = Callable[[float], None]  # hears a share, 0 to 1


@dataclass(frozen=True, slots=True)
class Dropped:
    """Rows that were left out for one reason: how many, and the lines and cells of the first few."""

    why: Phrase
    count: int
    lines: tuple[tuple[int, str], ...]


@dataclass(frozen=True, slots=True)
class Table:
    """Columns of data with their rows' line numbers (from 1), headers, and the units of a units row ("" where none).

    ``next_line`` is the line at which another table with other columns begins; ``breaks`` are the rows before which a
    header stood again below words of its own: another recording, or another appliance.
    """

    delimiter: str
    header_line: int | None
    headers: Row
    units: Row
    lines: Sequence[int]
    columns: Sequence[Sequence[str]]
    dropped: tuple[Dropped, ...]
    transposed: bool = False
    breaks: tuple[int, ...] = ()
    next_line: int | None = None

    def row(self, index: int) -> Row:
        """Return the cells of one row, left to right."""
        return tuple(column[index] for column in self.columns)

    def only(self, rows: Sequence[int]) -> "Table":
        """Return the table with these rows alone."""
        lines = [self.lines[row] for row in rows]
        columns = [[column[row] for row in rows] for column in self.columns]
        return replace(self, lines=lines, columns=columns, breaks=())


class _Columns:
    """Rows on their way into columns; a cell that says the same again is kept once, as logs repeat themselves."""

    def __init__(self, width: int) -> None:
        self.lines = array("Q")
        self.columns: list[list[str]] = [[] for _ in range(width)]
        self._same: list[dict[str, str] | None] = [{} for _ in range(width)]
        self._waiting: list[Row] = []

    def take(self, line: int, row: Row) -> None:
        self.lines.append(line)
        self._waiting.append(row)
        if len(self._waiting) >= _AT_ONCE:
            self.flush()

    def flush(self) -> None:
        for index, cells in enumerate(zip(*self._waiting, strict=True)):
            same = self._same[index]
            self.columns[index].extend(cells if same is None else map(same.setdefault, cells, cells))
            if same is not None and len(same) > _MOST_SAME:
                self._same[index] = None
        self._waiting.clear()


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


def silent(share: float) -> None:
    """Hear of progress and say nothing of it."""


def table_of(lines: Sequence[str], progress: Progress = silent) -> Table:
    """Return the table in ``lines``; ``progress`` hears which share of them was read. Raises BadDocument where there is none."""
    head = lines[:_HEAD_ROWS]
    found = max((_scored(head, mark) for mark in _DELIMITERS), key=lambda pair: pair[0])
    pairs = _pairs(lines)
    if found[0] <= 0 and pairs is None:
        raise BadDocument("log_no_table", phrase("text_but_no_table_numbers"), value="file")
    if pairs is not None and len(pairs.headers) > found[0]:
        return pairs
    whole = _whole(lines, found[1], progress)
    return _turned(whole) or whole


def tables_of(lines: Sequence[str], progress: Progress = silent) -> tuple[Table, ...]:
    """Return the tables in ``lines``, one below the other, each with columns of its own. Raises BadDocument where there is none."""
    tables, first = [table_of(lines, progress)], 0
    while (next_line := tables[-1].next_line) is not None:
        first = next_line - 1
        try:
            below = table_of(lines[first:])
        except BadDocument:
            break
        tables.append(_moved(below, first))
    return tuple(tables)


def _moved(table: Table, by: int) -> Table:
    """Return a table with the line numbers of the whole file."""
    return replace(
        table,
        header_line=None if table.header_line is None else table.header_line + by,
        lines=[line + by for line in table.lines],
        dropped=tuple(replace(d, lines=tuple((line + by, text) for line, text in d.lines)) for d in table.dropped),
        next_line=None if table.next_line is None else table.next_line + by,
    )


def split(lines: Iterable[str], delimiter: str) -> Iterator[Row]:
    """Yield the cells of each line, trimmed; a quoted cell may hold the delimiter."""
    if delimiter == BLANKS:
        for line in lines:
            # a line that begins further in has nothing in its first column
            first = ("",) if line[:2].isspace() and line.strip() else ()
            yield (*first, *_APART.split(line.strip()))
        return
    if delimiter == ONE_BLANK:
        for line in lines:
            yield tuple(_WORD.findall(line))
        return
    for cells in csv.reader((line.replace("\0", "") for line in lines), delimiter=delimiter, skipinitialspace=True):
        yield tuple(cell.strip() for cell in cells)


def _scored(head: Sequence[str], mark: str) -> tuple[float, str]:
    """Return how much of a table ``mark`` makes of the head: values in rows of one width, less what is neither value nor nothing."""
    rows = [_without_tail(row) for row in split(head, mark)]
    width, count = _width_of(rows)
    if not width:
        return 0.0, mark
    table = [row for row in rows if len(row) == width]
    kinds = Counter(_kind(cell) for row in table for cell in row)
    values = sum(kinds[kind] for kind in ("number", "clock", "over", "under"))
    broken = kinds["other"] - sum(1 for cell in (table[0] if len(table) > count else ()) if _kind(cell) == "other")
    ragged = sum(len(row) > 1 and len(row) not in (width, width - 1) for row in rows)
    known = _known(table[0]) if table else 0
    return (values - 1.5 * broken - ragged) * (1 + known), mark


def _width_of(rows: Sequence[Row]) -> tuple[int, int]:
    """Return how many columns the table has and how many rows have them: as many as its header names, where it has one."""
    widths = Counter(len(row) for row in rows if len(row) > 1 and _is_data(row))
    if not widths:
        return 0, 0
    header = next((row for row in rows if all(map(_is_word, row)) and _known(row) > 1), None)
    if header and len(header) >= max(widths, key=lambda width: widths[width]):
        return len(header), widths[len(header)]
    return max(widths.items(), key=lambda pair: (pair[1], pair[0]))


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


def _whole(lines: Sequence[str], delimiter: str, progress: Progress) -> Table:
    head = [(number, _without_tail(row)) for number, row in enumerate(split(lines[:_HEAD_ROWS], delimiter), 1)]
    width = _width_of([row for _, row in head])[0]
    first = next(i for i, (_, row) in enumerate(head) if width - 1 <= len(row) <= width and _is_data(row))
    header, units = _heading(head[:first], width, short=0 if delimiter == ONE_BLANK else 1)
    names = header[1] if header else tuple("" for _ in range(width))
    left, data = _Left(), _Columns(width)
    breaks: list[int] = []
    next_line, words_above = None, False
    # the last of the value columns: times, which never say the same twice, stand first
    sure = max(i for i, cell in enumerate(head[first][1]) if _kind(cell) in _VALUES)
    clock = _first_of_times(names, head[first][1])
    for number, raw in enumerate(split(lines[first:], delimiter), first + 1):
        row = _without_tail(raw) if len(raw) != width else raw
        if number % _ROWS_BETWEEN == 0:
            progress(number / len(lines))
        if len(row) == width and row[clock][:1].isdigit() and _kind(row[sure]) in _VALUES:
            data.take(number, row)  # the usual case, first: logs have hundreds of thousands of such rows
            words_above = False
        elif not any(row):
            continue
        elif row == names or (header and row == header[2]) or (units and _bare(row) == units):
            if words_above and (not breaks or breaks[-1] != len(data.lines)):
                breaks.append(len(data.lines))
            left.out(phrase("header_again"), number, " ".join(row))
        elif len(row) >= width - 1 and row[clock].isalpha() and head[first][1][clock][:1].isdigit():
            left.out(phrase("row_of_words", words=row[clock]), number, " ".join(row))
        elif len(row) < width and _is_data(row) and len(row) >= width - 1:
            data.take(number, (*row, *("",) * (width - len(row))))
        elif header and _is_other_header(row, names):
            next_line = number
            break
        elif len(row) != width:
            words_above = True
            left.out(phrase("other_number_of_columns", columns=len(row), width=width), number, " ".join(row))
        elif not _is_data(row):
            words_above = True
            left.out(phrase("row_without_numbers"), number, " ".join(row))
        else:
            data.take(number, row)
    data.flush()
    return Table(
        delimiter,
        header[0] if header else None,
        names,
        units,
        data.lines,
        data.columns,
        left.all(),
        breaks=tuple(breaks),
        next_line=next_line,
    )


def _first_of_times(names: Row, values: Row) -> int:
    """Return the column of times, the first one where none bears a name of theirs."""
    named = candidates(names)[TIME].plain
    return next((index for index in named if index < len(values)), 0)


def _is_other_header(row: Row, names: Row) -> bool:
    """Tell whether ``row`` names columns of its own: what stands below it is not what the first header says."""
    if row == names or not all(_is_word(cell) for cell in row):
        return False
    return _known(row) > 1


def _known(names: Sequence[str]) -> int:
    """Return how many of the quantities that logs hold these names name."""
    return sum(bool(fits.plain) for fits in candidates(names).values())


def _bare(row: Row) -> Row:
    return tuple(cell.strip("[]() ") for cell in row)


def _heading(above: Sequence[tuple[int, Row]], width: int, *, short: int) -> tuple[tuple[int, Row, Row] | None, Row]:
    """Return the header: its line, its names (two rows of it joined), its last row as written; and the units row below it."""
    fitting = [(number, row) for number, row in above if width - short <= len(row) <= width and any(row)]
    padded = [
        (number, (*row, *("",) * (width - len(row))))
        for number, row in fitting
        if any(cell.strip("-:=|_ ") for cell in row)  # a ruled line is no heading
    ]
    units: Row = ()
    if len(padded) > 1 and _is_units(padded[-1][1]):
        units = _bare(padded.pop()[1])
    if not padded or not any(any(c.isalpha() for c in cell) for cell in padded[-1][1]):
        return None, units
    number, names = padded[-1]
    written = names
    if len(padded) > 1 and padded[-2][0] == number - 1 and all(_is_word(cell) for cell in padded[-2][1]):
        names = _joined(padded[-2][1], names)
    return (number, names, written), units


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
    if not 2 <= len(table.lines) <= 60:
        return None
    rows = [table.row(index) for index in range(len(table.lines))]
    named = sum(
        cell_of(row[0]).kind == "other" and any(c.isalpha() for c in row[0]) and not is_clock(row[0]) for row in rows
    )
    if named < len(rows) or not all(any(_kind(c) in _VALUES for c in row[1:]) for row in rows):
        return None
    if _known(table.headers) > _known([row[0] for row in rows]):
        return None
    if any(cell_of(cell).kind == "number" or is_clock(cell) for cell in table.headers[1:]):
        rows = [table.headers, *rows]
    lines = [table.lines[0] + i for i in range(1, len(rows[0]))]
    return Table(
        table.delimiter, None, tuple(r[0] for r in rows), (), lines, [r[1:] for r in rows], table.dropped, True
    )


def _pairs(lines: Sequence[str]) -> Table | None:
    """Return a printout of one sample, name and value on each line, as a table of one row."""
    if len(lines) > 200:
        return None
    found: list[tuple[int, str, str]] = []
    for number, line in enumerate(lines, 1):
        match = _SIMPLE_PAIR.fullmatch(line) or _PAIR.fullmatch(line)
        if match and (cell_of(match[2]).kind != "other" or is_clock(match[2])) and cell_of(match[2]).kind != "nothing":
            found.append((number, match[1].strip(), match[2].strip()))
    values = [row for row in found if cell_of(row[2]).kind == "number"]
    if len(values) < 2 or len(found) < 0.3 * sum(bool(line.strip()) for line in lines):
        return None
    headers, columns = tuple(name for _, name, _ in found), [(value,) for _, _, value in found]
    return Table(":", None, headers, (), [found[0][0]], columns, (), transposed=True)


def cells_of(table: Table, index: int) -> list[Cell]:
    """Return what the cells of a column say."""
    return [cell_of(text) for text in table.columns[index]]
