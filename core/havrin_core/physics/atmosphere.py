"""The standard atmosphere: barometric pressure from altitude."""

from havrin_core.errors import OutOfDomain


def barometric_pressure_pa(altitude_m: float) -> float:
    """Return the standard barometric pressure at geopotential ``altitude_m`` (-500 to 9000 m).

    Source: ICAO Doc 7488, troposphere. Weather moves it by about ±3 %. Raises OutOfDomain.

    >>> round(barometric_pressure_pa(1540))
    84137
    """
    if not -500 <= altitude_m <= 9000:
        message = f"An altitude of {altitude_m:g} m is outside −500 to 9000 m."
        raise OutOfDomain("altitude_range", message, quantity="altitude_m", value=altitude_m)
    return float(101_325.0 * ((288.15 - 0.0065 * altitude_m) / 288.15) ** 5.25588)
