"""The virtual unit that the stand-ins are held on: the same seed and epoch show every one of them the same moment."""

import math
import random
from bisect import bisect_right
from collections.abc import Sequence

from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.machine.virtual.run import Snapshot, VirtualUnit

CYCLE_S = 600.0  # a call, steady fire, and a rest
_CALL_AT_S, _REST_FROM_S = 20.0, 540.0
_GUST_EVERY_S, _GUST_S, _GUST_SHARE = 47.0, 0.7, 0.55


class VirtualBench:
    """One unit that calls, burns and rests in a cycle, for ever; everything can be read at any second."""

    def __init__(self, circuit: str, faults: Sequence[str] = (), seed: int = 0, gusts: bool = False) -> None:
        self.circuit: Circuit = shipped_circuit(circuit)
        self.gusts = gusts
        chosen = [self.circuit.fault(key) for key in faults]
        unit = VirtualUnit(self.circuit, chosen, seed=seed, record=True)
        unit.call()
        self._trail: list[Snapshot] = unit.trail
        self._times = [snapshot.at_s for snapshot in self._trail]
        self._wiring = Wiring(self.circuit, chosen)
        self._volts: dict[tuple[frozenset[str], str, str], float] = {}
        self._chance = random.Random(seed)

    def at(self, second: float) -> Snapshot:
        """Return the unit at ``second`` of the bench's life."""
        into = second % CYCLE_S
        if into < _CALL_AT_S or into >= _REST_FROM_S:
            return self._trail[0]
        return self._trail[max(0, bisect_right(self._times, into - _CALL_AT_S) - 1)]

    def quantity(self, name: str, second: float) -> float:
        """Return a physical quantity of the unit, SI; 0 for one that it has not."""
        value = self.at(second).values.get(name, 0.0)
        return value * self.gust(second) if self.gusts and name.startswith("draft") else value

    def gust(self, second: float) -> float:
        """Return the share of the draft that is left in the wind: a short dip now and then."""
        into = second % _GUST_EVERY_S
        return 1 - _GUST_SHARE * math.sin(math.pi * into / _GUST_S) if into < _GUST_S else 1.0

    def burns(self, second: float) -> float:
        """Return for how long the flame has been there, s; negative while there is none."""
        if "flame" not in self.at(second).holds:
            return -1.0
        lit = next((s.at_s for s in self._trail if "flame" in s.holds), 0.0)
        return second % CYCLE_S - _CALL_AT_S - lit

    def volts(self, a: str, b: str, second: float) -> float:
        """Return the volts between two nodes; a gust that opens the draft switch opens the string behind it."""
        holds = self.at(second).holds
        if self.gusts and self.gust(second) < 0.65:
            holds = frozenset(h for h in holds if not h.startswith("draft"))
        key = (holds, a, b)
        if key not in self._volts:
            self._volts[key] = abs(self._wiring.solve(holds).between(a, b))
        return self._volts[key]
