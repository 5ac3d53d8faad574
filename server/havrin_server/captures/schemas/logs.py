"""What the interface says and takes about analyzers' logs."""

from typing import Literal
from uuid import UUID

from pydantic import Field

from havrin_server.figures.schemas import RangeOut, Shown
from havrin_server.incoming import Incoming, Key, Moment, Number, Phase, Seconds, StageKey
from havrin_server.view_model import ViewModel


class ColumnOut(ViewModel):
    """How one quantity is read from a log."""

    quantity: str
    name: str
    column: int | None
    unit: str
    units: list[str]


class TraceOut(ViewModel):
    """Reduced series for drawing; None where a channel has no value."""

    seconds: list[float]
    channels: dict[str, list[float | None]]
    units: dict[str, str]
    light_off_s: float | None
    steady: RangeOut | None
    duration_s: float


class MeanOut(ViewModel):
    """A mean over a window."""

    quantity: str
    name: str
    mean: Shown
    scatter: str


class LogChoice(ViewModel):
    """One answer to a question about a log."""

    key: str
    label: str


class LogQuestion(ViewModel):
    """Something that a person has to say before a column, a number, a unit or the time of a log counts."""

    about: str
    quantity: str
    column: int | None
    text: str
    choices: list[LogChoice]


class LogPage(ViewModel):
    """A log: its layout, the mapping, and when mapped its trace."""

    id: UUID
    name: str
    size_bytes: int
    instrument: int | None
    headers: list[str]
    sample: list[list[str]]
    described: str
    columns: list[ColumnOut]
    time_columns: list[int]
    questions: list[LogQuestion]  # nothing of what they are about counts before they are answered
    remembered: bool
    problems: list[str]
    trace: TraceOut | None
    means: list[MeanOut]


class ColumnIn(Incoming):
    """A choice for one quantity."""

    column: Number
    unit: Key


class MappingIn(Incoming):
    """The columns that the person confirmed; a quantity that is not among them is not in this log."""

    columns: dict[Key, ColumnIn] = Field(max_length=80)


class AnswerIn(Incoming):
    """The answer to one question: its own words for it, and the key of the choice."""

    about: Literal["column", "unit", "numbers", "time", "session", "fuel", "sign"]
    quantity: Key = ""
    column: Number | None = None
    choice: str = Field(max_length=300)


class WindowIn(Incoming):
    """A window on a trace."""

    start_s: Seconds
    end_s: Seconds


class WriteMeansIn(WindowIn):
    """The window's means go onto the tape."""

    id: UUID
    stage: StageKey | None
    phase: Phase
    at: Moment
