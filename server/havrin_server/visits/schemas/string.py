"""What the interface says about a unit's circuit, its sequence and the suspects."""

from havrin_server.figures.schemas import Shown
from havrin_server.shop.circuit_schemas import EventOut, Named, RungOut
from havrin_server.view_model import ViewModel, Words
from havrin_server.visits.schemas.standing import OutcomeOut, PassOut


class SuspectOut(ViewModel):
    """A part under suspicion; shares are of 1."""

    part: str
    kind: str
    name: Words
    share: float
    faults: list[str]


class MeaningOut(ViewModel):
    """What an outcome of the next test would mean."""

    outcome: Words
    share: float
    first: Words
    first_share: float


class OfferOut(ViewModel):
    """The test offered next."""

    title: Words
    minutes: float
    why: str
    caution: Words
    starter: str
    meanings: list[MeaningOut]
    answers: list[OutcomeOut]
    passes: list[PassOut]


class ConflictOut(ViewModel):
    """A reading that no suspect explains, or that another contradicts."""

    name: Words
    shown: Words
    expected: Words
    entry_id: str


class SuspectsOut(ViewModel):
    """Who is under suspicion, what to test next, what does not fit."""

    headline: str
    given: int
    suspects: list[SuspectOut]
    next: OfferOut | None
    others: list[OfferOut]
    conflicts: list[ConflictOut]
    clear: bool
    proof: list[Words]
    jumpers: list[Words]
    beforehand: list[str]


class SearchStepOut(ViewModel):
    """How the search stood after an entry; ``counted`` is false for one that said nothing to it."""

    entry_id: str
    counted: bool
    first: Words
    share: float


class StringOut(ViewModel):
    """The String view of a visit. ``known`` is false where no circuit is known for the unit."""

    known: bool
    name: str
    state: str
    states: list[Named]
    rungs: list[RungOut]
    events: list[EventOut]
    longest_s: float
    own: bool = False  # it was put right on this very unit
    parts: list[Named] = []  # that join nodes, for who puts it right
    nodes: list[Named] = []
    devices: list[Named] = []  # what may be put into the string
    circuits: list[Named] = []  # that a unit may have instead, shipped or of the firm
    suspects: SuspectsOut | None


class MeterOut(ViewModel):
    """What a voltmeter shows between two nodes of a sound circuit."""

    shown: Shown
    note: Words
