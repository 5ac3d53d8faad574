"""Numbers as a column writes them: the decimal mark is the column's, decided over all its rows, or asked."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from math import isfinite
from typing import Literal, NamedTuple

Mark = Literal["point", "comma"]
MARKS: tuple[Mark, ...] = ("point", "comma")
_SPACES = str.maketrans({"\u00a0": "", "\u202f": "", "\u2009": "", " ": "", "'": "", "’": "", "−": "-", "–": "-"})
_DIGIT = re.compile(r"\d")
_PLAIN = re.compile(r"[+-]?\d+(?:e[+-]?\d+)?", re.IGNORECASE)
_DECIMAL = {
    "point": re.compile(r"[+-]?(?:\d+|[1-9]\d{0,2}(?:,\d{3})+)?(?:\.\d*)?(?:e[+-]?\d+)?", re.IGNORECASE),
    "comma": re.compile(r"[+-]?(?:\d+|[1-9]\d{0,2}(?:\.\d{3})+)?(?:,\d*)?(?:e[+-]?\d+)?", re.IGNORECASE),
}
_NOTHING = re.compile(r"\s*|[-–—_.*]+|n\.?/?a\.?|none|null|nil|error|err|nan|#n/a|#value!|no.?data", re.IGNORECASE)
_OVER = re.compile(r"\+?\s*o\.?\s*v?\.?\s*[lr]\.?|ovr(?:ng)?|over\w*|o\.?f\.?l\.?|>+|high", re.IGNORECASE)
_UNDER = re.compile(r"u\.?r\.?|under\w*|-\s*o\.?l\.?|<+|low", re.IGNORECASE)
_BOUND = re.compile(r"([<>≤≥])\s*=?\s*(\S.*)")

_EXPONENT = re.compile(r"e[+-]?\d+", re.IGNORECASE)  # of a number that is too large to be one

Kind = Literal["number", "over", "under", "nothing", "other"]


class Cell(NamedTuple):
    """One cell: what sort of thing it is, and the number in it as text, without its unit."""

    kind: Kind
    text: str = ""
    unit: str = ""


_WITH_UNIT = re.compile(
    r"([+\-−–]?[\d.,'’\u00a0\u202f ]*\d[.,]?(?:e[+-]?\d+)?)\s*([A-Za-z%°ºµμΩ\"‰][^;:|]{0,14})", re.IGNORECASE
)


@lru_cache(maxsize=1 << 17)  # a column says the same few hundred things over and over
def cell_of(typed: str) -> Cell:
    """Return what a cell says: a number (with its unit), over or under range, nothing, or something else.

    >>> cell_of("6,4 %"), cell_of(">2000"), cell_of("---").kind
    (Cell(kind='number', text='6,4', unit='%'), Cell(kind='over', text='2000', unit=''), 'nothing')
    """
    text = typed.strip().strip('"').strip()
    if _NOTHING.fullmatch(text):
        return Cell("nothing")
    if bound := _BOUND.fullmatch(text):
        inner = cell_of(bound[2])
        if inner.kind == "number":
            return Cell("over" if bound[1] in ">≥" else "under", inner.text, inner.unit)
    if is_number(text):
        return Cell("number", text)
    if _OVER.fullmatch(text):
        return Cell("over")
    if _UNDER.fullmatch(text):
        return Cell("under")
    united = _WITH_UNIT.fullmatch(text)
    if united and is_number(united[1]) and not _EXPONENT.fullmatch(united[2]):
        return Cell("number", united[1].strip(), united[2].strip())
    return Cell("other", text)


def is_number(text: str) -> bool:
    """Tell whether ``text`` is a number under either decimal mark."""
    return any(read_number(text, mark) is not None for mark in MARKS)


@lru_cache(maxsize=1 << 17)
def read_number(text: str, mark: Mark) -> float | None:
    """Return the number under ``mark``; None where it is not a number: a thousands mark stands before just three digits."""
    plain = text.translate(_SPACES)
    if not _DIGIT.search(plain) or not _DECIMAL[mark].fullmatch(plain):
        return None
    decimal, thousands = (".", ",") if mark == "point" else (",", ".")
    value = float(plain.replace(thousands, "").replace(decimal, "."))
    return value if isfinite(value) else None


@dataclass(slots=True)
class ColumnNumbers:
    """What all cells of a column leave possible. ``first`` is a cell that reads differently under the two marks."""

    point: bool = True
    comma: bool = True
    first: str = ""
    count: int = 0

    def take(self, text: str) -> None:
        """Count one number of the column."""
        self.count += 1
        if _PLAIN.fullmatch(text):
            return
        values = [read_number(text, mark) for mark in MARKS]
        self.point &= values[0] is not None
        self.comma &= values[1] is not None
        if values[0] != values[1] and not self.first:
            self.first = text

    @property
    def mark(self) -> Mark | None:
        """The column's decimal mark; None where both fit and would read differently, or neither fits every cell."""
        if self.point and self.comma:
            return None if self.first else "point"
        return "point" if self.point else "comma" if self.comma else None

    @property
    def mixed(self) -> bool:
        """Whether no one mark fits every cell."""
        return not self.point and not self.comma


def numbers_of(texts: Iterable[str]) -> ColumnNumbers:
    """Return what the numbers of a column leave possible."""
    found = ColumnNumbers()
    for text in texts:
        found.take(text)
    return found
