"""A circuit and its sequence as data for the page."""

from havrin_core.quantities.formats import number
from havrin_core.search.string_view import EventView, NodeView, PartView, RungView
from havrin_server.figures.schemas import Shown
from havrin_server.shop.circuit_schemas import EventOut, NodeOut, PartOut, RungOut


def volts_out(volts: float, millivolts: bool) -> Shown:
    """Return a voltage as it is shown."""
    return (
        Shown(text=number(1000 * volts, ".0f"), unit="mV") if millivolts else Shown(text=number(volts, ".1f"), unit="V")
    )


def _maybe(volts: float | None, millivolts: bool) -> Shown | None:
    return None if volts is None else volts_out(volts, millivolts)


def rung_out(rung: RungView, millivolts: bool) -> RungOut:
    """Return a rung for the page, in millivolts or volts."""

    def volts(view: NodeView | PartView) -> dict[str, Shown | None]:
        return {"expected": volts_out(view.expected_v, millivolts), "read": _maybe(view.read_v, millivolts)}

    parts = [PartOut.of(part, **volts(part)) for part in rung.parts]
    return RungOut.of(rung, parts=parts, nodes=[NodeOut.of(node, **volts(node)) for node in rung.nodes])


def event_out(event: EventView) -> EventOut:
    """Return a moment of the sequence for the page."""
    return EventOut.of(event)
