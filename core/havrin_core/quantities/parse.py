"""Read what people type: "3.5", "8.7mbar", "0,87 kPa", "1 1/2 psi", "−0.92"."""

import math
import re
from dataclasses import dataclass

from havrin_core.errors import NotUnderstood, OutOfDomain, WrongDimension
from havrin_core.phrases import phrase
from havrin_core.quantities.units import DIMENSION_NAMES, Unit, dimensions_of, find_unit, units_of

_MINUS = str.maketrans({"−": "-", "–": "-", "﹣": "-", "＋": "+", "\u00a0": " ", "\u202f": " "})
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅓": "1/3", "⅔": "2/3", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}
_NUMBER = re.compile(r"[+-]?\s?(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)*|[.,]\d+)(?:e[+-]?\d+)?", re.IGNORECASE)
_AMBIGUOUS = re.compile(r"[+-]?[1-9]\d{0,2},\d{3}")


@dataclass(frozen=True, slots=True)
class Quantity:
    """A typed value: SI number, dimension, the number and unit as they were typed."""

    value_si: float
    dimension: str
    typed: float
    unit: Unit


def parse_number(text: str) -> float:
    """Return the number that ``text`` says, with decimal point or comma, or as a fraction.

    Raises NotUnderstood, also for "1,200", which is 1.2 to some and 1200 to others.

    >>> parse_number("−0,92"), parse_number("1 1/2")
    (-0.92, 1.5)
    """
    cleaned = _tidy(text)
    if not _NUMBER.fullmatch(cleaned):
        raise NotUnderstood("number_unreadable", phrase("not_number", text=text), value=text)
    if _AMBIGUOUS.fullmatch(cleaned):
        plain = cleaned.replace(",", "")
        point = cleaned.replace(",", ".")
        raise NotUnderstood(
            "number_ambiguous", phrase("can_mean_write_one_them", text=text, plain=plain, point=point), value=text
        )
    value = _fraction(cleaned) if "/" in cleaned else _decimal(cleaned, text)
    if not math.isfinite(value):
        raise OutOfDomain("number_not_finite", phrase("too_large_reading", text=text), value=text)
    return value


def parse_quantity(text: str, dimension: str, default: Unit) -> Quantity:
    """Return ``text`` as a quantity of ``dimension``; a bare number is taken in ``default``.

    Raises NotUnderstood (no number), WrongDimension (a unit of another kind), OutOfDomain (below absolute zero).

    >>> from havrin_core.quantities.units import find_unit
    >>> round(parse_quantity("8.7mbar", "pressure", find_unit("inWC", "pressure")).value_si, 6)
    870.0
    """
    cleaned = _tidy(text)
    match = _NUMBER.match(cleaned)
    if not match:
        raise NotUnderstood("number_unreadable", phrase("does_not_begin_number", text=text), value=text)
    typed = parse_number(match.group())
    unit = _unit(cleaned[match.end() :].strip(), dimension, default)
    value_si = unit.to_si(typed)
    if dimension == "temperature" and value_si < 0:
        raise OutOfDomain("below_absolute_zero", phrase("below_absolute_zero_459_67", text=text), value=typed)
    return Quantity(value_si, dimension, typed, unit)


def _tidy(text: str) -> str:
    cleaned = text.translate(_MINUS)
    for sign, fraction in _VULGAR.items():
        cleaned = cleaned.replace(sign, f" {fraction}")
    return " ".join(cleaned.split())


def _unit(spelling: str, dimension: str, default: Unit) -> Unit:
    if not spelling:
        return default
    found = find_unit(spelling, dimension)
    if found:
        return found
    wanted = ", ".join(u.symbol for u in units_of(dimension))
    others = dimensions_of(spelling)
    if others:
        message = phrase(
            "is_this_is_in",
            spelling=spelling,
            dimension_names=DIMENSION_NAMES[others[0]],
            dimension_names_2=DIMENSION_NAMES[dimension],
            wanted=wanted,
        )
        raise WrongDimension("wrong_dimension", message, quantity=dimension, value=spelling)
    message = phrase(
        "no_unit_written_typed",
        spelling=spelling,
        dimension_names=DIMENSION_NAMES[dimension].capitalize(),
        wanted=wanted,
    )
    raise NotUnderstood("unit_unknown", message, quantity=dimension, value=spelling)


def _fraction(cleaned: str) -> float:
    sign = -1.0 if cleaned.startswith("-") else 1.0
    *whole, fraction = cleaned.lstrip("+-").split()
    top, bottom = fraction.split("/")
    if int(bottom) == 0:
        raise NotUnderstood("number_unreadable", phrase("divides_zero", cleaned=cleaned), value=cleaned)
    return sign * (sum(int(w) for w in whole) + int(top) / int(bottom))


def _decimal(cleaned: str, text: str) -> float:
    marks = cleaned.count(",") + cleaned.count(".")
    if marks > 1:
        raise NotUnderstood(
            "number_ambiguous", phrase("has_decimal_marks_write_one", text=text, marks=marks), value=text
        )
    return float(cleaned.replace(",", ".").replace(" ", ""))
