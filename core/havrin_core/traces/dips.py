"""Dips on live traces, on the samples as they came: how deep, how long, while it ran; and how long a quiet run must last."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.running import Basis, Run, Running, running
from havrin_core.traces.series import Channels, Floats, period_of

CONFIDENCE = 0.95
_BACK_SHARE, _BACK_SIGMAS = 0.02, 2.0  # so far over the point again, a dip is over
_NOISE_SIGMAS, _DEEP_SIGMAS, _NEAR_SAMPLES, _LEAST_PAIRS = 4.5, 3.0, 20, 8
_STOPPED_S = 10.0  # lost for longer without another channel to tell: it stopped
_REST_SHARE = 0.2  # of what it has while it runs: with more than this left it has not stopped
_COMES_UP_S = 15.0  # so long a start may take until the point is passed
_ENDS_S, _SLACK_S = 3.0, 0.03  # what is lost at the end of a run for longer than this has been switched off
_REVERSED_SHARE = 0.05  # of the point: less of the other sign is a gauge's zero
_BURST_S = 20.0  # dips that follow one another so closely are one burst: one coming of the fault


@dataclass(frozen=True, slots=True)
class Dip:
    """A stretch under the set point: begin and end, s; the lowest value, and how far under the set point it is.

    ``half_width_s`` is how far begin and end may be off by the time between samples. ``reversed`` is a value of the other
    sign: air or fumes went the wrong way.
    """

    start_s: float
    end_s: float
    least: float
    depth: float
    half_width_s: float = 0.0
    reversed: bool = False


@dataclass(frozen=True, slots=True)
class DipsRead:
    """The dips of one channel while it ran, its least value then, for how long it was watched running, and how that is known.

    ``least`` is None where no sample was taken while it ran.
    """

    dips: tuple[Dip, ...]
    least: float | None
    watched_s: float
    runs: int
    basis: Basis
    stops: tuple[float, ...] = ()  # where it was lost for long, and no other channel tells why


def read_dips(
    channels: Channels,
    name: str,
    set_point: float,
    marks: Sequence[tuple[str, float]] = (),
    inducer: str = "",
) -> DipsRead:
    """Return the dips of ``name`` under ``set_point``, of its own running sign, while what it belongs to ran.

    ``marks`` and ``inducer`` as ``running`` takes them. Where nothing tells when it ran, the channel has to tell itself:
    lost for more than ten seconds it has stopped, and that is no dip.
    """
    seconds, raw = channels[name]
    values = _upright(raw)
    found = tuple(_stretches(seconds, values, set_point))
    ran = running(channels, name, marks, inducer)
    if ran is None:
        return _by_itself(seconds, values, found, set_point, always=name.startswith("volts"))
    pairs = [_while(dip, run, ran, seconds, values, set_point) for dip in found for run in ran.runs]
    dips = tuple(dip for dip in pairs if dip is not None)
    inside = np.zeros(len(seconds), dtype=bool)
    for run in ran.runs:
        inside |= (seconds >= run.start_s + (_COMES_UP_S if run.begun else 0.0)) & (seconds <= run.end_s - ran.doubt_s)
    lows = [*values[inside].tolist(), *(dip.least for dip in dips)]
    watched = sum(run.end_s - run.start_s for run in ran.runs)
    return DipsRead(dips, min(lows, default=None), watched, len(ran.runs), ran.basis)


def _while(dip: Dip, run: Run, ran: Running, seconds: Floats, values: Floats, set_point: float) -> Dip | None:
    """Return the part of a dip that lies in a run; None for a start that came up, an ordinary stop, a rest."""
    slack = ran.doubt_s + _SLACK_S
    if dip.end_s < run.start_s or dip.start_s > run.end_s + slack:
        return None
    if run.ended and dip.start_s > run.end_s - slack and dip.end_s - dip.start_s > _ENDS_S:
        return None
    inside = _inside(dip, run, seconds, values, set_point, slack)
    came_up = run.begun and dip.start_s <= run.start_s + slack and dip.end_s <= run.start_s + _COMES_UP_S + slack
    return None if inside is None or (came_up and not inside.reversed) else inside


def _inside(dip: Dip, run: Run, seconds: Floats, values: Floats, set_point: float, slack: float) -> Dip | None:
    """Return a dip less what lies before the run began, and less the rest after it; one that ended a run keeps its end."""
    early = run.begun and dip.start_s <= run.start_s + slack
    late = run.ended and dip.end_s > run.end_s + _STOPPED_S
    begin, end = run.start_s if early else dip.start_s, run.end_s if late else dip.end_s
    if not early and not late:
        return dip
    part = values[(seconds >= begin + (slack if early else 0.0)) & (seconds <= end - (slack if late else 0.0))]
    if not len(part):
        return None
    least = float(part.min())
    turned = _is_reversed(least, set_point)
    doubt = max(slack, dip.half_width_s)
    return Dip(begin, end, least, set_point - least, doubt, turned)


def _by_itself(seconds: Floats, values: Floats, found: Sequence[Dip], set_point: float, *, always: bool) -> DipsRead:
    edge = (float(seconds[0]), float(seconds[-1])) if len(seconds) else (0.0, 0.0)
    running_level = _level(values, set_point)
    stopped = [dip for dip in found if _is_stop(dip, seconds, values, edge, running_level)]
    dips = tuple(dip for dip in found if dip not in stopped and not any(_beside(dip, stop) for stop in stopped))
    inside = np.ones(len(seconds), dtype=bool)
    for stop in stopped:
        inside &= (seconds < stop.start_s) | (seconds > stop.end_s)
    watched = float(edge[1] - edge[0]) - sum(stop.end_s - stop.start_s for stop in stopped)
    starts = tuple(stop.start_s for stop in stopped if stop.start_s > edge[0])
    basis: Basis = "always" if always else "itself"
    return DipsRead(dips, min(values[inside].tolist(), default=None), max(watched, 0.0), 1 + len(starts), basis, starts)


def _level(values: Floats, set_point: float) -> float:
    over = values[values >= set_point]
    return float(np.median(over)) if len(over) else abs(set_point)


def _is_stop(dip: Dip, seconds: Floats, values: Floats, edge: tuple[float, float], running_level: float) -> bool:
    """Tell whether what was lost had stopped: gone for long, or to the edge of the trace, and hardly anything left of it."""
    long = dip.end_s - dip.start_s > _STOPPED_S or dip.start_s <= edge[0] or dip.end_s >= edge[1]
    part = values[(seconds >= dip.start_s) & (seconds <= dip.end_s)]
    return long and abs(float(np.median(part))) < _REST_SHARE * running_level


def _beside(dip: Dip, stop: Dip) -> bool:
    """Tell whether a dip belongs to a stop or to the start after it: on its way, a channel crosses its point more than once."""
    return stop.start_s - _ENDS_S < dip.end_s and dip.start_s < stop.end_s + _ENDS_S


def _upright(values: Floats) -> Floats:
    """Return the values with the sign that they have while it runs as positive: what is reversed becomes negative."""
    if not len(values):
        return values
    strong = values[np.abs(values) >= np.percentile(np.abs(values), 50)]
    return values if float(np.median(strong)) >= 0 else -values


def find_dips(seconds: Floats, values: Floats, set_point: float) -> tuple[Dip, ...]:
    """Return every stretch in which ``values`` lie under ``set_point``; a gap in the samples ends a stretch."""
    good = np.isfinite(values)
    return tuple(_stretches(seconds[good], values[good], set_point))


def _stretches(seconds: Floats, values: Floats, set_point: float) -> Iterator[Dip]:
    """Yield the dips, with hysteresis: over the point by a share of it, or by the gauge's noise, a dip is over.

    What lies within the noise of the samples around it is not a dip.
    """
    if not len(seconds):
        return
    period = period_of(seconds)
    longest_gap = max(5 * period, 2.0)
    noise = _noise(values, set_point)
    over = values >= set_point + max(_BACK_SHARE * abs(set_point), _BACK_SIGMAS * noise)
    under = values < set_point
    lows, count = np.flatnonzero(under), len(values)
    position = 0
    while position < len(lows):
        index = last = int(lows[position])
        while last + 1 < count and not over[last + 1] and seconds[last + 1] - seconds[last] <= longest_gap:
            last += 1
        while not under[last]:
            last -= 1  # what lies between point and way back belongs to no dip
        position = int(np.searchsorted(lows, last, side="right"))
        part = values[index : last + 1]
        least = float(part.min())
        if noise and _is_noise(values, set_point, index, last, noise):
            continue
        reverses = _is_reversed(least, set_point)
        yield Dip(float(seconds[index]), float(seconds[last]), least, set_point - least, period, reverses)


def _noise(values: Floats, set_point: float) -> float:
    """Return the standard deviation of a sample by the differences of neighbours over the point; 0 where there are few."""
    over = values >= set_point
    apart = np.diff(values)[over[1:] & over[:-1]]
    return float(1.4826 * np.median(np.abs(apart)) / np.sqrt(2)) if len(apart) >= _LEAST_PAIRS else 0.0


def _is_noise(values: Floats, set_point: float, first: int, last: int, noise: float) -> bool:
    """Tell whether samples under the point are no further from those around them than noise takes one now and then."""
    part = values[first : last + 1]
    if float((set_point - part).clip(0).sum()) > _DEEP_SIGMAS * noise * np.sqrt(len(part)):
        return False
    around = np.concatenate(
        (values[max(first - _NEAR_SAMPLES, 0) : first], values[last + 1 : last + 1 + _NEAR_SAMPLES])
    )
    near = around[around >= set_point]
    return len(near) > 0 and float(np.median(near) - part.min()) < _NOISE_SIGMAS * noise


def _is_reversed(least: float, set_point: float) -> bool:
    return least < -_REVERSED_SHARE * abs(set_point) <= 0 <= set_point


def bursts(dips: Sequence[Dip]) -> int:
    """Return how often the fault came: dips within twenty seconds of one another are one coming.

    >>> bursts([Dip(0, 1, 0, 1), Dip(3, 4, 0, 1), Dip(100, 101, 0, 1)])
    2
    """
    starts = sorted(dips, key=lambda dip: dip.start_s)
    return sum(index == 0 or dip.start_s - starts[index - 1].end_s > _BURST_S for index, dip in enumerate(starts))


def quiet_run_s(comings: int, watched_s: float, confidence: float = CONFIDENCE) -> float | None:
    """Return how long it must run without a dip before the fault is gone with ``confidence``, s. None where none was seen.

    Comings are taken to be by chance (Poisson), at a rate that is known no better than the ``n`` that came in the time T:
    without a dip for t after that, the odds that the rate is still what it was fall as (T / (T + t)) to the power n.
    Hence t = T ((1 - confidence) to the power -1/n, less 1): after a single coming nineteen times as long as was watched.
    """
    if comings < 1 or not watched_s > 0:
        return None
    return float(watched_s * ((1 - confidence) ** (-1 / comings) - 1))


def cycles_for(quiet_s: float, found: DipsRead) -> int:
    """Return how many whole heat cycles the quiet run must hold: a fault that comes hot is not met in a cold start alone."""
    each = found.watched_s / max(found.runs, 1)
    return max(int(np.ceil(quiet_s / each)), 1) if each > 0 else 1
