"""Numbers with their units, as the page shows them."""

from havrin_server.view_model import ViewModel, Words


class Shown(ViewModel):
    """A number with its unit, as text and as value."""

    text: str
    unit: str


class RangeOut(ViewModel):
    """From one value to another."""

    low: float
    high: float


class InputOut(ViewModel):
    """A number that went into a result."""

    name: Words
    shown: Shown


class Explained(ViewModel):
    """A computed figure with its why."""

    key: str
    name: str
    shown: Shown
    half_width: str
    state: str
    aside: str
    formula: Words
    inputs: list[InputOut]
    source: Words
    note: Words
