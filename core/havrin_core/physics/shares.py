"""Small shares: a transformer's load, a belt's give, a vent's length with its elbows."""

from havrin_core.phrases import phrase
from havrin_core.physics.states import require

# Where the manual gives no equivalent of its own: 5 ft for a square elbow, half of it for a 45 degree one.
ELBOW_90_M, ELBOW_45_M = 1.524, 0.762


def transformer_load(secondary_v: float, secondary_a: float, rated_va: float) -> float:
    """Return the apparent power over the rating, a share: volts 0-150, amps 0-50, rating 5-500 VA. Raises OutOfDomain."""
    require("secondary_v", secondary_v, 0.0, 150.0, phrase("secondary_voltage_v"))
    require("secondary_a", secondary_a, 0.0, 50.0, phrase("secondary_current"))
    require("rated_va", rated_va, 5.0, 500.0, phrase("transformers_rating_va"))
    return secondary_v * secondary_a / rated_va


def span_share(part_m: float, whole_m: float) -> float:
    """Return ``part_m`` over ``whole_m``, a share; both above nothing and below 500 m. Raises OutOfDomain."""
    require("part", part_m, 0.0, 500.0, phrase("length_m"))
    require("whole", whole_m, 1e-3, 500.0, phrase("length_m"))
    return part_m / whole_m


def equivalent_length_m(straight_m: float, elbows_90: int, elbows_45: int) -> float:
    """Return the length of a vent with its elbows counted as straight pipe, m. Raises OutOfDomain."""
    require("straight", straight_m, 0.0, 500.0, phrase("length_m"))
    require("elbows", elbows_90 + elbows_45, 0, 60, phrase("number_elbows"))
    return straight_m + elbows_90 * ELBOW_90_M + elbows_45 * ELBOW_45_M
