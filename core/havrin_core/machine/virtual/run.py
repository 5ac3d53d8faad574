"""Run a unit through a call for heat: an event at a time, the same seed the same run."""

import random
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import Circuit, ControlState, FaultMode, Input, Move, Part
from havrin_core.machine.virtual.physics import FLUE, Physics

CALL = "call"
DARK = "dark"  # no lamp, no digits: the control has no power
WATCH_S = 420.0  # how long a call is watched
READABLE_S = 20.0  # an analyzer needs a flame for this long
_SETTLE_ROUNDS = 12
_JITTER = 0.15  # share by which a lag differs from run to run


Moment = tuple[frozenset[str], str]  # conditions that hold, state of the control


@dataclass(frozen=True, slots=True)
class Snapshot:
    """The unit at one moment: conditions that hold, quantities (SI), the control's state."""

    at_s: float
    holds: frozenset[str]
    values: Mapping[str, float]
    control: str


@dataclass(frozen=True, slots=True)
class Run:
    """What a call showed. ``stop`` is the moment at which it stands still: given up, or running steadily."""

    events: Mapping[str, float]  # milestone -> s after the call
    reached: str  # the last milestone reached in order, "" for none
    stop: Snapshot
    idle: Snapshot
    code: str
    failures: int


class VirtualUnit:
    """One unit with faults put in, deterministic for a seed. ``tripped``: conditions that opened a latching device before.

    ``bridged_later``: the wiring with a jumper that is put on once the control has begun: before, it would refuse to start.
    """

    def __init__(
        self,
        circuit: Circuit,
        faults: Sequence[FaultMode] = (),
        *,
        seed: int = 0,
        jitter: float = _JITTER,
        wiring: Wiring | None = None,
        record: bool = False,
        tripped: Collection[str] = (),
        bridged_later: Wiring | None = None,
    ) -> None:
        self.circuit = circuit
        self.wiring = wiring or Wiring(circuit, faults)
        self._bridged_later = bridged_later
        self._open: dict[str, bool] = {}  # of what pulls in: whether its winding is open
        self._physics = Physics(circuit, faults)
        self._random = random.Random(seed)
        self._jitter = jitter
        self._states = {state.key: state for state in circuit.control.states}
        self.latching = {t[1:] for p in circuit.parts if p.latches for t in p.closed_when if t.startswith("!")}
        self.time_s = 0.0
        self.holds: set[str] = set(tripped)
        self.values = {q.name: q.rest for q in circuit.quantities}
        self.control = circuit.control.states[0]
        self._entered_s = 0.0
        self._awake = False
        self._died: Snapshot | None = None  # the moment at which the control first lost its power
        self._due: dict[str, tuple[float, bool]] = {}
        self._moving: dict[str, tuple[float, float]] = {}
        self._lit_s: float | None = None
        self._lit_with: tuple[frozenset[str], dict[str, float]] = frozenset(), {}
        self._smoke: Mapping[str, float] = dict.fromkeys(FLUE, 0.0)
        self.trail: list[Snapshot] = []  # with ``record``: the unit whenever something changed
        self._record = record
        self.spent: dict[Moment, float] = {}  # how long it stood at each moment since the call, s
        self._acts = [part for part in circuit.parts if part.acts and part.kind == "load"]

    def call(self, watch_s: float = WATCH_S) -> Run:
        """Return what a call for heat shows over at most ``watch_s`` seconds."""
        self._settle()
        self._advance(2.0)
        idle = self._snapshot()
        start = self.time_s
        self.holds.add(CALL)
        self._settle()
        events: dict[str, float] = {}
        failures, stop, code = 0, None, self.control.code
        while self.time_s - start < watch_s and self._died is None:
            self._note(events, self.time_s - start)
            before = self._snapshot()
            move = self._next_move()
            if move is None and not self._pending():
                break
            if move is not None and move[0] <= self._next_pending():
                self._advance(move[0] - self.time_s)
                before = self._snapshot()
                if move[1].failure:
                    failures += 1
                    stop, code = stop or before, self._states[move[1].to].code or code
                    if failures >= self.circuit.control.tries:
                        self._enter(self._states[self.circuit.control.lockout])
                        code = self.control.code or code
                        break
                self._enter(self._states[move[1].to])
            else:
                self._advance(min(self._next_pending() - self.time_s, watch_s))
        self._note(events, self.time_s - start)
        if self._died is not None and stop is None:
            stop, failures = self._died, failures + 1
        stop = stop or self._snapshot()
        return Run(events, self._reached(events), stop, idle, self._shown(code, stop), failures)

    def _shown(self, code: str, stop: Snapshot) -> str:
        alive = self.circuit.control.alive
        return DARK if alive and alive not in stop.holds else code or self.control.code

    def _reached(self, events: Mapping[str, float]) -> str:
        found = ""
        for milestone in self.circuit.control.milestones:
            if milestone.seen and milestone.key not in events:
                break
            found = milestone.key if milestone.seen else found
        return found

    def _snapshot(self) -> Snapshot:
        return Snapshot(self.time_s, frozenset(self.holds), {**self.values, **self._flue()}, self.control.key)

    def _flue(self) -> Mapping[str, float]:
        """Return what a probe in the flue and a watch at the meter showed when it last burned long enough to read."""
        if self._physics.plant is None:
            return {}
        burns = self._physics.burning in self.holds
        if burns:
            self._lit_s = self.time_s if self._lit_s is None else self._lit_s
            self._lit_with = frozenset(self.holds), dict(self.values)
        readable = self._lit_s is not None and self.time_s - self._lit_s >= READABLE_S
        if not burns:
            self._lit_s = None
        if readable:  # also at the moment in which it goes out: what was read until then
            self._smoke = self._physics.flue(*self._lit_with)
        return self._smoke

    def _note(self, events: dict[str, float], at_s: float) -> None:
        for milestone in self.circuit.control.milestones:
            if milestone.key not in events and self._is(milestone.condition):
                events.setdefault(milestone.key, round(at_s, 1))

    def _is(self, condition: str) -> bool:
        if condition.startswith("in."):
            return any(self._sees(i) for i in self.circuit.control.inputs if f"in.{i.name}" == condition)
        return condition in self.holds

    def _enter(self, state: ControlState) -> None:
        self.control, self._entered_s = state, self.time_s
        if self._bridged_later is not None and state is not self.circuit.control.states[0]:
            self.wiring = self._bridged_later
        self._settle()

    def _next_move(self) -> tuple[float, Move] | None:
        """Return the control's next transition and its time, as things stand now."""
        if self.circuit.control.alive and self.circuit.control.alive not in self.holds:
            return None
        seen = {i.name for i in self.circuit.control.inputs if self._sees(i)}
        ready = [
            (max(self._entered_s + move.after_s, self.time_s), move)
            for move in self.control.moves
            if all((term[1:] not in seen) if term.startswith("!") else term in seen for term in move.when)
        ]
        return min(ready, key=lambda pair: pair[0]) if ready else None

    def _sees(self, what: Input) -> bool:
        if what.nodes:
            return abs(self.wiring.solve(self.holds).between(*what.nodes)) >= what.least
        return abs(self.wiring.amps(what.part, self.holds, direct=True)) >= what.least

    def _settle(self) -> None:
        """Let outputs, coils and whatever has no lag come to rest; start the clocks of what lags."""
        for _ in range(_SETTLE_ROUNDS):
            before = (frozenset(self.holds), dict(self.values))
            self._outputs()
            self._coils()
            self._measure()
            self._judge()
            if before == (frozenset(self.holds), self.values):
                break
        self._wake()
        self._flue()
        if self._record:
            self.trail.append(self._snapshot())

    def _wake(self) -> None:
        """A control that gets its power begins anew."""
        alive = self.circuit.control.alive in self.holds
        if alive and not self._awake:
            self.control, self._entered_s = self.circuit.control.states[0], self.time_s
        if self._awake and not alive and self._died is None:
            self._died = self._snapshot()
        self._awake = alive

    def _outputs(self) -> None:
        alive = not self.circuit.control.alive or self.circuit.control.alive in self.holds
        wanted = {f"out.{name}" for name in self.control.outputs} if alive else set()
        self.holds = {name for name in self.holds if not name.startswith("out.")} | wanted

    def _coils(self) -> None:
        if not self._acts:
            return
        held = frozenset(self.holds)  # all coils see the same volts; what one of them moves is seen in the next round
        for part in self._acts:
            on = self._physics.forced[part.acts] if part.acts in self._physics.forced else self._pulled_in(part, held)
            (self.holds.add if on else self.holds.discard)(part.acts)

    def _pulled_in(self, part: Part, held: frozenset[str]) -> bool:
        if self._is_open(part):
            return False
        solved = self.wiring.solve(held, direct=part.direct)
        if part.pull_in_a:
            return abs(solved.amps(part.key)) >= part.pull_in_a
        return abs(solved.between(*part.nodes)) >= part.pull_in_v

    def _is_open(self, part: Part) -> bool:
        if part.key not in self._open:
            self._open[part.key] = self.wiring.ohms(part.key) is None
        return self._open[part.key]

    def _measure(self) -> None:
        for what in self.circuit.quantities:
            aim = self._physics.aim(what, self.holds, self.values)
            if abs(aim - self.values[what.name]) <= 1e-9 * max(1.0, abs(aim)):
                self._moving.pop(what.name, None)
            elif what.lag_s == 0.0:
                self.values[what.name] = aim
            elif self._moving.get(what.name, (0.0, float("nan")))[1] != aim:
                self._moving[what.name] = (self.time_s + self._lag(what.lag_s), aim)

    def _judge(self) -> None:
        for condition in self._physics.conditions:
            wanted = self._physics.wanted(condition, self.holds, self.values)
            if wanted == (condition.name in self.holds):
                self._due.pop(condition.name, None)
            elif condition.lag_s == 0.0 or not wanted:
                self._set(condition.name, wanted)
            elif condition.name not in self._due:
                self._due[condition.name] = (self.time_s + self._lag(condition.lag_s), wanted)

    def _set(self, name: str, on: bool) -> None:
        if not on and name in self.latching:
            return  # tripped: a hand resets it, nothing else
        (self.holds.add if on else self.holds.discard)(name)

    def _lag(self, seconds: float) -> float:
        return seconds * (1 + self._random.uniform(-self._jitter, self._jitter))

    def _pending(self) -> bool:
        return bool(self._due or self._moving)

    def _next_pending(self) -> float:
        return min([at for at, _ in (*self._due.values(), *self._moving.values())], default=float("inf"))

    def _advance(self, seconds: float) -> None:
        """Let time pass, changing what falls due on the way, in order."""
        end = self.time_s + max(seconds, 0.0)
        while (due := self._next_pending()) <= end:
            self._pass_to(max(due, self.time_s))
            for name in [n for n, (at, _) in self._due.items() if at <= self.time_s]:
                self._set(name, self._due.pop(name)[1])
            for name in [n for n, (at, _) in self._moving.items() if at <= self.time_s]:
                self.values[name] = self._moving.pop(name)[1]
            self._settle()
        self._pass_to(end)

    def _pass_to(self, second: float) -> None:
        if CALL in self.holds and second > self.time_s:
            moment = (frozenset(self.holds), self.control.key)
            self.spent[moment] = self.spent.get(moment, 0.0) + second - self.time_s
        self.time_s = second
