"""Times as their writer's clock showed them."""

from datetime import datetime, timedelta, timezone
from functools import lru_cache


def in_zone(at: datetime, zone: str) -> datetime:
    """Return ``at`` in ``zone``, an offset like +01:00; UTC where none was kept."""
    return at.astimezone(_timezone(zone))


@lru_cache(maxsize=256)  # one object per offset: times that share it are compared many times as quickly
def _timezone(zone: str) -> timezone:
    hours, minutes = (int(part) for part in zone[1:].split(":")) if zone else (0, 0)
    offset = timedelta(hours=hours, minutes=minutes)
    return timezone(-offset if zone.startswith("-") else offset)
