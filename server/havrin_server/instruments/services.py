"""Taking instruments in hand: chosen once a day, one of each kind."""

from collections.abc import Sequence
from datetime import date

from django.db import transaction

from havrin_server.errors import NotFound, NotWritable
from havrin_server.instruments.models import InHand
from havrin_server.instruments.queries import instruments_of
from havrin_server.people.models import Person
from havrin_server.people.permissions import require


@transaction.atomic
def take_in_hand(instrument_ids: Sequence[int], day: date, *, actor: Person) -> None:
    """Note what ``actor`` works with on ``day``, instead of what was noted for it before.

    Raises NotAllowed, NotFound (another firm's), NotWritable (two of one kind); then nothing changes.
    """
    require(actor, "visit.write")
    chosen = list(instruments_of(actor).filter(pk__in=instrument_ids))
    if len(chosen) != len(set(instrument_ids)):
        raise NotFound("There is no such instrument in your firm.")
    if len({instrument.kind for instrument in chosen}) != len(chosen):
        raise NotWritable("One instrument of each kind is in hand: which of the two?", code="two_of_a_kind")
    InHand.objects.filter(person=actor, day=day).delete()
    rows = [InHand(person=actor, day=day, kind=one.kind, instrument=one) for one in chosen]
    InHand.objects.bulk_create(rows)
