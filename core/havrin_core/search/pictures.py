"""What every test would show for every hypothesis, from the virtual unit."""

from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from functools import cache, cached_property
from threading import RLock

from havrin_core.machine.circuit.meant import parts_meant
from havrin_core.machine.circuit.meter import METER_OHM, Setting, Wiring
from havrin_core.machine.circuit.model import LEAST, LOCKED_OUT, Circuit, FaultMode, Part
from havrin_core.machine.circuit.network import Solution
from havrin_core.machine.virtual.run import DARK, Run, VirtualUnit
from havrin_core.search.catalogue import tests_of, unoffered_test
from havrin_core.search.model import Outcome, Test

STEADY = "steady"  # it ran through and kept running
NOTHING = "nothing"  # nothing was seen or heard to happen
GOOD, BAD = "ok", "bad"
OPEN, HIGH = "open", "high"
_FAR_OFF = 1.4  # a resistance above this many times the sound one reads as too high
SAME, DIFFERS = "same", "differs"
_BY_HAND = ("look", "swap", "jump", "watch")
_STANDS_S = 120.0  # how long a unit is taken to stand at the end of a call: running on, or locked out
_IDLE_SHARE = 0.1  # of readings of which nobody said when: before the call
_CLEARED = 0.8  # of meters that hold an end, that it is of the time since the volts had come to where they belong
_THERE_V = 1.0
NONE: frozenset[str] = frozenset()


class Picture(Mapping[str, Outcome]):
    """One hypothesis: the outcome of every test, by key, worked out when it is asked for.

    ``progress`` orders how far the unit got.
    """

    def __init__(
        self, pictures: "Pictures", faults: Sequence[FaultMode], bridged: frozenset[str], tripped: frozenset[str]
    ):
        self._pictures, self.faults = pictures, tuple(faults)
        self.unit = pictures.unit(faults, bridged, tripped)
        self.run = self.unit.call()
        self.progress = pictures.progress(self.run)
        self._known: dict[str, Outcome] = {}
        self._moments: dict[str, tuple[tuple[float, float], ...]] = {}

    def __getitem__(self, key: str) -> Outcome:
        if key not in self._known:
            test = self._pictures.test(key)
            self._known[key] = outcome_of(test, self.run, self.unit, self.faults)
        return self._known[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self._pictures.tests)

    def __len__(self) -> int:
        return len(self._pictures.tests)

    @property
    def burns(self) -> bool:
        """Tell whether it burned long enough for a probe."""
        return self.run.stop.values.get("o2_dry_pct", 0.0) > 0 or self.run.stop.values.get("input_share", 0.0) > 0

    @property
    def trips(self) -> frozenset[str]:
        """Return the conditions that opened a latching device during the call."""
        return frozenset(name for name in self.unit.latching if name in self.unit.holds)

    def volts_at_any_moment(self, test: Test) -> tuple[tuple[float, float], ...]:
        """Return what volts ``test`` could show when nobody said at which moment: (share, volts), shares summing to 1."""
        if test.key not in self._moments:
            self._moments[test.key] = tuple(self._volts_over_time(test))
        return self._moments[test.key]

    def volts_at(self, test: Test, moment: str) -> tuple[float, ...]:
        """Return what volts ``test`` shows while the circuit is in the state ``moment``; nothing where it never is."""
        if moment == LOCKED_OUT:
            return (self._volts(test, frozenset(self.unit.holds)),) if self.run.failures else ()
        outputs = self._pictures.outputs_at(moment)
        if outputs is None:
            return ()
        if "call" not in self._pictures.circuit.state(moment).conditions:
            return (self._volts(test, self.run.idle.holds),)
        found = {self._volts(test, holds) for (holds, _), _ in self.unit.spent.items() if _outputs(holds) == outputs}
        return tuple(found)

    def volts_held(self, test: Test, end: str) -> tuple[tuple[float, float], ...]:
        """Return what a meter that holds the ``end`` (LEAST or MOST) of volts could show after the call: (share, volts).

        Most hands put it on, or clear it, once the volts are where they belong; some leave it on from the beginning.
        """
        in_turn = [self._volts(test, holds) for holds, _ in self.unit.spent]
        in_turn.append(self._volts(test, frozenset(self.unit.holds)))
        pick, arrived = (min, max(in_turn)) if end == LEAST else (max, min(in_turn))
        since = next(place for place, volts in enumerate(in_turn) if abs(volts - arrived) <= _THERE_V)
        return (_CLEARED, pick(in_turn[since:])), (1 - _CLEARED, pick(in_turn))

    def _volts_over_time(self, test: Test) -> Iterator[tuple[float, float]]:
        shares: dict[float, float] = {}
        spent = dict(self.unit.spent)
        last = (frozenset(self.unit.holds), self.unit.control.key)
        spent[last] = spent.get(last, 0.0) + _STANDS_S
        whole = sum(spent.values())
        for (holds, _), seconds in spent.items():
            volts = self._volts(test, holds)
            shares[volts] = shares.get(volts, 0.0) + (1 - _IDLE_SHARE) * seconds / whole
        idle = self._volts(test, self.run.idle.holds)
        shares[idle] = shares.get(idle, 0.0) + _IDLE_SHARE
        yield from ((share, volts) for volts, share in shares.items())

    def _volts(self, test: Test, holds: frozenset[str]) -> float:
        return volts_of(test, self.unit.wiring, holds)


class Paired(Mapping[str, Outcome]):
    """Two faults of which one hides the other: put together from their own pictures."""

    def __init__(self, pictures: "Pictures", first: Picture, second: Picture) -> None:
        self._pictures, self._first, self._second = pictures, first, second
        self.faults = (*first.faults, *second.faults)
        self.progress, self.run, self.burns, self.trips = first.progress, first.run, first.burns, first.trips
        self.volts_at_any_moment, self.volts_at = first.volts_at_any_moment, first.volts_at
        self.volts_held = first.volts_held

    def __getitem__(self, key: str) -> Outcome:
        shown, hidden = self._first[key], self._second[key]
        test, healthy = self._pictures.test(key), self._pictures.sound[key]
        if test.kind in ("ohms", *_BY_HAND) and hidden != healthy:
            return hidden
        if test.kind == "gauge" and isinstance(hidden, float) and isinstance(healthy, float) and healthy:
            return shown * hidden / healthy if isinstance(shown, float) else shown
        return shown

    def __iter__(self) -> Iterator[str]:
        return iter(self._first)

    def __len__(self) -> int:
        return len(self._first)


AnyPicture = Picture | Paired
_Key = tuple[frozenset[str], frozenset[str], frozenset[str]]


class Pictures:
    """The pictures of one circuit, worked out once each and kept."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.tests = {test.key: test for test in tests_of(circuit)}
        self._read: dict[str, Test] = {}
        self._wirings: dict[tuple[frozenset[str], frozenset[str]], Wiring] = {}
        self._solved: dict[Setting, Solution] = {}
        self._kept: dict[_Key, AnyPicture] = {}
        self._working = RLock()
        self._order = {state.key: n for n, state in enumerate(circuit.control.states)}
        self._milestones = {m.key: n for n, m in enumerate(circuit.control.milestones, 1)}
        self._outputs = {state.key: _outputs(state.conditions) for state in circuit.states}
        self.chances: dict[object, float] = {}  # of observations under hypotheses, see likelihood.py
        self.sound = self.of(())

    @cached_property
    def usual_codes(self) -> frozenset[str]:
        """Return the codes that a sound unit shows: its heartbeat."""
        assert isinstance(self.sound, Picture)
        passed = {key for _, key in self.sound.unit.spent} | {self.circuit.control.states[0].key}
        return frozenset(state.code for state in self.circuit.control.states if state.key in passed and state.code)

    @cached_property
    def codes(self) -> frozenset[str]:
        """Return every code that the control can show, and that it is dark."""
        return frozenset(state.code for state in self.circuit.control.states if state.code) | {DARK}

    @cached_property
    def latching(self) -> frozenset[str]:
        """Return the conditions that open a device which only a hand resets."""
        assert isinstance(self.sound, Picture)
        return frozenset(self.sound.unit.latching)

    def of(
        self, faults: Sequence[FaultMode], bridged: frozenset[str] = NONE, tripped: frozenset[str] = NONE
    ) -> AnyPicture:
        """Return the picture of ``faults`` together, with jumpers across ``bridged`` and devices opened by ``tripped``."""
        key = (frozenset(fault.key for fault in faults), bridged, tripped)
        if key not in self._kept:
            # One thread works a picture out, the others wait for it: a server asks from many threads at once.
            with self._working:
                if key not in self._kept:
                    self._kept[key] = self._made(faults, bridged, tripped)
        return self._kept[key]

    def test(self, key: str) -> Test:
        """Return the test called ``key``: one that is offered, or volts between any two nodes. KeyError for another."""
        found = self.tests.get(key) or self._read.get(key)
        if found is None:
            found = self._read[key] = unoffered_test(self.circuit, key)
        return found

    def volts_key(self, a: str, b: str) -> str:
        """Return the key of the test of volts between two nodes, whichever lead is where."""
        return next(
            (key for key in (f"volts:{a}:{b}", f"volts:{b}:{a}") if key in self.tests), f"volts:{min(a, b)}:{max(a, b)}"
        )

    def outputs_at(self, moment: str) -> frozenset[str] | None:
        """Return the control's outputs that are on in the state ``moment``; None for no state of the circuit."""
        return self._outputs.get(moment)

    def meant(self, word: str) -> frozenset[str]:
        """Return the parts of the circuit that a word of the vocabulary means."""
        return parts_meant(self.circuit, word)

    def shows_as(self, part: str) -> frozenset[str]:
        """Return the conditions that a part with one of its faults is said to be in."""
        return frozenset(like for fault in self.circuit.faults if fault.part == part for like in fault.like)

    @cache  # noqa: B019  # as long as the pictures themselves are kept
    def causes_of(self, device: str) -> frozenset[str]:
        """Return the other parts whose faults make ``device`` stand open: what has to be looked at before it is blamed."""
        part = self.circuit.part(device)
        if part.kind != "switch":
            return NONE
        return frozenset(
            fault.part
            for fault in self.circuit.faults
            if fault.part != device and self._opens(part, self.of((fault,)).run.stop.holds)
        )

    def _opens(self, part: Part, holds: frozenset[str]) -> bool:
        plain, sound = self.wiring((), NONE), self.sound.run.stop.holds
        return plain.closed(part, sound) and not plain.closed(part, holds)

    def unit(self, faults: Sequence[FaultMode], bridged: frozenset[str], tripped: frozenset[str]) -> VirtualUnit:
        """Return a unit with ``faults``; a jumper that a control would not start with is put on once it has started."""
        wiring = self.wiring(faults, bridged)
        if not bridged or not self._must_wait(bridged):
            return VirtualUnit(self.circuit, faults, jitter=0.0, wiring=wiring, tripped=tripped)
        plain = self.wiring(faults, NONE)
        return VirtualUnit(self.circuit, faults, jitter=0.0, wiring=plain, tripped=tripped, bridged_later=wiring)

    def must_wait(self, part: str) -> bool:
        """Tell whether the control begins no call with a jumper across ``part``: it goes on once the call has begun."""
        return self._must_wait(frozenset((part,)))

    @cache  # noqa: B019  # as long as the pictures themselves are kept
    def _must_wait(self, bridged: frozenset[str]) -> bool:
        unit = VirtualUnit(self.circuit, jitter=0.0, wiring=self.wiring((), bridged))
        return not _keeps_running(unit.call(), self.circuit)

    def wiring(self, faults: Sequence[FaultMode], bridged: frozenset[str]) -> Wiring:
        """Return the wiring with those of ``faults`` put in that change the network."""
        electrical = [fault for fault in faults if fault.is_electrical]
        key = (frozenset(fault.key for fault in electrical), bridged)
        if key not in self._wirings:
            self._wirings[key] = Wiring(self.circuit, electrical, bridged, self._solved)
        return self._wirings[key]

    def progress(self, run: Run) -> tuple[int, int]:
        """Return how far a unit got, to be ordered by."""
        return self._milestones.get(run.reached, 0), self._order[run.stop.control]

    def _made(self, faults: Sequence[FaultMode], bridged: frozenset[str], tripped: frozenset[str]) -> AnyPicture:
        if len(faults) == 2:
            both = [self.of((fault,), bridged, tripped) for fault in faults]
            first, second = sorted(both, key=lambda picture: picture.progress)
            if first.progress != second.progress:
                assert isinstance(first, Picture)
                assert isinstance(second, Picture)
                return Paired(self, first, second)
        return Picture(self, faults, bridged, tripped)


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


def outcome_of(test: Test, run: Run, unit: VirtualUnit, faults: Sequence[FaultMode]) -> Outcome:
    """Return what ``test`` shows on a unit that was watched through ``run``, without noise, where it stands still."""
    stop = run.stop
    match test.kind:
        case "stops":
            return STEADY if _keeps_running(run, unit.circuit) else run.reached or NOTHING
        case "again":
            return DIFFERS if any(fault.comes_and_goes for fault in faults) else SAME
        case "code":
            return run.code
        case "volts":
            return volts_of(test, unit.wiring, stop.holds)
        case "ohms":
            return _resistance(test, unit)
        case "gauge" if test.quantity == "flame_current_a":
            return abs(unit.wiring.amps(test.part, stop.holds, direct=True))
        case "gauge":
            return stop.values[test.quantity]
    return BAD if any(_shows(test, fault) for fault in faults) else GOOD


def volts_of(test: Test, wiring: Wiring, holds: frozenset[str]) -> float:
    """Return the volts that ``test`` shows while ``holds`` are true, through the meter's own resistance."""
    assert test.leads is not None
    solved = wiring.solve(holds, direct=test.direct)
    return abs(solved.between(*test.leads) * METER_OHM / (METER_OHM + solved.thevenin_ohm(*test.leads)))


def _outputs(holds: Sequence[str] | frozenset[str]) -> frozenset[str]:
    return frozenset(name for name in holds if name.startswith("out."))


def _keeps_running(run: Run, circuit: Circuit) -> bool:
    last = [m for m in circuit.control.milestones if m.seen][-1]
    return run.failures == 0 and run.reached == last.key and last.condition in run.stop.holds


def _resistance(test: Test, unit: VirtualUnit) -> Outcome:
    part = unit.circuit.part(test.part)
    cool = frozenset(t for t in part.closed_when if not t.startswith("!"))
    ohms = unit.wiring.ohms(test.part, cool | (unit.latching & unit.holds))  # what tripped stays open when it is cold
    healthy = Wiring(unit.circuit).ohms(test.part, cool)
    if ohms is None or healthy is None:
        return OPEN
    return HIGH if ohms > _FAR_OFF * healthy + 1.0 else GOOD


def _shows(test: Test, fault: FaultMode) -> bool:
    return fault.part == test.part and (test.kind != "watch" or bool(fault.opens_when))
