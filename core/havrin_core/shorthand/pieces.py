"""Numbers with their units as they stand in a line: "12 l 20 mbar", "9mm", "4.5 in"."""

import re

from havrin_core.quantities.units import Unit, find_unit

_PIECE = re.compile(r"([-−+]?\d+(?:[.,]\d+)?)\s*([^\s\d]+\d?)?")


def typed_pieces(text: str, *dimensions: str) -> list[tuple[float, Unit | None, str]]:
    """Return (number as typed, its unit or None, the piece as typed) for every number; the first of ``dimensions`` wins."""
    found = []
    for number, spelling in _PIECE.findall(text):
        unit = next((u for d in dimensions if (u := find_unit(spelling, d)) is not None), None) if spelling else None
        found.append((float(number.replace(",", ".").replace("−", "-")), unit, f"{number} {spelling}".strip()))
    return found
