"""What the interface says and takes about the shop's circuits."""

from datetime import datetime
from typing import Any

from pydantic import BaseModel as Schema

from havrin_server.api.schemas_string import EventOut, Named, RungOut


class CircuitRow(Schema):
    """One circuit of the list."""

    key: str
    name: str
    shipped: bool
    changed_at: datetime | None
    changed_by: str


class Choices(Schema):
    """What the form can choose from."""

    kinds: list[str]
    families: list[str]


class CircuitList(Schema):
    """All circuits, shipped and own, and the form's choices. ``writable``: this person may keep circuits."""

    circuits: list[CircuitRow]
    choices: Choices
    writable: bool


class CircuitIn(Schema):
    """A circuit document as it is edited; ``state`` is the one to draw."""

    document: dict[str, Any]
    state: str = ""


class ProblemOut(Schema):
    """Why a document is no circuit, and the element that is to blame."""

    code: str
    text: str
    element: str


class SolvedState(Schema):
    """One state solved: the volts of every node to common, in words."""

    key: str
    name: str
    volts: dict[str, str]


class CircuitCheck(Schema):
    """What the checks found. Either ``problem``, or the drawing, every state solved and a sound call."""

    problem: ProblemOut | None
    state: str
    states: list[Named]
    rungs: list[RungOut]
    solved: list[SolvedState]
    events: list[EventOut]
    call: str
    faults: int
