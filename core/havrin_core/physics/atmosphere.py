"""The standard atmosphere: barometric pressure, temperature and density from altitude."""

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase

_AIR_J_KG_K = 287.05287
_SEA_LEVEL_K, _LAPSE_K_M = 288.15, 0.0065


def barometric_pressure_pa(altitude_m: float) -> float:
    """Return the standard barometric pressure at geopotential ``altitude_m`` (-500 to 9000 m).

    Source: ICAO Doc 7488, troposphere. Weather moves it by about ±3 %. Raises OutOfDomain.

    >>> round(barometric_pressure_pa(1540))
    84137
    """
    return float(101_325.0 * (standard_temperature_k(altitude_m) / _SEA_LEVEL_K) ** 5.25588)


def standard_temperature_k(altitude_m: float) -> float:
    """Return the standard atmosphere's temperature at ``altitude_m``, K. Raises OutOfDomain."""
    if not -500 <= altitude_m <= 9000:
        message = phrase("altitude_m_outside_500_9000", altitude_m=altitude_m)
        raise OutOfDomain("altitude_range", message, quantity="altitude_m", value=altitude_m)
    return _SEA_LEVEL_K - _LAPSE_K_M * altitude_m


def standard_density_kg_m3(altitude_m: float) -> float:
    """Return the standard atmosphere's density at ``altitude_m``, kg/m3. Raises OutOfDomain."""
    return barometric_pressure_pa(altitude_m) / (_AIR_J_KG_K * standard_temperature_k(altitude_m))
