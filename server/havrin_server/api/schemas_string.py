"""What the interface says about a unit's circuit, its sequence and the suspects."""

from typing import Literal

from pydantic import BaseModel as Schema

from havrin_server.api.schemas import Shown

Mark = Literal["in", "out", "none"]


class Named(Schema):
    """A key with its name."""

    key: str
    name: str


class NodeOut(Schema):
    """A node of the circuit with its volts to common (line side: to neutral)."""

    key: str
    name: str
    expected: Shown
    read: Shown | None
    odd: bool


class PartOut(Schema):
    """A part between two nodes with the drop across it."""

    key: str
    name: str
    kind: str
    closed: bool
    expected: Shown
    read: Shown | None
    state: Mark


class RungOut(Schema):
    """One rung of the drawing: one node more than there are parts."""

    load: str
    name: str
    parts: list[PartOut]
    nodes: list[NodeOut]


class EventOut(Schema):
    """A moment of the sequence: its window, s after the call, and when it was seen."""

    key: str
    name: str
    earliest_s: float
    latest_s: float
    seen_s: float | None
    state: Mark
    by_eye: bool


class SuspectOut(Schema):
    """A part under suspicion; shares are of 1."""

    part: str
    name: str
    share: float
    faults: list[str]


class MeaningOut(Schema):
    """What an outcome of the next test would mean."""

    outcome: str
    share: float
    first: str
    first_share: float


class OfferOut(Schema):
    """The test offered next."""

    title: str
    minutes: float
    why: str
    caution: str
    starter: str
    meanings: list[MeaningOut]


class ConflictOut(Schema):
    """A reading that no suspect explains, or that another contradicts."""

    name: str
    shown: str
    expected: str
    entry_id: str


class SuspectsOut(Schema):
    """Who is under suspicion, what to test next, what does not fit."""

    given: int
    suspects: list[SuspectOut]
    next: OfferOut | None
    others: list[OfferOut]
    conflicts: list[ConflictOut]
    clear: bool
    proof: list[str]
    beforehand: list[str]


class StringOut(Schema):
    """The String view of a visit. ``known`` is false where no circuit is known for the unit."""

    known: bool
    name: str
    state: str
    states: list[Named]
    rungs: list[RungOut]
    events: list[EventOut]
    longest_s: float
    suspects: SuspectsOut | None


class MeterOut(Schema):
    """What a voltmeter shows between two nodes of a sound circuit."""

    shown: Shown
    note: str
