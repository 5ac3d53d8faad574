"""Times as their writer's clock showed them, and the season where they were written."""

from datetime import date, datetime, timedelta, timezone
from functools import cache, lru_cache
from importlib import resources


def in_zone(at: datetime, zone: str) -> datetime:
    """Return ``at`` in ``zone``, an offset like +01:00; UTC where none was kept."""
    return at.astimezone(_timezone(zone))


@lru_cache(maxsize=256)  # one object per offset: times that share it are compared many times as quickly
def _timezone(zone: str) -> timezone:
    hours, minutes = (int(part) for part in zone[1:].split(":")) if zone else (0, 0)
    offset = timedelta(hours=hours, minutes=minutes)
    return timezone(-offset if zone.startswith("-") else offset)


_COLD_MONTHS = (11, 12, 1, 2, 3)  # north of the equator


def is_cold_season(day: date, zone: str) -> bool:
    """Tell whether ``day`` lies in the cold months of the place whose zone is the IANA name ``zone``."""
    month = (day.month + 5) % 12 + 1 if zone in _southern_zones() else day.month
    return month in _COLD_MONTHS


@cache
def _southern_zones() -> frozenset[str]:
    """Return the zones whose principal place lies south of the equator, by the table that ships with them."""
    table = (resources.files("tzdata.zoneinfo") / "zone1970.tab").read_text(encoding="utf-8")
    rows = [line.split("\t") for line in table.splitlines() if line and not line.startswith("#")]
    return frozenset(row[2] for row in rows if row[1].startswith("-"))
