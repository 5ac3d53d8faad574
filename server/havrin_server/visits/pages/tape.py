"""The tape as data for the page."""

from havrin_core.machine.unit import Unit
from havrin_core.tape.corrections import in_order, struck
from havrin_core.tape.entries import Correction, Entry, Reading
from havrin_core.wording.entries import describe
from havrin_core.wording.stations import line_again
from havrin_server.visits.schemas.visit import EntryOut


def tape_out(tape: tuple[Entry, ...], unit: Unit, system: str) -> list[EntryOut]:
    """Return the entries, newest first, each with what corrected it."""
    corrected = struck(tape)
    return [_entry(entry, corrected, unit, system) for entry in reversed(in_order(tape))]


def _entry(entry: Entry, corrected: dict[str, str], unit: Unit, system: str) -> EntryOut:
    said, body = describe(entry.body, system, unit.circuit), entry.body
    return EntryOut.of(
        entry,
        received_at=entry.received_at if entry.late else None,
        zone=entry.at.isoformat()[-6:],
        text=said.text,
        value=said.value,
        tone=said.tone,
        stage=getattr(body, "stage", None),
        corrected_by=corrected.get(entry.id),
        corrects=body.corrects if isinstance(body, Correction) else None,
        typed=line_again(body) if isinstance(body, Reading) else "",
    )
