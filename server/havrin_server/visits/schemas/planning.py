"""Planning a visit."""

from datetime import date

from havrin_server.incoming import Day, Incoming, Key
from havrin_server.view_model import ViewModel


class PlanIn(Incoming):
    """A visit to put on a round."""

    reason: Key
    day: Day
    complaint: str = ""


class PlannedOut(ViewModel):
    """The visit that was planned, and on whose round."""

    id: int
    day: date
    technician: str
