"""What a log says: channels that are sure, and for all that is not a question; nothing counts before it is answered."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from math import isnan, nan
from typing import Literal

from havrin_core.logs.clocks import TimeKind, TimeReading, is_days_only, joined, seconds_of, time_of
from havrin_core.logs.columns import DIMENSIONS, SESSION, TIME, Candidates, candidates, dimension_of, volts_in
from havrin_core.logs.numbers import Cell, Mark, numbers_of, read_number
from havrin_core.logs.per_heat import PER_HEAT, ppm_of
from havrin_core.logs.sessions import in_one_go, recordings
from havrin_core.logs.table import Dropped, Progress, Table, cells_of, silent, tables_of
from havrin_core.logs.text import lines_of
from havrin_core.logs.units import parted, to_canonical, unit_named, units_of
from havrin_core.phrases import Phrase, phrase
from havrin_core.physics.fuels import FUEL_NAMES
from havrin_core.vocabulary.channels import channel_name, leads_of, quantity_of
from havrin_core.vocabulary.measurands import measurand

About = Literal["column", "unit", "numbers", "time", "session", "fuel", "sign"]
SIGNS = ("suction", "pressure")  # what a negative draft means
_SLACK = {
    "o2_dry_pct": (-1.0, 22.0),
    "co2_dry_pct": (-1.0, 20.0),
    "co_ppm_dry": (-20.0, 100_000.0),
    "room_co_ppm": (-20.0, 5000.0),
}
_MOST_KEPT, _TIME_HEAD = 5, 300
_TABLES_SHARE = 0.4  # of the work is parting rows into cells, the rest is reading the columns


@dataclass(frozen=True, slots=True)
class Question:
    """Something that a person has to say first: about what, of which quantity and column, with the choices, the likeliest first."""

    about: About
    said: Phrase
    quantity: str = ""
    column: int | None = None
    choices: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Chosen:
    """What a person said: column by quantity (None: none of them), unit and decimal mark by column, the kind of time."""

    columns: Mapping[str, int | None] = field(default_factory=dict)
    units: Mapping[int, str] = field(default_factory=dict)
    marks: Mapping[int, Mark] = field(default_factory=dict)
    time: TimeKind | None = None
    fuel: str | None = None  # a name in FUEL_NAMES, where a log gives CO per heat
    sign: str | None = None  # of SIGNS: what a negative draft is
    session: str | None = None  # "1", "2" …, or "all": one recording, whose clock was set


NOTHING_CHOSEN = Chosen()


@dataclass(frozen=True, slots=True)
class Channel:
    """One quantity in canonical units, NaN where a row has none; over and under range are bounds, kept by row."""

    quantity: str
    column: int
    header: str
    unit: str
    mark: Mark
    values: tuple[float, ...]
    at_least: tuple[int, ...]  # rows over range: the value is a lower bound, NaN where the log gives none
    at_most: tuple[int, ...]
    without: int
    odd: tuple[tuple[int, str], ...]  # lines whose cell is no number, the first few
    odd_count: int


@dataclass(frozen=True, slots=True)
class LogReading:
    """A log as far as it is sure."""

    encoding: str
    table: Table
    channels: tuple[Channel, ...]
    time: TimeReading | None
    time_columns: tuple[int, ...]
    seconds: tuple[float, ...]
    questions: tuple[Question, ...]
    doubts: tuple[Phrase, ...]
    dropped: tuple[Dropped, ...]


def read_log(raw: bytes, chosen: Chosen = NOTHING_CHOSEN, progress: Progress = silent) -> LogReading:
    """Return what ``raw`` says, by what was ``chosen``. ``progress`` hears which share of the work is done, 0 to 1.

    Raises BadDocument: empty, no text, no table of numbers.
    """
    lines, encoding = lines_of(raw)
    tables = tables_of(lines, lambda share: progress(_TABLES_SHARE * share))
    readings = [_Reader(table, encoding, chosen, progress).read() for table in tables]
    parts = [(found, rows) for found in readings for rows in recordings(found.table, found.seconds)]
    if len(parts) == 1:
        return readings[0]
    if chosen.session == "all" and len(readings) == 1:
        return replace(readings[0], seconds=in_one_go(readings[0].seconds, [rows for _, rows in parts]))
    if chosen.session in _numbers(parts):
        found, rows = parts[int(chosen.session) - 1]
        return _Reader(found.table.only(rows), encoding, chosen).read()
    return _which(readings, parts)


def _numbers(parts: Sequence[object]) -> list[str]:
    return [str(number) for number in range(1, len(parts) + 1)]


def _which(readings: Sequence[LogReading], parts: Sequence[tuple[LogReading, range]]) -> LogReading:
    """Return the first table without a value: which of its recordings is meant has to be said first."""
    first, shown = readings[0], parts[:_MOST_KEPT]
    named = "; ".join(
        f"{number}: lines {found.table.lines[rows[0]]} to {found.table.lines[rows[-1]]}"
        for number, (found, rows) in enumerate(shown, 1)
    )
    said = phrase("several_recordings", count=len(parts), parts=named)
    choices = (*_numbers(parts), *(("all",) if len(readings) == 1 else ()))
    return replace(
        first, channels=(), seconds=(), questions=(Question("session", said, choices=choices), *first.questions)
    )


def _mostly_negative(values: Sequence[float]) -> bool:
    return sum(value < 0 for value in values) > sum(value > 0 for value in values)


class _Reader:
    def __init__(self, table: Table, encoding: str, chosen: Chosen, progress: Progress = silent) -> None:
        self.table, self.encoding, self.chosen, self.progress = table, encoding, chosen, progress
        self.questions: list[Question] = []
        self.doubts: list[Phrase] = []
        self.cells: dict[int, list[Cell]] = {}
        self.times: dict[int, TimeReading | None] = {}
        self.fits = candidates(table.headers)

    def read(self) -> LogReading:
        time, time_columns, texts = self._time()
        taken = set(time_columns)
        columns = self._columns(taken)
        read: list[Channel] = []
        for number, (quantity, column) in enumerate(columns.items(), 1):
            channel = self._channel(quantity, column)
            read += [channel] if channel else []
            self.progress(_TABLES_SHARE + (1 - _TABLES_SHARE) * number / len(columns))
        channels = self._in_ppm(read)
        self._unused(taken | set(columns.values()))
        if not columns and not any(q.about == "column" for q in self.questions):
            self._ask("column", phrase("no_column_is_known"), choices=self._all_columns(taken))
        seconds = self._seconds(time, texts)
        return LogReading(
            self.encoding,
            self.table,
            tuple(channels),
            time,
            time_columns,
            seconds,
            tuple(self.questions),
            tuple(self.doubts),
            self.table.dropped,
        )

    def _unused(self, used: set[int]) -> None:
        """Say which columns of numbers are none that is known: nothing in a file is passed over in silence."""
        asked = {int(key) for q in self.questions if q.about == "column" for key in q.choices}
        left = [
            header or f"({index + 1})"
            for index, header in enumerate(self.table.headers)
            if index not in used | asked and self._has_numbers(index)
        ]
        if left:
            self.doubts.append(phrase("columns_not_used", columns=", ".join(left)))

    def _ask(
        self, about: About, said: Phrase, quantity: str = "", column: int | None = None, choices: Sequence[str] = ()
    ) -> None:
        self.questions.append(Question(about, said, quantity, column, tuple(choices)))

    def _all_columns(self, taken: set[int]) -> list[str]:
        return [str(index) for index in range(len(self.table.headers)) if index not in taken]

    def _of(self, column: int) -> list[Cell]:
        if column not in self.cells:
            self.cells[column] = cells_of(self.table, column)
        return self.cells[column]

    # ---- columns

    def _columns(self, taken: set[int]) -> dict[str, int]:
        found: dict[str, int] = {}
        for quantity in DIMENSIONS:
            column = self._column(quantity, self.fits[quantity], taken)
            if column is not None:
                found[quantity] = column
        volts: dict[str, int | None] = {**volts_in(self.table.headers, self.table.units)}
        volts |= {quantity: column for quantity, column in self.chosen.columns.items() if leads_of(quantity)}
        used = taken | set(found.values())
        return found | {q: c for q, c in volts.items() if c is not None and c not in used and self._has_numbers(c)}

    def _column(self, quantity: str, fits: Candidates, taken: set[int]) -> int | None:
        if quantity in self.chosen.columns:
            return self.chosen.columns[quantity]
        named = [column for column in fits.plain if column not in taken]
        plain = [column for column in named if self._has_numbers(column)]
        if named and not plain:
            header = self.table.headers[named[0]]
            self.doubts.append(phrase("column_without_numbers", name=channel_name(quantity), header=header))
        shared = [column for column in plain if self._claimed_by_others(quantity, column)]
        name = channel_name(quantity)
        if len(plain) == 1 and not shared:
            return plain[0]
        if plain:
            self._ask("column", phrase("several_columns_fit", name=name), quantity, None, [str(c) for c in plain])
        else:
            qualified = [c for c in fits.qualified if c not in taken and self._has_numbers(c)]
            if qualified and not self._plain_elsewhere(qualified):
                self._ask(
                    "column", phrase("column_fits_only_nearly", name=name), quantity, None, [str(c) for c in qualified]
                )
        return None

    def _claimed_by_others(self, quantity: str, column: int) -> bool:
        return any(column in fits.plain for name, fits in self.fits.items() if name not in (quantity, TIME, SESSION))

    def _plain_elsewhere(self, columns: list[int]) -> bool:
        """Tell whether each of these is plainly another quantity's own: an ambient CO is no half-fitting flue CO."""
        return all(any(column in fits.plain for fits in self.fits.values()) for column in columns)

    def _has_numbers(self, column: int) -> bool:
        return any(cell.kind in ("number", "over", "under") for cell in self._of(column))

    # ---- numbers and units

    def _channel(self, quantity: str, column: int) -> Channel | None:
        cells = self._of(column)
        unit, mark = self._unit(quantity, column, cells), self._mark(quantity, column, cells)
        if unit is None or mark is None:
            return None
        value_of = {cell: self._value(quantity, cell, unit, mark) for cell in set(cells)}
        values = tuple(value_of[cell] for cell in cells)
        if quantity == "draft_pa" and _mostly_negative(values):
            if self.chosen.sign is None:
                self._ask("sign", phrase("draft_below_nothing"), quantity, column, SIGNS)
                return None
            values = tuple(-value for value in values) if self.chosen.sign == "suction" else values
        rows = range(len(cells))
        odd = [
            row for row in rows if cells[row].kind == "other" or (cells[row].kind == "number" and isnan(values[row]))
        ]
        return Channel(
            quantity,
            column,
            self.table.headers[column],
            unit,
            mark,
            values,
            tuple(row for row in rows if cells[row].kind == "over"),
            tuple(row for row in rows if cells[row].kind == "under"),
            sum(cell.kind == "nothing" for cell in cells),
            tuple((self.table.lines[row], self.table.columns[column][row]) for row in odd[:_MOST_KEPT]),
            len(odd),
        )

    def _in_ppm(self, channels: list[Channel]) -> list[Channel]:
        """Return the channels, CO per heat turned into ppm; left out and asked where the fuel or the oxygen is not known."""
        oxygen = next((channel for channel in channels if channel.quantity == "o2_dry_pct"), None)
        found: list[Channel] = []
        for channel in channels:
            if channel.unit != PER_HEAT:
                found.append(channel)
            elif oxygen and self.chosen.fuel in FUEL_NAMES:
                found.append(replace(channel, values=ppm_of(channel.values, oxygen.values, self.chosen.fuel)))
            else:
                name = channel_name(channel.quantity)
                self._ask("fuel", phrase("per_heat_of_fuel", name=name), channel.quantity, channel.column, FUEL_NAMES)
        return found

    def _value(self, quantity: str, cell: Cell, unit: str, mark: Mark) -> float:
        """Return a cell's value in the canonical unit; NaN where it says none, or one that cannot be."""
        number = read_number(cell.text, mark) if cell.text and cell.kind != "other" else None
        if number is None:
            return nan
        value = to_canonical(number, unit, dimension_of(quantity))
        return value if cell.kind != "number" or self._can_be(quantity, value) else nan

    def _can_be(self, quantity: str, value: float) -> bool:
        what = measurand(quantity_of(quantity))
        least, most = _SLACK.get(quantity, (what.least, what.most))
        return least <= value <= most

    def _mark(self, quantity: str, column: int, cells: list[Cell]) -> Mark | None:
        if column in self.chosen.marks:
            return self.chosen.marks[column]
        found = numbers_of(
            cell.text for cell in dict.fromkeys(cells) if cell.text and cell.kind in ("number", "over", "under")
        )
        name = channel_name(quantity)
        if found.mixed:
            self._ask("numbers", phrase("two_ways_of_numbers", name=name), quantity, column, ("point", "comma"))
            return None
        if found.mark is None:
            point, comma = (read_number(found.first, mark) for mark in ("point", "comma"))
            said = phrase("number_reads_two_ways", name=name, text=found.first, point=f"{point:g}", comma=f"{comma:g}")
            self._ask("numbers", said, quantity, column, ("point", "comma"))
        return found.mark

    def _unit(self, quantity: str, column: int, cells: list[Cell]) -> str | None:
        if column in self.chosen.units:
            return self.chosen.units[column]
        dimension, name = dimension_of(quantity), channel_name(quantity)
        said = self._said(column, cells)
        if len(said) > 1:
            self._ask(
                "unit",
                phrase("several_units_said", name=name, units=", ".join(said)),
                quantity,
                column,
                units_of(dimension),
            )
            return None
        if said:
            unit = unit_named(said[0], dimension)
            if unit is None:
                self._ask(
                    "unit", phrase("unit_not_known_of", name=name, unit=said[0]), quantity, column, units_of(dimension)
                )
            return unit
        return self._unsaid(quantity, column, cells)

    def _said(self, column: int, cells: list[Cell]) -> list[str]:
        """Return the units that header, units row and cells name, each once; spellings of one unit are one."""
        rows = self.table.units
        named = [parted(self.table.headers[column])[1], rows[column] if column < len(rows) else ""]
        named += sorted({cell.unit for cell in set(cells) if cell.unit})
        by_meaning: dict[str, str] = {}
        for said in named:
            if said:
                meaning = next(
                    (u for d in dict.fromkeys(DIMENSIONS.values()) if (u := unit_named(said, d))), said.lower()
                )
                by_meaning.setdefault(meaning, said)
        return list(by_meaning.values())

    def _unsaid(self, quantity: str, column: int, cells: list[Cell]) -> str | None:
        """Return the unit that alone can be, by the numbers; else ask, the likeliest first."""
        dimension, name = dimension_of(quantity), channel_name(quantity)
        marks: tuple[Mark, ...] = ("point", "comma")
        numbers = [
            n
            for cell in cells
            if cell.kind == "number"
            and (n := next((v for m in marks if (v := read_number(cell.text, m)) is not None), None)) is not None
        ]
        if dimension == "percent" and numbers and max(numbers) > 1.0:
            self.doubts.append(phrase("unit_by_its_numbers", name=name, unit="%"))
            return "%"
        self._ask("unit", phrase("no_unit_said", name=name), quantity, column, units_of(dimension))
        return None

    # ---- time

    def _time(self) -> tuple[TimeReading | None, tuple[int, ...], Sequence[str]]:
        columns = self._time_columns()
        named = self.fits[TIME].plain
        if not columns and named and self.chosen.time != "rows":
            self._ask("time", phrase("times_mixed"), "", named[0], ("rows",))
            return None, named, ()
        if not columns:
            if len(self.table.lines) > 1 and not self.table.transposed:
                self._no_time()
            return (TimeReading("rows") if self.chosen.time == "rows" or len(self.table.lines) == 1 else None), (), []
        texts: Sequence[str] = self.table.columns[columns[0]]
        if len(columns) == 2:
            texts = joined(texts, self.table.columns[columns[1]])
        found = self._times_in(columns[0]) if len(columns) == 1 else time_of(texts, "", None)
        if self.chosen.time == "rows":
            return TimeReading("rows"), columns, texts
        if found is None:
            self._ask("time", phrase("times_mixed"), "", columns[0], ("rows",))
            return None, columns, texts
        if self.chosen.time is not None:
            return TimeReading(self.chosen.time, found.order, (), found.mark), columns, texts
        if found.open:
            self._ask(
                "time", phrase("times_read_several_ways", first=texts[0], last=texts[-1]), "", columns[0], found.open
            )
            return None, columns, texts
        return found, columns, texts

    def _no_time(self) -> None:
        if self.chosen.time != "rows":
            self._ask("time", phrase("no_time_column"), "", None, ("rows",))

    def _time_unit(self, column: int) -> str:
        units = self.table.units
        said = (units[column] if column < len(units) else "") or parted(self.table.headers[column])[1]
        return said or self.table.headers[column]  # a header that is a unit: “s”, “sec”

    def _time_columns(self) -> tuple[int, ...]:
        """Return the column of times, or that of days and that of clocks."""
        named = [column for column in self.fits[TIME].plain if self._is_time(column)]
        seen = named or [column for column in range(len(self.table.headers)) if self._is_clocks(column)]
        days = [column for column in seen if is_days_only(self.table.columns[column])]
        clocks = [column for column in seen if column not in days]
        if not clocks:
            clocks = [c for c in range(len(self.table.headers)) if c not in days and self._is_clocks(c)]
        if days and clocks:
            return days[0], clocks[0]
        return tuple((clocks or days)[:1])

    def _is_time(self, column: int) -> bool:
        return self._times_in(column) is not None

    def _is_clocks(self, column: int) -> bool:
        found = self._times_in(column)
        return found is not None and found.kind in ("clock", "moment", "min_s", "h_min")

    def _times_in(self, column: int) -> TimeReading | None:
        """Return how the cells of one column are times, looked at once."""
        if column not in self.times:
            texts = self.table.columns[column]
            first = texts[:_TIME_HEAD]  # what its head does not show to be times need not be read through
            unit = self._time_unit(column)
            mark = numbers_of(text for text in first if text).mark
            head = time_of(first, unit, mark)
            whole = len(texts) <= _TIME_HEAD or head is None or head.kind in ("clock", "moment")
            self.times[column] = head if whole else time_of(texts, unit, mark or numbers_of(t for t in texts if t).mark)
        return self.times[column]

    def _seconds(self, time: TimeReading | None, texts: Sequence[str]) -> tuple[float, ...]:
        if time is None:
            return ()
        read = seconds_of(texts or [""] * len(self.table.lines), time)
        if any(value is None for value in read):
            lines = [self.table.lines[i] for i, value in enumerate(read) if value is None]
            self.doubts.append(phrase("times_not_read", count=len(lines), line=lines[0]))
        known = [value for value in read if value is not None]
        if any(later < earlier for earlier, later in pairwise(known)):
            self.doubts.append(phrase("time_runs_back"))
        first = known[0] if known else 0.0
        return tuple(nan if value is None else value - first for value in read)
