"""Dates as they are typed: 2026-12-01, 1 Dec, 12 December 2026, in 5 days, tomorrow, Friday."""

import re
from datetime import date, timedelta

_MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
_ISO = re.compile(r"\b(\d{4})-(\d{2})-(\d{2})\b")
_NAMED = re.compile(r"\b(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?(?:\s+(\d{4}))?", re.IGNORECASE)
_MONTH_FIRST = re.compile(r"\b([a-z]{3})[a-z]*\.?\s+(\d{1,2})(?:st|nd|rd|th)?(?:,?\s+(\d{4}))?\b", re.IGNORECASE)
_AHEAD = re.compile(r"\b(?:in (\d{1,3}|a)|(next)) (day|week|month)s?\b", re.IGNORECASE)
_LENGTHS = {"day": 1, "week": 7, "month": 30}


def date_in(text: str, today: date) -> date | None:
    """Return the first date that ``text`` names, seen from ``today``; None where it names none.

    A day and month without a year is the next one; a weekday is the next such day after today.
    """
    if found := _ISO.search(text):
        return _made(*(int(part) for part in found.groups()))
    if found := _AHEAD.search(text):
        count = int(found[1]) if found[1] and found[1].isdigit() else 1
        return today + timedelta(days=count * _LENGTHS[found[3].lower()])
    for found in _NAMED.finditer(text):
        if found[2].lower() in _MONTHS:
            return _next(int(found[1]), _MONTHS.index(found[2].lower()) + 1, int(found[3]) if found[3] else None, today)
    for found in _MONTH_FIRST.finditer(text):
        if found[1].lower() in _MONTHS:
            return _next(int(found[2]), _MONTHS.index(found[1].lower()) + 1, int(found[3]) if found[3] else None, today)
    words = [word.strip(".,;").lower() for word in text.split()]
    if "tomorrow" in words:
        return today + timedelta(days=1)
    named = next((_DAYS.index(word[:3]) for word in words if word[:3] in _DAYS and word.endswith("day")), None)
    return None if named is None else today + timedelta(days=(named - today.weekday() - 1) % 7 + 1)


def _next(day: int, month: int, year: int | None, today: date) -> date | None:
    made = _made(year or today.year, month, day)
    if made is not None and year is None and made < today:
        return _made(today.year + 1, month, day)
    return made


def _made(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day)
    except ValueError:
        return None
