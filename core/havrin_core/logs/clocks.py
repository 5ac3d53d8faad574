"""Times in a log: clocks with or without days, elapsed times, counted seconds; what they leave open is asked."""

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from itertools import pairwise
from typing import Literal

from dateutil import parser as dates

from havrin_core.logs.numbers import Mark, read_number

DAY_S = 86_400.0
TimeKind = Literal[
    "clock", "moment", "min_s", "h_min", "s", "min", "ms", "h", "unix_s", "unix_ms", "sheet_days", "rows"
]
Order = Literal["ymd", "dmy", "mdy"]
ORDERS: tuple[Order, ...] = ("ymd", "dmy", "mdy")
_AM_PM = r"([AaPp]\.?\s?[Mm]\.?)"
_CLOCK = re.compile(rf"(\d{{1,3}}):(\d{{2}})(?::(\d{{2}})(?:[.,:](\d{{1,6}}))?)?\s*{_AM_PM}?")
_MIN_S = re.compile(r"(\d{1,4}):(\d{2})[.,](\d{1,6})")
_DAY = re.compile(
    r"(\d{4})[-/.]\s?(\d{1,2})[-/.]\s?(\d{1,2})\.?|(\d{1,2})[-/.]\s?(\d{1,2})[-/.]\s?(\d{2,4})|(\d{8})"
    r"|(?:[^\W\d_]{2,10}\.?,? )?(\d{1,2}\.?[ -](?:de )?[^\W\d_]{3,10}\.?[ -](?:de )?\d{2,4}|[^\W\d_]{3,10}\.? \d{1,2},? \d{4})"
)
_MOMENT = re.compile(
    rf"(?P<day>{_DAY.pattern.replace('(', '(?:').replace('(?:?:', '(?:')})"
    rf"(?:(?:[T ,;_]+|\s*-\s*)(?P<h>\d{{1,2}}):?(?P<m>\d{{2}})(?::?(?P<s>\d{{2}})(?:[.,](?P<f>\d+))?)?\s*(?P<half>{_AM_PM[1:-1]})?"
    r"\s?(?P<zone>Z|UTC|[+-]\d{2}(?::?\d{2})?)?)?"
)
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
_NAMED_UNITS: dict[str, TimeKind] = {
    "s": "s",
    "sec": "s",
    "secs": "s",
    "second": "s",
    "seconds": "s",
    "sekunden": "s",
    "elapsed s": "s",
    "min": "min",
    "mins": "min",
    "minutes": "min",
    "minuten": "min",
    "ms": "ms",
    "msec": "ms",
    "milliseconds": "ms",
    "h": "h",
    "hours": "h",
    "mm:ss": "min_s",
    "m:s": "min_s",
    "m:ss": "min_s",
    "min:s": "min_s",
    "min:sec": "min_s",
    "hh:mm": "h_min",
    "h:mm": "h_min",
    "h:min": "h_min",
}
# first letters of the months, in English, German, French, Spanish, Italian, Polish and Dutch
_MONTHS: Sequence[tuple[str, ...]] = (
    ("jan", "jän", "janv", "ene", "gen", "sty"),
    ("feb", "fév", "fev", "lut"),
    ("mar", "mär", "mrz", "maa", "mrt"),
    ("apr", "avr", "abr", "kwi"),
    ("may", "mai", "mag", "maj", "mei"),
    ("jun", "juin", "giu", "cze"),
    ("jul", "juil", "lug", "lip"),
    ("aug", "aoû", "aou", "ago", "sie"),
    ("sep", "set", "wrz"),
    ("oct", "okt", "ott", "paź", "paz"),
    ("nov", "lis"),
    ("dec", "dez", "déc", "dic", "gru"),
)
_FEW = 0.05  # the share of cells that may be no time in a column of times


@dataclass(frozen=True, slots=True)
class TimeReading:
    """How a column's cells are times; ``order`` of days in figures. ``open`` are the kinds among which to choose."""

    kind: TimeKind
    order: Order = "ymd"
    open: tuple[TimeKind, ...] = ()
    mark: Mark = "point"


def is_clock(text: str) -> bool:
    """Tell whether ``text`` is a time of day, an elapsed time, or a day with or without one."""
    plain = text.strip()
    return bool(_CLOCK.fullmatch(plain) or _MIN_S.fullmatch(plain) or _moment_like(plain))


def _moment_like(text: str) -> bool:
    match = _MOMENT.fullmatch(text)
    # eight figures alone are a number as likely as a day
    return match is not None and not (text.isdigit() and len(text) == 8)


def time_of(cells: Sequence[str], unit: str, mark: Mark | None) -> TimeReading | None:
    """Return how ``cells`` (not empty) are times; None where they are none. ``unit`` is what the header says."""
    filled = [cell.strip() for cell in cells if cell.strip()]
    if not filled:
        return None
    for fits, read in ((_MIN_S.fullmatch, _of_min_s), (_CLOCK.fullmatch, _of_clocks), (_moment_like, _of_moments)):
        fitting = _fitting(filled, fits)
        if fitting:
            return read(fitting, unit)
    return _of_numbers(filled, unit, mark)


def _fitting(cells: Sequence[str], fits: Callable[[str], object]) -> list[str]:
    """Return the cells that fit, where all but a few do."""
    fitting = [cell for cell in cells if fits(cell)]
    return fitting if len(fitting) >= (1 - _FEW) * len(cells) else []


def _of_min_s(_: Sequence[str], __: str) -> TimeReading:
    return TimeReading("min_s")


def _of_clocks(cells: Sequence[str], unit: str) -> TimeReading | None:
    fields = [match for cell in cells if (match := _CLOCK.fullmatch(cell))]
    halves = sum(bool(match[5]) for match in fields)
    if 0 < halves < len(fields):
        return None  # with AM and PM, and without: no telling which half of the day the others are of
    if halves or any(match[3] for match in fields):
        return TimeReading("clock")
    named = _NAMED_UNITS.get(unit.lower())
    if named in ("min_s", "h_min"):
        return TimeReading(named)
    if max(int(match[1]) for match in fields) > 23:
        return TimeReading("min_s")
    return TimeReading("h_min", open=("h_min", "min_s"))


def _of_moments(cells: Sequence[str], _: str) -> TimeReading | None:
    """Return the order of days that makes the shortest log: of all that give a day in every cell."""
    days = {match["day"] for cell in cells if (match := _MOMENT.fullmatch(cell))}
    spans: list[tuple[int, Order]] = []
    for order in ORDERS:
        read = [_ordinal(day, order) for day in days]
        known = [day for day in read if day is not None]
        if len(known) == len(read):
            spans.append((max(known) - min(known), order))
    return TimeReading("moment", min(spans, key=lambda pair: pair[0])[1]) if spans else None


def _of_numbers(cells: Sequence[str], unit: str, mark: Mark | None) -> TimeReading | None:
    chosen: Mark = mark or "point"
    known = [value for cell in cells if (value := read_number(cell, chosen)) is not None]
    if len(known) < (1 - _FEW) * len(cells) or not _runs_on(known):
        return None
    named = _NAMED_UNITS.get(unit.lower().replace("_", " "))
    if named in ("s", "min", "ms", "h"):
        return TimeReading(named, mark=chosen)
    for kind, least, most in _NUMERIC:
        if least <= known[0] <= most:
            return TimeReading(kind, mark=chosen)
    return TimeReading("s", open=("s", "min", "ms"), mark=chosen)


def _runs_on(values: Sequence[float]) -> bool:
    """Tell whether numbers run on as a clock does; where they fall they begin anew, below or at where they began."""
    falls = [later for earlier, later in pairwise(values) if later < earlier]
    return len(falls) <= max(3, len(values) // 20) and all(value <= values[0] + 1.0 for value in falls)


def seconds_of(cells: Sequence[str], how: TimeReading) -> list[float | None]:
    """Return each cell in seconds, from any zero; None for one that is no such time. A clock without days runs over midnight."""
    if how.kind == "rows":
        return [float(index) for index in range(len(cells))]
    if how.kind in ("clock", "h_min", "min_s"):
        return list(_clocks(cells, how.kind))
    if how.kind == "moment":
        return [_moment(cell.strip(), how.order) for cell in cells]
    scale = _SECONDS_A[how.kind]
    values = [read_number(cell.strip(), how.mark) for cell in cells]
    return [None if value is None else value * scale for value in values]


def _clocks(cells: Sequence[str], kind: TimeKind) -> Iterable[float | None]:
    days, last = 0, None
    for cell in cells:
        seconds = _of_clock(cell.strip(), kind)
        if seconds is None:
            yield None
            continue
        if last is not None and seconds + days * DAY_S < last - DAY_S / 2:
            days += 1
        last = seconds + days * DAY_S
        yield last


def _of_clock(text: str, kind: TimeKind) -> float | None:
    if short := _MIN_S.fullmatch(text):
        return 60.0 * int(short[1]) + int(short[2]) + float(f"0.{short[3]}")
    match = _CLOCK.fullmatch(text)
    if match is None or int(match[2]) > 59 or int(match[3] or 0) > 59:
        return None
    first, second = int(match[1]), int(match[2])
    third = int(match[3] or 0) + float(f"0.{match[4]}" if match[4] else 0)
    if match[5]:
        if not 1 <= first <= 12:
            return None
        first = first % 12 + (12 if match[5][0] in "pP" else 0)
    if kind == "min_s" and not match[3]:
        return 60.0 * first + second
    return 3600.0 * first + 60.0 * second + third


def _moment(text: str, order: Order) -> float | None:
    match = _MOMENT.fullmatch(text)
    day = _ordinal(match["day"], order) if match else None
    if match is None or day is None:
        return None
    hour, minute, second = int(match["h"] or 0), int(match["m"] or 0), int(match["s"] or 0)
    if match["half"]:
        hour = hour % 12 + (12 if match["half"][0] in "pP" else 0)
    if hour > 24 or minute > 59 or second > 60:
        return None
    fraction = float(f"0.{match['f']}") if match["f"] else 0.0
    return day * DAY_S + 3600.0 * hour + 60.0 * minute + second + fraction - _offset_s(match["zone"])


def _offset_s(zone: str | None) -> float:
    """Return how far a zone is ahead of UTC, s."""
    figures = re.sub(r"\D", "", zone or "")
    if not zone or not figures:
        return 0.0
    ahead = 3600.0 * int(figures[:2]) + 60.0 * int(figures[2:] or 0)
    return -ahead if zone.startswith("-") else ahead


@lru_cache(maxsize=4096)
def _ordinal(text: str, order: Order) -> int | None:
    """Return a day as a running number; None where it is no date in this order."""
    match = _DAY.fullmatch(text)
    if match is None:
        return None
    try:
        if match[1]:
            return date(int(match[1]), int(match[2]), int(match[3])).toordinal()
        if match[4]:
            named = dict(zip(order, (int(match[4]), int(match[5]), int(match[6])), strict=True))
            year = named["y"] + (2000 if named["y"] < 100 else 0)
            return date(year, named["m"], named["d"]).toordinal() if len(match[6]) == 2 or order != "ymd" else None
        if match[7]:
            return date(int(match[7][:4]), int(match[7][4:6]), int(match[7][6:])).toordinal()
        named_day: date = dates.parse(_in_english(match[8]), dayfirst=True)
        return named_day.toordinal()
    except (ValueError, OverflowError):
        return None


def _in_english(day: str) -> str:
    """Return a day with its month's English name."""
    name = next(iter(re.findall(r"[^\W\d_]{3,}", day)), "").lower()
    fits = [index for index, months in enumerate(_MONTHS) if any(name.startswith(month) for month in months)]
    english = date(2000, fits[-1] + 1, 1).strftime("%b") if fits else name
    return re.sub(r"[^\W\d_]+\.?", lambda m: english if m[0].lower().rstrip(".") == name else " ", day).replace(
        "-", " "
    )


def joined(days: Sequence[str], clocks: Sequence[str]) -> list[str]:
    """Return a column of days and one of clocks as one of moments."""
    return [f"{day.strip()} {clock.strip()}" for day, clock in zip(days, clocks, strict=True)]


def is_days_only(cells: Sequence[str]) -> bool:
    """Tell whether a column holds days without a time of day."""
    filled = [cell.strip() for cell in cells if cell.strip()]
    return bool(filled) and all(_DAY.fullmatch(cell) for cell in filled)
