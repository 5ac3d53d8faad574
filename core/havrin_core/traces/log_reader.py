"""Read a log's rows into series, streaming, and say everything that was odd about them."""

import math
from array import array
from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from itertools import islice

import numpy as np
from numpy.typing import NDArray

from havrin_core.errors import BadDocument, UnknownName
from havrin_core.phrases import Phrase, Saying, phrase, together
from havrin_core.quantities.units import Unit, find_unit
from havrin_core.traces.log_layout import UNITS, Layout, is_nothing, split_row
from havrin_core.vocabulary.measurands import measurand

Floats = NDArray[np.float64]
_DAY_S = 86_400.0
_CLOCK_FORMATS = ("%H:%M:%S.%f", "%H:%M:%S", "%H:%M", "%I:%M:%S %p", "%I:%M %p")
_DATE_FORMATS = ("%d.%m.%Y", "%Y-%m-%d", "%m/%d/%Y", "%d/%m/%Y", "%Y/%m/%d", "%d-%m-%Y")
_O2_AIR_SLACK_PCT = 21.5  # a cell in clean air may read this high; beyond it nothing is believed


@dataclass(frozen=True, slots=True)
class ColumnChoice:
    """Which column holds a quantity, and its unit there."""

    column: int
    unit: str


@dataclass(frozen=True, slots=True)
class Series:
    """Channels on one clock: seconds from the first row; NaN where a channel has no value."""

    seconds: Floats
    channels: Mapping[str, Floats]
    problems: tuple[Saying, ...]


def read_series(
    lines: Iterable[str], layout: Layout, mapping: Mapping[str, ColumnChoice], time_column: int | None
) -> Series:
    """Return the series in ``lines`` (the whole file, header and all).

    Without ``time_column`` rows count as one second apart, which is said in ``problems``.
    Raises BadDocument (no row can be used), UnknownName (a unit that the quantity has not).
    """
    reader = _Reader(layout, mapping, time_column)
    for line in islice(lines, layout.first_data_row, None):
        if line.strip():
            reader.take(line)
    return reader.finish()


class _Reader:
    def __init__(self, layout: Layout, mapping: Mapping[str, ColumnChoice], time_column: int | None) -> None:
        self.layout = layout
        self.time_column = time_column
        self.columns = [(name, c.column, _unit(name, c.unit)) for name, c in mapping.items()]
        self.seconds = array("d")
        self.values = {name: array("d") for name in mapping}
        self.odd: Counter[Phrase] = Counter()
        self.clock = _Clock()

    def take(self, line: str) -> None:
        cells = split_row(line, self.layout.delimiter)
        if len(cells) < len(self.layout.headers):
            self.odd[phrase("rows_too_few_columns_left")] += 1
            return
        seconds = self._seconds(cells)
        if seconds is None:
            self.odd[phrase("rows_without_readable_time_left")] += 1
            return
        self.seconds.append(seconds)
        for name, column, unit in self.columns:
            self.values[name].append(self._value(name, cells[column], unit))

    def _seconds(self, cells: list[str]) -> float | None:
        if self.time_column is None:
            return float(len(self.seconds))
        text = cells[self.time_column]
        if ":" in text:
            return self.clock.seconds(text)
        number = self._number(text)
        return None if math.isnan(number) else number

    def _number(self, text: str) -> float:
        plain = text.replace("−", "-")
        if self.layout.decimal_comma:
            plain = plain.replace(",", ".")
        try:
            return float(plain)
        except ValueError:
            return math.nan

    def _value(self, name: str, text: str, unit: Unit) -> float:
        number = self._number(text)
        if math.isnan(number):
            self.odd[
                phrase("cells_without_number", name=_label(name))
                if not is_nothing(text)
                else phrase("empty_cells_dashes", name=_label(name))
            ] += 1
            return math.nan
        value = unit.to_si(number)
        what = measurand(name)
        most = _O2_AIR_SLACK_PCT if name == "o2_dry_pct" else what.most
        least = -1.0 if name in ("o2_dry_pct", "co2_dry_pct") else -20.0 if name == "co_ppm_dry" else what.least
        if not least <= value <= most:
            self.odd[phrase("values_cannot_like_left_out", name=_label(name), number=number, symbol=unit.symbol)] += 1
            return math.nan
        return value

    def finish(self) -> Series:
        if len(self.seconds) < 2:
            raise BadDocument("log_no_rows", phrase("no_row_log_has_time"), value="rows")
        seconds = np.frombuffer(self.seconds, dtype=float)
        channels = {name: np.frombuffer(column, dtype=float) for name, column in self.values.items()}
        order = np.argsort(seconds, kind="stable")
        if np.any(np.diff(order) < 0):
            self.odd[phrase("rows_out_order_time_sorted")] += int(np.sum(np.diff(seconds) < 0))
        seconds = seconds[order]
        keep = np.concatenate(([True], np.diff(seconds) > 0))
        if not keep.all():
            self.odd[phrase("rows_time_row_before_left")] += int(np.sum(~keep))
        kept = {name: column[order][keep] for name, column in channels.items()}
        clean = seconds[keep] - seconds[keep][0]
        return Series(clean, kept, tuple(self._problems(clean, kept)))

    def _problems(self, seconds: Floats, channels: Mapping[str, Floats]) -> Iterable[Saying]:
        if self.time_column is None:
            yield phrase("no_time_column_rows_are")
        for name, values in channels.items():
            if np.isnan(values).all():
                yield phrase("column_holds_no_number_all", name=_label(name))
        yield from _gaps(seconds)
        yield from (together(f"{count} × ", text, ".") for text, count in self.odd.items())


def _gaps(seconds: Floats) -> Iterable[Saying]:
    steps = np.diff(seconds)
    if not len(steps):
        return
    usual = float(np.median(steps))
    gaps = steps[steps > max(5 * usual, 5.0)]
    if len(gaps):
        yield phrase(
            "gaps_in_the_log" if len(gaps) > 1 else "one_gap_in_the_log", count=len(gaps), longest=float(gaps.max())
        )


def _unit(quantity: str, symbol: str) -> Unit:
    dimension = UNITS[quantity][0]
    unit = find_unit(symbol, dimension)
    if unit is None:
        raise UnknownName(
            "unit_unknown",
            phrase("cannot_2", quantity=_label(quantity), symbol=symbol),
            quantity=quantity,
            value=symbol,
        )
    return unit


def _label(quantity: str) -> str:
    return measurand(quantity).name


class _Clock:
    """Seconds from clock texts; carries over midnight where there is no date."""

    def __init__(self) -> None:
        self.format: str | None = None
        self.last: float | None = None
        self.days = 0

    def seconds(self, text: str) -> float | None:
        moment = self._moment(text.strip().replace("T", " ").replace(",", ".").rstrip("Z"))
        if moment is None:
            return None
        if moment.year > 1900:
            return moment.timestamp() if moment.tzinfo else (moment - datetime(1970, 1, 1)).total_seconds()  # noqa: DTZ001  a log's clock has no zone
        seconds = moment.hour * 3600 + moment.minute * 60 + moment.second + moment.microsecond / 1e6
        if self.last is not None and seconds + self.days * _DAY_S < self.last - _DAY_S / 2:
            self.days += 1
        self.last = seconds + self.days * _DAY_S
        return self.last

    def _moment(self, text: str) -> datetime | None:
        if self.format is not None:
            try:
                return datetime.strptime(text, self.format)  # noqa: DTZ007  as above
            except ValueError:
                pass
        for form in (*_CLOCK_FORMATS, *(f"{d} {c}" for d in _DATE_FORMATS for c in _CLOCK_FORMATS)):
            try:
                moment = datetime.strptime(text, form)  # noqa: DTZ007  as above
            except ValueError:
                continue
            self.format = form
            return moment
        return None
