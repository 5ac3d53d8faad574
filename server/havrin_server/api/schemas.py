"""What the interface says and takes; the page's types are generated from these."""

from datetime import date, datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel as Schema
from pydantic import Field

from havrin_server.api.schemas_closing import AmendmentOut, KeptPaper

Phase = Literal["found", "left", "trial"]


class Me(Schema):
    """The person who is signed in."""

    name: str
    username: str
    role: str
    firm: str
    zone: str  # the firm's, an IANA name
    unit_system: Literal["us", "metric"]


class SignIn(Schema):
    """Name and password."""

    username: str
    password: str


class Preferences(Schema):
    """What a person may choose for the own screen."""

    unit_system: Literal["us", "metric"]


class Shown(Schema):
    """A number with its unit, as text and as value."""

    text: str
    unit: str


class Scale(Schema):
    """Marks on a station's scale, as fractions 0..1 of its width."""

    band_from: float
    band_to: float
    value: float
    found: float | None


class ReadingOut(Schema):
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
    scale: Scale | None


class StationOut(Schema):
    """A station's plate."""

    key: str
    name: str
    state: Literal["in", "near", "out", "none", "noted"]
    value: Shown | None
    side: str
    words: str
    scale: Scale | None
    readings: list[ReadingOut]
    jumpered: bool
    missing: list[str]
    starter: str
    caution: str
    why: list["Explained"]


class TieOut(Schema):
    """A switch of the string and the station whose condition it feels."""

    device: str
    feels: str


class RangeOut(Schema):
    """From one value to another."""

    low: float
    high: float


class PathOut(Schema):
    """A column of the drawing."""

    key: str
    name: str
    direction: Literal["up", "down"]
    hint: str
    stations: list[StationOut]


class InputOut(Schema):
    """A number that went into a result."""

    name: str
    shown: Shown


class Explained(Schema):
    """A computed figure with its why."""

    key: str
    name: str
    shown: Shown
    half_width: str
    state: str
    aside: str
    formula: str
    inputs: list[InputOut]
    source: str
    note: str


class FlueOut(Schema):
    """The flue of one stage, computed."""

    stage: str
    label: str
    phase: str
    o2_dry_pct: float | None
    co2_dry_pct: float | None
    o2_half_width: float
    co2_half_width: float
    figures: list[Explained]
    says: list[str]
    cannot_say: list[str]
    doubts: list[str]


class FuelLine(Schema):
    """The O2-CO2 line of a fuel: from (0, co2_max) to (20.946, 0)."""

    name: str
    co2_max_dry_pct: float


class ReasonOut(Schema):
    """A reason for the standing."""

    level: int
    code: str
    text: str
    lifts: str
    station: str
    reading: str
    limit: str
    source: str


class MissingOut(Schema):
    """Something still to show."""

    text: str
    station: str
    how: str
    minutes: int
    after_work: str
    starter: str


class NextOut(Schema):
    """The step offered next."""

    title: str
    why: str
    minutes: int
    station: str
    starter: str


class StandingOut(Schema):
    """May this be left running?"""

    level: int
    title: str
    settled: bool
    reasons: list[ReasonOut]
    missing: list[MissingOut]
    next_step: NextOut | None
    not_judged: list[str]
    leaving: str | None
    several_causes: bool


class EntryOut(Schema):
    """A line of the tape."""

    id: UUID
    group: UUID
    at: datetime
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


class JumperOut(Schema):
    """Something left abnormal: what it is, and the line that makes it good."""

    device: str
    how: str
    text: str
    put_back: str
    since: datetime
    found: bool


class EarlierVisit(Schema):
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


class InstrumentOut(Schema):
    """An instrument of the firm."""

    id: int
    name: str
    kind: str
    calibrated_until: date | None
    in_date: bool


class MarkIn(Schema):
    """An arrow on a photo from where its words stand to what it shows, 0 to 1 across and down."""

    x: float
    y: float
    to_x: float
    to_y: float
    text: str = ""


class MarksIn(Schema):
    """All marks of a photo."""

    marks: list[MarkIn]


class PhotoOut(Schema):
    """A photo of the visit."""

    id: UUID
    caption: str
    station: str
    url: str
    small: str
    marks: list[MarkIn]


class LogOut(Schema):
    """A log that was read on this visit."""

    id: UUID
    name: str


class WayOut(Schema):
    """A way in which a unit can be left."""

    key: str
    name: str


class CloseOut(Schema):
    """How near the visit is to its end."""

    obstacles: list[str]
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


class StageOut(Schema):
    """A firing stage of the unit."""

    key: str
    label: str


class VisitPage(Schema):
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


class RoundVisit(Schema):
    """One stop of the round."""

    id: int
    turn: int
    site: str
    access: str
    unit_name: str
    unit_line: str
    reason: str
    complaint: str
    level: int
    title: str
    settled: bool
    closed: bool
    entries: int
    last_day: date | None
    last_title: str
    last_level: int | None
    last_words: str
    advice: list[str]


class Round(Schema):
    """The day's stops in the order to drive."""

    day: date
    stops: list[RoundVisit]


class LineIn(Schema):
    """A line as typed, with the id that the page gave it."""

    id: UUID
    text: str = Field(max_length=2000)
    stage: str | None = None
    phase: Phase = "found"
    at: datetime
    instrument: int | None = None
    sent_at: datetime | None = None
    device: str = Field(default="", max_length=40)
    as_note: bool = False


class ReadBackIn(Schema):
    """A line that is still being typed."""

    text: str = Field(max_length=2000)
    stage: str | None = None
    phase: Phase = "found"


class NearMeaning(Schema):
    """A line that may have been meant, and what it means; "" where it says it itself."""

    line: str
    meaning: str


class LineProblem(Schema):
    """A piece that was not understood."""

    piece: str
    text: str
    meanings: list[NearMeaning]


class LineQuestion(Schema):
    """A question back, with lines to choose from."""

    question: str
    choices: list[str]


class ReadBack(Schema):
    """What was understood of a line; ``unread`` are the words that nothing used."""

    echo: list[str]
    problems: list[LineProblem]
    asks: list[LineQuestion]
    unread: list[str]
    offers_note: bool
    doubts: list[str]
    writable: bool
    station: str
    phase: Phase
    stage: str


class CorrectionIn(Schema):
    """What an entry should have said; null strikes it."""

    id: UUID
    corrects: UUID
    text: str | None
    at: datetime
    why: str = Field(default="", max_length=500)
    sent_at: datetime | None = None
    device: str = Field(default="", max_length=40)


class CloseIn(Schema):
    """The signature under a visit."""

    seen_version: int
    customer_words: str = Field(default="", max_length=4000)
    signed_by: str = Field(default="", max_length=120)
    signature: list[list[list[float]]] = []
    left: Literal["running", "made_safe", "waiting", "not_touched"] | None = None


class WordOut(Schema):
    """A line that can be picked instead of typed."""

    line: str
    text: str
    station: str
    level: int


class Vocabulary(Schema):
    """What can be picked: things done, things found, devices for jumpers, words that begin readings."""

    done: list[WordOut]
    found: list[WordOut]
    jumpers: list[WordOut]
    other: list[WordOut]
