"""The instruments as data for the page."""

from datetime import date

from havrin_core.vocabulary.instruments import INSTRUMENT_KINDS
from havrin_server.instruments.queries import in_hand_and_before, instruments_of
from havrin_server.instruments.schemas import InstrumentOut
from havrin_server.people.models import Person


def instruments_out(person: Person, day: date) -> list[InstrumentOut]:
    """Return the firm's instruments with whether they are in date on ``day``, in the person's hand, and were so before."""
    now, before = in_hand_and_before(person, day)
    return [
        InstrumentOut.of(
            one,
            kind_name=INSTRUMENT_KINDS.get(one.kind, one.kind),
            in_date=one.in_date(day),
            in_hand=one.pk in now,
            in_hand_before=one.pk in before,
            own=one.belongs_to(person),
        )
        for one in instruments_of(person)
    ]
