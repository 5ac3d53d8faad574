"""What the interface says and takes about analyzers' logs."""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel as Schema

from havrin_server.api.schemas import Phase, RangeOut, Shown


class ColumnOut(Schema):
    """How one quantity is read from a log."""

    quantity: str
    name: str
    column: int | None
    unit: str
    units: list[str]


class TraceOut(Schema):
    """Reduced series for drawing; None where a channel has no value."""

    seconds: list[float]
    channels: dict[str, list[float | None]]
    units: dict[str, str]
    light_off_s: float | None
    steady: RangeOut | None
    duration_s: float


class MeanOut(Schema):
    """A mean over a window."""

    quantity: str
    name: str
    mean: Shown
    scatter: str


class LogPage(Schema):
    """A log: its layout, the mapping, and when mapped its trace."""

    id: UUID
    name: str
    size_bytes: int
    instrument: int | None
    headers: list[str]
    sample: list[list[str]]
    described: str
    columns: list[ColumnOut]
    time_column: int | None
    remembered: bool
    problems: list[str]
    trace: TraceOut | None
    means: list[MeanOut]


class ColumnIn(Schema):
    """A choice for one quantity."""

    column: int
    unit: str


class MappingIn(Schema):
    """The columns that the person confirmed."""

    columns: dict[str, ColumnIn]
    time_column: int | None


class WindowIn(Schema):
    """A window on a trace."""

    start_s: float
    end_s: float


class WriteMeansIn(WindowIn):
    """The window's means go onto the tape."""

    id: UUID
    stage: str | None
    phase: Phase
    at: datetime
