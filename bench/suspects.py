"""How well and how fast suspects are found, against other ways of choosing tests.

The unit that hides the fault is simulated with other seeds, wider noise, and the inference works with
wrong priors: nobody's fault statistics are right.
"""

import random
import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from statistics import mean, quantiles

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.model import FaultMode
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.virtual.run import VirtualUnit
from havrin_core.search.inference import Hypothesis, shares, spread
from havrin_core.search.model import Observation, Outcome, Test
from havrin_core.search.next_test import CLEAR, offers, outcome_groups, pictured
from havrin_core.search.pictures import BAD, DIFFERS, GOOD, SAME, Pictures, outcome_of, pictures_of

PAIRS = 300
_NOISE = 1.4  # times the width that the inference believes in
_FINDS = {"look": (0.90, 0.03), "watch": (0.80, 0.02)}
_AGAIN_SAME = 0.3  # of calls with a fault that comes and goes
_MOST_TESTS = 45
_RULES = HouseRules()

Chooser = Callable[[Pictures, Sequence[Hypothesis], Sequence[Observation], random.Random], Test | None]


@dataclass
class Found:
    """One search: which part was named first, whether that was right, how many minutes."""

    right: bool
    minutes: float
    waits_s: list[float]


def by_information(pictures, hypotheses, seen, _chance):  # type: ignore[no-untyped-def]
    """Most bits per minute: what the page offers."""
    return next((best.test for best in offers(pictures, hypotheses, seen, _RULES)), None)


def in_order(pictures, hypotheses, seen, _chance):  # type: ignore[no-untyped-def]
    """Walk the string: every test in the catalogue's order."""
    done = {o.test for o in seen}
    return next((t for t in pictures.tests.values() if t.key not in done), None)


def halving(pictures, hypotheses, seen, _chance):  # type: ignore[no-untyped-def]
    """The test that splits the suspects most evenly, whatever it costs."""
    done = {o.test for o in seen}
    weighed = pictured(pictures, hypotheses)

    def largest(test: Test) -> float:
        return max(sum(parts.values()) for _, parts in outcome_groups(test, weighed))

    left = [t for t in pictures.tests.values() if t.key not in done]
    return min(left, key=largest, default=None)


def at_random(pictures, hypotheses, seen, chance):  # type: ignore[no-untyped-def]
    """Any test that was not done yet."""
    done = {o.test for o in seen}
    left = [t for t in pictures.tests.values() if t.key not in done]
    return chance.choice(left) if left else None


WAYS: dict[str, Chooser] = {
    "information per minute": by_information,
    "walk in order": in_order,
    "halving": halving,
    "random": at_random,
}


def search(pictures: Pictures, faults: Sequence[FaultMode], way: Chooser, seed: int) -> Found:
    """Hide ``faults`` in a virtual unit and look for them until one part holds ``CLEAR`` of the suspicion."""
    chance = random.Random(seed)
    unit = VirtualUnit(pictures.circuit, faults, seed=seed)
    run = unit.call()
    odds = {f.key: f.odds * chance.lognormvariate(0.0, 0.6) for f in pictures.circuit.faults}
    seen: list[Observation] = []
    minutes, waits = 0.0, []
    hypotheses = shares(pictures, seen, odds)
    while _top(hypotheses)[1] < CLEAR and len(seen) < _MOST_TESTS:
        begun = time.perf_counter()
        test = way(pictures, hypotheses, seen, chance)
        waits.append(time.perf_counter() - begun)
        if test is None:
            break
        minutes += test.minutes
        seen.append(Observation(test.key, _noisy(test, outcome_of(test, run, unit, faults, pictures), chance)))
        begun = time.perf_counter()
        hypotheses = shares(pictures, seen, odds)
        waits[-1] += time.perf_counter() - begun
    return Found(_top(hypotheses)[0] in {f.part for f in faults}, minutes, waits)


def _top(hypotheses: Sequence[Hypothesis]) -> tuple[str, float]:
    parts: dict[str, float] = {}
    for h in hypotheses:
        parts[h.blocks] = parts.get(h.blocks, 0.0) + h.share
    best = max(parts, key=lambda part: parts[part])
    return best, parts[best]


def _noisy(test: Test, outcome: Outcome, chance: random.Random) -> Outcome:
    if isinstance(outcome, float):
        return max(outcome + chance.gauss(0, _NOISE * spread(test, outcome)), 0.0)
    if test.kind in _FINDS:
        return BAD if chance.random() < _FINDS[test.kind][outcome != BAD] else GOOD
    if outcome == DIFFERS and chance.random() < _AGAIN_SAME:
        return SAME
    return outcome


def singles() -> Iterator[tuple[Pictures, tuple[FaultMode, ...]]]:
    """Every single fault of every shipped circuit."""
    for name in circuit_names():
        pictures = pictures_of(shipped_circuit(name))
        for fault in pictures.circuit.faults:
            yield pictures, (fault,)


def drawn_pairs(count: int, seed: int) -> Iterator[tuple[Pictures, tuple[FaultMode, ...]]]:
    """Pairs of faults on different parts, over all circuits."""
    chance = random.Random(seed)
    names = circuit_names()
    for _ in range(count):
        pictures = pictures_of(shipped_circuit(chance.choice(names)))
        one, other = chance.sample(pictures.circuit.faults, 2)
        while one.part == other.part:
            one, other = chance.sample(pictures.circuit.faults, 2)
        yield pictures, (one, other)


def report() -> None:
    """Print how often the right part was named first, in how many minutes, and how long the page waits."""
    print(f"suspects (noise × {_NOISE}, other seeds, priors off by a factor of 1.8 either way, looks that miss more)")
    for title, cases in (("singles", list(singles())), (f"{PAIRS} pairs", list(drawn_pairs(PAIRS, 7)))):
        for name, way in WAYS.items():
            found = [search(pictures, faults, way, seed) for seed, (pictures, faults) in enumerate(cases, 1000)]
            waits = [w for f in found for w in f.waits_s]
            print(
                f"  {title:10} {name:24} right first {100 * mean(f.right for f in found):5.1f} %"
                f"   minutes {mean(f.minutes for f in found):5.1f}   p95 wait {1000 * quantiles(waits, n=20)[-1]:.0f} ms"
            )
