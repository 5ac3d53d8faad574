"""Student's t: how far a mean of few readings may lie off by chance."""

from math import erf, log, sqrt

# Two-sided 95 %, by degrees of freedom from 1; beyond the table by 1.96 + 2.4 / degrees
_T95 = (
    *(12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228),
    *(2.201, 2.179, 2.160, 2.145, 2.131, 2.120, 2.110, 2.101, 2.093, 2.086),
)


def t95(freedom: float) -> float:
    """Return the two-sided 95 % point at ``freedom`` degrees, 1 or more; broken degrees count as the whole below.

    >>> t95(4), round(t95(60), 2)
    (2.776, 2.0)
    """
    whole = max(int(freedom), 1)
    return _T95[whole - 1] if whole <= len(_T95) else 1.96 + 2.4 / whole


def certainty(t: float, freedom: float) -> float:
    """Return the two-sided probability, 0 to 1, that ``t`` is not chance (Wallace's approximation, within 0.002 from 2 degrees).

    >>> round(certainty(2.776, 4), 2)
    0.95
    """
    degrees = max(freedom, 1.0)
    deviate = (8 * degrees + 1) / (8 * degrees + 3) * sqrt(degrees * log(1 + t * t / degrees))
    return erf(deviate / sqrt(2))
