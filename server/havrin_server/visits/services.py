"""Use cases on a tape: write a line, correct, take in a bundle, close. Each in one transaction."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any

from django.db import transaction

from havrin_core.facts.plate_values import plate_changes
from havrin_core.machine.unit_model import merged_plate
from havrin_core.output import assessment_to_dict
from havrin_core.shorthand.model import Line
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.carry_over import left_open
from havrin_core.standing.model import Assessment
from havrin_core.standing.striking import wants_a_reason
from havrin_core.tape.documents import body_to_dict
from havrin_core.tape.entries import UNREADABLE, WAYS_LEFT, Body, Correction, Note, Reading, Said, Trace, kind_of
from havrin_core.vocabulary.instruments import instrument_for
from havrin_core.wording.closing import holds_words, standing_title
from havrin_core.wording.phrases import words
from havrin_server.errors import CannotClose, NotFound, NotWritable, VisitClosed, VisitMoved
from havrin_server.instruments.models import Instrument
from havrin_server.instruments.queries import find_instrument, in_hand
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.units.plates import own_plate
from havrin_server.versions.models import Sort
from havrin_server.versions.services import keep_change
from havrin_server.visits.bodies import body_of
from havrin_server.visits.causes import count_causes
from havrin_server.visits.chain import statement_of, store
from havrin_server.visits.left import note_left
from havrin_server.visits.models import TapeEntry, Visit
from havrin_server.visits.pins import moved_on, moved_words, pinned_document
from havrin_server.visits.queries import (
    assess_visit,
    judged_tape,
    left_open_document,
    past_document,
    situation,
    tape_of,
    visits_of,
)
from havrin_server.visits.seal import sealed

UNIT_SYSTEMS = ("us", "metric")


@dataclass(frozen=True, slots=True, kw_only=True)
class WriteLine:
    """A line as typed. ``line_id`` is made by the page: sending it twice writes it once."""

    visit_id: int
    line_id: uuid.UUID
    text: str
    stage: str | None
    phase: str
    at: datetime
    sent_at: datetime | None = None  # what the device's clock showed when it sent the line
    device: str = ""
    as_note: bool = False  # keep the words as they are, read or not
    instrument: int | None = None  # read with this one, where it is not the one in hand


@dataclass(frozen=True, slots=True, kw_only=True)
class CorrectEntry:
    """What an entry should have said; ``text`` None strikes it."""

    visit_id: int
    correction_id: uuid.UUID
    corrects: uuid.UUID
    text: str | None
    at: datetime
    why: str = ""
    sent_at: datetime | None = None
    device: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class CloseVisit:
    """The end of a visit. ``seen_version`` is what the page showed."""

    visit_id: int
    seen_version: int
    customer_words: str
    signed_by: str
    signature: Sequence[Sequence[Sequence[float]]]
    left: str | None = None  # how the unit is left, one of the core's WAYS_LEFT; None: as the tape says


@transaction.atomic
def write_line(command: WriteLine, *, actor: Person, now: datetime) -> Visit:
    """Append what the line says; return the visit as it stands then. Raises NotAllowed, NotFound, VisitClosed, NotWritable; then nothing is written."""
    require(actor, "visit.write")
    visit = locked_visit(command.visit_id, actor)
    if visit.entries.filter(group=command.line_id).exists():
        return visit  # sent twice: written already
    must_be_open(visit)
    line = _read(visit, command, actor)
    if not line.writable:
        raise not_writable(line)
    bodies = [entitled(body, actor) for body in line.bodies]
    append(
        visit,
        bodies,
        group=command.line_id,
        phase=line.phase,
        phases=line.phases,
        at=command.at,
        actor=actor,
        now=now,
        in_hand=_at_hand(visit, command, actor),
        sent_at=command.sent_at,
        device=command.device,
    )
    return visit


def _at_hand(visit: Visit, command: WriteLine, actor: Person) -> Mapping[str, Instrument]:
    """Return the instruments that a line was read with: those in hand on its day, and the one that it names itself."""
    held = in_hand(actor, local_day(visit, command.at))
    if command.instrument is None:
        return held
    named = find_instrument(command.instrument, actor)
    return held | {named.kind: named}


def not_writable(line: Line) -> NotWritable:
    """Return the refusal of a line that was not understood, with every question that it left."""
    reasons = [*(words(problem.text) for problem in line.problems), *(words(ask.question) for ask in line.asks)]
    if line.unread:
        reasons.append(f"Not understood: {' '.join(line.unread)}. It can be kept as a note.")
    return NotWritable(reasons[0] if reasons else "The line is empty.", details=reasons)


@transaction.atomic
def correct_entry(command: CorrectEntry, *, actor: Person, now: datetime) -> Visit:
    """Append a correction beside the entry; return the visit as it stands then. Raises as ``write_line``; NotFound when the entry is not on this tape."""
    require(actor, "visit.write")
    visit = locked_visit(command.visit_id, actor)
    if visit.entries.filter(group=command.correction_id).exists():
        return visit
    must_be_open(visit)
    target = visit.entries.filter(pk=command.corrects).first()
    if target is None:
        raise NotFound("That entry is not on this tape.")
    said = body_of(target.kind, target.data, target.schema)
    if isinstance(said, Said) and said.what == UNREADABLE:
        require(actor, "entry.set_aside")
        record("set_aside", actor, f"visit {visit.pk}, entry {target.pk}: {command.why.strip()}")
    if command.text is None and not command.why.strip():
        _must_say_why(said)
    replacement, phase = _replacement(visit, target, command.text, actor)
    body = Correction(str(command.corrects), replacement, phase, command.why.strip())
    append(
        visit,
        [body],
        group=command.correction_id,
        phase=phase or target.phase,
        at=command.at,
        actor=actor,
        now=now,
        sent_at=command.sent_at,
        device=command.device,
    )
    return visit


def _must_say_why(body: Body) -> None:
    """A danger is struck with a reason, which stays visible on the paper. Raises NotWritable."""
    if not isinstance(body, Correction) and wants_a_reason(body):
        raise NotWritable("Why is it struck? A danger is struck with a reason.", code="strike_reason")


def append(
    visit: Visit,
    bodies: Sequence[Body],
    *,
    group: uuid.UUID,
    phase: str,
    at: datetime,
    actor: Person,
    now: datetime,
    in_hand: Mapping[str, Instrument] | None = None,
    sent_at: datetime | None = None,
    device: str = "",
    phases: Sequence[str] = (),
) -> None:
    """Append ``bodies`` to a visit that the caller locked; entry ids follow from ``group``, so a second append is harmless.

    ``phases`` are those of each where they differ; else all are of ``phase``. ``in_hand`` are instruments by their kind.

    A tablet whose clock runs ahead writes at the server's time: the tape holds no future.
    """
    day = local_day(visit, at)
    used = [read_with(body, in_hand or {}) for body in bodies]
    # One microsecond apart, so that a line's entries keep the order they were typed in; the last one at the moment itself:
    # none is later than it was sent, where a clock put right would set all of them to the moment of receipt.
    first = min(at, now) - timedelta(microseconds=len(bodies) - 1)
    rows = [
        TapeEntry(
            id=uuid.uuid5(group, f"{visit.pk}/{index}"),
            visit=visit,
            unit_id=visit.unit_id,
            group=group,
            kind=kind_of(body),
            phase=phases[index] if phases else phase,
            at=first + timedelta(microseconds=index),
            zone=offset_at(visit, at),
            recorded_at=now,
            author=actor,
            instrument=used[index],
            out_of_calibration=_is_out(used[index], day),
            data=body_to_dict(body),
            sent_at=sent_at,
            device=device,
            **typed_columns(body),
        )
        for index, body in enumerate(bodies)
    ]
    begin(visit, actor, now)
    store(visit, rows)


def begin(visit: Visit, actor: Person, now: datetime) -> None:
    """A visit begins with its first entry: from then on it is judged by what it found.

    What was nobody's is from then on whose entry it is, and of today; what was cancelled meanwhile takes place all the same.
    """
    if visit.pinned is None:
        visit.pinned = pinned_document(visit, now)
        visit.save(update_fields=["pinned"])
    if visit.technician is None:
        visit.technician, visit.day = actor, local_day(visit, now)
        visit.save(update_fields=["technician", "day"])
    if visit.cancelled_at is not None:
        visit.cancelled_at = visit.cancelled_by = None
        visit.save(update_fields=["cancelled_at", "cancelled_by"])


@transaction.atomic
def close_visit(command: CloseVisit, *, actor: Person, now: datetime) -> Assessment:
    """Close the visit at its standing. Raises NotAllowed, VisitClosed, VisitMoved, CannotClose; then nothing changes."""
    require(actor, "visit.close")
    visit = locked_visit(command.visit_id, actor)
    if _is_closed_by(visit, command, actor):
        return assess_visit(visit)
    must_be_open(visit)
    if visit.version != command.seen_version:
        raise VisitMoved("Somebody wrote on this tape since you looked: read it once more, then close.")
    if command.left is not None and command.left not in WAYS_LEFT:
        raise NotWritable(f"A unit is left {', '.join(WAYS_LEFT)}, not {command.left!r}.", code="left_unknown")
    visit.left = command.left or ""
    tape = judged_tape(visit)
    found = assess_visit(visit, tape.entries)
    obstacles = closing_obstacles(found, command.signed_by)
    if obstacles:
        raise CannotClose(obstacles[0], details=obstacles)
    visit.left = found.leaving or "running"
    visit.opened_with = left_open_document(tape.before)
    visit.left_open = left_open_document(left_open(visit.described(), visit.rules(), tape, visit.left))
    visit.past = past_document(tape.entries)
    count_causes(visit, tape.entries)
    visit.frozen = {system: assessment_to_dict(found, visit.described(), system) for system in UNIT_SYSTEMS}
    body = Said("closed", f"{standing_title(found)}. Signed: {command.signed_by}", found.level)
    append(visit, [body], group=uuid.uuid4(), phase="left", at=now, actor=actor, now=now)
    visit.closed_at, visit.closed_by, visit.closed_level = now, actor, found.level
    visit.customer_words, visit.signed_by, visit.signature = (
        command.customer_words,
        command.signed_by,
        command.signature,
    )
    visit.seal = sealed(statement_of(visit))
    visit.save()
    note_left(visit.unit.merged_into_id or visit.unit_id)
    _keep_plate(visit, actor, now)
    return found


def _is_closed_by(visit: Visit, command: CloseVisit, actor: Person) -> bool:
    """Tell whether this very command closed the visit: its answer was lost on the way, and it comes once more."""
    return (
        visit.closed_at is not None
        and visit.closed_by_id == actor.pk
        and visit.signed_by == command.signed_by
        and visit.version == command.seen_version + 1  # the entry that the close itself wrote
    )


def _keep_plate(visit: Visit, actor: Person, now: datetime) -> None:
    """What the visit read off the plate belongs to the unit from now on, as its newest version."""
    changes = plate_changes(tape_of(visit))
    if not changes:
        return
    unit = visit.unit
    before = own_plate(unit)
    unit.plate = merged_plate(unit.plate, changes)
    unit.save(update_fields=["plate"])
    why = f"read off the plate on the visit of {visit.day}"
    firm_id = unit.site.firm_id
    keep_change(firm_id, Sort.UNIT, str(unit.pk), before, own_plate(unit), now=now, author=actor, reason=why)


@transaction.atomic
def judge_by_newest(visit_id: int, *, actor: Person, now: datetime) -> Visit:
    """Judge an open visit by the newest unit, model, kind, circuit and instruments; the tape says so.

    Raises NotAllowed, NotFound, VisitClosed. Where nothing is newer, nothing is written.
    """
    require(actor, "visit.write")
    visit = locked_visit(visit_id, actor)
    must_be_open(visit)
    newer = moved_on(visit)
    if newer:
        visit.pinned = None
        visit.pinned = pinned_document(visit, now)
        visit.save(update_fields=["pinned"])
        said = Note(f"Judged by the newest from here on: {'; '.join(map(moved_words, newer))}")
        append(visit, [said], group=uuid.uuid4(), phase="found", at=now, actor=actor, now=now)
    return visit


def closing_obstacles(found: Assessment, signed_by: str) -> list[str]:
    """Return what holds the visit open, in words; empty when it may close. What holds is the core's, a name the server's."""
    obstacles = holds_words(found)
    if not signed_by.strip():
        obstacles.append("Your name is missing: sign.")
    return obstacles


def locked_visit(visit_id: int, actor: Person) -> Visit:
    """Return a visit of the actor's firm, locked until the transaction ends. Raises NotFound."""
    visit = visits_of(actor).select_for_update(of=("self",)).filter(pk=visit_id).first()
    if visit is None:
        raise NotFound("There is no such visit in your firm.")
    return visit


def must_be_open(visit: Visit) -> None:
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; its tape takes no more entries.")


def _read(visit: Visit, command: WriteLine, actor: Person) -> Line:
    there = situation(visit, command.stage, command.phase, actor.unit_system)
    if command.as_note:
        return read_line(f"note {command.text}", there)
    return read_line(command.text, there)


def entitled(body: Body, actor: Person) -> Body:
    """Return ``body`` with the right it takes. Raises NotAllowed (a milder standing is a supervisor's)."""
    if isinstance(body, Said) and body.what == "override":
        require(actor, "standing.override")
        record("overridden", actor, body.text)
        return replace(body, by_supervisor=True)
    if isinstance(body, Correction) and body.replacement is not None:
        entitled(body.replacement, actor)  # an override by way of a correction needs the same right
    return body


def _replacement(visit: Visit, target: TapeEntry, text: str | None, actor: Person) -> tuple[Any, str | None]:
    if text is None:
        return None, None
    if target.kind == "correction":
        raise NotWritable("A correction can be struck, and the entry itself corrected again.")
    line = read_line(text, situation(visit, target.stage, target.phase, actor.unit_system))
    if not line.writable:
        raise not_writable(line)
    if len(line.bodies) != 1:
        raise NotWritable("A correction says one thing: one reading, one action.")
    return entitled(line.bodies[0], actor), line.phase


def typed_columns(body: Body) -> dict[str, Any]:
    if isinstance(body, Reading):
        return {"quantity": body.quantity, "value_si": body.value, "stage": body.stage}
    return {"stage": body.stage} if isinstance(body, Trace) else {}


def read_with(body: Body, in_hand: Mapping[str, Instrument]) -> Instrument | None:
    """Return which instrument ``in_hand`` (by kind) ``body`` was read with; None where none was, or it is not known."""
    if isinstance(body, Trace):
        return next(iter(in_hand.values()), None)  # a trace has one instrument, or it is not known which
    if not isinstance(body, Reading) or body.computed_from:
        return None
    return instrument_for(body.quantity, in_hand)


def _is_out(instrument: Instrument | None, day: date) -> bool:
    return instrument is not None and not instrument.in_date(day)


def local_day(visit: Visit, at: datetime) -> date:
    """Return the day that it was at the visit's place at ``at``."""
    return at.astimezone(visit.unit.site.zoneinfo()).date()


def offset_at(visit: Visit, at: datetime) -> str:
    """Return the offset from UTC, like -07:00, that clocks at the visit's place had at ``at``.

    A tablet set to another zone, and the server's own entries, stand on the tape at the place's time like all others.
    """
    return at.astimezone(visit.unit.site.zoneinfo()).isoformat()[-6:]


def open_visit_rules(actor: Person) -> dict[str, Any]:
    """Return the firm's rules as they are copied onto a visit that begins now."""
    assert actor.firm is not None
    return asdict(actor.firm.rules())
