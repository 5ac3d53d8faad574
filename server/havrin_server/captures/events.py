"""The events of a capture: those that people marked and those that the trace itself shows, with the steps at them."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from havrin_core.traces.events import Event, propose_events
from havrin_core.traces.series import Channels
from havrin_core.traces.steps import Step, steps_at
from havrin_server.captures.live import traces
from havrin_server.captures.models import Capture

READ_S = 1200.0  # so much before a moment is read for events: a light-off tells how late the cell is
AFTER_S = 300.0  # so much after an event its steps are read from
_BEFORE_S = 180.0  # a step is read from so much before it,
_AHEAD_S = 60.0  # and from so much before the light-off that shows how late the cell is
SAME_S = 10.0  # a mark this near to a proposal of its kind is that event


@dataclass(frozen=True, slots=True)
class EventsRead:
    """The channels of a stretch and the events in it, oldest first; ``marked`` are those of people."""

    channels: Channels
    events: tuple[Event, ...]
    marked: frozenset[Event]

    def steps_at(self, event: Event) -> tuple[Step, ...]:
        """Return what every channel did at an event."""
        lit = [one.at_s for one in self.events if one.kind == "light_off" and one.at_s <= event.at_s]
        begin = min([event.at_s - _BEFORE_S, *(second - _AHEAD_S for second in lit[-1:])])
        end = event.at_s + AFTER_S
        near = tuple(one for one in self.events if begin <= one.at_s <= end)
        return _steps(tuple(self._between(begin, end)), event.at_s, near)

    def _between(self, begin: float, end: float) -> Iterator[tuple[str, bytes, bytes]]:
        for name, (times, values) in self.channels.items():
            here = slice(*np.searchsorted(times, (begin, end)))
            yield name, times[here].tobytes(), values[here].tobytes()

    def near(self, kind: str, at_s: float) -> Event | None:
        """Return the event of ``kind`` that is nearest to ``at_s``, within a few seconds."""
        found = [event for event in self.events if event.kind == kind and abs(event.at_s - at_s) <= SAME_S]
        return min(found, key=lambda event: abs(event.at_s - at_s), default=None)


@lru_cache(maxsize=32)
def _steps(channels: tuple[tuple[str, bytes, bytes], ...], at_s: float, events: tuple[Event, ...]) -> tuple[Step, ...]:
    """Return the steps at an event. Kept: a page asks every few seconds, and an event that is over stays as it was."""
    read = {name: (np.frombuffer(times), np.frombuffer(values)) for name, times, values in channels}
    return steps_at(read, at_s, events)


def events_of(capture: Capture, start_s: float, end_s: float | None = None) -> EventsRead:
    """Return the events between two moments of a capture, s since it began."""
    channels = {name: both for name, both in traces(capture, start_s, end_s).items() if len(both[0])}
    marks = [Event(mark.kind, mark.at_ms / 1000) for mark in capture.marks.order_by("at_ms")]
    proposed = [event for event in propose_events(channels) if not any(_same(event, mark) for mark in marks)]
    return EventsRead(channels, tuple(sorted([*marks, *proposed], key=lambda e: e.at_s)), frozenset(marks))


def _same(one: Event, other: Event) -> bool:
    return one.kind == other.kind and abs(one.at_s - other.at_s) < SAME_S
