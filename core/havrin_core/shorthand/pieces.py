"""Numbers with their units as they stand in a line: "12 l 20 mbar", "9mm", "4.5 in", "1/2 ft3"."""

import re
from fractions import Fraction

from havrin_core.quantities.units import Unit, find_unit

_PIECE = re.compile(r"([-−+]?\d+(?:[.,]\d+)?)\s*([^\s\d]+\d?)?")
_NUMBER = re.compile(r"[-−+]?\d+(?:[.,]\d+)?")
_FRACTION = re.compile(r"(?:(\d+)\s+)?(\d+)/(\d+)$")


def typed_pieces(text: str, *dimensions: str) -> list[tuple[float, Unit | None, str]]:
    """Return (number as typed, its unit or None, the piece as typed) for every number; the first of ``dimensions`` wins."""
    found = []
    for number, spelling in _PIECE.findall(text):
        unit = next((u for d in dimensions if (u := find_unit(spelling, d)) is not None), None) if spelling else None
        found.append((float(number.replace(",", ".").replace("−", "-")), unit, f"{number} {spelling}".strip()))
    return found


def unused_words(text: str, allowed: frozenset[str], *dimensions: str) -> list[str]:
    """Return the words of ``text`` that are no number, no unit of ``dimensions`` and none of ``allowed``: none is dropped."""
    left = []
    for word in text.split():
        rest = _NUMBER.sub("", word).strip(".,;:()#")
        named = (rest, word.strip(".,;:()#"))  # "5min", but "ft3" whole
        is_unit = any(find_unit(name, dimension) is not None for name in named for dimension in dimensions)
        if rest and rest.lower() not in allowed and not is_unit:
            left.append(word)
    return left


def number_of(word: str) -> float | None:
    """Return the number that ``word`` is, a fraction or a decimal with point or comma; None where it is not a number.

    >>> number_of("1/2"), number_of("30,5"), number_of("ft3")
    (0.5, 30.5, None)
    """
    fraction = _FRACTION.match(word)
    if fraction and int(fraction[3]):
        return float(int(fraction[1] or 0) + Fraction(int(fraction[2]), int(fraction[3])))
    try:
        return float(word.replace(",", ".").replace("−", "-"))
    except ValueError:
        return None
