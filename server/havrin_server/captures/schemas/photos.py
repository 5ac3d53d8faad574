"""Marks on photos."""

from pydantic import BaseModel

from havrin_server.visits.schemas.visit import MarkIn


class MarksIn(BaseModel):
    """All marks of a photo."""

    marks: list[MarkIn]
