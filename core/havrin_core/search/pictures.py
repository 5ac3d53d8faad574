"""What every test would show for every hypothesis, from the virtual unit."""

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from threading import RLock

from havrin_core.machine.circuit.meter import METER_OHM, Wiring
from havrin_core.machine.circuit.model import Circuit, FaultMode
from havrin_core.machine.virtual.run import Run, VirtualUnit
from havrin_core.search.catalogue import tests_of
from havrin_core.search.model import Outcome, Test

STEADY = "steady"  # it ran through and kept running
NOTHING = "nothing"  # nothing was seen or heard to happen
GOOD, BAD = "ok", "bad"
OPEN, HIGH = "open", "high"
_FAR_OFF = 1.4  # a resistance above this many times the sound one reads as too high
SAME, DIFFERS = "same", "differs"
_BY_HAND = ("look", "swap", "jump", "watch")


@dataclass(frozen=True, slots=True)
class Picture:
    """All outcomes of one hypothesis, by test key; ``progress`` orders how far the unit got."""

    outcomes: Mapping[str, Outcome]
    progress: tuple[int, int]


class Pictures:
    """The pictures of one circuit, worked out once each and kept."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.tests = {test.key: test for test in tests_of(circuit)}
        self._wirings: dict[frozenset[str], Wiring] = {}
        self._kept: dict[frozenset[str], Picture] = {}
        self._working = RLock()
        self._order = {state.key: n for n, state in enumerate(circuit.control.states)}
        self._milestones = {m.key: n for n, m in enumerate(circuit.control.milestones, 1)}
        self.sound = self.of(())

    def of(self, faults: Sequence[FaultMode]) -> Picture:
        """Return the picture of ``faults`` together; a pair of which one hides the other is put together from both."""
        key = frozenset(fault.key for fault in faults)
        if key not in self._kept:
            # One thread works a picture out, the others wait for it: a server asks from many threads at once.
            with self._working:
                if key not in self._kept:
                    self._kept[key] = self._pair(*faults) if len(faults) == 2 else self._simulated(faults)
        return self._kept[key]

    def _pair(self, one: FaultMode, other: FaultMode) -> Picture:
        first, second = sorted((self.of((one,)), self.of((other,))), key=lambda picture: picture.progress)
        if first.progress == second.progress:
            return self._simulated((one, other))
        outcomes = dict(first.outcomes)
        for key, test in self.tests.items():
            hidden, healthy = second.outcomes[key], self.sound.outcomes[key]
            if test.kind in ("ohms", *_BY_HAND) and hidden != healthy:
                outcomes[key] = hidden
            elif test.kind == "gauge" and isinstance(hidden, float) and isinstance(healthy, float) and healthy:
                before = outcomes[key]
                outcomes[key] = before * hidden / healthy if isinstance(before, float) else before
        return Picture(outcomes, first.progress)

    def _simulated(self, faults: Sequence[FaultMode]) -> Picture:
        unit = VirtualUnit(self.circuit, faults, jitter=0.0, wiring=self._wiring(faults))
        run = unit.call()
        outcomes = {key: outcome_of(test, run, unit, faults, self) for key, test in self.tests.items()}
        return Picture(outcomes, (self._milestones.get(run.reached, 0), self._order[run.stop.control]))

    def _wiring(self, faults: Sequence[FaultMode]) -> Wiring:
        electrical = [fault for fault in faults if fault.is_electrical]
        key = frozenset(fault.key for fault in electrical)
        return self._wirings.setdefault(key, Wiring(self.circuit, electrical))


_KEPT: "OrderedDict[Circuit, Pictures]" = OrderedDict()
_MOST_KEPT = 64
_MAKING = RLock()


def pictures_of(circuit: Circuit) -> Pictures:
    """Return the pictures of ``circuit``, one object per process; the longest unused go first."""
    with _MAKING:
        if circuit not in _KEPT:
            _KEPT[circuit] = Pictures(circuit)
        _KEPT.move_to_end(circuit)
        while len(_KEPT) > _MOST_KEPT:
            _KEPT.popitem(last=False)
        return _KEPT[circuit]


def outcome_of(test: Test, run: Run, unit: VirtualUnit, faults: Sequence[FaultMode], pictures: Pictures) -> Outcome:
    """Return what ``test`` shows on a unit that was watched through ``run``, without noise."""
    stop = run.stop
    match test.kind:
        case "stops":
            return STEADY if _keeps_running(run, unit.circuit) else run.reached or NOTHING
        case "again":
            return DIFFERS if any(fault.comes_and_goes for fault in faults) else SAME
        case "code":
            return run.code
        case "volts":
            assert test.leads is not None
            solved = unit.wiring.solve(stop.holds, direct=test.direct)
            shown = solved.between(*test.leads) * METER_OHM / (METER_OHM + solved.thevenin_ohm(*test.leads))
            return abs(shown)
        case "ohms":
            return _resistance(test, unit)
        case "gauge" if test.quantity == "flame_current_a":
            return abs(unit.wiring.amps(test.part, stop.holds, direct=True))
        case "gauge":
            return stop.values[test.quantity]
    return BAD if any(_shows(test, fault) for fault in faults) else GOOD


def _keeps_running(run: Run, circuit: Circuit) -> bool:
    last = [m for m in circuit.control.milestones if m.seen][-1]
    return run.failures == 0 and run.reached == last.key and last.condition in run.stop.holds


def _resistance(test: Test, unit: VirtualUnit) -> Outcome:
    part = unit.circuit.part(test.part)
    cool = frozenset(t for t in part.closed_when if not t.startswith("!"))
    ohms = unit.wiring.ohms(test.part, cool)
    healthy = Wiring(unit.circuit).ohms(test.part, cool)
    if ohms is None or healthy is None:
        return OPEN
    return HIGH if ohms > _FAR_OFF * healthy + 1.0 else GOOD


def _shows(test: Test, fault: FaultMode) -> bool:
    return fault.part == test.part and (test.kind != "watch" or bool(fault.lets_go_when))
