"""Closed visits of earlier days: what they left open, and what they were judged by, stored as a close stores it today."""

from django.db import transaction
from django.utils import timezone

from havrin_core.output import assessment_to_dict
from havrin_core.rules.model import NOT_YET
from havrin_core.standing.assess import assess
from havrin_core.standing.carry_over import left_open
from havrin_core.tape.entries import MADE_SAFE, RUNNING
from havrin_server.visits.left import note_what_is_not_noted
from havrin_server.visits.models import Visit
from havrin_server.visits.pins import pinned_document
from havrin_server.visits.queries import judged_tape, left_open_document, past_document
from havrin_server.visits.services import UNIT_SYSTEMS


@transaction.atomic
def store_what_was_left() -> int:
    """Fill what closes did not store yet, oldest first, so that each visit sees what the one before it left; return how many."""
    rows = Visit.objects.filter(closed_at__isnull=False, left_open__isnull=True).select_related(
        "unit__site", "unit__model"
    )
    count = 0
    for visit in rows.order_by("closed_at", "pk"):
        _store(visit)
        count += 1
    note_what_is_not_noted()
    return count


def _store(visit: Visit) -> None:
    visit.left = MADE_SAFE if (visit.closed_level or 1) >= NOT_YET else RUNNING
    tape, unit = judged_tape(visit), visit.described()
    visit.opened_with = left_open_document(tape.before)
    visit.left_open = left_open_document(left_open(unit, visit.rules(), tape, visit.left))
    visit.past = past_document(tape.entries)
    visit.pinned = pinned_document(visit, timezone.now())
    found = assess(unit, visit.rules(), tape, visit.left)
    frozen = {system: assessment_to_dict(found, unit, system) for system in UNIT_SYSTEMS}
    # the level under which it was signed stands, whatever today's rules would say of it
    visit.frozen = {system: {**row, "level": visit.closed_level or row["level"]} for system, row in frozen.items()}
    visit.save(update_fields=["left", "opened_with", "left_open", "past", "pinned", "frozen"])
