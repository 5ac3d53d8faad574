"""Steady window and light-off of a flue log."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.series import Floats, Series

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
LIVE_WINDOW_S = 20.0
LIVE_NOISE: Mapping[str, tuple[float, float]] = {  # of the channels that no flue log has
    "draft_pa": (5.0, 0.03),
    "manifold_pa": (8.0, 0.02),
    "supply_running_pa": (20.0, 0.02),
    "flame_current_a": (2e-7, 0.05),
    "volts_across_v": (0.5, 0.02),
    "blower_current_a": (0.1, 0.02),
    "room_co_ppm": (2.0, 0.0),
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


def still_stretch(
    series: Series, names: Collection[str], window_s: float = LIVE_WINDOW_S
) -> tuple[float, float] | None:
    """Return begin and end of the longest stretch in which all of ``names`` hold still for ``window_s``, or None.

    A channel that is missing in part of it does not hold still there. Names without a known noise are left out.
    """
    usable = [name for name in names if name in series.channels and noise_of(name)]
    if not usable or not len(series.seconds) or series.seconds[-1] - series.seconds[0] < window_s:
        return None
    grid = np.arange(float(series.seconds[0]), float(series.seconds[-1]) + 0.5, 1.0)
    width = round(window_s) + 1
    still = np.ones(max(len(grid) - width + 1, 0), dtype=bool)
    for name in usable:
        values = series.channels[name]
        good = np.isfinite(values)
        if good.sum() < 2:
            return None
        even = np.interp(grid, series.seconds[good], values[good])
        gap = np.interp(grid, series.seconds, (~good).astype(float)) > 0.5
        still &= _holds_still(even, width, noise_of(name) or (0.0, 0.0)) & (
            _rolling_mean(gap.astype(float), width) < 1e-9
        )
    run = _longest_run(still)
    return None if run is None else (float(grid[run[0]]), float(grid[run[1] + width - 1]))


def noise_of(channel: str) -> tuple[float, float] | None:
    """Return (least, share of the mean) under which a channel counts as still; None where none is known."""
    return NOISE.get(channel) or LIVE_NOISE.get(channel.split("@")[0])


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
