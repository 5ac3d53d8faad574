"""Use cases of live capture: attach instruments to a visit, read the traces back. Batches come in by intake.py."""

import hashlib
import secrets
import uuid
from datetime import datetime, timedelta
from typing import TextIO

import numpy as np
from django.db import transaction
from django.db.models import Max

from havrin_core.traces.samples import MOST_SAMPLES, joined, pack
from havrin_core.traces.samples_csv import chunks, read_samples
from havrin_core.traces.series import Channels, Floats, Series
from havrin_server.captures.models import Capture, DeviceKey, Recorder, SampleBlock
from havrin_server.errors import NotFound, NotWritable, VisitClosed
from havrin_server.instruments.models import Instrument
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import find_visit

_MOST_EVEN = 1_000_000  # points of a trace on one even clock: of a recording of days they lie further apart


@transaction.atomic
def make_key(instrument: Instrument, now: datetime, *, actor: Person | None = None) -> str:
    """Return a new key for the instrument's program; the one before stops working. It is shown once, never again.

    ``actor`` is None for a command. Raises NotAllowed.
    """
    if actor is not None:
        require(actor, "shop.write")
    key = secrets.token_urlsafe(24)
    made = {"key_hash": hash_of(key), "made_at": now, "made_by": actor, "used_at": None}
    DeviceKey.objects.update_or_create(instrument=instrument, defaults=made)
    record("key_made", actor, instrument.name, name="command line", firm=instrument.firm)
    return key


@transaction.atomic
def revoke_key(instrument: Instrument, *, actor: Person) -> None:
    """Take the key of the instrument's program back; where there is none that is harmless. Raises NotAllowed."""
    require(actor, "shop.write")
    if DeviceKey.objects.filter(instrument=instrument).delete()[0]:
        record("key_revoked", actor, instrument.name)


@transaction.atomic
def start_capture(visit_id: int, instruments: list[int], stage: str, *, actor: Person, now: datetime) -> Capture:
    """Attach instruments to the visit; what they recorded on before ends. Raises NotAllowed, NotFound, VisitClosed."""
    require(actor, "visit.write")
    visit = find_visit(visit_id, actor)
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; nothing is recorded on it any more.")
    chosen = list(Instrument.objects.filter(firm_id=actor.own_firm_id, pk__in=instruments))
    if not chosen or len(chosen) != len(set(instruments)):
        raise NotWritable("Choose instruments of your firm.", code="instruments_unknown")
    Capture.objects.filter(ended_at=None, recorders__instrument__in=chosen).update(ended_at=now)
    capture = Capture.objects.create(id=uuid.uuid4(), visit=visit, started_at=now, started_by=actor)
    Recorder.objects.bulk_create([Recorder(capture=capture, instrument=i, stage=stage) for i in chosen])
    return capture


@transaction.atomic
def take_csv(visit_id: int, instrument_id: int, text: TextIO, *, actor: Person, now: datetime) -> Capture:
    """Keep the samples of a CSV file as an ended capture of the visit. Raises as ``start_capture``, and BadDocument."""
    channels = read_samples(text)
    capture = start_capture(visit_id, [instrument_id], "", actor=actor, now=now)
    lasts = max(times[-1] for times, _ in channels.values())
    recorder = capture.recorders.get()
    blocks = [
        SampleBlock(
            recorder=recorder,
            quantity=quantity,
            sequence=number,
            first_ms=milliseconds[0],
            last_ms=milliseconds[-1],
            count=len(numbers),
            packed=pack(milliseconds, numbers),
        )
        for quantity, (times, values) in channels.items()
        for number, (milliseconds, numbers) in enumerate(chunks(times, values, MOST_SAMPLES))
    ]
    SampleBlock.objects.bulk_create(blocks, batch_size=500)
    Recorder.objects.filter(pk=recorder.pk).update(heard_at=now, problems=["Read in from a file."])
    Capture.objects.filter(pk=capture.pk).update(started_at=now - timedelta(seconds=lasts), ended_at=now)
    capture.refresh_from_db()
    return capture


def end_capture(capture: Capture, *, actor: Person, now: datetime) -> None:
    """End a capture; ending it twice is harmless. Raises NotAllowed."""
    require(actor, "visit.write")
    Capture.objects.filter(pk=capture.pk, ended_at=None).update(ended_at=now)


def hash_of(key: str) -> str:
    """Return what is kept of a key."""
    return hashlib.sha256(key.encode()).hexdigest()


def find_capture(capture_id: uuid.UUID, person: Person) -> Capture:
    """Return a capture of the person's firm. Raises NotFound."""
    rows = Capture.objects.filter(visit__unit__site__firm_id=person.own_firm_id).select_related(
        "visit__unit__site", "visit__unit__model"
    )
    capture = rows.filter(pk=capture_id).first()
    if capture is None:
        raise NotFound("There is no such capture in your firm.")
    return capture


def captures_of(visit: Visit) -> list[Capture]:
    """Return the visit's captures, newest first."""
    return list(visit.captures.order_by("-started_at").prefetch_related("recorders__instrument"))


def traces(
    capture: Capture, start_s: float | None = None, end_s: float | None = None
) -> dict[str, tuple[Floats, Floats]]:
    """Return (seconds since the capture began, values) by quantity, between two moments where they are given."""
    rows = SampleBlock.objects.filter(recorder__capture=capture)
    if start_s is not None:
        rows = rows.filter(last_ms__gte=1000 * start_s)
    if end_s is not None:
        rows = rows.filter(first_ms__lte=1000 * end_s)
    packed: dict[str, list[bytes]] = {}
    for quantity, block in (
        rows.order_by("first_ms", "quantity").values_list("quantity", "packed").iterator(chunk_size=5000)
    ):
        packed.setdefault(quantity, []).append(bytes(block))
    return {quantity: joined(blocks) for quantity, blocks in packed.items()}


def clock_error_s(capture: Capture) -> float:
    """Return how far the clocks of the capture's instruments may lie apart, s; 0 where one alone recorded."""
    errors = sorted(capture.recorders.values_list("clock_error_s", flat=True))
    return sum(errors[-2:]) if len(errors) > 1 else 0.0


def newest_s(capture: Capture) -> float:
    """Return the moment of the newest sample, s since the capture began; 0 where nothing came yet."""
    newest = SampleBlock.objects.filter(recorder__capture=capture).aggregate(newest=Max("last_ms"))["newest"]
    return (newest or 0) / 1000


def on_one_clock(found: Channels, step_s: float = 0.1) -> Series | None:
    """Return all channels on one even clock, gaps longer than five steps left empty; None where nothing was recorded."""
    ends = [times[-1] for times, _ in found.values() if len(times)]
    if not ends:
        return None
    begin = min(times[0] for times, _ in found.values() if len(times))
    step_s = max(step_s, (max(ends) - begin) / _MOST_EVEN)
    seconds = np.arange(begin, max(ends) + step_s / 2, step_s)
    return Series(seconds, {name: _even(seconds, times, values, step_s) for name, (times, values) in found.items()}, ())


def _even(seconds: Floats, times: Floats, values: Floats, step_s: float) -> Floats:
    even = np.interp(seconds, times, values)
    after = np.searchsorted(times, seconds).clip(1, len(times) - 1)
    distance = (
        np.minimum(np.abs(seconds - times[after - 1]), np.abs(times[after] - seconds))
        if len(times) > 1
        else np.abs(seconds - times[0])
    )
    return np.where(distance <= max(5 * step_s, 1.5), even, np.nan)
