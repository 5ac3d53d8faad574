"""The circuit as the page draws it: expected and read volts, what is open, the sequence against the stopwatch."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.circuit.drawing import Rung, rungs
from havrin_core.machine.circuit.line import measured_against
from havrin_core.machine.circuit.meter import MeterReading, Wiring, read_meter
from havrin_core.machine.circuit.model import HELD, Circuit, Part
from havrin_core.machine.circuit.wire_colours import wire_colours
from havrin_core.tape.entries import Entry

_ODD_V, _ODD_SHARE = 2.0, 0.12  # a reading further than this from what is expected is marked
_ODD_LINE_V = 12.0


@dataclass(frozen=True, slots=True)
class NodeView:
    """A node with its volts to common: what a sound circuit shows in this state, and what was read.

    ``wires`` are the colours of its wire, as its name says them (wire_colours.py).
    """

    key: str
    name: str
    expected_v: float
    read_v: float | None
    odd: bool
    wires: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class PartView:
    """A part with the drop across it; ``state`` is in, out or none (not read)."""

    key: str
    name: str
    kind: str
    closed: bool
    expected_v: float
    read_v: float | None
    state: str


@dataclass(frozen=True, slots=True)
class RungView:
    """One rung of the drawing."""

    load: str
    name: str
    parts: tuple[PartView, ...]
    nodes: tuple[NodeView, ...]


@dataclass(frozen=True, slots=True)
class EventView:
    """A milestone: its window after the call and the moment it was seen, s; ``state`` is in, out or none."""

    key: str
    name: str
    earliest_s: float
    latest_s: float
    seen_s: float | None
    state: str
    by_eye: bool


@dataclass(frozen=True, slots=True)
class StringView:
    """The whole String screen but for the suspects."""

    circuit: Circuit
    state: str
    rungs: tuple[RungView, ...]
    events: tuple[EventView, ...]


def string_view(circuit: Circuit, entries: tuple[Entry, ...], state: str) -> StringView:
    """Return the drawing of ``circuit`` in ``state`` with what the tape read on it. Raises UnknownName (state)."""
    known = {s.key for s in circuit.states}
    chosen = state if state in known else circuit.states[-1].key
    drawn = _Drawn(circuit, Facts(entries), chosen)
    return StringView(circuit, chosen, tuple(drawn.rung(rung) for rung in rungs(circuit)), tuple(drawn.events()))


def meter_between(circuit: Circuit, state: str, a: str, b: str) -> MeterReading:
    """Return what a voltmeter shows between two nodes of the sound circuit. Raises UnknownName."""
    return read_meter(circuit, state, "Vdc" if direct_only(circuit) else "V", (a, b))


def direct_only(circuit: Circuit) -> bool:
    """Tell whether the circuit lives on direct millivolts alone."""
    return all(part.direct for part in circuit.parts if part.kind == "source")


class _Drawn:
    def __init__(self, circuit: Circuit, facts: Facts, state: str) -> None:
        self.circuit, self.facts = circuit, facts
        self.wiring = Wiring(circuit)
        self.holds = circuit.state(state).conditions
        self.direct = direct_only(circuit)
        self.read = {
            frozenset(f.leads): abs(f.value)
            for f in facts.readings
            if f.leads is not None and f.phase != "left" and f.state not in HELD
        }  # the newest of each pair of nodes wins; what a meter held is of no one state

    def rung(self, rung: Rung) -> RungView:
        parts = tuple(self._part(self.circuit.part(key)) for key in rung.parts)
        nodes = tuple(self._node(key) for key in rung.nodes)
        return RungView(rung.load, self.circuit.part(rung.load).name, parts, nodes)

    def _node(self, key: str) -> NodeView:
        against = measured_against(self.circuit, key)
        expected = self._volts(key, against)
        read = self.read.get(frozenset((key, against)))
        name = self.circuit.nodes[key]
        odd = read is not None and self._odd(read, expected)
        return NodeView(key, name, expected, read, odd, wire_colours(name))

    def _part(self, part: Part) -> PartView:
        expected = self._volts(part.nodes[0], part.nodes[1])
        read = self.read.get(frozenset(part.nodes[:2]))
        state = "none" if read is None else "out" if self._odd(read, expected) else "in"
        closed = part.kind != "switch" or self.wiring.closed(part, self.holds)
        return PartView(part.key, part.name, part.kind, closed, expected, read, state)

    def _volts(self, a: str, b: str) -> float:
        if a == b:
            return 0.0
        return abs(self.wiring.volts(a, b, self.holds, direct=self.direct).value or 0.0)

    def _odd(self, read: float, expected: float) -> bool:
        if self.direct:
            return abs(read - expected) > max(0.03, 0.3 * expected)
        least = _ODD_LINE_V if max(read, expected) > 60 else _ODD_V
        return abs(read - expected) > max(least, _ODD_SHARE * expected)

    def events(self) -> list[EventView]:
        seen = {f.station: f.value for f in self.facts.readings if f.quantity == "event_s"}
        views = []
        for m in self.circuit.control.milestones:
            at = seen.get(m.key)
            state = "none" if at is None else "in" if m.earliest_s <= at <= m.latest_s else "out"
            views.append(EventView(m.key, m.name, m.earliest_s, m.latest_s, at, state, m.seen))
        return views
