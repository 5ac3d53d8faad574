"""Times as their writer's clock showed them."""

from datetime import datetime, timedelta, timezone


def in_zone(at: datetime, zone: str) -> datetime:
    """Return ``at`` in ``zone``, an offset like +01:00; UTC where none was kept."""
    hours, minutes = (int(part) for part in zone[1:].split(":")) if zone else (0, 0)
    offset = timedelta(hours=hours, minutes=minutes)
    return at.astimezone(timezone(-offset if zone.startswith("-") else offset))
