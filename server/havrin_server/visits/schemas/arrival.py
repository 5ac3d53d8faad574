"""What the interface says before anything is touched."""

from datetime import date
from typing import Literal

from havrin_server.figures.schemas import Shown
from havrin_server.view_model import ViewModel, Words
from havrin_server.visits.schemas.visit import EarlierVisit


class TriageOut(ViewModel):
    """One question of the first minute with the lines that answer it."""

    key: str
    question: Words
    good: str
    bad: str
    begin: str
    answered: str


class CodeOut(ViewModel):
    """A code of the control's chart."""

    pattern: str
    meaning: str


class SpanOut(ViewModel):
    """A stretch of the axis of outdoor temperature, 0 to 1, and what may run there."""

    start: float
    end: float
    runs: Literal["gas", "pump", "both", "none"]
    name: Words


class MarkOut(ViewModel):
    """A mark on the axis."""

    at: float
    name: str
    text: str


class AxisOut(ViewModel):
    """Two sources of heat and their lock-outs."""

    spans: list[SpanOut]
    marks: list[MarkOut]
    ends: list[str]
    notes: list[Words]


class NeighbourOut(ViewModel):
    """Another unit on the same branch of the gas line, with its supply as last read while running."""

    unit: str
    supply: Shown | None
    day: date | None


class ArrivalOut(ViewModel):
    """The Arrival view of a visit. ``code_style`` tells how the control shows its codes."""

    triage: list[TriageOut]
    codes: list[CodeOut]
    code_style: str  # flashes, beats, colours or digits
    code_note: str
    gas_smell: list[str]
    healthy: EarlierVisit | None
    refused: list[str]
    code_first: bool  # a call for no heat: the board's code is read before anything else
    axis: AxisOut | None
    gas_line: str
    neighbours: list[NeighbourOut]
