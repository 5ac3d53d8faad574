"""Finding a firm's instruments."""

from collections.abc import Iterable
from datetime import date

from django.db.models import QuerySet

from havrin_core.vocabulary.instruments import INSTRUMENT_KINDS
from havrin_server.errors import NotFound
from havrin_server.instruments.models import InHand, Instrument
from havrin_server.people.models import Person


def instruments_of(person: Person) -> QuerySet[Instrument]:
    """Return the instruments that the person's firm works with, by name."""
    return (
        Instrument.objects.filter(firm_id=person.own_firm_id, retired_at=None).select_related("firm").order_by("name")
    )


def find_instrument(instrument_id: int, person: Person) -> Instrument:
    """Return an instrument. Raises NotFound, also for another firm's."""
    instrument = instruments_of(person).filter(pk=instrument_id).first()
    if instrument is None:
        raise NotFound("There is no such instrument in your firm.")
    return instrument


def in_hand(person: Person, day: date) -> dict[str, Instrument]:
    """Return what the person works with on ``day``, by kind; empty when nothing was chosen for that day."""
    rows = InHand.objects.filter(person=person, day=day).select_related("instrument")
    return {row.kind: row.instrument for row in rows}


def in_hand_and_before(person: Person, day: date) -> tuple[set[int], set[int]]:
    """Return the ids of what the person works with on ``day``, and of what they worked with on the last such day before it."""
    rows = InHand.objects.filter(person=person, day__lte=day).order_by("-day").values_list("day", "instrument_id")
    newest = list(rows[: 2 * len(INSTRUMENT_KINDS)])  # one of a kind a day: two days are among them
    before = next((chosen for chosen, _ in newest if chosen < day), None)
    return {one for chosen, one in newest if chosen == day}, {one for chosen, one in newest if chosen == before}


def by_kind(instruments: Iterable[Instrument]) -> dict[str, Instrument]:
    """Return instruments by their kind."""
    return {instrument.kind: instrument for instrument in instruments}
