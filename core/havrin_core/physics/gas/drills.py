"""Drill sizes for orifices: the numbered series 1 to 80 in inches, and metric."""

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase

INCH_M = 0.0254
# Numbered twist drills 1 to 80, diameter in inches (ASME B94.11M)
NUMBERED_IN: tuple[float, ...] = (
    0.2280,
    0.2210,
    0.2130,
    0.2090,
    0.2055,
    0.2040,
    0.2010,
    0.1990,
    0.1960,
    0.1935,
    0.1910,
    0.1890,
    0.1850,
    0.1820,
    0.1800,
    0.1770,
    0.1730,
    0.1695,
    0.1660,
    0.1610,
    0.1590,
    0.1570,
    0.1540,
    0.1520,
    0.1495,
    0.1470,
    0.1440,
    0.1405,
    0.1360,
    0.1285,
    0.1200,
    0.1160,
    0.1130,
    0.1110,
    0.1100,
    0.1065,
    0.1040,
    0.1015,
    0.0995,
    0.0980,
    0.0960,
    0.0935,
    0.0890,
    0.0860,
    0.0820,
    0.0810,
    0.0785,
    0.0760,
    0.0730,
    0.0700,
    0.0670,
    0.0635,
    0.0595,
    0.0550,
    0.0520,
    0.0465,
    0.0430,
    0.0420,
    0.0410,
    0.0400,
    0.0390,
    0.0380,
    0.0370,
    0.0360,
    0.0350,
    0.0330,
    0.0320,
    0.0310,
    0.0292,
    0.0280,
    0.0260,
    0.0250,
    0.0240,
    0.0225,
    0.0210,
    0.0200,
    0.0180,
    0.0160,
    0.0145,
    0.0135,
)


def drill_diameter_m(size: str) -> float:
    """Return the diameter of a drill: a number like "43" or "#43", or millimetres like "2.35 mm".

    Raises UnknownName.

    >>> round(1000 * drill_diameter_m("#43"), 3)
    2.261
    """
    text = size.strip().lower().removeprefix("#").removeprefix("no.").strip()
    if text.endswith("mm"):
        return _millimetres(size, text.removesuffix("mm"))
    if text.isdigit() and 1 <= int(text) <= len(NUMBERED_IN):
        return NUMBERED_IN[int(text) - 1] * INCH_M
    raise UnknownName("drill_unknown", phrase("no_drill_called_1_80", size=size), value=size)


def nearest_drill(diameter_m: float) -> int:
    """Return the number of the numbered drill nearest to ``diameter_m``."""
    return min(range(1, len(NUMBERED_IN) + 1), key=lambda n: abs(NUMBERED_IN[n - 1] * INCH_M - diameter_m))


def _millimetres(size: str, text: str) -> float:
    try:
        diameter = float(text.replace(",", "."))
    except ValueError:
        raise UnknownName("drill_unknown", phrase("no_diameter", size=size), value=size) from None
    if not 0.1 <= diameter <= 20:
        raise UnknownName("drill_unknown", phrase("orifice_mm_none_0_1", diameter=diameter), value=size)
    return diameter / 1000
