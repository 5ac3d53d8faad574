"""Lines of the bar: what is typed, what was understood of it, what can be picked."""

from uuid import UUID

from pydantic import Field

from havrin_server.incoming import Incoming, Moment, Number, Phase, StageKey
from havrin_server.view_model import ViewModel, Words


class LineIn(Incoming):
    """A line as typed, with the id that the page gave it."""

    id: UUID
    text: str = Field(max_length=2000)
    stage: StageKey | None = None
    phase: Phase = "found"
    at: Moment
    sent_at: Moment | None = None
    device: str = Field(default="", max_length=40)
    as_note: bool = False
    instrument: Number | None = None  # what its readings were read with, where it is not what is in hand


class ReadBackIn(Incoming):
    """A line that is still being typed."""

    text: str = Field(max_length=2000)
    stage: StageKey | None = None
    phase: Phase = "found"


class NearMeaning(ViewModel):
    """A line that may have been meant, and what it means; "" where it says it itself."""

    line: str
    meaning: Words


class LineProblem(ViewModel):
    """A piece that was not understood."""

    piece: str
    text: Words
    meanings: list[NearMeaning]


class LineQuestion(ViewModel):
    """A question back, with lines to choose from."""

    question: Words
    choices: list[str]


class DangerOut(ViewModel):
    """A danger in a line: the place of its entry in ``echo``, and what to do before anything else."""

    entry: int
    first: str


class ChipOut(ViewModel):
    """How a reading may have been read: ``line`` is what a touch makes of the line."""

    label: str
    on: bool
    line: str


class ReadBack(ViewModel):
    """What was understood of a line; ``unread`` are the words that nothing used.

    ``read_with`` names the instruments in hand that the readings are noted with.
    """

    echo: list[str]
    dangers: list[DangerOut]
    problems: list[LineProblem]
    asks: list[LineQuestion]
    chips: list[ChipOut]
    unread: list[str]
    offers_note: bool
    doubts: list[Words]
    read_with: list[str]
    writable: bool
    station: str
    phase: Phase
    stage: str


class CorrectionIn(Incoming):
    """What an entry should have said; null strikes it."""

    id: UUID
    corrects: UUID
    text: str | None
    at: Moment
    why: str = Field(default="", max_length=500)
    sent_at: Moment | None = None
    device: str = Field(default="", max_length=40)


class WordOut(ViewModel):
    """A line that can be picked instead of typed; ``short`` is what stands beside its part's name."""

    line: str
    text: str
    short: str
    station: str
    level: int


class BesideOut(ViewModel):
    """A question beside a finding, and its answers as words of the line."""

    label: str
    words: list[str]


class PartWords(ViewModel):
    """All that can be picked at one part. ``usual``: it is looked at on visits of this kind."""

    key: str
    name: str
    path: str
    usual: bool
    found: list[WordOut]
    done: list[WordOut]
    jumpers: list[WordOut]
    beside: list[BesideOut]


class PathName(ViewModel):
    """A path of the unit."""

    key: str
    name: str


class Vocabulary(ViewModel):
    """What can be picked, part by part, the usual ones first; ``elsewhere`` is followed by a place."""

    paths: list[PathName]
    parts: list[PartWords]
    elsewhere: list[WordOut]
