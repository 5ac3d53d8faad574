"""What the interface says before anything is touched."""

from typing import Literal

from pydantic import BaseModel as Schema

from havrin_server.api.schemas import EarlierVisit


class TriageOut(Schema):
    """One question of the first minute with the lines that answer it."""

    key: str
    question: str
    good: str
    bad: str
    begin: str
    answered: str


class LookOut(Schema):
    """A finding that can be written with two touches; ``weight`` is its level, 0 for a clearing look."""

    line: str
    text: str
    weight: int


class StopOut(Schema):
    """A station of the walk."""

    station: str
    name: str
    looks: list[LookOut]


class WalkOut(Schema):
    """A path of the walk."""

    path: str
    name: str
    stops: list[StopOut]


class CodeOut(Schema):
    """A code of the control's chart."""

    pattern: str
    meaning: str


class ArrivalOut(Schema):
    """The Arrival view of a visit. ``code_style`` tells whether the control flashes or shows digits."""

    triage: list[TriageOut]
    walks: list[WalkOut]
    codes: list[CodeOut]
    code_style: Literal["flashes", "digits"]
    code_note: str
    gas_smell: list[str]
    healthy: EarlierVisit | None
    refused: list[str]
