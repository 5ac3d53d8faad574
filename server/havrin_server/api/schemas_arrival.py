"""What the interface says before anything is touched."""

from datetime import date
from typing import Literal

from pydantic import BaseModel as Schema

from havrin_server.api.schemas import EarlierVisit, Shown


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


class SpanOut(Schema):
    """A stretch of the axis of outdoor temperature, 0 to 1, and what may run there."""

    start: float
    end: float
    runs: Literal["gas", "pump", "both", "none"]
    name: str


class MarkOut(Schema):
    """A mark on the axis."""

    at: float
    name: str
    text: str


class AxisOut(Schema):
    """Two sources of heat and their lock-outs."""

    spans: list[SpanOut]
    marks: list[MarkOut]
    ends: list[str]
    notes: list[str]


class NeighbourOut(Schema):
    """Another unit on the same branch of the gas line, with its supply as last read while running."""

    unit: str
    supply: Shown | None
    day: date | None


class ArrivalOut(Schema):
    """The Arrival view of a visit. ``code_style`` tells how the control shows its codes."""

    triage: list[TriageOut]
    walks: list[WalkOut]
    codes: list[CodeOut]
    code_style: Literal["flashes", "beats", "colours", "digits"]
    code_note: str
    gas_smell: list[str]
    healthy: EarlierVisit | None
    refused: list[str]
    axis: AxisOut | None
    gas_line: str
    neighbours: list[NeighbourOut]
