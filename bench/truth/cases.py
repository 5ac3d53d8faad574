"""Units with something the matter, drawn otherwise than the search reckons: what each test shows on them, and what cures them."""

import random
from dataclasses import dataclass, field, replace
from typing import Any

from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import Circuit, FaultMode
from havrin_core.machine.circuit.read import circuit_from_dict, shipped_circuit, shipped_document
from havrin_core.machine.virtual.run import Run, VirtualUnit
from havrin_core.search.model import Outcome, Test
from havrin_core.search.pictures import BAD, DIFFERS, GOOD, HIGH, NOTHING, OPEN, SAME, STEADY, volts_of
from havrin_core.search.string_view import direct_only

SORTS = ("one", "one, meter late", "tripped", "heartbeat", "two", "unlisted", "nothing")
_SORT_WEIGHTS = (40, 12, 10, 6, 14, 12, 6)
_LOOK_FINDS, _LOOK_ERRS = 0.9, 0.03
_GAUGE_NOISE, _VOLTS_NOISE = 0.05, 0.025  # shares
_STRANGER = "stranger"  # the part that no circuit lists


@dataclass
class Case:
    """One unit as somebody finds it. ``faults`` are what is left of the matter; ``strange``: a part that no circuit lists is open."""

    circuit: Circuit  # as the search knows it
    real: Circuit  # as it is
    sort: str
    faults: list[FaultMode]
    chance: random.Random
    strange: bool = False
    tripped: frozenset[str] = frozenset()
    cured: list[FaultMode] = field(default_factory=list)

    @property
    def well(self) -> bool:
        """Tell whether nothing is the matter any more."""
        return not self.faults and not self.strange and not self.tripped

    def unit(self) -> tuple[VirtualUnit, Run]:
        """Return the unit after one more call for heat."""
        present = [f for f in self.faults if not (f.comes_and_goes and self.chance.random() < 0.3)]
        unit = VirtualUnit(self.real, present, seed=self.chance.randrange(10**6), tripped=self.tripped, record=True)
        run = unit.call()
        if unit.latching & unit.holds:
            self.tripped = frozenset(unit.latching & unit.holds)
        return unit, run

    def shows(self, test: Test) -> Outcome:
        """Return what ``test`` shows, with noise, at a moment of its own."""
        if test.kind in ("look", "swap", "watch", "jump"):
            return self._by_hand(test)
        unit, run = self.unit()
        if test.kind == "stops":
            return _stops(run, self.real)
        if test.kind == "again":
            return SAME if _stops(self.unit()[1], self.real) == _stops(run, self.real) else DIFFERS
        if test.kind == "code":
            return self._code(unit, run)
        if test.kind == "volts":
            return self._volts(test, unit, run)
        return self._ohms(test) if test.kind == "ohms" else self._gauge(test, unit, run)

    def fit(self, part: str) -> bool:
        """Fit a new ``part``; tell whether anything was wrong with the old one."""
        gone = [fault for fault in self.faults if fault.part == part]
        self.cured += gone
        self.faults = [fault for fault in self.faults if fault.part != part]
        return bool(gone)

    def _by_hand(self, test: Test) -> str:
        mine = [f for f in self.faults if f.part == test.part and (test.kind != "watch" or f.opens_when)]
        if test.kind in ("look", "watch"):
            return BAD if self.chance.random() < (_LOOK_FINDS if mine else _LOOK_ERRS) else GOOD
        return BAD if mine else GOOD

    def _ohms(self, test: Test) -> Outcome:
        part = self.real.part(test.part)
        cool = frozenset(t for t in part.closed_when if not t.startswith("!"))
        if any(t[1:] in self.tripped for t in part.closed_when if t.startswith("!")):
            return OPEN
        electrical = [fault for fault in self.faults if fault.is_electrical]
        ohms, sound = Wiring(self.real, electrical).ohms(test.part, cool), Wiring(self.real).ohms(test.part, cool)
        return OPEN if ohms is None else HIGH if sound is not None and ohms > 1.4 * sound + 1 else GOOD

    def _code(self, unit: VirtualUnit, run: Run) -> str:
        usual = self.real.control.states[0].code
        if self.sort == "heartbeat" and usual and run.code != "dark":
            return usual
        return run.code

    def _volts(self, test: Test, unit: VirtualUnit, run: Run) -> float:
        late = self.sort == "one, meter late" and self.chance.random() < 0.7
        holds = frozenset(unit.holds) if late or self.chance.random() < 0.1 else run.stop.holds
        volts = volts_of(self._at_the_part_itself(test), unit.wiring, holds)
        scatter = 0.003 if direct_only(self.circuit) else 0.15
        return max(volts * (1 + self.chance.gauss(0, _VOLTS_NOISE)) + self.chance.gauss(0, scatter), 0.0)

    def _at_the_part_itself(self, test: Test) -> Test:
        """Whoever measures at a part holds the lead on its own terminal, whatever lies before that."""
        if not self.strange or not test.part or test.leads is None or self.chance.random() < 0.3:
            return test
        known, real = self.circuit.part(test.part).nodes, self.real.part(test.part).nodes
        moved = dict(zip(known, real, strict=True))
        a, b = test.leads
        return replace(test, leads=(moved.get(a, a), moved.get(b, b)))

    def _gauge(self, test: Test, unit: VirtualUnit, run: Run) -> float:
        if test.quantity == "flame_current_a":
            shown = abs(unit.wiring.amps(test.part, run.stop.holds, direct=True))
        else:
            shown = run.stop.values.get(test.quantity, 0.0)
        return shown * (1 + self.chance.gauss(0, _GAUGE_NOISE))


def drawn(name: str, seed: int) -> Case:
    """Return one case on the shipped circuit ``name``, the same for the same seed."""
    chance = random.Random(seed)
    circuit = shipped_circuit(name)
    sort = chance.choices(SORTS, _SORT_WEIGHTS)[0]
    case = Case(circuit, circuit, sort, [], chance)
    if sort == "unlisted":
        case.real, case.strange = _with_a_stranger(name, chance), True
    elif sort == "tripped":
        _trip(case)
    elif sort != "nothing":
        case.faults = _faults(circuit, chance, 2 if sort == "two" else 1)
    return case


def _trip(case: Case) -> None:
    """Draw a fault that trips a latching device, and let it have tripped; a circuit without one has a plain fault."""
    tripping = []
    for fault in case.circuit.faults:
        unit = VirtualUnit(case.circuit, [fault], seed=1)
        unit.call()
        if unit.latching & unit.holds:
            tripping.append((fault, frozenset(unit.latching & unit.holds)))
    if tripping:
        fault, case.tripped = case.chance.choice(tripping)
        case.faults = [fault]
    else:
        case.faults = _faults(case.circuit, case.chance, 1)


def _faults(circuit: Circuit, chance: random.Random, count: int) -> list[FaultMode]:
    """Draw faults by their odds, of other severities than the model's own, that stop the unit: nobody is called for others."""
    while True:
        found = chance.choices(
            circuit.faults, [fault.odds * chance.lognormvariate(0, 0.6) for fault in circuit.faults], k=count
        )
        worse = [_of_another_severity(fault, chance) for fault in found]
        if len({fault.part for fault in worse}) == count and all(_stops_it(circuit, fault) for fault in worse):
            return worse


def _stops_it(circuit: Circuit, fault: FaultMode) -> bool:
    return _stops(VirtualUnit(circuit, [fault], seed=3).call(), circuit) != STEADY


def _of_another_severity(fault: FaultMode, chance: random.Random) -> FaultMode:
    milder = chance.uniform(0.1, 1.0)  # 1: as bad as it gets
    return replace(
        fault,
        ohm=fault.ohm * 10 ** chance.uniform(-0.5, 0.8) if fault.ohm else fault.ohm,
        sag_ohm=fault.sag_ohm * chance.uniform(0.5, 3),
        volts_share=fault.volts_share * chance.uniform(0.3, 1.3) if 0 < fault.volts_share < 1 else fault.volts_share,
        scale={q: share if share == 0 else _moved(share, milder) for q, share in fault.scale.items()},
    )


def _moved(share: float, by: float) -> float:
    return share + (1 - share) * (1 - by) * 0.7 if share < 1 else 1 + (share - 1) * (0.5 + by)


def _with_a_stranger(name: str, chance: random.Random) -> Circuit:
    """Return the circuit with an open device that nobody listed: between two parts of the string, or before all of it."""
    document: dict[str, Any] = shipped_document(name)
    parts = {part["key"]: part for part in document["parts"]}
    joints = [
        key
        for key in document["string"]
        if parts[key].get("kind") in ("switch", "load", "source") and parts[key].get("nodes")
    ]
    behind = parts[chance.choice(joints)]
    near = behind["nodes"][0]
    document["nodes"] = {**document["nodes"], _STRANGER: "between"}
    behind["nodes"] = [_STRANGER, *behind["nodes"][1:]]
    document["parts"] = [
        *document["parts"],
        {"key": _STRANGER, "name": "Fuse", "kind": "switch", "nodes": [near, _STRANGER], "closed_when": ["never"]},
    ]
    document["key"] = f"{document['key']}_{behind['key']}"
    return circuit_from_dict(document)


def _stops(run: Run, circuit: Circuit) -> str:
    last = [m for m in circuit.control.milestones if m.seen][-1]
    steady = run.failures == 0 and run.reached == last.key and last.condition in run.stop.holds
    return STEADY if steady else run.reached or NOTHING
