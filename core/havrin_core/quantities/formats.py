"""How a firm writes its days, its clock and its numbers. The words stay English; lines are typed with either mark.

The formats are set for what follows, like the language (wording/language.py): no function passes them on.
"""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import date, datetime
from string import Formatter
from typing import Any, Literal, cast, get_args

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase

DayFormat = Literal["day_month", "month_day", "year_first"]
ClockFormat = Literal["24", "12"]
DecimalMark = Literal["point", "comma"]
DAY_FORMATS, CLOCK_FORMATS, DECIMAL_MARKS = get_args(DayFormat), get_args(ClockFormat), get_args(DecimalMark)


@dataclass(frozen=True, slots=True)
class Formats:
    """14 January 2026, 14:05 and 3.5 as a firm writes them."""

    days: DayFormat = "day_month"
    clock: ClockFormat = "24"
    decimal: DecimalMark = "point"


def formats_from(*, days: str, clock: str, decimal: str) -> Formats:
    """Return the formats of these keys. Raises UnknownName."""
    given = ((days, DAY_FORMATS), (clock, CLOCK_FORMATS), (decimal, DECIMAL_MARKS))
    for key, known in given:
        if key not in known:
            raise UnknownName("format_unknown", phrase("format_unknown", name=key, known=", ".join(known)), value=key)
    return Formats(cast(DayFormat, days), cast(ClockFormat, clock), cast(DecimalMark, decimal))


_USUAL = Formats()
_WRITTEN: ContextVar[Formats] = ContextVar("written", default=_USUAL)


@contextmanager
def writing(formats: Formats) -> Iterator[None]:
    """Write days, clock and numbers in ``formats`` inside the block."""
    token = _WRITTEN.set(formats)
    try:
        yield
    finally:
        _WRITTEN.reset(token)


def current() -> Formats:
    """Return the formats that are set: what is worked out once and kept is kept for them."""
    return _WRITTEN.get()


def number(value: float, spec: str) -> str:
    """Return ``value`` written by ``spec`` (of Python's formats), with a true minus sign and no negative zero.

    >>> number(-0.92, ".1f"), number(-0.01, ".1f")
    ('−0.9', '0.0')
    """
    written = format(value, spec)
    if written.startswith("-") and not any(digit in written for digit in "123456789"):
        written = written[1:]
    return in_marks(written.replace("-", "−"))


def in_marks(written: str) -> str:
    """Return a number that is written with a decimal point with the firm's decimal mark."""
    return written.replace(".", ",") if _WRITTEN.get().decimal == "comma" else written


def day_words(day: date) -> str:
    """Return a day in full, like 14 January 2026.

    >>> with writing(Formats(days="month_day")):
    ...     day_words(date(2026, 1, 5))
    'January 5, 2026'
    """
    return _day(day, "%B")


def short_day(day: date) -> str:
    """Return a day as it stands in a table, like 14 Jan 2026."""
    return _day(day, "%b")


def _day(day: date, month: str) -> str:
    named = format(day, month)
    match _WRITTEN.get().days:
        case "day_month":
            return f"{day.day} {named} {day.year}"
        case "month_day":
            return f"{named} {day.day}, {day.year}"
        case "year_first":
            return f"{day:%Y-%m-%d}"


def month_words(day: date) -> str:
    """Return the month in which ``day`` lies, like January 2026."""
    return f"{day:%Y-%m}" if _WRITTEN.get().days == "year_first" else f"{day:%B %Y}"


def clock_words(at: datetime) -> str:
    """Return the time of day in the zone of ``at``, like 14:05 or 2:05 PM."""
    if _WRITTEN.get().clock == "24":
        return f"{at:%H:%M}"
    return f"{at.hour % 12 or 12}:{at.minute:02d} {'AM' if at.hour < 12 else 'PM'}"


def moment_words(at: datetime) -> str:
    """Return day and time of day, like 14 January 2026, 14:05."""
    return f"{day_words(at)}, {clock_words(at)}"


class _Sentences(Formatter):
    """Fills sentences; a day or a number among the parts is written as the firm does."""

    def format_field(self, value: Any, format_spec: str) -> str:
        if isinstance(value, date):
            return day_words(value)
        if isinstance(value, float):
            return in_marks(format(value, format_spec))
        return str(super().format_field(value, format_spec))


_SENTENCES = _Sentences()


def filled(sentence: str, parts: dict[str, Any]) -> str:
    """Return ``sentence`` with ``parts`` filled in, as str.format does, numbers in the firm's marks."""
    return _SENTENCES.vformat(sentence, (), parts)
