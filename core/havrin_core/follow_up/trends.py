"""How a reading moves over the years, and between which days its limit will be crossed."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from math import sqrt

from havrin_core.limits.model import Band
from havrin_core.quantities.student import t95
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import Action, Entry
from havrin_core.vocabulary.catalogue import part
from havrin_core.vocabulary.measurands import measurand

LEAST_POINTS = 3
_LOOKS_AHEAD_DAYS, _AT_MOST_DAYS = 5 * 365, 15 * 365
_RENEWS = ("clean", "change", "repair", "clear", "adjust", "set", "refit")
_COVERAGE = 1.96  # a stated half-width is taken as that many standard deviations


@dataclass(frozen=True, slots=True)
class Trend:
    """``per_year`` ± ``half_width`` in canonical units, at 95 %.

    ``earliest`` and ``latest`` are the days between which the limit is reached, at 95 %: both None where that lies more
    than five years ahead or nowhere, ``latest`` alone None where it may never be.
    """

    per_year: float
    half_width: float
    earliest: date | None = None
    latest: date | None = None


@dataclass(frozen=True, slots=True)
class _Line:
    """The straight line through the points, from their mean day; ``variance`` is that of one reading."""

    first: date
    last_day: float
    mean_day: float
    mean: float
    slope: float
    variance: float
    days_squared: float
    count: int
    t: float


def trend_of(points: Sequence[tuple[date, float]], band: Band | None, half_width: float = 0.0) -> Trend | None:
    """Return how ``points`` move, where their slope stands out of scatter and instrument at 95 %, else None.

    ``half_width`` is the instrument's own, canonical unit: three readings that happen to lie on a line are no more
    certain than it. Its variance is added to that of the scatter, and the slope is tested by Student's t.
    """
    if len({day for day, _ in points}) < LEAST_POINTS:
        return None
    line = _line(points, half_width / _COVERAGE)
    error = line.t * sqrt(line.variance / line.days_squared)
    if line.slope == 0 or abs(line.slope) <= error:
        return None
    earliest, latest = _crossing(line, band)
    return Trend(365 * line.slope, 365 * error, earliest, latest)


def _line(points: Sequence[tuple[date, float]], sigma: float) -> _Line:
    days = [(day - points[0][0]).days for day, _ in points]
    values = [value for _, value in points]
    count = len(days)
    mean_day, mean = sum(days) / count, sum(values) / count
    squared = sum((d - mean_day) ** 2 for d in days)
    slope = sum((d - mean_day) * (v - mean) for d, v in zip(days, values, strict=True)) / squared
    left = sum((v - mean - slope * (d - mean_day)) ** 2 for d, v in zip(days, values, strict=True))
    freedom = count - 2
    variance = left / freedom + sigma**2
    return _Line(points[0][0], max(days), mean_day, mean, slope, variance, squared, count, t95(freedom))


def _crossing(line: _Line, band: Band | None) -> tuple[date | None, date | None]:
    """Return the days between which the line, anywhere in its 95 % band, meets the limit (Fieller's interval)."""
    limit = None if band is None else band.low if line.slope < 0 else band.high
    if limit is None:
        return None, None
    gap = line.mean - limit
    best = line.mean_day - gap / line.slope
    if not line.last_day < best <= line.last_day + _LOOKS_AHEAD_DAYS:
        return None, None
    squared = line.t**2 * line.variance
    a = line.slope**2 - squared / line.days_squared
    b, c = gap * line.slope, gap**2 - squared / line.count
    root = sqrt(max(b * b - a * c, 0.0))
    soonest, last = sorted(((-b - root) / a, (-b + root) / a))
    earliest = max(line.mean_day + soonest, line.last_day)
    latest = line.mean_day + last
    found = None if latest > line.last_day + _AT_MOST_DAYS else line.first + timedelta(days=round(latest))
    return line.first + timedelta(days=round(earliest)), found


def renewed_at(tape: Iterable[Entry], quantity: str) -> datetime | None:
    """Return when work last made a fresh start for ``quantity``: cleaning, changing or setting at its own station."""
    station = measurand(quantity).station
    moments = [
        line.moment.at
        for line in effective(tape)
        if isinstance(line.body, Action)
        and line.body.verb in _RENEWS
        and line.body.part
        and (line.body.part == "unit" or (station and part(line.body.part).station == station))
    ]
    return moments[-1] if moments else None
