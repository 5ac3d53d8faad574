"""Planning a visit."""

from datetime import date

from havrin_server.incoming import Day, Incoming
from havrin_server.view_model import ViewModel


class PlanIn(Incoming):
    """A visit to put on a round."""

    reason: str
    day: Day
    complaint: str = ""


class PlannedOut(ViewModel):
    """The visit that was planned, and on whose round."""

    id: int
    day: date
    technician: str
