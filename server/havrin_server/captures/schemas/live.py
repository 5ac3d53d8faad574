"""What the interface says and takes of live capture. The device side is described in docs/capture.md."""

import uuid
from datetime import datetime
from typing import Any, Literal

from pydantic import Field

from havrin_server.figures.schemas import Shown
from havrin_server.incoming import Incoming, Key, Moment, Number, Phase, Seconds, StageKey
from havrin_server.view_model import ViewModel


class ChannelSamples(Incoming):
    """Samples of one channel: the device's own seconds, and values in the quantity's canonical unit."""

    t: list[Any] = Field(max_length=10_000)
    v: list[Any] = Field(max_length=10_000)


class BatchIn(Incoming):
    """A batch as a device sends it."""

    device_time_s: float = Field(ge=-1e11, le=1e11)
    sequence: Number
    channels: dict[Key, ChannelSamples] = Field(max_length=40)
    simulated: bool = False  # of a stand-in: taken in the sample world alone


class BatchOut(ViewModel):
    """What became of it. Send again whatever is in ``missing`` and still at hand."""

    recording: bool
    stored: bool
    missing: list[int]
    problem: str
    unit: str


class CaptureIn(Incoming):
    """Which instruments record, and at which stage."""

    instruments: list[Number] = Field(max_length=50)
    stage: StageKey | Literal[""] = ""


class RecorderOut(ViewModel):
    """An instrument of a capture."""

    instrument: int
    name: str
    heard_at: datetime | None
    problems: list[str]


class CaptureOut(ViewModel):
    """A capture of a visit."""

    id: uuid.UUID
    started_at: datetime
    ended_at: datetime | None
    simulated: bool  # whether a stand-in made up what it holds
    recorders: list[RecorderOut]


class ChannelOut(ViewModel):
    """One channel reduced for drawing: canonical values with the factor and offset to the shown unit."""

    quantity: str
    name: str
    unit: str
    scale: float
    offset: float
    decimals: int
    seconds: list[float]
    values: list[float | None]
    newest: Shown | None
    count: int


class DipOut(ViewModel):
    """A dip under the set point: when, how long, how deep, and which channels moved, the first one first."""

    at_s: float
    long_s: float
    half_width_s: float  # of begin and end
    reversed: bool  # it turned round: a value of the other sign
    least: Shown
    depth: Shown
    order: list[str]
    still: list[str]


class DipsOut(ViewModel):
    """What a trace says against a set point."""

    set_point: Shown
    worst: Shown | None
    dips: list[DipOut]
    watched_s: float
    quiet_s: float | None
    says: list[str]
    contacts: list[str]  # what the dips say of the contacts of the string
    clocks: str  # how far the instruments' clocks may lie apart
    writes: bool  # the worst of this channel can go on the tape


class EventIn(Incoming):
    """An event that a person marks."""

    id: uuid.UUID
    kind: Key
    at_s: Seconds


class DipsIn(Incoming):
    """Write the worst of a channel on the tape, with what its dips say."""

    id: uuid.UUID
    quantity: Key
    phase: Phase = "found"
    at: Moment


class StepIn(Incoming):
    """Write the O2 step at an event on the tape."""

    id: uuid.UUID
    at_s: Seconds
    stage: StageKey | None = None
    phase: Phase = "found"
    at: Moment


class StepTold(ViewModel):
    """A step with what it is worth: ± is half of its 95 % interval."""

    before: Shown
    after: Shown
    step: Shown
    half_width: Shown
    confidence_pct: float
    sure: str


class StepOut(ViewModel):
    """What a channel did at an event; where it cannot be told, why.

    ``asked``: it is the step that a blower's start is for. ``clear``: it is told, and more than noise.
    """

    quantity: str
    name: str
    told: StepTold | None
    cannot_tell: str
    asked: bool
    clear: bool
    writes: bool


class TraceEventOut(ViewModel):
    """An event, marked by a person or proposed by the trace."""

    kind: str
    name: str
    at_s: float
    marked: bool
    steps: list[StepOut]


class StillOut(ViewModel):
    """A stretch in which a channel, or all of them, held still."""

    names: list[str]
    start_s: float
    end_s: float


class TraceReadingOut(ViewModel):
    """What the trace says by itself: when it was still, what happened, what moved."""

    together: StillOut | None
    each: list[StillOut]
    events: list[TraceEventOut]
    kinds: dict[str, str]


class TracesOut(ViewModel):
    """A capture's channels for drawing."""

    capture: CaptureOut
    channels: list[ChannelOut]


class WindowMeansIn(Incoming):
    """Write the means of a stretch on the tape."""

    id: uuid.UUID
    start_s: Seconds
    end_s: Seconds
    stage: StageKey | None = None
    phase: Phase = "found"
    at: Moment


class KeyOut(ViewModel):
    """A new key, shown once."""

    key: str
