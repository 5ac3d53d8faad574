"""Electrical arithmetic of the unit: imbalance, capacitors, transformers, supply."""

import math
from collections.abc import Sequence

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase

CAPACITOR_TOLERANCE = 0.06
SUPPLY_TOLERANCE = 0.10
VOLTAGE_IMBALANCE_MOST_PCT, CURRENT_IMBALANCE_MOST_PCT = 2.0, 10.0
# Resistance of hot-surface igniters, cold, ohm: typical values for guidance
IGNITER_BANDS_OHM = {
    "silicon_carbide": (40.0, 200.0),
    "silicon_carbide_24": (1.5, 10.0),
    "silicon_nitride": (10.0, 75.0),
    "silicon_nitride_120": (35.0, 75.0),
    "silicon_nitride_80": (10.0, 25.0),
    "silicon_nitride_24": (0.8, 6.0),
}


def imbalance_pct(phases: Sequence[float]) -> float:
    """Return the imbalance of three phases: the largest distance from their mean, % of the mean. Raises OutOfDomain.

    >>> round(imbalance_pct((208, 212, 206)), 2)
    1.6
    """
    if len(phases) != 3 or not all(value > 0 for value in phases):
        raise OutOfDomain("phases", phrase("three_readings_above_nothing_are"), quantity="phases", value=list(phases))
    mean = math.fsum(phases) / 3
    return 100 * max(abs(value - mean) for value in phases) / mean


def capacitor_share(measured_uf: float, rated_uf: float) -> float:
    """Return how far a capacitor is from its rating, as a share of it: -0.08 is 8 % low. Raises OutOfDomain."""
    if not (rated_uf > 0 and measured_uf >= 0):
        raise OutOfDomain("capacitance", phrase("capacitors_rating_above_nothing"), quantity="rated_uf", value=rated_uf)
    return measured_uf / rated_uf - 1


def capacitor_under_load_uf(amps: float, volts: float, hertz: float = 60.0) -> float:
    """Return the capacitance from the start winding's current and the voltage across the running capacitor, µF.

    Raises OutOfDomain.
    """
    if not (amps > 0 and volts > 0 and hertz > 0):
        raise OutOfDomain("under_load", phrase("amps_volts_above_nothing_are"), quantity="volts", value=volts)
    return 1e6 * amps / (2 * math.pi * hertz * volts)


def share_of_nominal(volts: float, nominal: float) -> float:
    """Return how far a supply is from its nominal voltage, as a share. Raises OutOfDomain."""
    if not nominal > 0:
        raise OutOfDomain("nominal", phrase("nominal_voltage_above_nothing"), quantity="nominal", value=nominal)
    return volts / nominal - 1
