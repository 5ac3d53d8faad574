"""An instrument for the page."""

from datetime import date

from havrin_server.view_model import ViewModel


class InstrumentOut(ViewModel):
    """An instrument of the firm."""

    id: int
    name: str
    kind: str
    calibrated_until: date | None
    in_date: bool
