"""Captures for the page: traces reduced for drawing, dips with their order."""

from havrin_core.quantities.display import show
from havrin_core.quantities.units import shown_unit
from havrin_core.traces.events import EVENTS, Event, propose_events, steps_at
from havrin_core.traces.samples import channel_name, quantity_of
from havrin_core.traces.series import Series
from havrin_core.traces.steady import noise_of, reduce_for_drawing, still_stretch
from havrin_core.vocabulary.measurands import measurand
from havrin_server.captures.dips import dips_say, read_dips, stamp, worst_of
from havrin_server.captures.live import newest_s, on_one_clock, traces
from havrin_server.captures.models import Capture
from havrin_server.captures.schemas.live import (
    CaptureOut,
    ChannelOut,
    DipOut,
    DipsOut,
    RecorderOut,
    StepOut,
    StillOut,
    TraceEventOut,
    TraceReadingOut,
    TracesOut,
)
from havrin_server.figures.explained import shown_as
from havrin_server.figures.schemas import Shown

_POINTS = 600
_EVENTS_MOST = 8
_READ_S = 1200.0  # of a long trace only the end is read for events, every few seconds
_SAME_EVENT_S = 10.0  # a mark this near to a proposal of its kind is that event


def capture_out(capture: Capture) -> CaptureOut:
    """Return a capture with its instruments."""
    rows = capture.recorders.select_related("instrument")
    return CaptureOut.of(
        capture, recorders=[RecorderOut.of(r, instrument=r.instrument_id, name=r.instrument.name) for r in rows]
    )


def traces_out(capture: Capture, system: str, start_s: float | None, end_s: float | None) -> TracesOut:
    """Return the channels, each reduced to at most 1200 points that keep its dips and peaks."""
    found = traces(capture, start_s, end_s)
    channels = []
    for quantity, (times, values) in found.items():
        seconds, drawn = reduce_for_drawing(Series(times, {quantity: values}, ()), _POINTS)
        what = measurand(quantity_of(quantity))
        unit = shown_unit(what.dimension, system)
        last = show(float(values[-1]), what.dimension, system) if len(values) else None
        channels.append(
            ChannelOut(
                quantity=quantity,
                name=channel_name(quantity),
                unit=unit.symbol,
                scale=1 / unit.scale,
                offset=-unit.offset / unit.scale,
                decimals=unit.decimals,
                seconds=[round(float(s), 3) for s in seconds],
                values=[None if v != v else float(v) for v in drawn[quantity]],
                newest=Shown.of(last) if last else None,
                count=len(values),
            )
        )
    return TracesOut(capture=capture_out(capture), channels=channels)


def reading_out(capture: Capture, system: str) -> TraceReadingOut:
    """Return the still stretches and the events of a capture's last minutes, newest event first, each with what moved."""
    series = on_one_clock(traces(capture, newest_s(capture) - _READ_S))
    if series is None:
        return TraceReadingOut(together=None, each=[], events=[], kinds=dict(EVENTS))
    marks = [(Event(mark.kind, mark.at_ms / 1000), True) for mark in capture.marks.order_by("at_ms")]
    proposed = [(e, False) for e in propose_events(series) if not any(_same(e, mark) for mark, _ in marks)]
    newest = sorted([*marks, *proposed], key=lambda row: -row[0].at_s)[:_EVENTS_MOST]
    live = [name for name in series.channels if noise_of(name)]
    return TraceReadingOut(
        together=_still(series, live),
        each=[found for name in live if (found := _still(series, [name])) is not None],
        events=[_event(series, event, marked, system) for event, marked in newest],
        kinds=dict(EVENTS),
    )


def _same(one: Event, other: Event) -> bool:
    return one.kind == other.kind and abs(one.at_s - other.at_s) < _SAME_EVENT_S


def _still(series: Series, names: list[str]) -> StillOut | None:
    found = still_stretch(series, names)
    return found and StillOut(names=[channel_name(name) for name in names], start_s=found[0], end_s=found[1])


def _event(series: Series, event: Event, marked: bool, system: str) -> TraceEventOut:
    steps = []
    for step in steps_at(series, event.at_s):
        unit = "o2_step_pct" if step.quantity == "o2_dry_pct" else step.quantity
        steps.append(
            StepOut(
                quantity=step.quantity,
                name=channel_name(step.quantity),
                before=_shown(step.before, step.quantity, system),
                after=_shown(step.after, step.quantity, system),
                step=_difference(step.step, unit, system),
                confidence_pct=100 * step.confidence,
                writes=event.kind == "blower_on" and step.quantity == "o2_dry_pct",
            )
        )
    return TraceEventOut(
        kind=event.kind, name=EVENTS[event.kind], at_s=round(event.at_s, 1), marked=marked, steps=steps
    )


def _difference(value: float, quantity: str, system: str) -> Shown:
    dimension = measurand(quantity_of(quantity)).dimension
    shown = show(value, "temperature_difference" if dimension == "temperature" else dimension, system)
    return Shown(text=shown.text if shown.text.startswith("−") else f"+{shown.text}", unit=shown.unit)


def dips_out(capture: Capture, quantity: str, set_point: float | None, system: str) -> DipsOut:
    """Return the dips of a channel under ``set_point`` (canonical; the switch's stamp where none is given)."""
    found = read_dips(capture, quantity, set_point)
    if found is None:
        point = _shown(stamp(capture, quantity) if set_point is None else set_point, quantity, system)
        return DipsOut(
            set_point=point,
            worst=None,
            dips=[],
            watched_s=0,
            quiet_s=None,
            says="Nothing is recorded on this channel yet.",
            contacts=[],
            writes=False,
        )
    rows = [
        DipOut(
            at_s=round(dip.start_s, 2),
            long_s=round(dip.end_s - dip.start_s, 2),
            least=_shown(dip.least, quantity, system),
            depth=_shown(dip.depth, quantity, system),
            order=[channel_name(n) for n, _ in moved.order],
            still=[channel_name(n) for n in moved.still],
        )
        for dip, moved in zip(found.dips, found.moved, strict=False)
    ]
    return DipsOut(
        set_point=_shown(found.point, quantity, system),
        worst=_shown(found.least, quantity, system),
        dips=rows,
        watched_s=found.watched_s,
        quiet_s=found.quiet_s,
        says=dips_say(found, quantity, system),
        contacts=found.said_of_contacts,
        writes=worst_of(quantity, found) is not None,
    )


def _shown(value: float, quantity: str, system: str) -> Shown:
    return shown_as(value, measurand(quantity_of(quantity)).dimension, system)
