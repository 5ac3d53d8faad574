"""Bayes over single faults and pairs: shares of suspicion, and readings that fit none of them."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import exp, hypot, log

from havrin_core.machine.circuit.model import FaultMode
from havrin_core.search.model import Conflict, Observation, Outcome, Test
from havrin_core.search.pictures import BAD, DIFFERS, Pictures
from havrin_core.search.words import in_words

PAIR_MASS = 0.08  # of all calls, two faults at once
_SURE = {"stops": 0.97, "again": 0.97, "code": 0.98, "ohms": 0.98, "swap": 0.98, "jump": 0.98}
FINDS = {"look": (0.93, 0.02), "watch": (0.85, 0.01)}  # a fault that is there, one that is not
_AGAIN_DIFFERS = 0.75  # of calls with a fault that comes and goes
_OUTLIER = 0.004  # share of readings that are simply misread
_ODD_SIGMAS = 5.0
_PAIRS_FROM, _KEEP = 8, 1e-4
_POOR_FIT = 3.5  # nats below what the best suspect's own readings usually give


@dataclass(frozen=True, slots=True)
class Hypothesis:
    """One fault, or two at once; ``share`` sums to 1 over all."""

    faults: tuple[FaultMode, ...]
    share: float
    blocks: str  # key of the part that stops the unit first


def shares(
    pictures: Pictures, observations: Sequence[Observation], odds: Mapping[str, float] | None = None
) -> list[Hypothesis]:
    """Return all hypotheses worth keeping, most likely first.

    ``odds`` overrides the fault modes' own weights (season, age, this unit's history).
    Pairs are looked at once the singles explain what was seen poorly.
    """
    weights = {f.key: (odds or {}).get(f.key, f.odds) for f in pictures.circuit.faults}
    total = sum(weights.values())
    singles = [
        ((fault,), log((1 - PAIR_MASS) * weights[fault.key] / total) + _fit(pictures, (fault,), observations))
        for fault in pictures.circuit.faults
    ]
    singles.sort(key=lambda row: -row[1])
    rows: list[tuple[tuple[FaultMode, ...], float]] = list(singles)
    if observations and _fit(pictures, singles[0][0], observations) < -_POOR_FIT:
        rows += _pairs(pictures, [faults[0] for faults, _ in singles[:_PAIRS_FROM]], weights, total, observations)
    return _normalised(pictures, rows)


def _pairs(
    pictures: Pictures,
    likely: Sequence[FaultMode],
    weights: Mapping[str, float],
    total: float,
    seen: Sequence[Observation],
) -> Iterable[tuple[tuple[FaultMode, ...], float]]:
    done: set[frozenset[str]] = set()
    for one in likely:
        for other in pictures.circuit.faults:
            key = frozenset((one.key, other.key))
            if one.part == other.part or key in done:
                continue
            done.add(key)
            prior = log(PAIR_MASS) + log(weights[one.key] / total) + log(weights[other.key] / total)
            yield (one, other), prior + _fit(pictures, (one, other), seen)


def _normalised(pictures: Pictures, rows: Sequence[tuple[tuple[FaultMode, ...], float]]) -> list[Hypothesis]:
    best = max(score for _, score in rows)
    raw = [(faults, exp(score - best)) for faults, score in rows if score - best > log(_KEEP)]
    total = sum(weight for _, weight in raw)
    found = [Hypothesis(faults, weight / total, _blocker(pictures, faults)) for faults, weight in raw]
    return sorted(found, key=lambda h: -h.share)


def _blocker(pictures: Pictures, faults: tuple[FaultMode, ...]) -> str:
    return min(faults, key=lambda fault: pictures.of((fault,)).progress).part


def _fit(pictures: Pictures, faults: tuple[FaultMode, ...], observations: Sequence[Observation]) -> float:
    """Return the log-likelihood ratio of all observations against a perfect prediction of each."""
    outcomes = pictures.of(faults).outcomes
    return sum(_log_ratio(pictures.tests[o.test], outcomes[o.test], o) for o in observations)


def _log_ratio(test: Test, predicted: Outcome, seen: Observation) -> float:
    shown = seen.outcome
    if test.kind in ("volts", "gauge"):
        if not isinstance(predicted, float) or not isinstance(shown, float):
            return 0.0
        sigma = hypot(spread(test, predicted), seen.spread)
        return log(exp(-0.5 * min(((shown - predicted) / sigma) ** 2, 80.0)) + _OUTLIER)
    if test.kind in FINDS:
        chance = FINDS[test.kind][predicted != BAD]
        return log(chance if shown == BAD else 1 - chance)
    if test.kind == "again" and predicted == DIFFERS:
        return log(_AGAIN_DIFFERS if shown == DIFFERS else 1 - _AGAIN_DIFFERS)
    sure = _SURE[test.kind]
    return log(sure if predicted == shown else (1 - sure) / 3)


def spread(test: Test, predicted: float) -> float:
    """Return the standard deviation of a reading around its prediction."""
    return hypot(test.sigma, 0.02 * predicted)


def conflicts(pictures: Pictures, best: Hypothesis, observations: Sequence[Observation]) -> list[Conflict]:
    """Return the readings that the best hypothesis does not explain."""
    outcomes = pictures.of(best.faults).outcomes
    found = []
    for seen in observations:
        test = pictures.tests[seen.test]
        predicted = outcomes[seen.test]
        if _odd(test, predicted, seen.outcome):
            found.append(
                Conflict(test.key, test.name, in_words(test, seen.outcome), in_words(test, predicted), seen.entry_id)
            )
    return found


def _odd(test: Test, predicted: Outcome, shown: Outcome) -> bool:
    if test.kind in ("volts", "gauge"):
        if not isinstance(predicted, float) or not isinstance(shown, float):
            return False
        return abs(shown - predicted) > _ODD_SIGMAS * spread(test, predicted)
    if test.kind in FINDS or test.kind == "again":
        return False  # a look may miss, a fault that comes and goes may stay away
    return predicted != shown
