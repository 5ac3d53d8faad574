"""A trace as data: when it ran, where it was still, its events with their steps, its dips, and what they say of contacts."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any

import numpy as np

from havrin_core.machine.circuit.model import Circuit
from havrin_core.quantities.display import sentence
from havrin_core.search.contacts_of_dips import contact_of, inducer_volts, movers_of, named
from havrin_core.traces.dips import bursts, cycles_for, quiet_run_s, read_dips
from havrin_core.traces.events import Event, propose_events
from havrin_core.traces.series import Channels, Series
from havrin_core.traces.steady import LIVE_WINDOW_S, find_steady, half_widths_of, still_stretch, window
from havrin_core.traces.steps import Step, steps_at
from havrin_core.vocabulary.channels import quantity_of
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.phrases import words
from havrin_core.wording.traces import said_of_dips, sureness

_MOST_DIPS, _MOST_EVENTS = 200, 40


def trace_to_dict(
    channels: Channels,
    *,
    points: Mapping[str, float],
    circuit: Circuit | None = None,
    marks: Sequence[Event] = (),
    clock_error_s: float = 0.0,
) -> dict[str, Any]:
    """Return everything that is said of a trace.

    ``points`` are the set points (canonical) under which a channel has a dip; ``marks`` the events that people marked.
    """
    proposed = propose_events(channels)
    own = [e for e in proposed if not any(m.kind == e.kind and abs(m.at_s - e.at_s) < 10.0 for m in marks)]
    events = sorted((*marks, *own), key=lambda event: event.at_s)
    return {
        "channels": {name: _channel(seconds) for name, (seconds, _) in channels.items()},
        "steady": _steady(channels),
        "events": [_event(channels, event, events) for event in events[:_MOST_EVENTS]],
        "dips": {
            name: _dips(channels, name, point, points, circuit, marks, clock_error_s)
            for name, point in points.items()
            if name in channels
        },
    }


def _channel(seconds: Any) -> dict[str, Any]:
    count = len(seconds)
    period = float(np.median(np.diff(seconds))) if count > 1 else None
    return {
        "samples": count,
        "from_s": float(seconds[0]) if count else None,
        "to_s": float(seconds[-1]) if count else None,
        "period_s": period,
    }


def on_rows(channels: Channels) -> Series:
    """Return the channels on all of their seconds, NaN where one has no sample."""
    seconds = np.unique(np.concatenate([times for times, _ in channels.values()])) if channels else np.array([])
    found = {}
    for name, (times, values) in channels.items():
        row = np.full(len(seconds), np.nan)
        row[np.searchsorted(seconds, times)] = values
        found[name] = row
    return Series(seconds, found, ())


def _steady(channels: Channels) -> dict[str, Any] | None:
    series = on_rows(channels)
    if not len(series.seconds):
        return None
    series = Series(series.seconds - series.seconds[0], series.channels, ())
    found = find_steady(series)
    if found is None and "o2_dry_pct" not in channels:
        stretch = still_stretch(series, list(channels), LIVE_WINDOW_S)
        found = window(series, *stretch) if stretch else None
    if found is None:
        return None
    widths = half_widths_of(series, found)
    rows = [
        {"quantity": name, "mean": mean, "scatter": scatter, "half_width": widths.get(name)}
        for name, mean, scatter in found.means
    ]
    return {"from_s": found.start_s, "to_s": found.end_s, "means": rows}


def _event(channels: Channels, event: Event, events: Sequence[Event]) -> dict[str, Any]:
    steps = steps_at(channels, event.at_s, events)
    return {
        "kind": event.kind,
        "at_s": event.at_s,
        "half_width_s": event.half_width_s,
        "steps": [_step(step) for step in steps],
    }


def _step(step: Step) -> dict[str, Any]:
    if step.cannot_tell:
        return {"quantity": step.quantity, "cannot_tell": words(step.cannot_tell)}
    plain = asdict(step)
    del plain["cannot_tell"]
    return plain | {"sure": sureness(step)}


def _dips(
    channels: Channels,
    name: str,
    point: float,
    points: Mapping[str, float],
    circuit: Circuit | None,
    marks: Sequence[Event],
    clock_error_s: float,
) -> dict[str, Any]:
    found = read_dips(channels, name, point, [(mark.kind, mark.at_s) for mark in marks], inducer_volts(circuit))
    count = bursts(found.dips)
    quiet = quiet_run_s(count, found.watched_s)
    shown = found.dips[:_MOST_DIPS]
    moved = movers_of(channels, shown, clock_error_s)
    contacts = [contact_of(circuit, one, points, clock_error_s) if circuit else None for one in moved]
    dimension = measurand(quantity_of(name)).dimension
    return {
        "point": point,
        "says": list(said_of_dips(found, sentence(point, dimension, "metric"))),
        "basis": found.basis,
        "runs": found.runs,
        "watched_s": found.watched_s,
        "least": found.least,
        "stops_s": list(found.stops),
        "comings": count,
        "gone_after_s": quiet,
        "gone_after_cycles": cycles_for(quiet, found) if quiet is not None else None,
        "part": named(contacts),
        "dips": [
            asdict(dip)
            | {
                "order": [key for key, _ in one.order],
                "still": list(one.still),
                "says": words(contact.says) if contact else "",
                "part": contact.part if contact else "",
                "cleared": list(contact.cleared) if contact else [],
            }
            for dip, one, contact in zip(shown, moved, contacts, strict=True)
        ],
    }
