"""Years of visits for the sample world, written out from habits: the same world for the same day, always."""

import random
import re
from collections.abc import Iterator
from datetime import datetime
from typing import Any

_NUMBER = re.compile(r"\{(?P<base>-?[\d.]+)(?:~(?P<spread>[\d.]+))?(?:/(?P<drift>[+-][\d.]+))?\}")
_SIGNED = {"tove": "Tove Lindgarth", "wenna": "Wenna Harrowick"}
_YEAR_DAYS = 365


def every_visit(world: dict[str, Any], now: datetime) -> Iterator[dict[str, Any]]:
    """Yield the rows of all earlier visits: those told one by one, and the yearly maintenance of each unit."""
    yield from world["earlier_visits"]
    for habit in world["yearly_maintenance"]:
        for years_ago in habit["years"]:
            yield _maintenance(habit, years_ago, now)


def _maintenance(habit: dict[str, Any], years_ago: int, now: datetime) -> dict[str, Any]:
    chance = random.Random(f"{habit['unit']} {years_ago}")
    season = (now.month - habit["month"]) % 12 * 30
    first = max(habit["years"])
    return {
        "unit": habit["unit"],
        "days_ago": _YEAR_DAYS * (years_ago - 1) + max(season, 5) + chance.randrange(12),
        "at": f"{chance.randrange(8, 15):02d}:{chance.choice((0, 10, 30, 40)):02d}",
        "technician": habit["technician"],
        "reason": "maintenance",
        "complaint": "",
        "signed": _SIGNED[habit["technician"]],
        "words": habit["words"],
        "lines": [_NUMBER.sub(lambda m: _value(m, first - years_ago, chance), line) for line in habit["lines"]],
    }


def _value(match: re.Match[str], years_on: int, chance: random.Random) -> str:
    """Return the number of a habit "{base~spread/drift}": spread at random, drift by the year."""
    base = match["base"]
    decimals = len(base.partition(".")[2])
    value = float(base) + float(match["drift"] or 0) * years_on + chance.uniform(-1, 1) * float(match["spread"] or 0)
    return f"{max(value, 0.0):.{max(decimals, 1) if match['spread'] else decimals}f}"
