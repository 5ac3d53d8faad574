"""A circuit and its sequence for the page."""

from typing import Literal

from havrin_server.figures.schemas import Shown
from havrin_server.view_model import ViewModel

Mark = Literal["in", "out", "none"]


class Named(ViewModel):
    """A key with its name."""

    key: str
    name: str


class NodeOut(ViewModel):
    """A node of the circuit with its volts to common (line side: to neutral, or to the next leg)."""

    key: str
    name: str
    expected: Shown
    read: Shown | None
    odd: bool
    wires: list[str]  # colours, keys of wire_colours.COLOURS: the wire's own and its stripe


class PartOut(ViewModel):
    """A part between two nodes with the drop across it."""

    key: str
    name: str
    kind: str
    closed: bool
    expected: Shown
    read: Shown | None
    state: Mark


class RungOut(ViewModel):
    """One rung of the drawing: one node more than there are parts."""

    load: str
    name: str
    parts: list[PartOut]
    nodes: list[NodeOut]


class EventOut(ViewModel):
    """A moment of the sequence: its window, s after the call, and when it was seen."""

    key: str
    name: str
    earliest_s: float
    latest_s: float
    seen_s: float | None
    state: Mark
    by_eye: bool
