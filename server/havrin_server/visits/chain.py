"""The chain over a visit's tape: what of an entry is in its link, and the links of entries that are about to be stored."""

from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from typing import Any

from havrin_core.tape.chain import BEGIN, Break, first_break, link, links
from havrin_core.tape.proof import signed_form
from havrin_server.visits.models import Amendment, TapeEntry, Visit
from havrin_server.visits.seal import holds, own_key, sealed


def record_of(entry: Any) -> dict[str, Any]:
    """Return all that is stored of an entry but its own link (any model of that table: migrations have their own)."""
    return {
        "visit": entry.visit_id,
        "unit": entry.unit_id,
        "number": entry.number,
        "id": str(entry.id),
        "group": str(entry.group),
        "schema": entry.schema,
        "kind": entry.kind,
        "phase": entry.phase,
        "stage": entry.stage,
        "quantity": entry.quantity,
        "value_si": entry.value_si,
        "at": _moment(entry.at),
        "zone": entry.zone,
        "recorded_at": _moment(entry.recorded_at),
        "sent_at": _moment(entry.sent_at),
        "device": entry.device,
        "author": entry.author_id,
        "instrument": entry.instrument_id,
        "out_of_calibration": entry.out_of_calibration,
        "data": entry.data,
    }


def _moment(at: datetime | None) -> str | None:
    return at.astimezone(UTC).isoformat(timespec="microseconds") if at else None


def store(visit: Visit, rows: Sequence[TapeEntry]) -> None:
    """Store rows as the next links of the tape of a visit that the caller locked; the visit counts them and keeps the head."""
    for number, row in enumerate(rows, visit.version + 1):
        row.number = number
    for row, found in zip(rows, links(map(record_of, rows), visit.head or BEGIN), strict=True):
        row.link = visit.head = found
    TapeEntry.objects.bulk_create(rows)
    visit.version += len(rows)
    visit.save(update_fields=["version", "head"])


def names_of(entries: Iterable[TapeEntry]) -> dict[str, dict[str, str]]:
    """Return who and what the records name by number: people and instruments as they are called now."""
    people, instruments = {}, {}
    for entry in entries:
        people[str(entry.author_id)] = entry.author.full_name
        if entry.instrument is not None:
            instruments[str(entry.instrument_id)] = entry.instrument.name
    return {"people": people, "instruments": instruments}


def statement_of(visit: Visit) -> dict[str, Any]:
    """Return what is signed when a visit is closed: which tape, how it was closed, and who and what it names."""
    return {
        "visit": visit.pk,
        "unit": visit.unit.name,
        "day": visit.day.isoformat(),
        "head": visit.head,
        "entries": visit.version,
        "closed_at": _moment(visit.closed_at),
        "level": visit.closed_level,
        "left": visit.left,
        "signed_by": visit.signed_by,
        "names": names_of(chained(visit)),
    }


def proof_of(visit: Visit) -> dict[str, Any]:
    """Return what proves a visit's tape, as it stands in a bundle: records, links, names, and the seal of a closed one."""
    rows = chained(visit)
    return {
        "records": [record_of(row) for row in rows],
        "links": [row.link for row in rows],
        "names": visit.seal["statement"]["names"] if visit.seal else names_of(rows),
        "seal": visit.seal,
    }


def amendment_record_of(row: Any) -> dict[str, Any]:
    """Return all that is stored of an amendment but its own link and seal."""
    return {
        "visit": row.visit_id,
        "number": row.number,
        "id": str(row.id),
        "author": row.author_id,
        "at": _moment(row.at),
        "zone": row.zone,
        "why": row.why,
        "entries": row.entries,
        "left_open": row.left_open,
    }


def keep_amendment(row: Amendment) -> None:
    """Store an amendment of a visit that the caller locked, linked behind the tape and what was said before, and sealed."""
    last = row.visit.amendments.order_by("-number").first()
    row.number = last.number + 1 if last else 1
    row.link = link(last.link if last else row.visit.head or BEGIN, amendment_record_of(row))
    row.seal = sealed(_statement_of_amendment(row))
    row.save(force_insert=True)


def _statement_of_amendment(row: Amendment) -> dict[str, Any]:
    said = {"visit": row.visit_id, "amendment": row.number, "link": row.link, "at": _moment(row.at)}
    return {**said, "author": row.author.full_name}


def amendments_hold(visit: Visit) -> bool:
    """Tell whether what was said of a visit since its close is what was kept: every link, and every seal that there is."""
    before = visit.head or BEGIN
    for number, row in enumerate(visit.amendments.order_by("number").select_related("author"), 1):
        before = link(before, amendment_record_of(row))
        if row.number != number or row.link != before or not (row.seal is None or _is_sealed(row)):
            return False
    return True


def _is_sealed(row: Amendment) -> bool:
    statement = row.seal["statement"]
    return statement["link"] == row.link and row.seal["key"] == own_key() and holds(signed_form(statement), row.seal)


def chained(visit: Visit) -> list[TapeEntry]:
    """Return the entries of a visit in the order of the chain."""
    return list(visit.entries.order_by("number").select_related("author", "instrument"))


def broken_at(visit: Visit, entries: Iterable[TapeEntry]) -> Break | None:
    """Return where the tape of a visit does not follow from itself; None where it holds and ends in the visit's head."""
    rows = list(entries)
    found = first_break([record_of(row) for row in rows], [row.link for row in rows])
    if found is None and (visit.head != (rows[-1].link if rows else "") or visit.version != len(rows)):
        return Break(len(rows) + 1, "")
    return found
