"""Which channels moved around a dip, in which order, and how far that order can be trusted."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import exp

import numpy as np

from havrin_core.traces.response import usual_response
from havrin_core.traces.series import Channels, Floats, period_of

_BEFORE_S, _BEFORE_SAMPLES = 3.0, 10  # what is looked at for the quiet level
_NEAR_S, _AFTER_S, _LEAST_QUIET = 0.3, 1.0, 5
_MOVED_SIGMAS, _LEAST_SHARE = 5.0, 0.01
_BACK_S = 2.0
_FELL = 0.25  # a supply sags a little when a blower starts: this share of what it had is a loss
_KEPT = 0.75  # samples under this share of the upper ones belong to a dip, not to the quiet


@dataclass(frozen=True, slots=True)
class Seen:
    """One channel around a dip, canonical units, upright: the sign that it had before counts as positive.

    ``at_s`` is when it left its band, None where it did not; the second may be too late by ``doubt_s``. ``level`` and
    ``scatter`` are of the quiet before, ``least`` and ``most`` of the time from just before the dip on.
    ``least_possible`` is how low it may have been behind its own lag in a dip so short. ``came_back`` is whether it had
    three quarters of its level again within two seconds after the dip.
    """

    at_s: float | None
    doubt_s: float
    level: float
    scatter: float
    least: float
    most: float
    least_possible: float
    came_back: bool

    @property
    def fell(self) -> bool:
        """Whether it lost a quarter or more of what it had."""
        return self.at_s is not None and self.least < (1 - _FELL) * abs(self.level)


@dataclass(frozen=True, slots=True)
class Moved:
    """One dip across channels. A channel without quiet before, or without samples in it, is not among them."""

    seen: Mapping[str, Seen] = field(default_factory=dict)
    lasts_s: float = 0.0

    @property
    def order(self) -> tuple[tuple[str, float], ...]:
        """The channels that moved, with the second at which each left its band, the first one first."""
        moved = [(name, one.at_s) for name, one in self.seen.items() if one.at_s is not None]
        return tuple(sorted(moved, key=lambda row: row[1]))

    @property
    def still(self) -> tuple[str, ...]:
        """The channels that kept their band."""
        return tuple(name for name, one in self.seen.items() if one.at_s is None)


def moved_at(channels: Channels, start_s: float, lasts_s: float = 0.0, clock_error_s: float = 0.0) -> Moved:
    """Return which channels moved around a dip that began at ``start_s`` and lasted ``lasts_s``.

    A channel has moved where it first leaves the band (median ± 5 standard deviations, 1 % at the least) that it kept in
    the seconds before, dips of its own left out. ``clock_error_s`` is how far the instruments' clocks may lie apart.
    """
    found = {
        name: one
        for name, (seconds, values) in channels.items()
        if (one := _seen(name, seconds, values, start_s, lasts_s, clock_error_s)) is not None
    }
    return Moved(found, lasts_s)


def _seen(
    name: str, seconds: Floats, values: Floats, start_s: float, lasts_s: float, clock_error_s: float
) -> Seen | None:
    period = period_of(seconds)
    near = _NEAR_S + clock_error_s
    before = max(_BEFORE_S, _BEFORE_SAMPLES * period)
    quiet = _undisturbed(values[(seconds >= start_s - before) & (seconds < start_s - near)])
    around = (seconds >= start_s - near) & (seconds <= start_s + max(_AFTER_S, 2 * period))
    if len(quiet) < _LEAST_QUIET or not around.any():
        return None
    level, scatter = float(np.median(quiet)), _scatter(quiet)
    upright = 1 if level >= 0 else -1
    here, when = values[around] * upright, seconds[around]
    band = max(_MOVED_SIGMAS * scatter, 1e-9 + _LEAST_SHARE * abs(level))
    left = np.flatnonzero(np.abs(here - abs(level)) > band)
    response = usual_response(name)
    least = float(here.min())
    share = 1 - exp(-max(lasts_s, 0.5 * period) / response.lag_s)
    return Seen(
        float(when[left[0]]) if len(left) else None,
        response.dead_s + response.lag_s + period,
        level,
        scatter,
        least,
        float(here.max()),
        abs(level) - max(abs(level) - least, 0.0) / share,
        _came_back(seconds, values * upright, start_s + lasts_s, abs(level)),
    )


def _came_back(seconds: Floats, values: Floats, end_s: float, level: float) -> bool:
    after = values[(seconds > end_s) & (seconds <= end_s + _BACK_S)]
    return len(after) > 0 and bool(after.max() >= _KEPT * level)


def _undisturbed(values: Floats) -> Floats:
    """Return the samples of the upper kind, where a channel comes and goes: its level is what it has while it is there."""
    if len(values) < _LEAST_QUIET:
        return values
    high = float(np.percentile(np.abs(values), 90))
    return values[np.abs(values) >= _KEPT * high]


def _scatter(values: Floats) -> float:
    """Return the standard deviation by the differences of neighbours and about the median, the greater of the two."""
    about = 1.4826 * float(np.median(np.abs(values - np.median(values))))
    return max(about, float(np.std(np.diff(values))) / np.sqrt(2) if len(values) > 2 else 0.0)
