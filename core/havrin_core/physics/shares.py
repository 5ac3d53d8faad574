"""Small shares: a transformer's load, a belt's give, a vent's length with its elbows."""

from havrin_core.phrases import phrase
from havrin_core.physics.states import require

# Where the manual gives no equivalent of its own: 5 ft for a square elbow, half of it for a 45 degree one.
ELBOW_90_M, ELBOW_45_M = 1.524, 0.762


CONTROL_V = 24.0


def transformer_load(secondary_v: float, secondary_a: float, rated_va: float) -> float:
    """Return the secondary's current over its rated one, a share: volts 0-150, amps 0-50, rating 5-500 VA.

    The rated current is the rating over the nominal 24 V: what heats a winding is its current, and under an overload the
    voltage sags, so that volts times amps would make it look smaller. Raises OutOfDomain.

    >>> round(transformer_load(18.0, 2.2, 40.0), 2)
    1.32
    """
    require("secondary_v", secondary_v, 0.0, 150.0, phrase("secondary_voltage_v"))
    require("secondary_a", secondary_a, 0.0, 50.0, phrase("secondary_current"))
    require("rated_va", rated_va, 5.0, 500.0, phrase("transformers_rating_va"))
    return secondary_a * CONTROL_V / rated_va


def span_share(part_m: float, whole_m: float) -> float:
    """Return ``part_m`` over ``whole_m``, a share; both above nothing and below 500 m. Raises OutOfDomain."""
    require("part", part_m, 0.0, 500.0, phrase("length_m"))
    require("whole", whole_m, 1e-3, 500.0, phrase("length_m"))
    return part_m / whole_m


def equivalent_length_m(straight_m: float, elbows_90: int, elbows_45: int, elbow_90_m: float = ELBOW_90_M) -> float:
    """Return the length of a vent with its elbows counted as straight pipe, m; a 45 degree one as half. Raises OutOfDomain."""
    require("straight", straight_m, 0.0, 500.0, phrase("length_m"))
    require("elbows", elbows_90 + elbows_45, 0, 60, phrase("number_elbows"))
    require("elbow", elbow_90_m, 0.0, 15.0, phrase("length_m"))
    return straight_m + (elbows_90 + 0.5 * elbows_45) * elbow_90_m
