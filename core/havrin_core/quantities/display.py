"""Show SI values in the unit system a person picked, always with their unit."""

from dataclasses import dataclass

from havrin_core.quantities.formats import number
from havrin_core.quantities.units import Unit, shown_unit

_MORE_DIGITS = 5


@dataclass(frozen=True, slots=True)
class Shown:
    """A value as it stands on the page: number in ``unit``, and its text with the right digits."""

    value: float
    text: str
    unit: str


def show(value_si: float, dimension: str, system: str) -> Shown:
    """Return ``value_si`` as shown in unit system ``us`` or ``metric``. Raises UnknownName.

    >>> show(871.8, "pressure", "us").text
    '3.50'
    """
    return show_in(value_si, shown_unit(dimension, system))


def show_in(value_si: float, unit: Unit) -> Shown:
    """Return ``value_si`` as shown in ``unit``, in the firm's marks, with a true minus sign and no negative zero."""
    value = unit.from_si(value_si)
    return Shown(value, number(value, f".{unit.decimals}f"), unit.symbol)


def show_apart(value_si: float, bound_si: float, dimension: str, system: str) -> tuple[Shown, Shown]:
    """Return a value and the bound that it is laid against, with as many digits as tell the two from each other.

    >>> [one.text for one in show_apart(291.71, 291.48, "temperature", "us")]
    ['65.4', '65.0']
    """
    unit = shown_unit(dimension, system)
    pair = unit.from_si(value_si), unit.from_si(bound_si)
    digits = digits_apart(*pair, unit.decimals)
    return tuple(Shown(one, number(one, f".{digits}f"), unit.symbol) for one in pair)  # type: ignore[return-value]


def digits_apart(value: float, bound: float, least: int) -> int:
    """Return the decimals, ``least`` or more, at which ``value`` and ``bound`` are written differently."""
    enough = (digits for digits in range(least, least + _MORE_DIGITS) if f"{value:.{digits}f}" != f"{bound:.{digits}f}")
    return next(enough, least)


def half_width_text(half_width_si: float, unit: Unit) -> str:
    """Return a ± in ``unit`` with as many digits as its value has, more where it would else read as nothing; "" for none."""
    width = abs(half_width_si / unit.scale)
    if not width:
        return ""
    digits = (d for d in range(unit.decimals, unit.decimals + _MORE_DIGITS) if float(f"{width:.{d}f}"))
    return number(width, f".{next(digits, unit.decimals)}f")


def sentence(value_si: float, dimension: str, system: str) -> str:
    """Return ``value_si`` as number and unit for use in a sentence, like "3.50 inWC"."""
    shown = show(value_si, dimension, system)
    return f"{shown.text} {shown.unit}"
