"""The step that a channel makes at an event, with what it is worth; or why none can be told."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp, pi, sqrt

import numpy as np

from havrin_core.phrases import NOTHING, Phrase, phrase
from havrin_core.traces.events import EVENTS, Event
from havrin_core.traces.noise import Fit, fit, thinned
from havrin_core.traces.response import Response, oxygen_response, usual_response
from havrin_core.traces.series import Channels, Floats, period_of, without_gaps

LOOK_S = 90.0  # at most so much before and after
LEAST_S, LEAST_BEFORE_S, LEAST_SAMPLES = 20.0, 12.0, 12
_TAIL_KNOWN_LAGS = 2.0  # a cell that a light-off showed may still be on its way: its tail is of known shape
_UNKNOWN_LAG_FACTOR = 1.6  # a cell that nobody measured may be so much slower than usual
_ODD_SIGMAS = 7.0
_HUNTS, _BENT = 0.95, 0.99
_TAIL_LAGS = 8.0
_TAIL_FACTORS = (0.93, 1.08)
_LAG_ERROR, _LAG_ERROR_USUAL = 0.006, 0.04  # share of a step that a wrong lag makes
_SAME_S = 1.0  # two marks of one event


@dataclass(frozen=True, slots=True)
class Step:
    """What one channel did at an event, canonical units: means around it, the step with the drift taken off.

    ``confidence`` is the probability, 0 to 1, that it moved at all. Where ``cannot_tell`` says why, there is no step.
    """

    quantity: str
    before: float
    after: float
    step: float
    half_width: float  # of the step, 95 %
    confidence: float
    cannot_tell: Phrase = NOTHING


def steps_at(channels: Channels, at_s: float, events: Sequence[Event] = ()) -> tuple[Step, ...]:
    """Return the step of every channel at ``at_s``; ``events`` are all that is known of the trace, this one among them."""
    here = [event for event in events if abs(event.at_s - at_s) <= _SAME_S]
    others = [event for event in events if event not in here]
    if any(event.kind != "stage_change" for event in here):  # a stage that changes in the same second mixes with it
        others += [event for event in here if event.kind == "stage_change"]
    lit = max((event.at_s for event in events if event.kind == "light_off" and event.at_s <= at_s), default=None)
    cell = None
    if "o2_dry_pct" in channels:
        # what happens after the light-off ends the fall by which the cell is known
        until = min((event.at_s for event in events if lit is not None and event.at_s > lit + _SAME_S), default=np.inf)
        cell = oxygen_response(*channels["o2_dry_pct"], lit, until)
    return tuple(
        _step(name, seconds, values, at_s, others, _response(name, cell))
        for name, (seconds, values) in channels.items()
        if len(seconds) > 1 and seconds[0] <= at_s <= seconds[-1]
    )


def _response(name: str, cell: Response | None) -> Response:
    usual = usual_response(name)
    if cell is not None and name in ("o2_dry_pct", "co2_dry_pct", "co_ppm_dry"):
        slower = usual.lag_s / usual_response("o2_dry_pct").lag_s
        return Response(cell.dead_s, cell.lag_s * slower, True, name != "o2_dry_pct")
    return usual


def _step(name: str, seconds: Floats, values: Floats, at_s: float, others: Sequence[Event], response: Response) -> Step:
    slack = 1.0 if response.measured and not response.borrowed else _UNKNOWN_LAG_FACTOR
    wait = response.dead_s + 3 * response.lag_s * slack
    trouble = _in_the_way(at_s, others, wait)
    if trouble:
        return _untold(name, trouble)
    before = [event.at_s for event in others if event.at_s < at_s]
    settles = response.dead_s + _TAIL_KNOWN_LAGS * response.lag_s if response.measured else wait
    begin = max([at_s - LOOK_S, *(second + settles for second in before)])
    end = min([at_s + wait + LOOK_S, *(e.at_s for e in others if e.at_s > at_s)])
    here = without_gaps(seconds, max(int(np.searchsorted(seconds, at_s)) - 1, 0))
    times, read = seconds[here], values[here]
    early, late = (times >= begin) & (times < at_s), (times >= at_s + wait) & (times < end)
    if not _enough(times[early], LEAST_BEFORE_S) or not _enough(times[late], LEAST_S):
        return _untold(name, phrase("step_too_short", before=LEAST_BEFORE_S, settled=settles, after=LEAST_S, wait=wait))
    return _told(
        name, times, read, early, late, at_s, response, [s for s in before if begin - s < _TAIL_LAGS * response.lag_s]
    )


def _in_the_way(at_s: float, others: Sequence[Event], wait: float) -> Phrase:
    """Return what else happened while the channel was on its way, or so soon before or after that too little is left."""
    near = [e for e in others if at_s - LEAST_S < e.at_s < at_s + wait + LEAST_S]
    if not near:
        return NOTHING
    event = min(near, key=lambda e: abs(e.at_s - at_s))
    apart = event.at_s - at_s
    named = EVENTS[event.kind].lower()
    if apart >= 0:
        return phrase("step_mixed_after", event=named, seconds=apart)
    return phrase("step_mixed_before", event=named, seconds=-apart)


def _enough(times: Floats, least_s: float) -> bool:
    return len(times) >= LEAST_SAMPLES and float(times[-1] - times[0]) >= least_s - 2 * period_of(times)


def _told(
    name: str,
    times: Floats,
    read: Floats,
    early: np.ndarray,
    late: np.ndarray,
    at_s: float,
    response: Response,
    before: Sequence[float],
) -> Step:
    first, second = thinned(times[early], read[early]), thinned(times[late], read[late])
    seconds, values = np.concatenate((first[0], second[0])), np.concatenate((first[1], second[1]))
    from_event = (seconds - at_s) / LOOK_S
    plain = _design(seconds, at_s, response, before)
    digit = _digit(read[early | late])
    spread = _spread(values, plain)
    odd = _odd_one_out(seconds, values, plain, max(spread, digit))
    if odd is not None:
        return _untold(name, phrase("step_disturbed", seconds=odd - at_s))
    extra = _of_digits(digit, read[early], read[late])
    found = _fitted(seconds, values, plain, from_event, extra, response)
    if before:
        found = _with_lag_unsure(found, seconds, values, at_s, response, before)
    if found.hunting > _HUNTS and found.spread > digit:
        return _untold(name, phrase("step_hunts"))
    return Step(
        name,
        float(read[early].mean()),
        float(read[late].mean()),
        found.estimate,
        found.half_width(),
        found.confidence(),
    )


def _design(seconds: Floats, at_s: float, response: Response, before: Sequence[float]) -> Floats:
    """Return the columns of a step: itself through the cell, a level, a drift, what is still to come from events before."""
    came = np.where(seconds >= at_s, 1 - _still_to_come(seconds, at_s, response), 0.0)
    tails = [_still_to_come(seconds, second, response) for second in before]
    return np.column_stack((came, np.ones(len(seconds)), (seconds - at_s) / LOOK_S, *tails))


def _with_lag_unsure(
    found: Fit, seconds: Floats, values: Floats, at_s: float, response: Response, before: Sequence[float]
) -> Fit:
    """Return a fit whose errors hold that the fire, too, takes its time after a light-off: its tail may be faster or slower."""
    ends = [
        fit(
            seconds, values, _design(seconds, at_s, replace(response, lag_s=response.lag_s * factor), before), 0
        ).estimate
        for factor in _TAIL_FACTORS
    ]
    return replace(found, errors=np.sqrt(found.errors**2 + (0.5 * (ends[1] - ends[0])) ** 2))


def _still_to_come(seconds: Floats, event_s: float, response: Response) -> Floats:
    """Return the share of a change at ``event_s`` that the cell has still to show."""
    gone: Floats = np.exp(-np.maximum(seconds - event_s - response.dead_s, 0) / response.lag_s)
    return gone


def _fitted(
    seconds: Floats, values: Floats, plain: Floats, from_event: Floats, extra: float, response: Response
) -> Fit:
    """Return the step's fit, with a bend in the drift where the samples show one beyond doubt, and the lag's own error."""
    bent = np.column_stack((plain, from_event**2))
    bend = fit(seconds, values, bent, bent.shape[1] - 1)
    design = bent if bend.confidence() > _BENT else plain
    found = fit(seconds, values, design, 0, extra)
    share = _LAG_ERROR if response.measured and not response.borrowed else _LAG_ERROR_USUAL
    by_lag = share * found.estimate * min(response.lag_s, 1.0)  # what follows at once has no lag to be wrong about
    return replace(found, errors=np.sqrt(found.errors**2 + by_lag**2))


def _spread(values: Floats, design: Floats) -> float:
    left = values - design @ np.linalg.lstsq(design, values, rcond=None)[0]
    return float(1.4826 * np.median(np.abs(left - np.median(left))))


def _odd_one_out(seconds: Floats, values: Floats, design: Floats, spread: float) -> float | None:
    """Return when the trace left what all the rest of it does: a gust, a door."""
    left = values - design @ np.linalg.lstsq(design, values, rcond=None)[0]
    worst = int(np.argmax(np.abs(left)))
    return float(seconds[worst]) if abs(left[worst]) > _ODD_SIGMAS * max(spread, 1e-12) else None


def _digit(values: Floats) -> float:
    """Return the last digit of a readout: the least difference between two of its values; 0 where it has none to speak of."""
    distinct = np.unique(np.round(values, 9))
    return float(np.diff(distinct).min()) if 1 < len(distinct) <= max(len(values) // 3, 3) else 0.0


def _of_digits(digit: float, early: Floats, late: Floats) -> float:
    """Return the variance that a readout's digits leave on the difference of two means: noise over a digit wears it off."""
    if digit <= 0:
        return 0.0
    total = 0.0
    for part in (early, late):
        scatter = max(float(np.std(np.diff(part))) / sqrt(2), 0.0)
        total += digit**2 / 12 * exp(-((2 * pi * scatter / digit) ** 2))
    return total


def _untold(name: str, why: Phrase) -> Step:
    nan = float("nan")
    return Step(name, nan, nan, nan, nan, 0.0, why)
