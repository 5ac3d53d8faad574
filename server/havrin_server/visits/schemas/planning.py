"""Planning a visit."""

from datetime import date

from havrin_server.view_model import Incoming, ViewModel


class PlanIn(Incoming):
    """A visit to put on a round."""

    reason: str
    day: date
    complaint: str = ""


class PlannedOut(ViewModel):
    """The visit that was planned, and on whose round."""

    id: int
    day: date
    technician: str
