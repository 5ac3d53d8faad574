"""Captures for the page: traces reduced for drawing, dips with their order."""

from havrin_core.quantities.display import show
from havrin_core.quantities.formats import number
from havrin_core.quantities.units import shown_unit
from havrin_core.traces.events import EVENTS, Event
from havrin_core.traces.series import Series
from havrin_core.traces.steady import noise_of, reduce_for_drawing, still_stretch
from havrin_core.traces.steps import Step
from havrin_core.vocabulary.channels import channel_name, quantity_of
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.phrases import words
from havrin_core.wording.traces import CLEAR, sureness
from havrin_server.captures.dips import dips_of, dips_say, stamp, worst_of
from havrin_server.captures.events import READ_S, EventsRead, events_of
from havrin_server.captures.live import newest_s, on_one_clock, traces
from havrin_server.captures.models import Capture
from havrin_server.captures.schemas.live import (
    CaptureOut,
    ChannelOut,
    DipOut,
    DipsOut,
    RecorderOut,
    StepOut,
    StepTold,
    StillOut,
    TraceEventOut,
    TraceReadingOut,
    TracesOut,
)
from havrin_server.figures.explained import shown_as
from havrin_server.figures.schemas import Shown

_POINTS = 600
_EVENTS_MOST = 8


def capture_out(capture: Capture) -> CaptureOut:
    """Return a capture with its instruments."""
    rows = capture.recorders.select_related("instrument")
    return CaptureOut.of(
        capture,
        simulated=any(row.simulated for row in rows),
        recorders=[RecorderOut.of(r, instrument=r.instrument_id, name=r.instrument.name) for r in rows],
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
    read = events_of(capture, newest_s(capture) - READ_S)  # of a long trace only the end, every few seconds
    series = on_one_clock(read.channels)
    if series is None:
        return TraceReadingOut(together=None, each=[], events=[], kinds=dict(EVENTS))
    live = [name for name in series.channels if noise_of(name)]
    newest = read.events[: -_EVENTS_MOST - 1 : -1]
    return TraceReadingOut(
        together=_still(series, live),
        each=[found for name in live if (found := _still(series, [name])) is not None],
        events=[_event(read, event, system) for event in newest],
        kinds=dict(EVENTS),
    )


def _still(series: Series, names: list[str]) -> StillOut | None:
    found = still_stretch(series, names)
    return found and StillOut(names=[channel_name(name) for name in names], start_s=found[0], end_s=found[1])


def _event(read: EventsRead, event: Event, system: str) -> TraceEventOut:
    return TraceEventOut(
        kind=event.kind,
        name=EVENTS[event.kind],
        at_s=round(event.at_s, 1),
        marked=event in read.marked,
        steps=[_step(step, event, system) for step in read.steps_at(event)],
    )


def _step(step: Step, event: Event, system: str) -> StepOut:
    unit = "o2_step_pct" if step.quantity == "o2_dry_pct" else step.quantity
    of_exchanger = event.kind == "blower_on" and step.quantity == "o2_dry_pct"
    if step.cannot_tell:
        return StepOut(
            quantity=step.quantity,
            name=channel_name(step.quantity),
            told=None,
            cannot_tell=words(step.cannot_tell),
            asked=of_exchanger,
            clear=False,
            writes=False,
        )
    told = StepTold(
        before=_shown(step.before, step.quantity, system),
        after=_shown(step.after, step.quantity, system),
        step=_difference(step.step, unit, system),
        half_width=_width(step.half_width, unit, system),
        confidence_pct=100 * step.confidence,
        sure=sureness(step),
    )
    return StepOut(
        quantity=step.quantity,
        name=channel_name(step.quantity),
        told=told,
        cannot_tell="",
        asked=of_exchanger,
        clear=step.confidence >= CLEAR,
        writes=of_exchanger,
    )


def _difference(value: float, quantity: str, system: str) -> Shown:
    shown = _width(value, quantity, system)
    return Shown(text=shown.text if shown.text.startswith("−") else f"+{shown.text}", unit=shown.unit)


def _width(value: float, quantity: str, system: str) -> Shown:
    dimension = measurand(quantity_of(quantity)).dimension
    shown = show(value, "temperature_difference" if dimension == "temperature" else dimension, system)
    return Shown(text=shown.text, unit=shown.unit)


def dips_out(capture: Capture, quantity: str, set_point: float | None, system: str) -> DipsOut:
    """Return the dips of a channel under ``set_point`` (canonical; the switch's stamp where none is given)."""
    found = dips_of(capture, quantity, set_point)
    if found is None:
        point = _shown(stamp(capture, quantity) if set_point is None else set_point, quantity, system)
        return DipsOut(
            set_point=point,
            worst=None,
            dips=[],
            watched_s=0,
            quiet_s=None,
            says=["Nothing is recorded on this channel yet."],
            contacts=[],
            clocks="",
            writes=False,
        )
    read = found.read
    rows = [
        DipOut(
            at_s=round(dip.start_s, 2),
            long_s=round(dip.end_s - dip.start_s, 2),
            half_width_s=round(dip.half_width_s, 2),
            reversed=dip.reversed,
            least=_shown(dip.least, quantity, system),
            depth=_shown(dip.depth, quantity, system),
            order=[channel_name(n) for n, _ in moved.order],
            still=[channel_name(n) for n in moved.still],
        )
        for dip, moved in zip(read.dips, found.moved, strict=False)
    ]
    return DipsOut(
        set_point=_shown(found.point, quantity, system),
        worst=None if read.least is None else _shown(read.least, quantity, system),
        dips=rows,
        watched_s=read.watched_s,
        quiet_s=found.quiet_s,
        says=list(dips_say(found, quantity, system)),
        contacts=found.said_of_contacts,
        clocks=_clocks(found.clock_error_s) if found.contacts else "",
        writes=worst_of(quantity, found) is not None,
    )


def _clocks(error_s: float) -> str:
    return f"The instruments’ clocks may lie {number(error_s, '.2f')} s apart." if error_s else ""


def _shown(value: float, quantity: str, system: str) -> Shown:
    return shown_as(value, measurand(quantity_of(quantity)).dimension, system)
