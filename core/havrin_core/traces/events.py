"""Events on a live trace: those that the trace itself proposes, and the step that a channel makes at one."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import hypot, log, sqrt

import numpy as np
from numpy.typing import NDArray

from havrin_core.quantities.student import certainty, t95
from havrin_core.traces.series import Floats, Series
from havrin_core.traces.steady import noise_of

EVENTS: Mapping[str, str] = {
    "light_off": "Light-off",
    "burner_off": "Burner off",
    "blower_on": "Blower on",
    "stage_change": "Stage change",
    "cover_on": "Cover on",
    "cover_off": "Cover off",
}
# channel -> (event when it rises from nothing, event when it falls to nothing, what counts as nothing)
_FROM_NOTHING: Mapping[str, tuple[str, str, float]] = {
    "manifold_pa": ("light_off", "burner_off", 60.0),
    "flame_current_a": ("light_off", "burner_off", 4e-7),
    "blower_current_a": ("blower_on", "", 0.3),
}
_STAGE_SHARE = 1.25  # a manifold that moves by more than this and stays there has changed its stage
_STAYS_S, _APART_S = 3.0, 20.0
_WANDERS = 0.2
_GOES_ON, _LEAST = 0.8, 8  # slope of the second half against the first; samples on each side
_GAS_TURNS_S = 2.5  # what a manifold takes to its new stage
LOOK_S, _TURN_S = 20.0, 15.0  # windows before and after an event, and what a cell needs to follow in between


_SAMPLE_S, _HIDDEN = 0.5, 4.0  # what one sample stands for at the least; samples' worth of wandering that a line hides
_MOST_HIDDEN = 0.85
_ELSEWHERE = 6.0  # standard deviations beyond which a stretch before is of another state
_EVERY_S, _MOST_STILL, _ENOUGH_STILL = 5.0, 40, 12
# What a channel remembers where too little of it was seen before the event to tell: cells lag, probes more, gauges hardly
_LAG_S = {"o2_dry_pct": 12.0, "co_ppm_dry": 12.0, "co2_dry_pct": 12.0, "flue_temp_k": 20.0, "air_temp_k": 20.0}
_OTHER_LAG_S = 1.0
Mask = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened at ``at_s`` of the trace; ``kind`` is a key of EVENTS."""

    kind: str
    at_s: float


@dataclass(frozen=True, slots=True)
class Step:
    """What one channel did at an event, canonical units: means around it and the step with the trend before taken off.

    ``confidence`` is the probability, 0 to 1, that it moved at all, by its own scatter and wandering.
    """

    quantity: str
    before: float
    after: float
    step: float
    half_width: float  # of the step, 95 %
    confidence: float


def propose_events(series: Series) -> tuple[Event, ...]:
    """Return the events that manifold, flame current and blower current speak of, oldest first; one of a kind within 20 s."""
    found: list[Event] = []
    for name, (rises, falls, nothing) in _FROM_NOTHING.items():
        if name in series.channels:
            found += _crossings(series, name, rises, falls, nothing)
    if "manifold_pa" in series.channels:
        found += _stages(series)
    kept: list[Event] = []
    for event in sorted(found, key=lambda e: e.at_s):
        if not any(other.kind == event.kind and event.at_s - other.at_s < _APART_S for other in kept):
            kept.append(event)
    return tuple(kept)


def _crossings(series: Series, name: str, rises: str, falls: str, nothing: float) -> Iterable[Event]:
    seconds, values = _good(series, name)
    there = values > nothing
    for index in np.flatnonzero(there[1:] != there[:-1]) + 1:
        at = seconds[index]
        ahead, behind = (seconds >= at) & (seconds < at + _STAYS_S), (seconds < at) & (seconds >= at - _STAYS_S)
        stays = (there[ahead] == there[index]).all() and (there[behind] != there[index]).all()
        if not stays or seconds[-1] - at < _STAYS_S:
            continue
        kind = rises if there[index] else falls
        if kind:
            yield Event(kind, float(seconds[index]))


def _stages(series: Series) -> Iterable[Event]:
    seconds, values = _good(series, "manifold_pa")
    nothing = _FROM_NOTHING["manifold_pa"][2]
    last = -_APART_S
    for at in np.arange(seconds[0] + _STAYS_S, seconds[-1] - _STAYS_S - _GAS_TURNS_S, 0.5):
        before = values[(seconds >= at - _STAYS_S) & (seconds < at)]
        after = values[(seconds > at + _GAS_TURNS_S) & (seconds <= at + _GAS_TURNS_S + _STAYS_S)]
        if at - last < _APART_S or not len(before) or not len(after) or min(before.min(), after.min()) <= nothing:
            continue
        low, high = sorted((float(before.mean()), float(after.mean())))
        calm = before.std() < 0.05 * low and after.std() < 0.05 * low
        if calm and high > _STAGE_SHARE * low:
            half, rises = 0.5 * (low + high), before.mean() < after.mean()
            passed = (seconds >= at) & ((values > half) == rises)
            last = float(seconds[passed][0])
            yield Event("stage_change", last)


def steps_at(series: Series, at_s: float) -> tuple[Step, ...]:
    """Return the step of every channel that has samples both within LOOK_S before and after ``at_s`` and its turning time."""
    found = (_step(name, *_good(series, name), at_s) for name in series.channels)
    return tuple(step for step in found if step is not None)


def _step(name: str, seconds: Floats, values: Floats, at_s: float) -> Step | None:
    early = (seconds >= at_s - LOOK_S) & (seconds < at_s)
    late = (seconds >= at_s + _TURN_S) & (seconds < at_s + _TURN_S + LOOK_S)
    if early.sum() < _LEAST or late.sum() < _LEAST or (seconds[early] < at_s - LOOK_S / 2).sum() < _LEAST / 2:
        return None
    still = _steps_of_nothing(seconds, values, at_s)
    measured = len(still) >= _ENOUGH_STILL
    memory = max(_memory_s(seconds[early], values[early]), 0.0 if measured else _LAG_S.get(name, _OTHER_LAG_S))
    step, before, after, own = _apart(seconds, values, at_s, early, late, memory)
    least = noise_of(name) or (0.0, 0.0)
    # Beyond its scatter an instrument wanders: a share of what still counts as holding still.
    model = hypot(own, _WANDERS * max(least[0], least[1] * abs(before)))
    error = max(model, float(np.sqrt(np.mean(still**2))) if measured else 0.0, 1e-12)
    freedom = max(2.0, 2 * LOOK_S / (2 * memory + _SAMPLE_S) - 2)
    return Step(name, before, after, step, t95(freedom) * error, certainty(abs(step) / error, freedom))


def _apart(
    seconds: Floats, values: Floats, at_s: float, early: Mask, late: Mask, memory_s: float
) -> tuple[float, float, float, float]:
    """Return the step at ``at_s``, the means before and after, and the step's own error from the scatter of both windows.

    Neighbouring samples of a lagged cell say the same twice: each window counts for as many as are apart by its memory.
    """
    ahead = float(seconds[late].mean()) - at_s
    expected, spread, slope_error = _without_event(seconds[early] - at_s, values[early], ahead)
    before, after = float(values[early].mean()), float(values[late].mean())
    counts = [max(length / (2 * memory_s + _SAMPLE_S), 1.0) for length in (LOOK_S / 2, LOOK_S)]
    scatter = max(spread, _line(seconds[late], values[late])[2]) ** 2
    hidden = 1 - min(2 / counts[0], _MOST_HIDDEN)  # about a line, a short window shows only part of a slow wandering
    variance = scatter / hidden * (1 / counts[0] + 1 / counts[1]) + slope_error**2
    return after - expected, before, after, sqrt(variance)


def _memory_s(seconds: Floats, values: Floats) -> float:
    """Return the time constant of a channel's wandering about its own line, from neighbouring samples, 0 to 20 s."""
    left = values - np.polyval(np.polyfit(seconds, values, 1), seconds)
    together = float(np.dot(left, left))
    if together <= 0:
        return 0.0
    # a line taken off a short window hides slow wandering: a few samples' worth is given back
    neighbours = min(float(np.dot(left[1:], left[:-1])) / together + _HIDDEN / len(left), 0.98)
    apart = float(np.median(np.diff(seconds)))
    return min(-apart / log(neighbours), 20.0) if neighbours > 0.05 else 0.0


def _steps_of_nothing(seconds: Floats, values: Floats, at_s: float) -> Floats:
    """Return the steps that the same windows find where nothing happened: at moments before, as far as the trace reaches."""
    found: list[float] = []
    moment = at_s - _TURN_S - LOOK_S
    near = values[(seconds >= at_s - LOOK_S) & (seconds < at_s)]
    allowed = _ELSEWHERE * (float(near.std(ddof=1)) + 1e-12)
    while moment - LOOK_S >= seconds[0] and len(found) < _MOST_STILL:
        early = (seconds >= moment - LOOK_S) & (seconds < moment)
        if early.any() and np.abs(values[early] - near.mean()).max() > allowed:
            break  # something else happened there: a light-off, a stage
        late = (seconds >= moment + _TURN_S) & (seconds < moment + _TURN_S + LOOK_S)
        if early.sum() >= _LEAST and late.sum() >= _LEAST:
            found.append(_apart(seconds, values, moment, early, late, 0.0)[0])
        moment -= _EVERY_S
    return np.asarray(found)


def _without_event(seconds: Floats, values: Floats, ahead_s: float) -> tuple[float, float, float]:
    """Return where a channel would be ``ahead_s`` after second 0 had nothing happened, its scatter, and what drawing out adds.

    A trend that goes on is drawn out; one that dies away (a cell still settling) only by what is left of it; none at
    all where the slope drowns in the scatter.
    """
    half = 0.5 * float(seconds[0])
    first, second = (
        _line(seconds[seconds < half], values[seconds < half]),
        _line(seconds[seconds >= half], values[seconds >= half]),
    )
    spread = second[2]
    if abs(second[0]) <= 3 * second[3]:
        return float(values[seconds >= half].mean()), spread, 0.0
    ratio = second[0] / first[0] if first[0] else 1.0
    if 0 < ratio < _GOES_ON:
        return second[1] - second[0] * half * ratio / (1 - ratio), spread, second[3] * abs(half)
    return second[1] + second[0] * ahead_s, spread, second[3] * ahead_s


def _line(seconds: Floats, values: Floats) -> tuple[float, float, float, float]:
    """Return slope, level at second 0, scatter about the line, and the slope's own error."""
    slope, level = np.polyfit(seconds, values, 1)
    spread = float((values - level - slope * seconds).std(ddof=2)) if len(seconds) > 2 else 0.0
    width = float(seconds.std()) * sqrt(len(seconds)) + 1e-12
    return float(slope), float(level), spread, spread / width


def _good(series: Series, name: str) -> tuple[Floats, Floats]:
    values = series.channels[name]
    good = np.isfinite(values)
    return series.seconds[good], values[good]
