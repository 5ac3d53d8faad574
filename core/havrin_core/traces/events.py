"""Events that a live trace itself proposes: light-offs, those that failed, burner off, blower on, stage changes."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from havrin_core.traces.running import BLOWER_A, FLAME_A, GAS_PA, Run, runs_of
from havrin_core.traces.series import Channels, Floats, period_of

EVENTS: Mapping[str, str] = {
    "light_off": "Light-off",
    "failed_light_off": "Light-off that failed",
    "burner_off": "Burner off",
    "blower_on": "Blower on",
    "inducer_on": "Inducer on",
    "inducer_off": "Inducer off",
    "stage_change": "Stage change",
    "cover_on": "Cover on",
    "cover_off": "Cover off",
}
_PROVES_S, _TRIAL_S, _TRIAL_ALONE_S = 3.0, 20.0, 12.0
_HOLDS_S, _SAME_S = 3.0, 5.0
_STAGE_SHARE = 1.25  # a manifold that moves by more than this and stays there has changed its stage
_LEVEL_SHARE, _LONGEST_CHANGE_S, _BLOCK_S = 0.05, 20.0, 0.25


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened at ``at_s`` of the trace, known to ``half_width_s``; ``kind`` is a key of EVENTS."""

    kind: str
    at_s: float
    half_width_s: float = 0.0


def propose_events(channels: Channels) -> tuple[Event, ...]:
    """Return the events that manifold, flame current and blower current speak of, oldest first."""
    found = [*_of_burner(channels), *_of_blower(channels)]
    if "manifold_pa" in channels:
        found += _stages(*channels["manifold_pa"])
    return tuple(sorted(found, key=lambda event: event.at_s))


def _of_burner(channels: Channels) -> Iterator[Event]:
    gas = runs_of(*channels["manifold_pa"], GAS_PA) if "manifold_pa" in channels else ()
    flame = runs_of(*channels["flame_current_a"], FLAME_A) if "flame_current_a" in channels else None
    doubt = max((period_of(channels[n][0]) for n in ("manifold_pa", "flame_current_a") if n in channels), default=0.0)
    if not gas:
        for run in flame or ():
            yield from _lit_and_out(run, run, doubt)
        return
    for run in gas:
        proven = run if flame is None else _first_within(flame, run)
        alone = flame is None and run.ended and run.end_s - run.start_s < _TRIAL_ALONE_S
        if proven is None or alone:
            if run.begun and run.ended:
                yield Event("failed_light_off", run.start_s, doubt)
        else:
            yield from _lit_and_out(run, proven, doubt)


def _first_within(flame: tuple[Run, ...], gas: Run) -> Run | None:
    """Return the flame that a run of gas made: proven for a few seconds, within the trial for ignition."""
    for run in flame:
        if gas.start_s - 1.0 <= run.start_s <= gas.end_s and (run.end_s - run.start_s >= _PROVES_S or not run.ended):
            return run
        if not run.begun and run.start_s <= gas.start_s < run.end_s:
            return run
    return None


def _lit_and_out(gas: Run, flame: Run, doubt: float) -> Iterator[Event]:
    if gas.begun and gas.end_s - gas.start_s >= _PROVES_S:
        yield Event("light_off", min(flame.start_s, gas.end_s) if flame.begun else gas.start_s, doubt)
    if gas.ended and gas.end_s - gas.start_s >= _PROVES_S:
        yield Event("burner_off", gas.end_s, doubt)


def _of_blower(channels: Channels) -> Iterator[Event]:
    if "blower_current_a" not in channels:
        return
    seconds, values = channels["blower_current_a"]
    for run in runs_of(seconds, values, BLOWER_A):
        if run.begun and run.end_s - run.start_s >= _HOLDS_S:
            yield Event("blower_on", run.start_s, period_of(seconds))


def _stages(seconds: Floats, values: Floats) -> Iterator[Event]:
    """Yield the moments at which the manifold went from one level that holds to another: in an instant or over many seconds."""
    levels = _levels(*_blocks(seconds, values))
    for (_, end, before), (start, _, after) in pairwise(levels):
        if start - end > _LONGEST_CHANGE_S or max(before, after) < _STAGE_SHARE * min(before, after):
            continue
        between = (seconds >= end - 0.5) & (seconds <= start + 0.5)
        half = 0.5 * (before + after)
        passed = np.flatnonzero((values[between] > half) == (after > before))
        at = float(seconds[between][passed[0]]) if len(passed) else 0.5 * (end + start)
        if (values[between] > GAS_PA).all():
            yield Event("stage_change", at, max(period_of(seconds), 0.5 * (start - end)))


def _blocks(seconds: Floats, values: Floats) -> tuple[Floats, Floats]:
    """Return means over a quarter of a second: a level is no matter of single samples."""
    period = period_of(seconds)
    size = max(int(_BLOCK_S / period), 1) if period > 0 else 1
    count = len(seconds) // size * size
    return seconds[:count].reshape(-1, size).mean(1), values[:count].reshape(-1, size).mean(1)


def _levels(seconds: Floats, values: Floats) -> list[tuple[float, float, float]]:
    """Return the stretches of at least 3 s in which the manifold holds one level: begin, end, level."""
    found: list[tuple[float, float, float]] = []
    first = 0
    for index in range(1, len(values) + 1):
        part = values[first:index]
        level = float(np.median(part[:: max(len(part) // 100, 1)]))
        ends = index == len(values) or abs(values[index] - level) > max(_LEVEL_SHARE * abs(level), 4.0)
        if not ends:
            continue
        if level > GAS_PA and seconds[index - 1] - seconds[first] >= _HOLDS_S:
            begin, end = float(seconds[first]), float(seconds[index - 1])
            if found and abs(found[-1][2] - level) <= _LEVEL_SHARE * level and begin - found[-1][1] < _SAME_S:
                found[-1] = (found[-1][0], end, found[-1][2])
            else:
                found.append((begin, end, level))
        first = index
    return found
