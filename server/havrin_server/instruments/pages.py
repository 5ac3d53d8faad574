"""An instrument as data for the page."""

from django.utils import timezone

from havrin_server.instruments.models import Instrument
from havrin_server.instruments.schemas import InstrumentOut


def instrument_out(instrument: Instrument) -> InstrumentOut:
    """Return an instrument with whether its calibration is in date."""
    until = instrument.calibrated_until
    today = timezone.now().astimezone(instrument.firm.zoneinfo()).date()
    return InstrumentOut.of(instrument, in_date=until is not None and until >= today)
