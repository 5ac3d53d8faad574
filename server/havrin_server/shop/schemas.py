"""What the interface says and takes about the shop's documents."""

from datetime import datetime
from typing import Any, Literal

from pydantic import Field

from havrin_server.incoming import Incoming
from havrin_server.shop.circuit_schemas import EventOut, Named, RungOut
from havrin_server.view_model import ViewModel

SortName = Literal["circuit", "kind", "model", "walk"]


class DocumentRow(ViewModel):
    """One document of the list."""

    key: str
    name: str
    shipped: bool
    used_by: list[str]  # labels of the units that hang on it
    changed_at: datetime | None
    changed_by: str


class Choices(ViewModel):
    """What the forms can choose from: parts of circuits, stations of kinds, fields of models."""

    kinds: list[str]
    families: list[str]
    quantities: list[Named]
    proofs: list[Named]
    reasons: list[Named]
    fuels: list[Named]
    unit_kinds: list[Named]
    circuits: list[Named]


class ShopList(ViewModel):
    """All documents of a sort, shipped and own, and the forms' choices. ``writable``: this person may keep them."""

    sort: SortName
    documents: list[DocumentRow]
    choices: Choices
    writable: bool


class DocumentIn(Incoming):
    """A document as it is edited; ``reason`` is why, kept with its version."""

    document: dict[str, Any]
    reason: str = Field(default="", max_length=300)


class CircuitIn(DocumentIn):
    """A circuit document as it is edited; ``state`` is the one to draw."""

    state: str = ""


class ProblemOut(ViewModel):
    """Why a document is not what it should be, and the element that is to blame."""

    code: str
    text: str
    element: str


class SolvedState(ViewModel):
    """One state solved: the volts of every node to common, in words."""

    key: str
    name: str
    volts: dict[str, str]


class CircuitCheck(ViewModel):
    """What the checks found. Either ``problem``, or the drawing, every state solved and a sound call."""

    problem: ProblemOut | None
    state: str
    states: list[Named]
    rungs: list[RungOut]
    solved: list[SolvedState]
    events: list[EventOut]
    call: str
    faults: int


class PathRow(ViewModel):
    """One path of a kind with the names of its stations, from top to bottom."""

    key: str
    name: str
    direction: str
    stations: list[str]


class KindCheck(ViewModel):
    """Either ``problem``, or the paths of a unit with one stage and of one with two."""

    problem: ProblemOut | None
    one_stage: list[PathRow]
    two_stages: list[PathRow]


class PlateField(ViewModel):
    """One field of a plate: as it stands or was typed, its unit, and what is wrong with it."""

    key: str
    stage: str
    name: str
    unit: str
    text: str
    problem: str = ""


class ManualField(ViewModel):
    """One limit of the manual, as typed."""

    quantity: str
    stage: str = ""
    low: str = ""
    high: str = ""
    page: str = ""
    problem: str = ""


class CodeField(ViewModel):
    """One row of the code chart."""

    pattern: str
    meaning: str
    state: str = ""


class ChoiceField(ViewModel):
    """A field of the plate that is one of a few words; "" where the plate does not say."""

    key: str
    name: str
    value: str = ""
    options: list[Named]


class ModelFields(ViewModel):
    """A model as a form, numbers as typed in the person's units."""

    key: str
    maker: str
    name: str
    kind: str
    circuit: str
    fuel: str
    two_stages: bool
    exchanger_cells: int
    choices: list[ChoiceField]
    plate: list[PlateField]
    manual: list[ManualField]
    codes: list[CodeField]


class ModelIn(Incoming):
    """A model document, or the form that changes it."""

    document: dict[str, Any] | None = None
    fields: ModelFields | None = None
    reason: str = Field(default="", max_length=300)


class ModelCheck(ViewModel):
    """The form as it was understood, with every problem at its field; ``states`` are those a code can speak of."""

    problem: ProblemOut | None
    fields: ModelFields | None
    states: list[Named]


class WalkStopRow(ViewModel):
    """One stop of a walk as it is edited, with what can be answered at its part.

    ``there``: a unit of the kind has it; a stop that it does not have is left out of its walk.
    """

    key: str
    name: str
    there: bool
    proves: bool  # its part is a safety device, which can be shown to act
    found: list[Named]
    did: list[Named]
    read: list[Named]


class WalkMore(ViewModel):
    """A stop that could be added: the document of it."""

    key: str
    name: str
    stop: dict[str, Any]


class WalkCheck(ViewModel):
    """Either ``problem``, or the stops with their choices, and what could be added."""

    problem: ProblemOut | None
    stops: list[WalkStopRow]
    more: list[WalkMore]
    walks: list[Named]  # what a walk can be for
