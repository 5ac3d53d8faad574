"""A band: where a value may lie, and whose bounds they are."""

from dataclasses import dataclass, replace

from havrin_core.phrases import Saying
from havrin_core.quantities.why import Why

PLATE, MANUAL, HOUSE, DEFAULT, PHYSICS, TECHNICIAN = "plate", "manual", "house", "default", "physics", "technician"


@dataclass(frozen=True, slots=True)
class Beside:
    """What was read beside a value and moves its limits: running supply, Pa gauge, outdoors, K, the system's height, m.

    None where it was not read.
    """

    running_pa: float | None = None
    outdoor_k: float | None = None
    height_m: float | None = None


NOTHING_BESIDE = Beside()


@dataclass(frozen=True, slots=True)
class Band:
    """Where a value may lie. Beyond ``low``/``high`` it is out; beyond ``near_*`` it is in doubt.

    ``acquits`` False: the bounds can only condemn; a value inside them shows nothing.
    """

    source: str
    low: float | None = None
    high: float | None = None
    near_low: float | None = None
    near_high: float | None = None
    note: Saying = ""
    why: Why | None = None  # where the bounds are computed, not simply stamped
    acquits: bool = True

    def verdict(self, value: float) -> str:
        """Return "out", "near", "in", or "" where being inside shows nothing; a value that is not a number is out."""
        if value != value or _below(value, self.low) or _above(value, self.high):
            return "out"
        if _below(value, self.near_low) or _above(value, self.near_high):
            return "near"
        return "in" if self.acquits else ""

    def within(self, other: "Band") -> "Band":
        """Return this band, no wider than ``other``: what no unit may do stays out whatever a plate says."""
        low = max((b for b in (self.low, other.low) if b is not None), default=None)
        high = min((b for b in (self.high, other.high) if b is not None), default=None)
        return replace(self, low=low, high=high)


def _below(value: float, bound: float | None) -> bool:
    return bound is not None and value < bound


def _above(value: float, bound: float | None) -> bool:
    return bound is not None and value > bound
