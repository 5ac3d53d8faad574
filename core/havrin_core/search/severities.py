"""How bad a fault is: a port is plugged by 5 to 100 %. Each mode is carried as a few weighted points of its range."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from havrin_core.machine.circuit.model import FaultMode

_SCALE_MOST = 3.9  # the fire is reckoned up to four times the design's gas or air


@dataclass(frozen=True, slots=True)
class _Point:
    """One point of a range: how often it is met, and what it makes of the mode's own figures.

    ``towards``: the way from the mode's own figure back to a sound one, 0 to 1; below 0 it is worse. ``times``: on what a
    fault adds (ohms, leaks).
    """

    weight: float
    towards: float
    times: float


# Judgements of this model.
_POINTS: Mapping[str, _Point] = {
    "~slight": _Point(0.15, 0.75, 0.15),
    "~mild": _Point(0.25, 0.45, 0.5),
    "~fair": _Point(0.2, 0.2, 0.75),
    "": _Point(0.25, 0.0, 1.0),
    "~grave": _Point(0.15, -0.7, 4.0),
}

# Of what changes the network itself, fewer: each point is a network of its own to be solved, and volts lie close together.
_ELECTRICAL: Mapping[str, _Point] = {
    "~mild": _Point(0.35, 0.45, 0.3),
    "": _Point(0.4, 0.0, 1.0),
    "~grave": _Point(0.25, -0.7, 4.0),
}


@lru_cache(maxsize=8192)
def severities(fault: FaultMode) -> tuple[tuple[FaultMode, float], ...]:
    """Return ``fault`` from slight to grave, each with its weight; alone where it is there or not, like a broken wire."""
    if not has_range(fault):
        return ((fault, 1.0),)
    points = _ELECTRICAL if fault.is_electrical else _POINTS
    return tuple((_at(fault, name, point), point.weight) for name, point in points.items())


def mode_of(fault: FaultMode) -> str:
    """Return the key of the mode, whatever its severity: PART.MODE."""
    return fault.key.partition("~")[0]


def has_range(fault: FaultMode) -> bool:
    """Tell whether the fault can be milder or graver."""
    some = any(share > 0 for share in fault.scale.values())
    bent = fault.ohm or fault.sag_ohm or fault.leak or fault.drawn_in
    return bool(some or bent or fault.shifts != 1.0 or 0 < fault.volts_share < 1)


def _at(fault: FaultMode, name: str, point: _Point) -> FaultMode:
    if not name:
        return fault
    return replace(
        fault,
        key=f"{fault.key}{name}",
        ohm=fault.ohm * point.times if fault.ohm else fault.ohm,
        sag_ohm=fault.sag_ohm * min(point.times, 2.5),
        leak=min(fault.leak * point.times, 0.5),
        drawn_in=min(fault.drawn_in * point.times, 1.5),
        volts_share=_moved(fault.volts_share, point),
        shifts=_moved(fault.shifts, point),
        scale={quantity: _moved(factor, point) for quantity, factor in fault.scale.items()},
    )


def _moved(factor: float, point: _Point) -> float:
    if factor < 1 and point.towards < 0:
        return factor * (1 + point.towards)
    return min(factor + (1 - factor) * point.towards, max(factor, _SCALE_MOST))
