"""Marks on photos."""

from havrin_server.incoming import Incoming
from havrin_server.visits.schemas.visit import MarkIn


class MarksIn(Incoming):
    """All marks of a photo."""

    marks: list[MarkIn]
