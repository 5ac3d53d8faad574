"""From a capture to the tape: means of a stretch, the step at an event, and the events that people mark."""

import uuid
from datetime import datetime

from django.db import transaction

from havrin_core.tape.entries import Body, Note, Proof, Trace
from havrin_core.traces.events import EVENTS
from havrin_core.traces.steady import window
from havrin_core.traces.steps import LOOK_S
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.phrases import words
from havrin_server.captures.dips import dips_of, dips_say, worst_of
from havrin_server.captures.events import AFTER_S, READ_S, events_of
from havrin_server.captures.live import on_one_clock, traces
from havrin_server.captures.means import bodies_of_means
from havrin_server.captures.models import Capture, EventMark
from havrin_server.errors import NotWritable, VisitClosed
from havrin_server.instruments.queries import by_kind
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.models import Visit
from havrin_server.visits.services import append

_STEPS = {"o2_dry_pct": "o2_step_pct", "co_ppm_dry": "co_step_ppm"}  # channel -> what its step is on the tape
_LONGEST_S = 7 * 86_400.0


@transaction.atomic
def write_means(
    capture: Capture,
    key: uuid.UUID,
    start_s: float,
    end_s: float,
    *,
    stage: str | None,
    phase: str,
    at: datetime,
    actor: Person,
    now: datetime,
) -> Visit:
    """Write the means of a stretch on the tape, with the capture attached; return the visit. Raises as ``start_capture``."""
    require(actor, "visit.write")
    visit = _locked(capture)
    if visit.entries.filter(group=key).exists():
        return visit
    series = on_one_clock(traces(capture, start_s, end_s))
    found = window(series, start_s, end_s) if series is not None else None
    if found is None or not found.means:
        raise NotWritable("Nothing was recorded between these two moments.", code="window_empty")
    recorded = [recorder.instrument for recorder in capture.recorders.select_related("instrument")]
    in_hand = by_kind(recorded if len(recorded) == 1 else [])
    bodies = bodies_of_means(str(capture.pk), stage, end_s - start_s, found.means)
    append(visit, bodies, group=key, phase=phase, at=at, actor=actor, now=now, in_hand=in_hand)
    return visit


@transaction.atomic
def write_step(
    capture: Capture,
    key: uuid.UUID,
    at_s: float,
    *,
    stage: str | None,
    phase: str,
    at: datetime,
    actor: Person,
    now: datetime,
) -> Visit:
    """Write the steps of O2 and CO at a blower start on the tape, with the capture attached; return the visit.

    Raises as ``write_means``; NotWritable too where no blower start is known there or no step can be told.
    """
    require(actor, "visit.write")
    visit = _locked(capture)
    if visit.entries.filter(group=key).exists():
        return visit
    read = events_of(capture, at_s - READ_S, at_s + AFTER_S)
    blower = read.near("blower_on", at_s)
    if blower is None:
        raise NotWritable("No blower start is known at this moment; mark it first.", code="step_no_blower")
    steps = {step.quantity: step for step in read.steps_at(blower)}
    if "o2_dry_pct" not in steps:
        raise NotWritable("O₂ was not recorded before and after this event.", code="step_empty")
    if steps["o2_dry_pct"].cannot_tell:
        raise NotWritable(words(steps["o2_dry_pct"].cannot_tell), code="step_not_told")
    seen = [
        (name, steps[quantity])
        for quantity, name in _STEPS.items()
        if quantity in steps and not steps[quantity].cannot_tell
    ]
    means = tuple((name, step.step, step.half_width / 2) for name, step in seen)
    bodies = [Trace(str(capture.pk), stage, 2 * LOOK_S, (row,)) for row in means]
    append(visit, bodies, group=key, phase=phase, at=at, actor=actor, now=now)
    return visit


@transaction.atomic
def write_dips(
    capture: Capture, key: uuid.UUID, quantity: str, *, phase: str, at: datetime, actor: Person, now: datetime
) -> Visit:
    """Write the worst of ``quantity`` (a channel), what its dips say, and the contact that let go; return the visit. Raises as ``write_means``."""
    require(actor, "visit.write")
    visit = _locked(capture)
    if visit.entries.filter(group=key).exists():
        return visit
    found = dips_of(capture, quantity)
    worst = worst_of(quantity, found) if found is not None else None
    if found is None or worst is None:
        raise NotWritable(
            "This channel has no worst value that stands on a tape, or nothing was recorded.", code="dips_empty"
        )
    if found.read.least is None:
        raise NotWritable("Nothing was recorded while it ran, so there is no worst value.", code="dips_never_ran")
    stage = found.stage if measurand(worst).staged else None
    said = " ".join([*dips_say(found, quantity, actor.unit_system), *found.said_of_contacts])
    bodies: list[Body] = [
        Trace(str(capture.pk), stage, found.read.watched_s, ((worst, found.read.least, 0.0),)),
        Note(said),
    ]
    if found.part:
        bodies.append(Proof("watch", False, device=found.part, outcome="bad"))
    append(visit, bodies, group=key, phase=phase, at=at, actor=actor, now=now)
    return visit


def mark_event(capture: Capture, key: uuid.UUID, kind: str, at_s: float, *, actor: Person, now: datetime) -> EventMark:
    """Mark an event on the trace; the same ``key`` twice is one mark. Raises NotAllowed, NotWritable."""
    require(actor, "visit.write")
    if kind not in EVENTS:
        raise NotWritable(f"No event is called {kind!r}: {', '.join(EVENTS)}.", code="event_unknown")
    if not 0 <= at_s < _LONGEST_S:
        raise NotWritable("An event lies between the begin of the capture and now.", code="event_time")
    made = {"capture": capture, "kind": kind, "at_ms": round(1000 * at_s), "marked_by": actor, "marked_at": now}
    return EventMark.objects.get_or_create(id=key, defaults=made)[0]


def _locked(capture: Capture) -> Visit:
    """Return the capture's visit, locked for writing. Raises VisitClosed."""
    rows = Visit.objects.select_for_update(of=("self",)).select_related("unit__site", "unit__model")
    visit = rows.get(pk=capture.visit_id)
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; its tape takes no more entries.")
    return visit
