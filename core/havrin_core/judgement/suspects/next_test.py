"""The test that tells most per minute, within the house rules."""

from collections.abc import Sequence
from math import log2

from havrin_core.judgement.house_rules import HouseRules
from havrin_core.judgement.suspects.inference import Hypothesis, spread
from havrin_core.judgement.suspects.model import Meaning, Observation, Offer, Outcome, Test
from havrin_core.judgement.suspects.pictures import BAD, Pictures
from havrin_core.judgement.suspects.words import in_words

CLEAR = 0.95
_GAP_SIGMAS = 4.0
_LOOK_FINDS, _LOOK_ERRS = 0.93, 0.02
_WORTH_BITS = 0.01
_FEW = 120  # hypotheses that are weighed; the rest is dust
# Ties: looks before tools, tools before swaps.
_HANDICAP = {"stops": 0.0, "code": 0.0, "look": 0.0, "volts": 0.05, "gauge": 0.1, "ohms": 0.1, "jump": 0.2, "swap": 0.5}


def allowed(test: Test, rules: HouseRules) -> bool:
    """Tell whether the house rules let this test be offered."""
    if test.line_voltage and rules.live_work == "low_voltage_only":
        return False
    return not (test.kind == "jump" and rules.jumpers == "none")


def offers(
    pictures: Pictures, hypotheses: Sequence[Hypothesis], seen: Sequence[Observation], rules: HouseRules, most: int = 1
) -> list[Offer]:
    """Return up to ``most`` tests that were not done yet, most bits per minute first; none that tells nothing."""
    done = {o.test for o in seen}
    weighed = hypotheses[:_FEW]
    worth: list[tuple[float, float, Test]] = []
    for test in pictures.tests.values():
        if test.key in done or not allowed(test, rules):
            continue
        groups = outcome_groups(pictures, test, weighed)
        bits = _information(test, groups)
        if bits > _WORTH_BITS:
            worth.append((bits / (test.minutes + _HANDICAP[test.kind]), bits, test))
    worth.sort(key=lambda row: -row[0])
    return [Offer(test, bits, _meanings(pictures, test, weighed)) for _, bits, test in worth[:most]]


Group = tuple[Outcome, dict[str, float]]  # an outcome, and the share of each part under it


def outcome_groups(pictures: Pictures, test: Test, hypotheses: Sequence[Hypothesis]) -> list[Group]:
    """Return the outcomes that the hypotheses predict, those that no reading could tell apart as one."""
    rows = [(pictures.of(h.faults).outcomes[test.key], h) for h in hypotheses]
    if test.kind not in ("volts", "gauge"):
        by_word: dict[Outcome, dict[str, float]] = {}
        for outcome, h in rows:
            parts = by_word.setdefault(outcome, {})
            parts[h.blocks] = parts.get(h.blocks, 0.0) + h.share
        return list(by_word.items())
    groups: list[Group] = []
    last = 0.0
    for value, h in sorted(((float(v or 0.0), h) for v, h in rows), key=lambda row: row[0]):
        if not groups or value - last > _GAP_SIGMAS * spread(test, value):
            groups.append((value, {}))
        groups[-1][1][h.blocks] = groups[-1][1].get(h.blocks, 0.0) + h.share
        last = value
    return groups


def _information(test: Test, groups: Sequence[Group]) -> float:
    if len(groups) < 2:
        return 0.0
    total: dict[str, float] = {}
    for _, parts in groups:
        for part, share in parts.items():
            total[part] = total.get(part, 0.0) + share
    whole = sum(total.values())
    blurred = _blurred(groups) if test.kind == "look" else [parts for _, parts in groups]
    after = sum(sum(parts.values()) / whole * _entropy(parts) for parts in blurred)
    return max(_entropy(total) - after, 0.0)


def _blurred(groups: Sequence[Group]) -> list[dict[str, float]]:
    """A look misses some and errs sometimes: mix its two outcomes accordingly."""
    found: dict[str, float] = {}
    missed: dict[str, float] = {}
    for outcome, parts in groups:
        chance = _LOOK_FINDS if outcome == BAD else _LOOK_ERRS
        for part, share in parts.items():
            found[part] = found.get(part, 0.0) + share * chance
            missed[part] = missed.get(part, 0.0) + share * (1 - chance)
    return [found, missed]


def _entropy(parts: dict[str, float]) -> float:
    whole = sum(parts.values())
    return -sum(s / whole * log2(s / whole) for s in parts.values() if s > 0) if whole > 0 else 0.0


def _meanings(pictures: Pictures, test: Test, hypotheses: Sequence[Hypothesis]) -> tuple[Meaning, ...]:
    found = []
    groups = outcome_groups(pictures, test, hypotheses)
    whole = sum(sum(parts.values()) for _, parts in groups)
    for outcome, parts in groups:
        mass = sum(parts.values())
        first = max(parts, key=lambda part: parts[part])
        name = pictures.circuit.part(first).name
        found.append(Meaning(in_words(test, outcome), mass / whole, name, parts[first] / mass))
    return tuple(sorted(found, key=lambda m: -m.share)[:5])
