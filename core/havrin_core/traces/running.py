"""When something ran: the stretches of inducer, burner and blower, by the channels or the marks that tell them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from havrin_core.traces.series import Channels, Floats, period_of

Basis = Literal["inducer", "burner", "marks", "itself", "always"]
GAS_PA, FLAME_A, BLOWER_A, INDUCER_A, INDUCER_V = 60.0, 4e-7, 0.3, 0.15, 15.0  # less than this is nothing
_FLICKER_S, _LEAST_RUN_S = 1.5, 3.0
_DRAWN_BY_INDUCER = ("draft_pa",)
_OF_BURNER = ("draft_pa", "flue_temp_k", "o2_dry_pct", "co_ppm_dry", "co2_dry_pct", "supply_running_pa")
_BURNER = {"flame_current_a": FLAME_A, "manifold_pa": GAS_PA}


@dataclass(frozen=True, slots=True)
class Run:
    """A stretch in which something ran. ``begun`` and ``ended`` are whether the trace shows the begin and the end."""

    start_s: float
    end_s: float
    begun: bool
    ended: bool


def runs_of(seconds: Floats, values: Floats, nothing: float) -> tuple[Run, ...]:
    """Return the stretches in which ``values`` lie over ``nothing``; a flicker shorter than 1.5 s neither ends nor makes one.

    A gap in the samples ends a stretch: what was there is not known.
    """
    if not len(seconds):
        return ()
    longest_gap = max(5 * period_of(seconds), 2.0)
    pieces = np.split(np.arange(len(seconds)), np.flatnonzero(np.diff(seconds) > longest_gap) + 1)
    return tuple(run for piece in pieces for run in _runs_in(seconds[piece], values[piece] > nothing))


def _runs_in(seconds: Floats, there: np.ndarray) -> Iterator[Run]:
    edges = [0, *(np.flatnonzero(there[1:] != there[:-1]) + 1), len(seconds)]
    stretches = [[bool(there[a]), a, b] for a, b in pairwise(edges)]
    for wanted in (False, True):  # first the short losses are filled, then what is too short to be a run is dropped
        stretches = _without_flickers(seconds, stretches, wanted)
    for on, a, b in stretches:
        if on:
            last = b < len(seconds)
            yield Run(_between(seconds, a), _between(seconds, b) if last else float(seconds[-1]), a > 0, last)


def _without_flickers(seconds: Floats, stretches: list[list[int]], state: bool) -> list[list[int]]:
    """Return the stretches, those of ``state`` that are but a flicker between two others joined to them."""
    kept: list[list[int]] = []
    for index, (on, a, b) in enumerate(stretches):
        inside = 0 < index < len(stretches) - 1
        lasts = float(seconds[min(b, len(seconds) - 1)] - seconds[a])
        if bool(on) == state and inside and lasts < _FLICKER_S:
            on = not state
        if kept and bool(kept[-1][0]) == bool(on):
            kept[-1][2] = b
        else:
            kept.append([int(on), a, b])
    return kept


def _between(seconds: Floats, index: int) -> float:
    """Return the middle between a sample and the one before it."""
    return float(seconds[index]) if index == 0 else 0.5 * float(seconds[index] + seconds[index - 1])


@dataclass(frozen=True, slots=True)
class Running:
    """When that ran to which a channel belongs, how that is known, and how far begins and ends may be off, s."""

    basis: Basis
    runs: tuple[Run, ...]
    doubt_s: float


def running(
    channels: Channels, name: str, marks: Sequence[tuple[str, float]] = (), inducer: str = ""
) -> Running | None:
    """Return when what ``name`` belongs to ran; None where nothing tells, or ``name`` belongs to nothing that stops.

    ``marks`` are events that people marked: kind and second. ``inducer`` is the channel of volts across the inducer.
    Draft belongs to the inducer: its amps or volts tell, then marks, then the burner, which never runs without it.
    """
    quantity = name.split("@")[0]
    if quantity not in _OF_BURNER:
        return None
    if quantity in _DRAWN_BY_INDUCER:
        for key, nothing in (("inducer_current_a", INDUCER_A), (inducer, INDUCER_V)):
            if key in channels and key != name and len(channels[key][0]):
                return _by(channels, key, nothing, "inducer")
        marked = _marked(channels[name][0], marks, "inducer_on", "inducer_off")
        if marked is not None:
            return marked
    for key, nothing in _BURNER.items():
        if key in channels and len(channels[key][0]):
            return _by(channels, key, nothing, "burner")
    return _marked(channels[name][0], marks, "light_off", "burner_off")


def _by(channels: Channels, key: str, nothing: float, basis: Basis) -> Running:
    seconds, values = channels[key]
    runs = tuple(run for run in runs_of(seconds, np.abs(values), nothing) if run.end_s - run.start_s >= _LEAST_RUN_S)
    return Running(basis, runs, 0.5 * period_of(seconds))


_MARK_DOUBT_S = 3.0  # a finger on a screen


def _marked(seconds: Floats, marks: Sequence[tuple[str, float]], on: str, off: str) -> Running | None:
    """Return the stretches between marks of begin and end; a begin or an end alone reaches to the edge of the trace."""
    edges = sorted((at, kind) for kind, at in marks if kind in (on, off))
    if not edges or not len(seconds):
        return None
    runs: list[Run] = []
    open_s: float | None = None if edges[0][1] == on else float(seconds[0])
    begun = edges[0][1] == on
    for at, kind in edges:
        if kind == on and open_s is None:
            open_s, begun = at, True
        elif kind == off and open_s is not None:
            runs.append(Run(open_s, at, begun, True))
            open_s = None
    if open_s is not None:
        runs.append(Run(open_s, float(seconds[-1]), begun, False))
    return Running("marks", tuple(runs), _MARK_DOUBT_S)
