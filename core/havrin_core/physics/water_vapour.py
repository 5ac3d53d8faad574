"""Saturation of water vapour over liquid and ice.

Sources: IAPWS-IF97 region 4 (equations 30 and 31) over liquid, 273.15-647 K;
IAPWS R14-08(2011) equation 6 over ice, 50-273.16 K.
"""

import math

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.constants import ICE_POINT_K

_N = (
    1167.0521452767,
    -724213.16703206,
    -17.073846940092,
    12020.82470247,
    -3232555.0322333,
    14.91510861353,
    -4823.2657361591,
    405113.40542057,
    -0.23855557567849,
    650.17534844798,
)
_TRIPLE_K, _TRIPLE_PA = 273.16, 611.657
_ICE = ((-21.2144006, 0.00333333333), (27.3203819, 1.20666667), (-6.10598130, 1.70333333))


def saturation_pressure_pa(temp_k: float) -> float:
    """Return the saturation pressure of water at ``temp_k`` (180-600 K): over ice below 0 degC.

    Raises OutOfDomain.

    >>> round(saturation_pressure_pa(300.0), 2)
    3536.59
    """
    if not 180.0 <= temp_k <= 600.0:
        raise OutOfDomain(
            "saturation_range", phrase("k_outside_180_600_k", temp_k=temp_k), quantity="temp_k", value=temp_k
        )
    return _over_ice(temp_k) if temp_k < ICE_POINT_K else _over_liquid(temp_k)


def dew_point_k(vapour_pressure_pa: float) -> float:
    """Return the temperature at which ``vapour_pressure_pa`` (0.5-1.2e7 Pa) saturates over liquid water.

    Below 611 Pa the liquid line is continued: a few tenths of a kelvin under the frost point.
    Raises OutOfDomain.
    """
    if not 0.5 <= vapour_pressure_pa <= 1.2e7:
        message = phrase("no_dew_point_vapour_pressure", vapour_pressure_pa=vapour_pressure_pa)
        raise OutOfDomain("dew_point_range", message, quantity="vapour_pressure_pa", value=vapour_pressure_pa)
    beta = math.sqrt(math.sqrt(vapour_pressure_pa / 1e6))
    e = beta * beta + _N[2] * beta + _N[5]
    f = _N[0] * beta * beta + _N[3] * beta + _N[6]
    g = _N[1] * beta * beta + _N[4] * beta + _N[7]
    d = 2 * g / (-f - math.sqrt(f * f - 4 * e * g))
    return (_N[9] + d - math.sqrt((_N[9] + d) ** 2 - 4 * (_N[8] + _N[9] * d))) / 2


def _over_liquid(temp_k: float) -> float:
    theta = temp_k + _N[8] / (temp_k - _N[9])
    a = theta * theta + _N[0] * theta + _N[1]
    b = _N[2] * theta * theta + _N[3] * theta + _N[4]
    c = _N[5] * theta * theta + _N[6] * theta + _N[7]
    root = 2 * c / (-b + math.sqrt(b * b - 4 * a * c))
    return 1e6 * root * root * root * root


def _over_ice(temp_k: float) -> float:
    theta = temp_k / _TRIPLE_K
    exponent: float = sum(a * theta**b for a, b in _ICE) / theta
    return _TRIPLE_PA * math.exp(exponent)


def humidity_ratio(temp_k: float, relative_humidity_pct: float, pressure_pa: float) -> float:
    """Return mol water vapour per mol dry air.

    Args:
        temp_k: of the air; 180 <= T <= 373.
        relative_humidity_pct: 0-100.
        pressure_pa: barometric; above the vapour pressure.

    Raises OutOfDomain.
    """
    if not 0 <= relative_humidity_pct <= 100:
        message = phrase("relative_humidity_cannot_lies_between", relative_humidity_pct=relative_humidity_pct)
        raise OutOfDomain("humidity_range", message, quantity="air_rh_pct", value=relative_humidity_pct)
    vapour = saturation_pressure_pa(temp_k) * relative_humidity_pct / 100
    if not vapour < pressure_pa:
        message = phrase("air_would_nothing_but_water")
        raise OutOfDomain("humidity_range", message, quantity="baro_pa", value=pressure_pa)
    return vapour / (pressure_pa - vapour)
