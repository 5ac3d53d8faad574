"""Steady window and light-off of a flue log."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.log_reader import Floats, Series

WINDOW_S = 60.0  # how long every channel must hold still
LONGEST_S = 180.0  # the means are taken over at most this much, the newest part
# channel: (least, share of the mean): drift over the window and twice the scatter must stay under the greater
NOISE: Mapping[str, tuple[float, float]] = {
    "o2_dry_pct": (0.3, 0.0),
    "co_ppm_dry": (5.0, 0.05),
    "co2_dry_pct": (0.3, 0.0),
    "flue_temp_k": (2.0, 0.0),
    "air_temp_k": (2.0, 0.0),
}
_IN_FLUE_O2_PCT = 18.0
_FRESH_O2_PCT = 19.5
_LIGHT_OFF_DROP_PCT = 1.0


@dataclass(frozen=True, slots=True)
class Steady:
    """A steady stretch, in seconds of the series, with (quantity, mean, scatter) per channel."""

    start_s: float
    end_s: float
    means: tuple[tuple[str, float, float], ...]


def find_steady(series: Series) -> Steady | None:
    """Return the longest stretch in which every channel holds still for WINDOW_S, or None.

    Still: drift over the window and twice the scatter about its line are both under the
    channel's noise, and O2 says that the probe is in a flue. Source: docs/formulas.md section 6.
    """
    usable = {name: v for name, v in series.channels.items() if name in NOISE and np.isfinite(v).sum() > 1}
    if "o2_dry_pct" not in usable or series.seconds[-1] < WINDOW_S:
        return None
    step = max(1.0, float(series.seconds[-1]) / 20_000)
    grid = np.arange(0.0, float(series.seconds[-1]) + step / 2, step)
    width = round(WINDOW_S / step) + 1
    still = np.ones(max(len(grid) - width + 1, 0), dtype=bool)
    for name, values in usable.items():
        good = np.isfinite(values)
        even = np.interp(grid, series.seconds[good], values[good])
        still &= _holds_still(even, width, NOISE[name])
        if name == "o2_dry_pct":
            still &= _rolling_mean(even, width) < _IN_FLUE_O2_PCT
    run = _longest_run(still)
    if run is None:
        return None
    end = float(grid[run[1] + width - 1])
    return window(series, max(float(grid[run[0]]), end - LONGEST_S), end)


def window(series: Series, start_s: float, end_s: float) -> Steady:
    """Return means and scatters between ``start_s`` and ``end_s``; channels without values there are left out."""
    inside = (series.seconds >= start_s) & (series.seconds <= end_s)
    means = []
    for name, values in series.channels.items():
        part = values[inside]
        part = part[np.isfinite(part)]
        if len(part):
            means.append((name, float(part.mean()), float(part.std(ddof=1)) if len(part) > 1 else 0.0))
    return Steady(start_s, end_s, tuple(means))


def find_light_off(series: Series) -> float | None:
    """Return the second at which O2 leaves fresh air for good, or None when the log starts in flue gas."""
    oxygen = series.channels.get("o2_dry_pct")
    if oxygen is None:
        return None
    good = np.isfinite(oxygen)
    values, seconds = oxygen[good], series.seconds[good]
    fresh = values >= _FRESH_O2_PCT
    if not fresh.any() or fresh.all():
        return None
    level = float(np.median(values[fresh]))
    below = values < level - _LIGHT_OFF_DROP_PCT
    starts = np.flatnonzero(below[1:] & ~below[:-1]) + 1
    return float(seconds[starts[0]]) if len(starts) else None


def reduce_for_drawing(series: Series, buckets: int = 500) -> tuple[Floats, dict[str, Floats]]:
    """Return at most 2 × ``buckets`` points that keep each bucket's least and most of every channel."""
    count = len(series.seconds)
    if count <= 2 * buckets:
        return series.seconds, dict(series.channels)
    edges = np.linspace(0, count, buckets + 1).astype(int)
    middles = (edges[:-1] + edges[1:]) // 2
    times = np.repeat(series.seconds[middles], 2)
    return times, {name: _extremes(values, edges) for name, values in series.channels.items()}


def _extremes(values: Floats, edges: np.ndarray) -> Floats:
    low = np.minimum.reduceat(np.where(np.isfinite(values), values, np.inf), edges[:-1])
    high = np.maximum.reduceat(np.where(np.isfinite(values), values, -np.inf), edges[:-1])
    pairs: Floats = np.column_stack((low, high)).ravel()
    return np.where(np.isfinite(pairs), pairs, np.nan)


def _holds_still(values: Floats, width: int, noise: tuple[float, float]) -> np.ndarray:
    centred = values - values.mean()
    mean = _rolling_mean(centred, width)
    square = _rolling_mean(centred * centred, width) - mean * mean
    weights = np.arange(width) - (width - 1) / 2
    covariance = np.convolve(centred, weights[::-1], "valid") / width
    spread = float((weights * weights).mean())
    slope = covariance / spread
    residual = np.sqrt(np.maximum(square - slope * slope * spread, 0))
    allowed = np.maximum(noise[0], noise[1] * np.abs(mean + values.mean()))
    still: np.ndarray = (np.abs(slope) * (width - 1) < allowed) & (2 * residual < allowed)
    return still


def _rolling_mean(values: Floats, width: int) -> Floats:
    total = np.concatenate(([0.0], np.cumsum(values)))
    mean: Floats = (total[width:] - total[:-width]) / width
    return mean


def _longest_run(flags: np.ndarray) -> tuple[int, int] | None:
    if not flags.any():
        return None
    padded = np.concatenate(([0], flags.view(np.int8), [0]))
    starts, ends = np.flatnonzero(np.diff(padded) == 1), np.flatnonzero(np.diff(padded) == -1)
    longest = int(np.argmax(ends - starts))
    return int(starts[longest]), int(ends[longest]) - 1
