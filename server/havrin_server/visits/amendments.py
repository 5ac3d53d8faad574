"""What is said of a visit after it was closed: an entry of its own, with its own date and paper. The close stands."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db import transaction

from havrin_core.shorthand.reader import read_line
from havrin_core.standing.carry_over import left_open
from havrin_core.tape.documents import entry_from_dict, entry_to_dict
from havrin_core.tape.entries import Entry
from havrin_core.tape.visit import LeftOpen, VisitTape
from havrin_server.errors import NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.chain import keep_amendment
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.queries import (
    accuracies_of,
    left_open_document,
    left_open_from,
    open_before,
    situation,
    tape_of,
)
from havrin_server.visits.services import entitled, locked_visit, not_writable, offset_at
from havrin_server.visits.zones import in_zone

MOST_LINES = 40


@dataclass(frozen=True, slots=True)
class AmendLine:
    """A line as typed; ``as_note`` keeps its words as they are."""

    text: str
    as_note: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Amend:
    """What is said of a closed visit, and why now. Sending it twice keeps it once."""

    visit_id: int
    amendment_id: uuid.UUID
    lines: Sequence[AmendLine]
    why: str
    at: datetime


@transaction.atomic
def amend(command: Amend, *, actor: Person, now: datetime) -> Amendment:
    """Keep an amendment. Raises NotAllowed, NotFound, NotWritable (visit open, no reason, a line not understood).

    It lifts nothing: what the visit left open stays open, and what the lines bring to light is added to it.
    """
    require(actor, "visit.write")
    visit = locked_visit(command.visit_id, actor)
    known = Amendment.objects.filter(pk=command.amendment_id).first()
    if known is not None:
        return known
    _check(visit, command)
    at = min(command.at, now)
    entries = [entry for number, _ in enumerate(command.lines) for entry in _read(visit, command, number, actor, at)]
    made = Amendment(
        id=command.amendment_id,
        visit=visit,
        author=actor,
        at=at,
        zone=offset_at(visit, at),
        why=command.why.strip(),
        entries=[entry_to_dict(entry) for entry in entries],
        left_open=left_open_document(_brought_to_light(visit, tuple(entries))),
    )
    keep_amendment(made)
    return made


def entries_of(amendment: Amendment) -> tuple[Entry, ...]:
    """Return the entries of an amendment as the core reads them."""
    rows = (entry_from_dict(row, "amendment") for row in amendment.entries)
    return tuple(entry for entry in rows)


def written_at(amendment: Amendment) -> datetime:
    """Return when it was written, by its writer's clock."""
    return in_zone(amendment.at, amendment.zone)


def _check(visit: Visit, command: Amend) -> None:
    if visit.closed_at is None:
        raise NotWritable("This visit is still open: write on its tape.", code="visit_open")
    if not command.why.strip():
        raise NotWritable("Why is it amended? A reason is kept with it.", code="amendment_reason")
    if not 1 <= len(command.lines) <= MOST_LINES:
        raise NotWritable(f"An amendment has 1 to {MOST_LINES} lines.", code="amendment_lines")


def _read(visit: Visit, command: Amend, number: int, actor: Person, at: datetime) -> list[Entry]:
    given = command.lines[number]
    text = f"note {given.text}" if given.as_note else given.text
    line = read_line(text, situation(visit, None, "left", actor.unit_system))
    if not line.writable:
        refusal = not_writable(line)
        raise NotWritable(f"Line {number + 1}: {refusal.message}", code=refusal.code, details=refusal.details)
    return [
        Entry(
            str(uuid.uuid5(command.amendment_id, f"{number}/{index}")),
            in_zone(at + timedelta(milliseconds=number, microseconds=index), offset_at(visit, at)),
            actor.full_name,
            phase,
            entitled(body, actor),
            str(command.amendment_id),
        )
        for index, (body, phase) in enumerate(zip(line.bodies, line.phase_of_each, strict=True))
    ]


def _brought_to_light(visit: Visit, entries: tuple[Entry, ...]) -> LeftOpen:
    earlier = tuple(e for row in visit.amendments.order_by("at") for e in entries_of(row))
    tape = VisitTape(visit.reason, (*tape_of(visit), *earlier, *entries), accuracies_of(visit), open_before(visit))
    after = left_open(visit.described(), visit.rules(), tape, visit.left or None)
    before = left_open_from(visit.left_open)
    known = {entry.id for entry in before.entries}
    return LeftOpen(
        tuple(entry for entry in after.entries if entry.id not in known),
        tuple(proof for proof in after.owed if proof not in before.owed),
    )
