"""Bayes over what could be the matter, along the tape: what was seen in each epoch, what each action may have cured."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from math import exp, log

from havrin_core.machine.circuit.meant import cure_chance
from havrin_core.machine.circuit.model import FaultMode
from havrin_core.search.epochs import POWER_CYCLE, UNSAID
from havrin_core.search.likelihood import log_chance
from havrin_core.search.model import CURED, NOTHING_WRONG, PART, UNLISTED, ActionTaken, Seen
from havrin_core.search.pictures import NONE, AnyPicture, Pictures
from havrin_core.search.severities import mode_of
from havrin_core.search.worlds import PAIR_SHARE, World, weights_of, worlds_of

_PAIRS_FROM, _PAIRS_MOST, _KEEP = 14, 90, 1e-5
_POOR_FIT = 3.0  # nats below a perfect fit, from which on two at once are looked at
_BY_CHANCE = 0.01  # that an action on another part cures a fault
_ELSEWHERE = 0.6  # that an action on a part which the circuit does not know cures what nobody listed
_UNLISTED_CURED = 0.08  # that any other action does

Present = tuple[FaultMode, ...]


@dataclass(frozen=True, slots=True)
class Hypothesis:
    """What is the matter now: ``faults`` are those still there, ``had`` those that were at first; ``share`` sums to 1 over all."""

    faults: Present
    had: Present
    share: float
    kind: str  # of the kinds of a suspect
    blocks: str  # key of the part that stops the unit first; of what nobody listed, the part that it looks like
    tripped: frozenset[str] = NONE

    @property
    def label(self) -> str:
        """Return what tells suspicions apart."""
        return self.blocks if self.kind == PART else f"{self.kind}:{self.blocks}"


def shares(pictures: Pictures, seen: Seen, odds: Mapping[str, float] | None = None) -> list[Hypothesis]:
    """Return all hypotheses worth keeping, most likely first.

    ``odds`` overrides the fault modes' own weights (season, age, this unit's history).
    Pairs are looked at once no listed single fault explains well what was seen.
    """
    singles = worlds_of(pictures, odds)
    scored = _scored(pictures, singles, seen)
    if seen.observations and _best_fit(scored) < -_POOR_FIT:
        scored += _scored(pictures, _pairs(pictures, scored, seen, odds), seen)
    return _normalised(pictures, scored)


@dataclass(frozen=True, slots=True)
class _Scored:
    world: World
    fit: float  # log, against a perfect prediction of everything
    left: Mapping[Present, float]  # what is still there, with its chance
    tripped: frozenset[str]

    @property
    def score(self) -> float:
        return log(self.world.share) + self.fit


def _scored(pictures: Pictures, worlds: Sequence[World], seen: Seen) -> list[_Scored]:
    """Return every world with its fit. Calls with a jumper are costly to picture: only what is still possible has them."""
    if any(o.bridged for o in seen.observations):
        plain = Seen(tuple(o for o in seen.observations if not o.bridged), seen.actions)
        first = [_along(pictures, world, plain) for world in worlds]
        best = max(row.score for row in first)
        worlds = [row.world for row in first if row.score - best > log(_KEEP)]
    return [_along(pictures, world, seen) for world in worlds]


def _along(pictures: Pictures, world: World, seen: Seen) -> _Scored:
    """Follow one world along the tape: which of its faults are still there after each action, and how well all fits."""
    tripped = world.tripped
    states = {world.faults: 1.0}
    fit = 0.0
    for epoch in range(len(seen.actions) + 1):
        rows = [o for o in seen.observations if o.epoch == epoch]
        logs = {
            present: log(chance) + sum(log_chance(pictures, world, present, o, tripped) for o in rows)
            for present, chance in states.items()
        }
        best = max(logs.values())
        whole = sum(exp(value - best) for value in logs.values())
        fit += best + log(whole)
        states = {present: exp(value - best) / whole for present, value in logs.items()}
        if epoch < len(seen.actions):
            action = seen.actions[epoch]
            tripped = _still_tripped(pictures, tripped, action)
            states = _after(world, states, action)
    return _Scored(world, fit, states, tripped)


def _still_tripped(pictures: Pictures, tripped: frozenset[str], action: ActionTaken) -> frozenset[str]:
    if not tripped or not (action.resets or action.verb == "change"):
        return tripped
    opened = {
        term[1:] for key in action.parts for term in pictures.circuit.part(key).closed_when if term.startswith("!")
    }
    return tripped - opened


def _after(world: World, states: Mapping[Present, float], action: ActionTaken) -> dict[Present, float]:
    """Return what may still be there after an action, each with its chance."""
    after: dict[Present, float] = {}
    for present, chance in states.items():
        for gone in (some for count in range(len(present) + 1) for some in combinations(present, count)):
            share = chance
            for fault in present:
                cured = _cured(world, fault, action)
                share *= cured if fault in gone else 1 - cured
            if share > 0:
                left = tuple(fault for fault in present if fault not in gone)
                after[left] = after.get(left, 0.0) + share
    return after


def _cured(world: World, fault: FaultMode, action: ActionTaken) -> float:
    if action.verb == UNSAID:
        return 0.5
    if action.verb == POWER_CYCLE:
        return 0.3 if fault.comes_and_goes else _BY_CHANCE
    if world.unlisted:
        return _ELSEWHERE if action.elsewhere else _UNLISTED_CURED
    return max(cure_chance(fault, action.verb), _BY_CHANCE) if fault.part in action.parts else _BY_CHANCE


def _best_fit(scored: Iterable[_Scored]) -> float:
    return max((row.fit for row in scored if row.world.faults and not row.world.unlisted), default=0.0)


def _pairs(pictures: Pictures, scored: Sequence[_Scored], seen: Seen, odds: Mapping[str, float] | None) -> list[World]:
    """Return two faults at once, as far as either of them, or neither, could have shown each thing that was seen.

    To picture two faults together is costly: only the best by that measure are.
    """
    plain = [o for o in seen.observations if not o.bridged]
    sound = World((), 1.0)

    def alone(world: World) -> list[float]:
        return [log_chance(pictures, world, world.faults, o, world.tripped) for o in plain]

    known: dict[Present, list[float]] = {(): alone(sound)}
    ranked: list[tuple[float, World]] = []
    for world in _beside_each_other(pictures, scored, odds):
        for fault in world.faults:
            if (fault,) not in known:
                known[fault,] = alone(World((fault,), 1.0, tripped=pictures.of((fault,)).trips))
        one, other = (known[fault,] for fault in world.faults)
        ranked.append((log(world.share) + sum(map(max, one, other, known[()])), world))
    ranked.sort(key=lambda row: -row[0])
    return [world for _, world in ranked[:_PAIRS_MOST]]


def _beside_each_other(
    pictures: Pictures, scored: Sequence[_Scored], odds: Mapping[str, float] | None
) -> Iterable[World]:
    """Yield each likely single fault, at its likeliest severity, beside every other."""
    weights = weights_of(pictures, odds)
    ranked = sorted((row for row in scored if row.world.faults and not row.world.unlisted), key=lambda row: -row.score)
    likely: dict[str, FaultMode] = {}
    for row in ranked:
        likely.setdefault(mode_of(row.world.faults[0]), row.world.faults[0])
    done: set[frozenset[str]] = set()
    for mode, one in list(likely.items())[:_PAIRS_FROM]:
        for other in pictures.circuit.faults:
            key = frozenset((mode, other.key))
            if one.part == other.part or key in done:
                continue
            done.add(key)
            share = PAIR_SHARE * weights[mode] * weights[other.key]
            trips = pictures.of((one,)).trips | pictures.of((other,)).trips
            yield World((one, other), share, tripped=trips)


def _normalised(pictures: Pictures, scored: Sequence[_Scored]) -> list[Hypothesis]:
    best = max(row.score for row in scored)
    kept = [(row, exp(row.score - best)) for row in scored if row.score - best > log(_KEEP)]
    total = sum(weight for _, weight in kept)
    found = [
        _hypothesis(pictures, row, present, weight / total * chance)
        for row, weight in kept
        for present, chance in row.left.items()
        if weight * chance > _KEEP
    ]
    return sorted(found, key=lambda h: -h.share)


def _hypothesis(pictures: Pictures, row: _Scored, present: Present, share: float) -> Hypothesis:
    world = row.world
    had = world.faults
    if world.unlisted and (present or world.tripped):  # a reset cures nothing: what tripped it was not found
        return Hypothesis(present, had, share, UNLISTED, _first_part(pictures, present), row.tripped)
    if not present:
        over = bool(had) or world.unlisted
        return Hypothesis((), had, share, CURED if over else NOTHING_WRONG, "", row.tripped)
    return Hypothesis(present, had, share, PART, _first_part(pictures, present), row.tripped)


def _first_part(pictures: Pictures, present: Present) -> str:
    return min(present, key=lambda fault: pictures.of((fault,)).progress).part if present else ""


def picture_of(pictures: Pictures, hypothesis: Hypothesis) -> AnyPicture:
    """Return the picture of what is the matter now."""
    return pictures.of(hypothesis.faults, NONE, hypothesis.tripped)
