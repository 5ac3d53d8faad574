"""Recordings in one log: where another appliance, another header or another clock begins."""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from havrin_core.logs.columns import SESSION, candidates
from havrin_core.logs.table import Table

_LONG_PAUSE_S, _USUAL_STEPS = 1800.0, 20.0
_MOST_NAMES = 12


def recordings(table: Table, seconds: Sequence[float]) -> tuple[range, ...]:
    """Return the rows of each recording, in their order; one for a log of one appliance on one clock.

    A recording ends where the column that names the appliance says another name, where a header stood again below
    words of its own, where the clock jumps back, and at a pause that is longer than half an hour and twenty rows.
    """
    count = len(table.lines)
    begins = {*_named(table), *table.breaks, *_restarts(seconds)} - {0, count}
    edges = [0, *sorted(begins), count]
    return tuple(range(a, b) for a, b in pairwise(edges))


def _named(table: Table) -> list[int]:
    for column in candidates(table.headers)[SESSION].plain:
        names = table.columns[column]
        known = {name for name in names if name}
        if 1 < len(known) <= _MOST_NAMES and any(c.isalpha() for name in known for c in name):
            return [row for row in range(1, len(names)) if names[row] and names[row] != names[row - 1]]
    return []


def _restarts(seconds: Sequence[float]) -> list[int]:
    """Return the rows at which the clock goes back, or on after a long pause."""
    clock = np.asarray(seconds, dtype=float)
    if len(clock) < 3:
        return []
    told = np.flatnonzero(np.isfinite(clock))
    steps = np.diff(clock[told])
    if not len(steps):
        return []
    usual = float(np.median(np.abs(steps)))
    long, begun, found = max(_LONG_PAUSE_S, _USUAL_STEPS * usual), clock[told[0]], []
    for index in np.flatnonzero((steps < 0) | (steps > long)):
        row = int(told[index + 1])
        # a row or two out of order are no other recording: the clock goes back by more, or to where it began
        if steps[index] > 0 or steps[index] < -3 * usual or clock[row] <= begun:
            found.append(row)
            begun = clock[row]
    return found


def in_one_go(seconds: Sequence[float], rows: Sequence[range]) -> tuple[float, ...]:
    """Return the seconds of recordings that a person called one: where the clock was set back, it goes on with the usual step."""
    clock = np.asarray(seconds, dtype=float)
    steps = np.diff(clock[np.isfinite(clock)])
    usual = float(np.median(steps[steps > 0])) if (steps > 0).any() else 1.0
    for part in rows[1:]:
        before, here = clock[: part.start], clock[part.start :]
        if np.isfinite(before).any() and np.isfinite(here).any():
            behind = float(np.nanmax(before)) + usual - float(here[np.isfinite(here)][0])
            clock[part.start :] += max(behind, 0.0)
    return tuple(float(second) for second in clock)
