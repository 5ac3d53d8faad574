"""Show SI values in the unit system a person picked, always with their unit."""

from dataclasses import dataclass

from havrin_core.quantities.formats import number
from havrin_core.quantities.units import Unit, shown_unit


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


def sentence(value_si: float, dimension: str, system: str) -> str:
    """Return ``value_si`` as number and unit for use in a sentence, like "3.50 inWC"."""
    shown = show(value_si, dimension, system)
    return f"{shown.text} {shown.unit}"
