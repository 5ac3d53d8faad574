"""Finding a firm's instruments."""

from django.db.models import QuerySet

from havrin_server.errors import NotFound
from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Person


def instruments_of(person: Person) -> QuerySet[Instrument]:
    """Return the instruments of the person's firm by name."""
    return Instrument.objects.filter(firm_id=person.own_firm_id).select_related("firm").order_by("name")


def find_instrument(instrument_id: int, person: Person) -> Instrument:
    """Return an instrument. Raises NotFound, also for another firm's."""
    instrument = instruments_of(person).filter(pk=instrument_id).first()
    if instrument is None:
        raise NotFound("There is no such instrument in your firm.")
    return instrument
