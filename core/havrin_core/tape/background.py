"""What is known of a unit before anything is read."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Past:
    """Something that an earlier visit did or found: an action (verb and part), or the key of a part that was not in order."""

    days_ago: int
    action: str = ""
    part: str = ""


@dataclass(frozen=True, slots=True)
class Background:
    """What is known of a unit before anything is read; None or empty where it is not.

    ``causes`` are the parts that the firm's own closed visits found to be the cause on circuits like this, with how often.
    ``in_vain`` are those that were renewed and did not cure it: how often, and in how many of these no cause was found at all.
    """

    month: int | None = None
    age_years: float | None = None
    surroundings: tuple[str, ...] = ()
    past: tuple[Past, ...] = ()
    causes: tuple[tuple[str, int], ...] = ()
    in_vain: tuple[tuple[str, int, int], ...] = ()


NOTHING_KNOWN = Background()
