"""What is to be said, as a key with its parts; the words stand in wording/data and are put in by wording/phrases.py."""

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class Phrase:
    """A sentence to be: ``key`` names it in wording/data, ``parts`` are what it speaks of; a part may be a phrase itself.

    Without a key its parts simply follow one another.
    """

    key: str
    parts: tuple[tuple[str, Any], ...] = ()

    def __bool__(self) -> bool:
        return bool(self.key or self.parts)

    def __str__(self) -> str:
        raise TypeError(f"{self!r} is not in words yet: wording/phrases.py")

    def __format__(self, spec: str) -> str:
        return str(self)


Saying = Phrase | str  # a plain string is a name from the data (a part, a reading, a fuel), or what a person typed
NOTHING = Phrase("")


def phrase(key: str, **parts: Any) -> Phrase:
    """Return the phrase ``key`` with its parts."""
    return Phrase(key, tuple(parts.items()))


def together(*said: Saying) -> Phrase:
    """Return what is said one after the other."""
    return Phrase("", tuple((str(n), one) for n, one in enumerate(said) if one != NOTHING and one != ""))


def in_a_row(said: list[Saying] | tuple[Saying, ...], between: str) -> Phrase:
    """Return what is said with ``between`` between each two."""
    rows = [piece for one in said for piece in (between, one)][1:]
    return Phrase("", tuple((str(n), one) for n, one in enumerate(rows)))
