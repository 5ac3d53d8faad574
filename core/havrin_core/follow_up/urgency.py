"""What is to be planned first: danger, then who is there, then how long it is overdue."""

from dataclasses import dataclass

_NO_HEAT_LEVEL = 2  # a unit that gives no heat is at least that, whatever it was left as
_NO_HEAT_VULNERABLE_LEVEL = 3  # and more, where the cold harms somebody first


@dataclass(frozen=True, slots=True)
class Waiting:
    """Work that waits: the level its unit was left at (1 to 4, None: never judged), why it is visited, days overdue (below 0: to come)."""

    left_level: int | None
    reason: str
    vulnerable: bool
    days_over: int


def level_of(waiting: Waiting) -> int:
    """Return how bad it may be that nobody is there, 1 to 4: as it was left, or as the call makes it.

    >>> level_of(Waiting(1, "no_heat", True, 0))
    3
    """
    called = waiting.reason == "no_heat"
    by_call = (_NO_HEAT_VULNERABLE_LEVEL if waiting.vulnerable else _NO_HEAT_LEVEL) if called else 1
    return max(waiting.left_level or 1, by_call)


def urgency(waiting: Waiting) -> tuple[int, int, int]:
    """Return the key by which work is put in order, worst first: danger, who is there, days overdue.

    >>> worst = Waiting(4, "recheck", False, -3)
    >>> old = Waiting(1, "maintenance", True, 40)
    >>> sorted([old, worst], key=urgency)[0] is worst
    True
    """
    return -level_of(waiting), -int(waiting.vulnerable), -waiting.days_over
