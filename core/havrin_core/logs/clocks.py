"""Times in a log: clocks with or without days, elapsed times, counted seconds; what they leave open is asked."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Literal

from dateutil import parser as dates

from havrin_core.logs.numbers import Mark, read_number

DAY_S = 86_400.0
TimeKind = Literal[
    "clock", "moment", "min_s", "h_min", "s", "min", "ms", "h", "unix_s", "unix_ms", "sheet_days", "rows"
]
_CLOCK = re.compile(r"(\d{1,3}):(\d{2})(?::(\d{2})(?:[.,:](\d{1,6}))?)?\s*([AaPp]\.?\s?[Mm]\.?)?")
_MOMENT = re.compile(
    r"(?:\d{4}[-/.]\d{1,2}[-/.]\d{1,2}|\d{1,2}[-/.]\d{1,2}[-/.]\d{2,4}|\d{1,2}[ -][A-Za-zäéûó]{3,9}\.?[ -]\d{2,4}|[A-Za-z]{3,9}\.? \d{1,2},? \d{4})"
    r"(?:[T ,]+\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d+)?)?(?:\s*[AaPp]\.?\s?[Mm]\.?)?(?:Z|\s?[+-]\d{2}:?\d{2})?)?"
)
_OFFSET = re.compile(r"(?:Z|[+-]\d{2}:?\d{2})$")
_NUMERIC: Sequence[tuple[TimeKind, float, float]] = (
    ("unix_ms", 1e12, 4e12),
    ("unix_s", 1e9, 4e9),
    ("sheet_days", 3e4, 8e4),
)
_SECONDS_A: dict[str, float] = {
    "s": 1.0,
    "min": 60.0,
    "ms": 1e-3,
    "h": 3600.0,
    "unix_s": 1.0,
    "unix_ms": 1e-3,
    "sheet_days": DAY_S,
}


@dataclass(frozen=True, slots=True)
class TimeReading:
    """How a column's cells are times; ``day_first`` for days in figures. ``open`` are the kinds among which to choose."""

    kind: TimeKind
    day_first: bool = False
    open: tuple[TimeKind, ...] = ()
    mark: Mark = "point"


def is_clock(text: str) -> bool:
    """Tell whether ``text`` is a time of day, an elapsed time, or a day with or without one."""
    return bool(_CLOCK.fullmatch(text.strip()) or _MOMENT.fullmatch(text.strip()))


def time_of(cells: Sequence[str], unit: str, mark: Mark | None) -> TimeReading | None:
    """Return how ``cells`` (not empty) are times; None where they are none. ``unit`` is what the header says."""
    filled = [cell.strip() for cell in cells if cell.strip()]
    if not filled:
        return None
    if all(_CLOCK.fullmatch(cell) for cell in filled):
        return _of_clocks(filled)
    if all(_MOMENT.fullmatch(cell) for cell in filled):
        return TimeReading("moment", _day_first(filled))
    return _of_numbers(filled, unit, mark)


def _of_clocks(cells: Sequence[str]) -> TimeReading:
    fields = [match for cell in cells if (match := _CLOCK.fullmatch(cell))]
    if any(match[3] for match in fields) or any(match[5] for match in fields):
        return TimeReading("clock")
    first = [int(match[1]) for match in fields]
    if max(first) > 23:
        return TimeReading("min_s")
    return TimeReading("h_min", open=("h_min", "min_s"))


def _of_numbers(cells: Sequence[str], unit: str, mark: Mark | None) -> TimeReading | None:
    chosen: Mark = mark or "point"
    values = [read_number(cell, chosen) for cell in cells]
    known = [value for value in values if value is not None]
    if len(known) < len(values) or any(b < a for a, b in pairwise(known)):
        return None
    named = {"sec": "s", "secs": "s", "seconds": "s", "minutes": "min", "hours": "h"}.get(unit.lower(), unit.lower())
    if named in ("s", "min", "ms", "h"):
        return TimeReading(named, mark=chosen)  # type: ignore[arg-type]
    for kind, least, most in _NUMERIC:
        if least <= known[0] <= most:
            return TimeReading(kind, mark=chosen)
    return TimeReading("s", open=("s", "min", "ms"), mark=chosen)


def _day_first(cells: Sequence[str]) -> bool:
    """Return whether the day stands before the month: as the figures force it, else the order in which the days run evenly."""
    parts = [re.findall(r"\d+", cell)[:3] for cell in cells]
    if any(len(p) < 3 or len(p[0]) == 4 for p in parts):
        return False
    if any(int(p[0]) > 12 for p in parts):
        return True
    if any(int(p[1]) > 12 for p in parts):
        return False
    return "." in cells[0] or len({p[0] for p in parts}) > len({p[1] for p in parts})


def seconds_of(cells: Sequence[str], how: TimeReading) -> list[float | None]:
    """Return each cell in seconds, from any zero; None for one that is no such time. A clock without days runs over midnight."""
    if how.kind == "rows":
        return [float(index) for index in range(len(cells))]
    if how.kind in ("clock", "h_min", "min_s"):
        return _clocks(cells, how.kind)
    if how.kind == "moment":
        return [_moment(cell.strip(), how.day_first) for cell in cells]
    scale = _SECONDS_A[how.kind]
    values = [read_number(cell.strip(), how.mark) for cell in cells]
    return [None if value is None else value * scale for value in values]


def _clocks(cells: Sequence[str], kind: TimeKind) -> list[float | None]:
    found: list[float | None] = []
    days, last = 0, None
    for cell in cells:
        match = _CLOCK.fullmatch(cell.strip())
        if match is None:
            found.append(None)
            continue
        seconds = _of_fields(match, kind)
        if last is not None and seconds + days * DAY_S < last - DAY_S / 2:
            days += 1
        last = seconds + days * DAY_S
        found.append(last)
    return found


def _of_fields(match: re.Match[str], kind: TimeKind) -> float:
    first, second = int(match[1]), int(match[2])
    third = int(match[3] or 0) + float(f"0.{match[4]}" if match[4] else 0)
    if match[5]:
        first = first % 12 + (12 if match[5][0] in "pP" else 0)
    if kind == "min_s" and not match[3]:
        return 60.0 * first + second
    return 3600.0 * first + 60.0 * second + third


_EPOCH = datetime(2000, 1, 1)  # noqa: DTZ001  a log's clock has no zone


def _moment(text: str, day_first: bool) -> float | None:
    iso = re.match(r"\d{4}", text) is not None  # ISO puts the year first, whatever the order of other days
    try:
        moment: datetime = dates.parse(
            text.replace(",", ".") if iso else text, dayfirst=day_first and not iso, default=_EPOCH
        )
    except (ValueError, OverflowError):
        return None
    return (moment.replace(tzinfo=None) - (moment.utcoffset() or timedelta()) - _EPOCH).total_seconds()


def joined(days: Sequence[str], clocks: Sequence[str]) -> list[str]:
    """Return a column of days and one of clocks as one of moments."""
    return [f"{day.strip()} {clock.strip()}" for day, clock in zip(days, clocks, strict=True)]


def is_days_only(cells: Sequence[str]) -> bool:
    """Tell whether a column holds days without a time of day."""
    filled = [cell.strip() for cell in cells if cell.strip()]
    return bool(filled) and all(_MOMENT.fullmatch(cell) and ":" not in cell for cell in filled)
