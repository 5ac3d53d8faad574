"""How a reading moves over the years, and when its limit will be crossed."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from math import sqrt

from havrin_core.limits.model import Band

LEAST_POINTS = 3
_SURE = 2.0  # standard errors of the slope
_LOOKS_AHEAD_DAYS = 5 * 365


@dataclass(frozen=True, slots=True)
class Trend:
    """``per_year`` in canonical units; ``crosses`` the day on which the limit is reached, None within five years."""

    per_year: float
    crosses: date | None


def trend_of(points: Sequence[tuple[date, float]], band: Band | None) -> Trend | None:
    """Return the straight line through ``points`` where its slope stands out of their scatter, else None."""
    if len({day for day, _ in points}) < LEAST_POINTS:
        return None
    days = [(day - points[0][0]).days for day, _ in points]
    values = [value for _, value in points]
    mean_day, mean = sum(days) / len(days), sum(values) / len(values)
    spread = sum((d - mean_day) ** 2 for d in days)
    slope = sum((d - mean_day) * (v - mean) for d, v in zip(days, values, strict=True)) / spread
    left = sum((v - mean - slope * (d - mean_day)) ** 2 for d, v in zip(days, values, strict=True))
    error = sqrt(left / max(len(days) - 2, 1) / spread)
    if slope == 0 or abs(slope) < _SURE * error:
        return None
    return Trend(365 * slope, _crossing(points[0][0], days[-1], mean - slope * mean_day, slope, band))


def _crossing(first: date, last_day: int, at_first: float, slope: float, band: Band | None) -> date | None:
    limit = None if band is None else band.low if slope < 0 else band.high
    if limit is None:
        return None
    day = (limit - at_first) / slope
    return first + timedelta(days=round(day)) if last_day < day <= last_day + _LOOKS_AHEAD_DAYS else None
