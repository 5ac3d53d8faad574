"""Dips on live traces: how deep, how long, which channel moved first, and how long a quiet run must last."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.series import Floats

_BEFORE_S, _AFTER_S = 3.0, 1.0  # what is looked at around the begin of a dip
_MOVED_SIGMAS, _HALF = 5.0, 0.5
CONFIDENCE = 0.95


@dataclass(frozen=True, slots=True)
class Dip:
    """A stretch under the set point: begin and end, s; the lowest value, and how far under the set point it is."""

    start_s: float
    end_s: float
    least: float
    depth: float


@dataclass(frozen=True, slots=True)
class Moved:
    """One dip across channels: those that moved with the second at which each left its band, in order; those that did not.

    ``fell`` are those of the moved that lost more than half of what they had: a blower's start pulls a supply down a little.
    """

    order: tuple[tuple[str, float], ...]
    still: tuple[str, ...]
    fell: tuple[str, ...] = ()


def find_dips(seconds: Floats, values: Floats, set_point: float) -> tuple[Dip, ...]:
    """Return every stretch in which ``values`` lie under ``set_point``; gaps in the trace end a stretch."""
    good = np.isfinite(values)
    times, read = seconds[good], values[good]
    under = read < set_point
    if not under.any():
        return ()
    edges = np.diff(np.concatenate(([0], under.view(np.int8), [0])))
    starts, ends = np.flatnonzero(edges == 1), np.flatnonzero(edges == -1) - 1
    return tuple(_dip(times, read, set_point, int(a), int(b)) for a, b in zip(starts, ends, strict=True))


def _dip(times: Floats, read: Floats, set_point: float, first: int, last: int) -> Dip:
    least = float(read[first : last + 1].min())
    return Dip(float(times[first]), float(times[last]), least, set_point - least)


def moved_at(seconds: Floats, channels: Mapping[str, Floats], start_s: float) -> Moved:
    """Return which channels moved around ``start_s``, first one first.

    A channel has moved where it first leaves the band (mean ± 5 standard deviations) that it kept in the three
    seconds before. A channel without two seconds of quiet before is left out.
    """
    order: list[tuple[str, float]] = []
    still: list[str] = []
    fell: list[str] = []
    for name, values in channels.items():
        quiet = (seconds >= start_s - _BEFORE_S) & (seconds < start_s - 0.3) & np.isfinite(values)
        if quiet.sum() < 5:
            continue
        mean, spread = float(values[quiet].mean()), float(values[quiet].std())
        band = max(_MOVED_SIGMAS * spread, 1e-9 + 0.01 * abs(mean))
        around = (seconds >= start_s - 0.3) & (seconds <= start_s + _AFTER_S) & np.isfinite(values)
        left = np.flatnonzero(around & (np.abs(values - mean) > band))
        if len(left):
            order.append((name, float(seconds[left[0]])))
            if np.abs(values[around]).min() < _HALF * abs(mean):
                fell.append(name)
        else:
            still.append(name)
    return Moved(tuple(sorted(order, key=lambda row: row[1])), tuple(still), tuple(fell))


def quiet_run_s(dips: Sequence[Dip], watched_s: float, confidence: float = CONFIDENCE) -> float | None:
    """Return how long it must run without a dip before the fault is gone with ``confidence``, s. None where none was seen.

    Dips are taken to come by chance (Poisson), at a rate that is known no better than the ``n`` that came in the time T:
    without a dip for t after that, the odds that the rate is still what it was fall as (T / (T + t)) to the power n.
    Hence t = T ((1 - confidence) to the power -1/n, less 1): after a single dip nineteen times as long as was watched.
    """
    if not dips or not watched_s > 0:
        return None
    return float(watched_s * ((1 - confidence) ** (-1 / len(dips)) - 1))
