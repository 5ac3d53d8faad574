"""Traces with a known truth: a unit lights, its blower starts, and instruments of every lateness and noise look on.

Nothing here is taken from the reader: cells are first-order lags behind a hose, noise is drawn, readouts are rounded.
"""

from dataclasses import dataclass, field

import numpy as np


@dataclass
class Made:
    """Channels by their own clocks, and what is true of them."""

    channels: dict
    step: float
    blower_s: float
    light_s: float
    how: dict = field(default_factory=dict)


def lagged(seconds, true, dead_s, lag_s):
    """What a cell shows of ``true`` (on an even clock): delayed by its hose, then through a first-order lag."""
    apart = seconds[1] - seconds[0]
    delayed = np.interp(seconds - dead_s, seconds, true, left=true[0])
    keep = np.exp(-apart / lag_s)
    shown = np.empty_like(delayed)
    shown[0] = delayed[0]
    for index in range(1, len(delayed)):
        shown[index] = keep * shown[index - 1] + (1 - keep) * delayed[index]
    return shown


def wandering(rng, seconds, memory_s, sigma):
    """Noise that remembers itself for ``memory_s``."""
    apart = seconds[1] - seconds[0]
    keep = np.exp(-apart / memory_s) if memory_s else 0.0
    kicks = rng.normal(0, sigma * np.sqrt(1 - keep**2), len(seconds))
    values = np.empty(len(seconds))
    values[0] = rng.normal(0, sigma)
    for index in range(1, len(seconds)):
        values[index] = keep * values[index - 1] + kicks[index]
    return values


def blower_start(rng, step=None, **fixed):
    """One light-off with a blower start behind it, oxygen recorded beside manifold and blower amps."""
    how = {
        "lag_s": rng.uniform(2, 12),
        "dead_s": rng.uniform(1, 8),
        "memory_s": rng.choice([0.0, 1.0, 3.0, 8.0]),
        "sigma": rng.uniform(0.01, 0.08),
        "white": rng.uniform(0.0, 0.04),
        "digit": rng.choice([0.0, 0.01, 0.1]),
        "drift_per_s": rng.normal(0, 0.0015),
        "every_s": rng.choice([0.5, 1.0, 2.0]),
        "uneven": rng.random() < 0.3,
        "delay_s": rng.choice([rng.uniform(32, 60), rng.uniform(110, 160)]),
    } | fixed
    step = rng.choice([0.0, 0.0, rng.uniform(0.2, 3.0)]) if step is None else step
    clock = np.arange(0.0, 420.0, 0.1)
    light, blower = 30.0, 30.0 + how["delay_s"]
    true = np.where(clock < light, 20.9, 6.5 + how["drift_per_s"] * (clock - light))
    true = true + np.where(clock >= blower, step, 0.0)
    shown = lagged(clock, true, how["dead_s"], how["lag_s"]) + wandering(rng, clock, how["memory_s"], how["sigma"])
    times = np.arange(0.0, 415.0, how["every_s"])
    if how["uneven"]:
        times = np.sort(times + rng.uniform(-0.3, 0.3, len(times)) * how["every_s"])
    oxygen = np.interp(times, clock, shown) + rng.normal(0, how["white"], len(times))
    if how["digit"]:
        oxygen = np.round(oxygen / how["digit"]) * how["digit"]
    fast = np.arange(0.0, 415.0, 0.2)
    manifold = np.where(fast < light, 0.0, 870.0) + rng.normal(0, 2.0, len(fast))
    amps = np.where(fast < blower, 0.0, 4.2) + rng.normal(0, 0.02, len(fast))
    channels = {"o2_dry_pct": (times, oxygen), "manifold_pa": (fast, manifold), "blower_current_a": (fast, amps)}
    return Made(channels, step, blower, light, how)


@dataclass
class Cycled:
    """Heat cycles with a draft of its own: where it dipped while it ran, and where it turned round."""

    channels: dict
    set_point: float
    dips: tuple  # (start_s, end_s)
    cycles: int
    running: float


def first_order(clock, target, tau_s):
    """``target`` followed with a time constant."""
    keep = np.exp(-(clock[1] - clock[0]) / tau_s)
    shown = np.empty_like(target)
    shown[0] = target[0]
    for index in range(1, len(target)):
        shown[index] = keep * shown[index - 1] + (1 - keep) * target[index]
    return shown


def heat_cycles(rng, dips=None, told_by=None, **fixed):
    """Cycles of a unit with an inducer: purge, fire, purge after, rest; a few dips of 50 ms and more in the fire."""
    how = {
        "hertz": rng.choice([5.0, 10.0, 20.0]),
        "sigma": rng.uniform(0.3, 4.0),
        "cycles": rng.integers(1, 5),
        "after_s": rng.choice([0.0, 5.0, 15.0, 30.0]),
        "spin_s": rng.uniform(0.5, 2.5),
        "negative": rng.random() < 0.3,
        "digit": rng.choice([0.0, 1.0, 2.5]),
    } | fixed
    told_by = rng.choice(["inducer", "manifold", "flame", "nothing"]) if told_by is None else told_by
    clock = np.arange(0.0, 30.0 + how["cycles"] * rng.uniform(240, 420), 0.01)
    length = clock[-1] / how["cycles"]
    into = np.mod(clock, length)
    starts, stops = 20.0, length * rng.uniform(0.6, 0.75)
    fire_from = starts + rng.uniform(15, 40)
    fire = (into >= fire_from) & (into < stops)
    spins = (into >= starts) & (into < stops + how["after_s"])
    running = rng.uniform(80, 350)
    draft = first_order(clock, np.where(spins, running, 0.0), how["spin_s"])
    draft = draft * (1 + 0.03 * np.sin(2 * np.pi * clock / rng.uniform(7, 40)))
    point = running * rng.uniform(0.5, 0.75)
    count = (0 if rng.random() < 0.4 else rng.integers(1, 6)) if dips is None else dips
    truth = []
    for _ in range(count):
        cycle = rng.integers(0, how["cycles"])
        begin = cycle * length + rng.uniform(fire_from + 5, stops - 8)
        long_s = rng.choice([0.05, 0.1, 0.3, 1.0, 3.0])
        long_s = max(long_s, 1.05 / how["hertz"])  # shorter than the time between samples it cannot be seen
        if any(abs(begin - other) < 8 for other, _ in truth):
            continue
        here = (clock >= begin) & (clock < begin + long_s)
        draft[here] = point * rng.uniform(-0.5, 0.75)
        truth.append((begin, begin + long_s))
    sign = -1.0 if how["negative"] else 1.0
    channels = {"draft_pa": _sampled(rng, clock, sign * draft, how["hertz"], how["sigma"], how["digit"])}
    if told_by == "inducer":
        amps = np.where(spins, rng.uniform(0.8, 2.5), 0.0)
        channels["inducer_current_a"] = _sampled(rng, clock, amps, rng.choice([1.0, 5.0]), 0.01)
    if told_by == "manifold":
        channels["manifold_pa"] = _sampled(rng, clock, np.where(fire, 870.0, 0.0), rng.choice([2.0, 10.0]), 2.0)
    if told_by == "flame":
        lit = (into >= fire_from + 2) & (into < stops)
        channels["flame_current_a"] = _sampled(rng, clock, np.where(lit, 3e-6, 0.0), rng.choice([1.0, 5.0]), 5e-8)
    return Cycled(channels, point, tuple(sorted(truth)), int(how["cycles"]), running)


def _sampled(rng, clock, true, hertz, sigma, digit=0.0):
    """What an instrument stores of ``true``: at its own moments, with its noise, rounded to its digits."""
    times = np.arange(rng.uniform(0, 1 / hertz), clock[-1], 1 / hertz)
    values = true[np.searchsorted(clock, times).clip(0, len(clock) - 1)] + rng.normal(0, sigma, len(times))
    return times, np.round(values / digit) * digit if digit else values


@dataclass
class Let:
    """A contact that let go, or did not: volts before and after it, and what its switch feels."""

    channels: dict
    point: float
    truth: str  # by_itself, by_draft, supply
    at_s: float
    lasts_s: float
    clock_error_s: float


def contact_opens(rng, truth=None, **fixed):
    """Draft and volts on two instruments with clocks a little apart, one loss behind the pressure switch.

    ``by_draft``: the draft falls under the switch's point, and its contact follows after a few hundredths of a second.
    ``by_itself``: the contact opens; the draft may breathe, never near the point. ``supply``: volts before it are lost.
    """
    truth = rng.choice(["by_itself", "by_draft", "supply"]) if truth is None else truth
    how = {
        "draft_hertz": rng.choice([10.0, 20.0]),
        "volt_hertz": rng.choice([10.0, 20.0]),
        "sigma": rng.uniform(0.5, 3.0),
        "gauge_s": rng.uniform(0.05, 0.4),
        "clock_error_s": 0.1,
        "resistive": rng.random() < 0.2,
        "chatters": rng.random() < 0.4,
    } | fixed
    clock = np.arange(0.0, 60.0, 0.005)
    level, at = rng.uniform(120, 300), rng.uniform(20, 40)
    point = level * rng.uniform(0.55, 0.8)
    lasts = rng.choice([0.1, 0.2, 0.5, 2.0])
    draft = np.full(len(clock), level) * (1 + 0.02 * np.sin(clock / 3))
    before, after = np.full(len(clock), 26.0), np.full(len(clock), 25.9)
    gone = (clock >= at) & (clock < at + lasts)
    if truth == "by_draft":
        draft[gone] = point * rng.uniform(0.0, 0.7)
        draft = first_order(clock, draft, rng.uniform(0.02, 0.1))
        gone = draft < point
        gone = np.roll(gone, int(rng.uniform(0.01, 0.08) / 0.005))
        lasts = gone.sum() * 0.005
    if truth == "by_itself":
        for _ in range(rng.integers(0, 3)):  # it breathes, and stays over the point
            begin = at + rng.uniform(-3, 3)
            draft[(clock >= begin) & (clock < begin + 0.5)] *= rng.uniform(0.95, 1.05)
        if how["chatters"]:
            for begin in np.arange(at - 6, at, rng.uniform(0.7, 2.0)):
                gone |= (clock >= begin) & (clock < begin + 0.1)
    after[gone] = rng.uniform(4, 12) if how["resistive"] and truth == "by_itself" else 0.2
    if truth == "supply":
        before[gone] = after[gone] = 0.3
    shift = rng.uniform(-how["clock_error_s"], how["clock_error_s"])
    channels = {
        "draft_pa": _sampled(rng, clock, first_order(clock, draft, how["gauge_s"]), how["draft_hertz"], how["sigma"]),
        "volts_across_v@3-C": _sampled(rng, clock, before, how["volt_hertz"], 0.05),
        "volts_across_v@4-C": _sampled(rng, clock, after, how["volt_hertz"], 0.05),
    }
    seconds, values = channels["draft_pa"]
    channels["draft_pa"] = (seconds + shift, values)
    return Let(channels, point, str(truth), at, float(lasts), how["clock_error_s"])
