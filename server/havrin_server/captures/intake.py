"""Batches of samples as devices send them: stored, counted, told to every open page.

A dozen instruments send five times a second each, all at the same moment: this is the one place whose statements are
written by hand, for the model layer takes longer to write them than PostgreSQL to run them.
"""

import json
from dataclasses import dataclass, fields
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.db import connection, transaction
from django.db.models import Q

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase
from havrin_core.quantities.formats import number
from havrin_core.traces.samples import checked, pack
from havrin_core.vocabulary.channels import channel_name
from havrin_server.captures.live import hash_of
from havrin_server.captures.models import DeviceKey
from havrin_server.errors import NotAllowed, NotFound

CHANNEL = "havrin_capture"
_NOTIFY_BYTES = 7000  # PostgreSQL carries a little less than 8000 in one notice
CLOCK_JUMP_S = 2.0
LONGEST_WAY_S = 24 * 3600.0  # how long a sample may wait on a device before it is sent
FASTEST_HZ = 200.0
_USE_NOTED_EVERY = timedelta(minutes=1)
_MISSING_MOST = 50  # of these a device is asked for again

_RECORDER = """
SELECT r.id, k.id, k.used_at, f.sample_world, r.clock_offset_s, r.clock_error_s, r.last_sequence, r.missing, r.problems, r.instrument_id, r.capture_id, c.started_at, c.visit_id, u.label
FROM captures_devicekey k
JOIN captures_recorder r ON r.instrument_id = k.instrument_id
JOIN captures_capture c ON c.id = r.capture_id
JOIN visits_visit v ON v.id = c.visit_id
JOIN units_unit u ON u.id = v.unit_id
JOIN instruments_instrument i ON i.id = k.instrument_id
JOIN people_firm f ON f.id = i.firm_id
LEFT JOIN people_person p ON p.id = k.made_by_id
WHERE k.key_hash = %s AND c.ended_at IS NULL AND v.closed_at IS NULL AND (p.id IS NULL OR p.is_active)
ORDER BY c.started_at DESC LIMIT 1 FOR UPDATE OF r
"""
_BLOCK = """
INSERT INTO captures_sampleblock (recorder_id, quantity, sequence, first_ms, last_ms, count, packed)
VALUES (%s, %s, %s, %s, %s, %s, %s) ON CONFLICT DO NOTHING
"""
_HEARD = """
UPDATE captures_recorder SET heard_at = %s, simulated = simulated OR %s, clock_offset_s = %s, clock_error_s = %s, problems = %s, last_sequence = %s, missing = %s WHERE id = %s
"""
_TELL = "SELECT pg_notify(%s, %s)"


@dataclass(frozen=True, slots=True)
class Batch:
    """What a device sends: its clock when sending, a running number, and per channel times (its clock, s) and values (SI)."""

    device_time_s: float
    sequence: int
    channels: dict[str, tuple[Any, Any]]
    simulated: bool = False  # a stand-in made it up


@dataclass(frozen=True, slots=True)
class Taken:
    """The answer to a batch. What is not stored is not acknowledged; ``missing`` are numbers never seen."""

    recording: bool
    stored: bool
    missing: tuple[int, ...]
    problem: str = ""
    unit: str = ""  # label of the unit that is recorded


@dataclass(slots=True)
class _Recorder:
    """The row of the recorder that a batch belongs to, with its capture, visit and unit; columns as in _RECORDER."""

    id: int
    key: int
    key_used_at: datetime | None
    sample_world: bool
    clock_offset_s: float | None
    clock_error_s: float
    last_sequence: int | None
    missing: list[int]
    problems: list[str]
    instrument: int
    capture: UUID
    started_at: datetime
    visit: int
    unit: str


@transaction.atomic
def take_batch(key: str, batch: Batch, now: datetime) -> Taken:
    """Store a batch on the capture that the instrument of ``key`` records on, and tell every open page.

    Sent twice, it is stored once. Raises NotFound (no instrument has the key), BadDocument (a channel that cannot
    be), UnknownName (a quantity), NotAllowed (made up, for a real firm).
    """
    recorder = _recorder(key)
    if recorder is None:
        return Taken(recording=False, stored=False, missing=())
    if batch.simulated and not recorder.sample_world:
        raise NotAllowed("Made-up samples are taken in the sample world alone.", code="simulated_samples")
    before = recorder.clock_offset_s
    recorder.clock_offset_s, problem = _clock(before, batch, now)
    if before is not None and not problem:
        # an earlier batch was on its way for longer: its samples stand so much too late
        recorder.clock_error_s = max(recorder.clock_error_s, before - recorder.clock_offset_s)
    rows, sent = [], {}
    for name, (times, values) in batch.channels.items():
        seconds, numbers = checked(times, values, channel_name(name))
        if max(abs(seconds[0] - batch.device_time_s), abs(seconds[-1] - batch.device_time_s)) > LONGEST_WAY_S:
            raise BadDocument("batch_far", phrase("batch_far_from_clock", channel=channel_name(name)), value=name)
        problem = problem or _too_fast(seconds)
        milliseconds = [round(1000 * (t + recorder.clock_offset_s - recorder.started_at.timestamp())) for t in seconds]
        ends = (milliseconds[0], milliseconds[-1], len(numbers))
        rows.append((recorder.id, name, batch.sequence, *ends, pack(milliseconds, numbers)))
        sent[name] = (milliseconds, [float(f"{v:.6g}") for v in numbers])
    if problem and problem not in recorder.problems:
        recorder.problems.append(problem)
    _count(recorder, batch.sequence)
    _store(recorder, rows, _notice(recorder, batch.sequence, sent), now, batch.simulated)
    return Taken(True, True, tuple(recorder.missing), problem, recorder.unit)


def _recorder(key: str) -> _Recorder | None:
    """Return the recorder of the instrument of ``key``, locked; None while no visit records it. Raises NotFound."""
    with connection.cursor() as cursor:
        cursor.execute(_RECORDER, [hash_of(key)])
        row = cursor.fetchone()
    if row is None:
        if not DeviceKey.objects.filter(Q(made_by=None) | Q(made_by__is_active=True), key_hash=hash_of(key)).exists():
            raise NotFound("No instrument has this key.")
        return None
    columns: dict[str, Any] = dict(zip((field.name for field in fields(_Recorder)), row, strict=True))
    for name in ("missing", "problems"):  # JSON comes as text or read already, as the driver was set up
        if isinstance(columns[name], str):
            columns[name] = json.loads(columns[name])
    return _Recorder(**columns)


def _store(recorder: _Recorder, rows: list[tuple[Any, ...]], notice: str, now: datetime, simulated: bool) -> None:
    heard = (
        now,
        simulated,
        recorder.clock_offset_s,
        recorder.clock_error_s,
        json.dumps(recorder.problems),
        recorder.last_sequence,
        json.dumps(recorder.missing),
    )
    with connection.cursor() as cursor:
        cursor.executemany(_BLOCK, rows)
        cursor.execute(_HEARD, [*heard, recorder.id])
        cursor.execute(_TELL, [CHANNEL, notice])
        if recorder.key_used_at is None or now - recorder.key_used_at >= _USE_NOTED_EVERY:
            cursor.execute("UPDATE captures_devicekey SET used_at = %s WHERE id = %s", [now, recorder.key])


def _clock(before: float | None, batch: Batch, now: datetime) -> tuple[float, str]:
    """Return server minus device clock: the first one holds, so that a trace is not stretched, until the device jumps."""
    heard = now.timestamp() - batch.device_time_s
    if before is None or abs(heard - before) <= CLOCK_JUMP_S:
        return (heard if before is None else min(before, heard)), ""
    return heard, f"Its clock jumped by {number(heard - before, '+.1f')} s: set against the server’s anew."


def _too_fast(seconds: list[float]) -> str:
    span = seconds[-1] - seconds[0]
    if len(seconds) > 20 and span < (len(seconds) - 1) / FASTEST_HZ:
        return f"It sends more than {number(FASTEST_HZ, '.0f')} samples a second: all are kept, is that meant?"
    return ""


def _count(recorder: _Recorder, sequence: int) -> None:
    """Keep the list of batches that never came."""
    last = recorder.last_sequence
    if last is None:
        recorder.last_sequence = sequence
    elif sequence > last:
        recorder.missing = [*recorder.missing, *range(max(last + 1, sequence - _MISSING_MOST), sequence)][
            -_MISSING_MOST:
        ]
        recorder.last_sequence = sequence
    elif sequence in recorder.missing:
        recorder.missing = [number for number in recorder.missing if number != sequence]


def _notice(recorder: _Recorder, sequence: int, sent: dict[str, Any]) -> str:
    notice = {
        "visit": recorder.visit,
        "capture": str(recorder.capture),
        "instrument": recorder.instrument,
        "sequence": sequence,
    }
    text = json.dumps({**notice, "channels": sent}, separators=(",", ":"))
    # Too much for one notice: the page asks for the trace.
    return text if len(text) <= _NOTIFY_BYTES else json.dumps(notice)
