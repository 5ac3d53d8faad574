"""A virtual unit in real time: it calls, burns and rests in a cycle, and can be read at any second.

The event run gives what happens when; between its events everything moves as slowly as it does on a unit. Wind on the
vent, neighbours on the same gas line and a regulator that freezes act on top, and the fire follows from gas and air.
"""

from bisect import bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import exp, pi, sin

from havrin_core.errors import OutOfDomain
from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import Circuit, FaultMode
from havrin_core.machine.virtual.physics import HEATED, Physics
from havrin_core.machine.virtual.plant import NO_FIRE, ROOM_K, Fire, gas_share, regulated_share
from havrin_core.machine.virtual.run import Snapshot, VirtualUnit
from havrin_core.phrases import phrase
from havrin_core.physics.constants import O2_AMBIENT_PCT

CYCLE_S = 600.0  # a call, steady fire, and a rest
CALL_AT_S, REST_FROM_S = 20.0, 540.0
_GUST_EVERY_S, _GUST_S, _GUST_SHARE = 47.0, 0.7, 0.55
_NEIGHBOURS_EVERY_S, _NEIGHBOURS_FROM_S, _NEIGHBOURS_TO_S, _SAG_SHARE = 400.0, 200.0, 320.0, 0.9
_LOCK_UP_SHARE = 1.12  # standing over running on a sound line
_WARM_S, _DRAFT_S, _GAS_S = 40.0, 1.0, 0.3  # how slowly heat, draft and gas follow
_HOTTEST_RISE_K, _SOAK_S = 90.0, 95.0  # without air moving only the metal warms, and slowly
_PUFF_PPM, _PUFF_S = 160.0, 4.0  # CO of a light-off, dry
_ROOM_CO_PPM, _SPILLED_CO_PPM = 0.4, 18.0


@dataclass(frozen=True, slots=True)
class Moment:
    """What every instrument could see at one second; SI. ``lit_s`` is negative without a flame."""

    holds: frozenset[str]
    values: Mapping[str, float]
    lit_s: float


class LiveUnit:
    """One unit with its faults, the same for every instrument that is held on it.

    ``factors`` turn the circuit's own figures into those of a plate that differs from it (another gas, another size).
    """

    def __init__(
        self,
        circuit: Circuit,
        faults: Sequence[FaultMode] = (),
        *,
        seed: int = 0,
        gusts: bool = False,
        neighbours: bool = False,
        factors: Mapping[str, float] | None = None,
    ) -> None:
        self.circuit, self.gusts, self.neighbours = circuit, gusts, neighbours
        self._factors = dict(factors or {})
        self._faults = tuple(faults)
        self._physics = Physics(circuit, faults)
        self._wiring = Wiring(circuit, faults)
        unit = VirtualUnit(circuit, faults, seed=seed, record=True)
        unit.call()
        self._trail = _last_of_each_moment(unit.trail)
        self._times = [snapshot.at_s for snapshot in self._trail]
        self._aims = [self._aim(snapshot) for snapshot in self._trail]
        self._starts = self._begun()
        self._lit = self._lighting()
        self._full = {quantity.name: quantity.value for quantity in circuit.quantities}
        self._rests = self._after_the_call()

    def at(self, second: float) -> Moment:
        """Return the unit at ``second`` of its life. Raises OutOfDomain for a time that is no number from 0 on."""
        if not 0 <= second < float("inf"):
            raise OutOfDomain(
                "live_second", phrase("unit_has_no_second_its", second=second), quantity="s", value=second
            )
        into = second % CYCLE_S
        index, values = self._values(into)
        snapshot = self._trail[index]
        lit = into - CALL_AT_S - self._lit[index] if self._lit[index] >= 0 else -1.0
        self._disturb(values, second, lit)
        values |= self._seen(snapshot.holds, values, lit)
        values |= {name: factor * values[name] for name, factor in self._factors.items() if name in values}
        return Moment(self._in_wind(snapshot.holds, second), values, lit)

    def volts(self, a: str, b: str, second: float, *, direct: bool = False) -> float:
        """Return the volts between two nodes, V; a gust that opens the draft switch opens the string behind it."""
        return abs(self._wiring.solve(self.at(second).holds, direct=direct).between(a, b))

    def amps(self, part: str, second: float, *, direct: bool = False) -> float:
        """Return the current through a part, A."""
        return abs(self._wiring.amps(part, self.at(second).holds, direct=direct))

    def gust(self, second: float) -> float:
        """Return the share of the draft that is left in the wind: a short dip now and then."""
        into = second % _GUST_EVERY_S
        return 1 - _GUST_SHARE * sin(pi * into / _GUST_S) if self.gusts and into < _GUST_S else 1.0

    def _aim(self, snapshot: Snapshot) -> dict[str, float]:
        """Where everything goes from this moment on; heat by the fire of the moment, not by the run's own lag."""
        burning = self._fire(snapshot.holds, snapshot.values)
        aims = {q.name: snapshot.values[q.name] for q in self.circuit.quantities}
        for quantity in self.circuit.quantities:
            if quantity.name in HEATED:
                aims[quantity.name] = quantity.rest + min(burning.rise_k, _HOTTEST_RISE_K)
        aims["flue_temp_k"] = burning.flue_temp_k if burning is not NO_FIRE else ROOM_K
        return aims

    def _fire(self, holds: frozenset[str], values: Mapping[str, float]) -> Fire:
        return self._physics.burns(holds, values) if self._physics.burning in holds else NO_FIRE

    def _begun(self) -> list[dict[str, float]]:
        """What everything was when each moment of the trail began."""
        starts = [self._aims[0]]
        for index in range(1, len(self._trail)):
            passed = self._times[index] - self._times[index - 1]
            starts.append(_moved(starts[-1], self._aims[index - 1], passed))
        return starts

    def _lighting(self) -> list[float]:
        """When the flame of each moment was lit; -1 where there is none."""
        lit: list[float] = []
        for snapshot in self._trail:
            burns = self._physics.burning in snapshot.holds
            lit.append((lit[-1] if lit and lit[-1] >= 0 else snapshot.at_s) if burns else -1.0)
        return lit

    def _after_the_call(self) -> dict[str, float]:
        passed = REST_FROM_S - CALL_AT_S - self._times[-1]
        return _moved(self._starts[-1], self._aims[-1], passed)

    def _values(self, into: float) -> tuple[int, dict[str, float]]:
        if into >= REST_FROM_S:
            return 0, _moved(self._rests, self._aims[0], into - REST_FROM_S)
        if into < CALL_AT_S:
            return 0, _moved(self._rests, self._aims[0], into + CYCLE_S - REST_FROM_S)
        index = max(0, bisect_right(self._times, into - CALL_AT_S) - 1)
        return index, _moved(self._starts[index], self._aims[index], into - CALL_AT_S - self._times[index])

    def _disturb(self, values: dict[str, float], second: float, lit: float) -> None:
        """Wind, neighbours and frost change what the run alone would give; gas and draft in ``values`` follow."""
        for name in [name for name in values if name.startswith(("draft", "profile"))]:
            values[name] *= self.gust(second)
        supply = values.get("supply_running_pa", 0.0)
        if self.neighbours and _NEIGHBOURS_FROM_S <= second % _NEIGHBOURS_EVERY_S < _NEIGHBOURS_TO_S:
            values["supply_running_pa"] = supply * _SAG_SHARE
        manifold = self._frost(lit) * self._held(supply, values.get("supply_running_pa", 0.0))
        for name in [name for name in values if name.startswith("manifold_")]:
            values[name] *= manifold
        if "burner_gas" in values and manifold != 1.0:
            values["burner_gas"] *= gas_share(manifold)
        if lit < 0:
            values["supply_running_pa"] = values.get("supply_running_pa", 0.0) * _LOCK_UP_SHARE

    def _frost(self, lit: float) -> float:
        share = 1.0
        for fault in (fault for fault in self._faults if fault.sinks_s):
            for factor in fault.scale.values():
                gone = min(max(lit, 0.0) / fault.sinks_s, 1.0)
                share *= (1 - (1 - factor) * gone) / factor
        return share

    def _held(self, before_pa: float, now_pa: float) -> float:
        set_pa = self._full.get("manifold_pa", 0.0)
        held = regulated_share(before_pa, set_pa) if set_pa else 0.0
        return regulated_share(now_pa, set_pa) / held if held else 1.0

    def _in_wind(self, holds: frozenset[str], second: float) -> frozenset[str]:
        if self.gust(second) >= 1 - 0.8 * _GUST_SHARE:
            return holds
        return frozenset(name for name in holds if not name.startswith("draft"))

    def _seen(self, holds: frozenset[str], values: Mapping[str, float], lit: float) -> dict[str, float]:
        burning = self._fire(holds, values)
        puff = _PUFF_PPM * exp(-lit / _PUFF_S) if lit >= 0 else 0.0
        spills = "spilling" in holds or ("blower_runs" in holds and any(fault.leak for fault in self._faults))
        return {
            "o2_dry_pct": min(burning.o2_dry_pct, O2_AMBIENT_PCT),
            "co_ppm_dry": burning.co_ppm_dry + puff,
            "input_w": burning.input_w,
            "room_co_ppm": _ROOM_CO_PPM + (_SPILLED_CO_PPM if spills and lit >= 0 else 0.0),
        }


def _last_of_each_moment(trail: Sequence[Snapshot]) -> list[Snapshot]:
    kept: dict[float, Snapshot] = {snapshot.at_s: snapshot for snapshot in trail}
    return list(kept.values())


def _moved(start: Mapping[str, float], aim: Mapping[str, float], passed_s: float) -> dict[str, float]:
    return {
        name: target + (start[name] - target) * exp(-passed_s / _lag_s(name, target)) for name, target in aim.items()
    }


def _lag_s(name: str, aim: float) -> float:
    if name.endswith("_k"):
        return _WARM_S if aim < _HOTTEST_RISE_K or aim > ROOM_K - 50 else _SOAK_S
    return _DRAFT_S if name.startswith(("draft", "airflow", "profile")) else _GAS_S
