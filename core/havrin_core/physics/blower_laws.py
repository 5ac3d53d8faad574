"""What another speed of one blower does in one duct system: flow as speed, static as its square, power as its cube."""

from dataclasses import dataclass

from havrin_core.phrases import phrase
from havrin_core.physics.states import require


@dataclass(frozen=True, slots=True)
class AtSpeed:
    """Everything at ``ratio`` of today's speed, as factors of today's; ``rise`` at the same heat."""

    ratio: float
    flow: float
    static: float
    power: float
    rise: float


def at_speed(ratio: float) -> AtSpeed:
    """Return the factors at ``ratio`` of today's speed, 0.3 to 3. Raises OutOfDomain."""
    require("speed_ratio", ratio, 0.3, 3.0, phrase("speed_against_today"))
    return AtSpeed(ratio, ratio, ratio**2, ratio**3, 1 / ratio)


def speed_for_rise(rise_k: float, wanted_k: float) -> float:
    """Return the ratio of speeds that brings the rise to ``wanted_k``: the flow goes up as the rise comes down. Raises OutOfDomain."""
    require("rise_k", rise_k, 1.0, 150.0, phrase("rise_k"))
    require("wanted_k", wanted_k, 1.0, 150.0, phrase("rise_k"))
    return rise_k / wanted_k
