"""Steady window and light-off of a flue log."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.noise import fit, thinned
from havrin_core.traces.response import oxygen_response
from havrin_core.traces.series import Floats, Series, period_of

WINDOW_S = 60.0  # how long every channel must hold still
LEAST_SAMPLES = 20  # fewer say nothing of holding still
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
    "inducer_current_a": (0.05, 0.02),
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
    """Return the longest stretch in which every channel holds still, or None.

    Still: over WINDOW_S and at least twenty samples without a gap, drift and twice the scatter about its line are both
    under the channel's noise, the drift over the whole stretch is, too, and O2 says that the probe is in a flue.
    Source: docs/formulas.md section 6.
    """
    usable = {name: v for name, v in series.channels.items() if name in NOISE and np.isfinite(v).sum() > 1}
    if "o2_dry_pct" not in usable:
        return None
    window_s = max(WINDOW_S, max(_samples_s(series, values) for values in usable.values()))
    if series.seconds[-1] < window_s:
        return None
    step = max(1.0, float(series.seconds[-1]) / 20_000)
    grid = np.arange(0.0, float(series.seconds[-1]) + step / 2, step)
    width = round(window_s / step) + 1
    still = np.ones(max(len(grid) - width + 1, 0), dtype=bool)
    for name, values in usable.items():
        good = np.isfinite(values)
        seconds, read = series.seconds[good], values[good]
        even = np.interp(grid, seconds, read)
        still &= _holds_still(even, width, NOISE[name]) & _seen(seconds, grid, width)
        if name == "o2_dry_pct":
            still &= _rolling_mean(even, width) < _IN_FLUE_O2_PCT
    run = _longest_run(still)
    if run is None:
        return None
    end = float(grid[run[1] + width - 1])
    start = max(float(grid[run[0]]), end - max(LONGEST_S, window_s))
    return window(series, _without_ramp(series, usable, start, end, window_s), end)


def _samples_s(series: Series, values: Floats) -> float:
    return (LEAST_SAMPLES - 1) * period_of(series.seconds[np.isfinite(values)])


def _seen(seconds: Floats, grid: Floats, width: int) -> np.ndarray:
    """Return which windows hold no gap: nowhere longer without a sample than five usual steps, or 2 s."""
    reach = 0.5 * max(5 * period_of(seconds), 2.0)
    after = np.searchsorted(seconds, grid).clip(1, len(seconds) - 1)
    away = np.minimum(np.abs(grid - seconds[after - 1]), np.abs(seconds[after] - grid))
    return _rolling_mean((away > reach).astype(float), width) < 1e-9


def _without_ramp(series: Series, usable: Mapping[str, Floats], start: float, end: float, window_s: float) -> float:
    """Return the begin from which no channel drifts by more than its noise until ``end``: slow ramps add up."""
    while end - start > window_s:
        if all(_holds_level(name, series, values, start, end) for name, values in usable.items()):
            break
        start = min(start + 10.0, end - window_s)
    return start


def _holds_level(name: str, series: Series, values: Floats, start: float, end: float) -> bool:
    inside = (series.seconds >= start) & (series.seconds <= end) & np.isfinite(values)
    slope = float(np.polyfit(series.seconds[inside] - start, values[inside], 1)[0])
    least, share = noise_of(name) or (0.0, 0.0)
    return abs(slope) * (end - start) < max(least, share * abs(float(values[inside].mean())))


def half_widths_of(series: Series, found: Steady) -> dict[str, float]:
    """Return half the width of each mean's 95 % interval, with samples that remember each other counted for what they are worth."""
    inside = (series.seconds >= found.start_s) & (series.seconds <= found.end_s)
    widths: dict[str, float] = {}
    for name, _, _ in found.means:
        values = series.channels[name]
        good = inside & np.isfinite(values)
        if good.sum() >= 4:
            seconds, read = thinned(series.seconds[good], values[good])
            widths[name] = fit(seconds, read, np.ones((len(read), 1)), 0).half_width()
    return widths


def still_stretch(
    series: Series, names: Collection[str], window_s: float = LIVE_WINDOW_S
) -> tuple[float, float] | None:
    """Return begin and end of the longest stretch in which all of ``names`` hold still for ``window_s``, or None.

    A channel that is missing in part of it does not hold still there, nor does one that drifts by more than its noise
    from begin to end. Names without a known noise are left out.
    """
    usable = [name for name in names if name in series.channels and noise_of(name)]
    if not usable or not len(series.seconds):
        return None
    window_s = max(window_s, max(_samples_s(series, series.channels[name]) for name in usable))
    if series.seconds[-1] - series.seconds[0] < window_s:
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
        still &= _holds_still(even, width, noise_of(name) or (0.0, 0.0)) & _seen(series.seconds[good], grid, width)
    run = _longest_run(still)
    if run is None:
        return None
    end = float(grid[run[1] + width - 1])
    start = max(float(grid[run[0]]), end - max(LONGEST_S, window_s))
    return _without_ramp(series, {name: series.channels[name] for name in usable}, start, end, window_s), end


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
    """Return the second of light-off, by the fall of O2 less the cell's own lateness; None when the log starts in flue gas."""
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
    if not len(starts):
        return None
    first = float(seconds[starts[0]])
    cell = oxygen_response(seconds, values, None)
    if cell is None:
        return first
    # of its way the cell has gone the share that makes the drop, after so much of its lag
    low = float(np.median(values[~fresh]))
    share = min(_LIGHT_OFF_DROP_PCT / max(level - low, 1.5), 0.6)
    return first - cell.lag_s * float(np.log(1 / (1 - share))) - cell.dead_s


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
