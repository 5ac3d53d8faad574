"""An instrument for the page."""

from datetime import date

from pydantic import Field

from havrin_server.incoming import Incoming, Number
from havrin_server.view_model import ViewModel


class InstrumentOut(ViewModel):
    """An instrument of the firm: in date today, in the person's hand today and on the last day before, theirs or their van's."""

    id: int
    name: str
    kind: str
    kind_name: str
    calibrated_until: date | None
    in_date: bool
    in_hand: bool
    in_hand_before: bool
    own: bool


class InHandIn(Incoming):
    """What is worked with today: one of each kind."""

    instruments: list[Number] = Field(max_length=50)
