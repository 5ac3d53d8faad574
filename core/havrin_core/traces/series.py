"""Channels on one clock, and how a log that was read becomes one."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from havrin_core.errors import BadDocument
from havrin_core.logs.reading import LogReading
from havrin_core.phrases import Saying, phrase
from havrin_core.vocabulary.channels import channel_name

Floats = NDArray[np.float64]
Channels = Mapping[str, tuple[Floats, Floats]]  # (seconds, values) of each channel by its own clock, as it was sampled


@dataclass(frozen=True, slots=True)
class Series:
    """Channels on one clock: seconds from the first row; NaN where a channel has no value."""

    seconds: Floats
    channels: Mapping[str, Floats]
    problems: tuple[Saying, ...]


def channels_of(series: Series) -> dict[str, tuple[Floats, Floats]]:
    """Return each channel with its own samples alone: rows without a value are left out."""
    good = {name: np.isfinite(values) for name, values in series.channels.items()}
    return {name: (series.seconds[good[name]], values[good[name]]) for name, values in series.channels.items()}


def period_of(seconds: Floats) -> float:
    """Return the usual time between samples, s; 0 for fewer than two."""
    return float(np.median(np.diff(seconds))) if len(seconds) > 1 else 0.0


def without_gaps(seconds: Floats, at: int) -> slice:
    """Return the stretch of samples around index ``at`` that no gap interrupts: five usual steps, 2 s at the least."""
    breaks = np.flatnonzero(np.diff(seconds) > max(5 * period_of(seconds), 2.0)) + 1
    first = breaks[breaks <= at]
    after = breaks[breaks > at]
    return slice(int(first[-1]) if len(first) else 0, int(after[0]) if len(after) else len(seconds))


def series_of_log(found: LogReading) -> Series:
    """Return the sure channels of a log in the order of their time, and everything odd about them.

    Raises BadDocument: no time is sure, or fewer than two rows have one.
    """
    seconds = np.asarray(found.seconds, dtype=float)
    told = np.isfinite(seconds)
    if told.sum() < 2 or not found.channels:
        raise BadDocument("log_no_rows", phrase("no_row_log_has_time"), value="rows")
    order = np.argsort(seconds[told], kind="stable")
    ordered = seconds[told][order]
    keep = np.concatenate(([True], np.diff(ordered) > 0))
    channels = {c.quantity: np.asarray(c.values, dtype=float)[told][order][keep] for c in found.channels}
    clean = ordered[keep] - ordered[keep][0]
    again = int(np.sum(~keep))
    return Series(clean, channels, (*_odd(found), *_of_the_clock(again), *_gaps(clean)))


def over_range_s(found: LogReading, quantity: str) -> tuple[float, ...]:
    """Return the seconds at which ``quantity`` was over its range: the value is a lower bound there."""
    channel = next((c for c in found.channels if c.quantity == quantity), None)
    return tuple(found.seconds[row] for row in channel.at_least) if channel and found.seconds else ()


def _odd(found: LogReading) -> Iterator[Saying]:
    yield from found.doubts
    for row in found.dropped:
        lines = ", ".join(str(line) for line, _ in row.lines)
        yield phrase("rows_left_out", count=row.count, why=row.why, lines=lines)
    for channel in found.channels:
        name = channel_name(channel.quantity)
        if channel.odd_count:
            line, cell = channel.odd[0]
            yield phrase("cells_not_read", name=name, count=channel.odd_count, line=line, cell=cell)
        if channel.without:
            yield phrase("cells_empty", name=name, count=channel.without)
        if channel.at_least:
            yield phrase("cells_over_range", name=name, count=len(channel.at_least))
        if channel.at_most:
            yield phrase("cells_under_range", name=name, count=len(channel.at_most))


def _of_the_clock(again: int) -> Iterator[Saying]:
    if again:
        yield phrase("rows_of_one_time", count=again)


def _gaps(seconds: Floats) -> Iterator[Saying]:
    steps = np.diff(seconds)
    usual = float(np.median(steps)) if len(steps) else 0.0
    gaps = steps[steps > max(5 * usual, 5.0)]
    if len(gaps):
        longest = float(gaps.max())
        yield (
            phrase("gaps_in_the_log", count=len(gaps), longest=longest)
            if len(gaps) > 1
            else phrase("one_gap_in_the_log", count=1, longest=longest)
        )
