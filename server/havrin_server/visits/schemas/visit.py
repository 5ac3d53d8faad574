"""What the interface says and takes; the page's types are generated from these."""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from havrin_server.figures.schemas import Explained, RangeOut, Shown
from havrin_server.incoming import Incoming, StageKey
from havrin_server.instruments.schemas import InstrumentOut
from havrin_server.view_model import ViewModel
from havrin_server.visits.schemas.closing import AmendmentOut, KeptPaper
from havrin_server.visits.schemas.flue import FlueOut, FuelLine
from havrin_server.visits.schemas.standing import StandingOut


class ScaleOut(ViewModel):
    """Marks on a station's scale, as fractions 0..1 of its width."""

    band_from: float
    band_to: float
    value: float
    found: float | None


class ReadingOut(ViewModel):
    """One current reading of a station."""

    quantity: str
    name: str
    stage: str | None
    shown: Shown
    verdict: str
    phase: str
    found: Shown | None
    limit: str
    source: str
    scale: ScaleOut | None


class StationOut(ViewModel):
    """A station's plate."""

    key: str
    name: str
    state: Literal["in", "near", "out", "none", "noted"]
    value: Shown | None
    side: str
    words: str
    scale: ScaleOut | None
    readings: list[ReadingOut]
    jumpered: bool
    missing: list[str]
    starter: str
    caution: str
    why: list["Explained"]


class TieOut(ViewModel):
    """A switch of the string and the station whose condition it feels."""

    device: str
    feels: str


class PathOut(ViewModel):
    """A column of the drawing."""

    key: str
    name: str
    direction: Literal["up", "down"]
    hint: str
    stations: list[StationOut]


class EntryOut(ViewModel):
    """A line of the tape."""

    id: UUID
    group: UUID
    at: datetime
    received_at: datetime | None  # where it was received long after
    zone: str
    author: str
    kind: str
    text: str
    value: str
    tone: str
    phase: str
    stage: str | None
    corrected_by: UUID | None
    corrects: UUID | None
    typed: str
    instrument: str
    out_of_calibration: bool


class JumperOut(ViewModel):
    """Something left abnormal: what it is, and the line that makes it good."""

    device: str
    how: str
    text: str
    put_back: str
    since: datetime
    found: bool


class EarlierVisit(ViewModel):
    """A visit before this one."""

    id: int
    day: date
    reason: str
    technician: str
    level: int
    title: str
    words: str
    advice: list[str]
    readings: list[str]


class MarkIn(Incoming):
    """An arrow on a photo from where its words stand to what it shows, 0 to 1 across and down."""

    x: float
    y: float
    to_x: float
    to_y: float
    text: str = ""


class PhotoOut(ViewModel):
    """A photo of the visit."""

    id: UUID
    caption: str
    station: str
    url: str
    small: str
    marks: list[MarkIn]


class LogOut(ViewModel):
    """A log that was read on this visit."""

    id: UUID
    name: str


class WayOut(ViewModel):
    """A way in which a unit can be left."""

    key: str
    name: str


class CloseOut(ViewModel):
    """How near the visit is to its end."""

    put_backs: list[str]
    cycles_shown: int
    changes: list[str]
    closed_at: datetime | None
    closed_by: str
    customer_words: str
    signed_by: str
    ways: list[WayOut]
    papers: list[KeptPaper]
    amendments: list[AmendmentOut]


class StageOut(ViewModel):
    """A firing stage of the unit."""

    key: StageKey
    label: str


class VisitPage(ViewModel):
    """Everything that the page of a visit draws."""

    id: int
    version: int
    unit_name: str
    unit_line: str
    site: str
    zone: str  # of the place, an IANA name: every time on the page is the place's
    site_id: int
    unit_id: int
    reason: str
    complaint: str
    rules: str
    writable: bool
    has_string: bool
    has_exchanger: bool
    room_co: Shown | None
    stages: list[StageOut]
    paths: list[PathOut]
    ties: list[TieOut]
    standing: StandingOut
    tape: list[EntryOut]
    jumpers: list[JumperOut]
    flue: list[FlueOut]
    fuel_line: FuelLine
    other_fuel_line: FuelLine
    o2_doubt_pct: RangeOut
    earlier: list[EarlierVisit]
    instruments: list[InstrumentOut]
    logs: list[LogOut]
    photos: list[PhotoOut]
    moved_on: list[str]  # what was changed since the visit began; it is judged by what it began with
    close: CloseOut


# a signature is strokes of points, each a share of the pad across and down; a hasty one runs over its edge
MOST_STROKES, MOST_POINTS = 200, 5000
Share = Annotated[float, Field(ge=-1, le=2)]
Stroke = Annotated[list[tuple[Share, Share]], Field(max_length=MOST_POINTS)]


class CloseIn(Incoming):
    """The signature under a visit."""

    seen_version: int
    customer_words: str = Field(default="", max_length=4000)
    signed_by: str = Field(default="", max_length=120)
    signature: list[Stroke] = Field(default=[], max_length=MOST_STROKES)
    left: Literal["running", "made_safe", "waiting", "not_touched"] | None = None
