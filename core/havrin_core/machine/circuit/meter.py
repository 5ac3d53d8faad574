"""What a meter shows: a circuit in a state, with faults, leads on two nodes."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain, UnknownName
from havrin_core.machine.circuit.faulty import wired_parts
from havrin_core.machine.circuit.model import Circuit, FaultMode, Part
from havrin_core.machine.circuit.network import Branch, Solution, branches_of
from havrin_core.phrases import Saying, phrase

METER_OHM = 10e6  # a usual digital voltmeter's input
_CONTACTS = ("switch", "wire")
_MOVED = (*_CONTACTS, "flame", "source")
CONTINUITY_OHM = 30.0
GHOST_OHM = 1e5  # behind more than this a digital meter shows a voltage that no load would keep
MODES = {
    "V": "volts, alternating",
    "Vdc": "volts, direct",
    "ohm": "ohms, power off",
    "continuity": "continuity, power off",
    "A": "amps through a part",
    "uA": "direct microamps through a part",
}


@dataclass(frozen=True, slots=True)
class MeterReading:
    """What the display shows. ``value`` is None for an open circuit (ohms)."""

    value: float | None
    unit: str
    note: Saying = ""


# Contacts closed, sources live, direct current, what changes the branches themselves.
Setting = tuple[frozenset[str], frozenset[str], bool, frozenset[str]]


class Wiring:
    """A circuit with its faults put in and jumpers across parts that are ``bridged``; solves it for the conditions that hold.

    Wirings of one circuit may share what they ``solved``: a contact that is stuck makes a network that a sound one makes, too.
    """

    def __init__(
        self,
        circuit: Circuit,
        faults: Sequence[FaultMode] = (),
        bridged: Collection[str] = (),
        solved: dict[Setting, Solution] | None = None,
    ) -> None:
        self.circuit = circuit
        self._fault = {fault.part: fault for fault in faults}
        changing = [fault.key for fault in faults if fault.changes_branches]
        self._changed = frozenset((*changing, *(f"jumper {part}" for part in bridged)))
        self._solved = {} if solved is None else solved
        self._seen: dict[tuple[frozenset[str], bool], Solution] = {}
        self._wired = wired_parts(circuit, faults, bridged)
        self._moved = [part for part in self._wired if part.kind in _MOVED]

    def closed(self, part: Part, holds: Collection[str]) -> bool:
        """Tell whether a switch is closed while the conditions ``holds`` (and no others) are true."""
        fault = self._fault.get(part.key)
        if fault is not None and fault.stuck in ("open", "closed"):
            return fault.stuck == "closed"
        if fault is not None and fault.opens_when and fault.opened_contact.name in holds:
            return False
        moved = all((term[1:] not in holds) if term.startswith("!") else (term in holds) for term in part.closed_when)
        return moved != (fault is not None and fault.stuck == "inverted")

    def solve(self, holds: Collection[str], *, direct: bool = False) -> Solution:
        """Return the solved network, alternating or ``direct``, while ``holds`` are true."""
        moment = (holds if isinstance(holds, frozenset) else frozenset(holds), direct)
        if moment not in self._seen:
            closed = frozenset(p.key for p in self._moved if p.kind in _CONTACTS and self.closed(p, holds))
            live = frozenset(p.key for p in self._moved if p.kind not in _CONTACTS and self.closed(p, holds))
            key = (closed, live, direct, self._changed)
            if key not in self._solved:
                self._solved[key] = Solution(self._branches(closed, live, direct), self.circuit.ground)
            self._seen[moment] = self._solved[key]
        return self._seen[moment]

    def _branches(self, closed: frozenset[str], live: frozenset[str], direct: bool) -> list[Branch]:
        found: list[Branch] = []
        for part in self._wired:
            found += branches_of(
                part, closed=part.key in closed, live=part.key in live, fault=self._fault.get(part.key), direct=direct
            )
        return found

    def volts(self, a: str, b: str, holds: Collection[str], *, direct: bool = False) -> MeterReading:
        """Return what a voltmeter of ``METER_OHM`` shows between two nodes; alternating volts as RMS."""
        solution = self.solve(holds, direct=direct)
        behind = solution.thevenin_ohm(a, b)
        shown = solution.between(a, b) * METER_OHM / (METER_OHM + behind)
        note = phrase("floating_node_load_would_pull") if abs(behind) > GHOST_OHM and abs(shown) > 0.5 else ""
        return MeterReading(shown.real if direct else abs(shown), "V", note)

    def amps(self, part: str, holds: Collection[str], *, direct: bool = False) -> float:
        """Return the current through a part, A."""
        amps = self.solve(holds, direct=direct).amps(part)
        return amps.real if direct else abs(amps)

    def ohms(self, part_key: str, holds: Collection[str] = ()) -> float | None:
        """Return the resistance of a part taken out of its circuit, Ω; None when open."""
        part = self.circuit.part(part_key)
        branches = branches_of(
            part, closed=self.closed(part, holds), live=False, fault=self._fault.get(part_key), direct=True
        )
        if not branches:
            return None
        first = branches[0]
        return 1 / abs(first.siemens)


def read_meter(
    circuit: Circuit,
    state: str,
    mode: str,
    leads: tuple[str, str] | None,
    *,
    part: str = "",
    faults: Sequence[str] = (),
) -> MeterReading:
    """Return what a meter shows on ``circuit`` in ``state`` (conditions as listed there) with ``faults`` put in.

    Raises UnknownName (state, node, part, fault), OutOfDomain (mode, leads or part missing).
    """
    _known(state, {s.key for s in circuit.states}, "state")
    for fault in faults:
        _known(fault, {f.key for f in circuit.faults}, "fault")
    wiring = Wiring(circuit, [circuit.fault(f) for f in faults])
    holds = circuit.state(state).conditions
    if mode not in MODES:
        raise OutOfDomain("meter_mode", phrase("meter_has_no_mode", mode=mode, modes=", ".join(MODES)), value=mode)
    if mode in ("V", "Vdc"):
        a, b = _leads(circuit, leads)
        return wiring.volts(a, b, holds, direct=mode == "Vdc")
    _known(part, {p.key for p in circuit.parts if p.nodes}, "part")
    if mode in ("A", "uA"):
        amps = wiring.amps(part, holds, direct=mode == "uA")
        return MeterReading(amps * 1e6, "µA") if mode == "uA" else MeterReading(amps, "A")
    ohms = wiring.ohms(part, holds)
    if mode == "ohm":
        return MeterReading(ohms, "Ω", "" if ohms is not None else "open")
    return MeterReading(
        float(ohms is not None and ohms < CONTINUITY_OHM), "", "beeps" if ohms and ohms < CONTINUITY_OHM else "silent"
    )


def _leads(circuit: Circuit, leads: tuple[str, str] | None) -> tuple[str, str]:
    if leads is None:
        raise OutOfDomain("meter_leads", phrase("volts_need_two_leads"), value="leads")
    for lead in leads:
        _known(lead, set(circuit.nodes), "node")
    return leads


def _known(name: str, names: set[str], what: str) -> None:
    if name not in names:
        raise UnknownName(
            f"{what}_unknown", phrase("no_called", what=what, name=name, names=", ".join(sorted(names))), value=name
        )
