"""The test that tells most per minute, within the house rules."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import erf, inf, log2, sqrt

from havrin_core.facts.passed_over import LATER
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.virtual.run import DARK
from havrin_core.search.inference import FINDS, Hypothesis, spread
from havrin_core.search.model import Meaning, Observation, Offer, Outcome, Test
from havrin_core.search.pictures import BAD, GOOD, Pictures
from havrin_core.search.words import in_words

CLEAR = 0.95
NOTHING_PASSED: Mapping[str, str] = {}
_GAP_SIGMAS = 1.0  # predictions nearer than this fall into one outcome
_DUST = 1e-4
_WORTH_BITS = 0.01
_FEW = 60  # hypotheses that are weighed; the rest is dust
# Ties: looks before tools, tools before swaps.
_HANDICAP = {
    "stops": 0.0,
    "again": 0.0,
    "code": 0.0,
    "look": 0.0,
    "watch": 0.1,
    "volts": 0.05,
    "gauge": 0.1,
    "ohms": 0.1,
    "jump": 0.2,
    "swap": 0.5,
}


def allowed(test: Test, rules: HouseRules) -> bool:
    """Tell whether the house rules let this test be offered."""
    if test.line_voltage and rules.live_work == "low_voltage_only":
        return False
    return not (test.kind == "jump" and rules.jumpers == "none")


def offers(
    pictures: Pictures,
    hypotheses: Sequence[Hypothesis],
    seen: Sequence[Observation],
    rules: HouseRules,
    most: int = 1,
    passed: Mapping[str, str] = NOTHING_PASSED,
) -> list[Offer]:
    """Return up to ``most`` tests that were not done yet, most bits per minute first; none that tells nothing.

    What was ``passed`` over is not offered again; what was put off for later stands behind all others.
    """
    done = {o.test for o in seen}
    weighed = pictured(pictures, hypotheses)
    worth: list[tuple[float, float, Test]] = []
    for test in pictures.tests.values():
        if (
            passed.get(test.key, LATER) != LATER
            or test.key in done
            or not allowed(test, rules)
            or (test.kind == "again" and "stops" not in done)
        ):
            continue
        groups = outcome_groups(test, weighed)
        bits = _information(groups) if len(groups) > 1 else 0.0
        if bits > _WORTH_BITS:
            worth.append((bits / (test.minutes + _HANDICAP[test.kind]), bits, test))
    worth.sort(key=lambda row: (row[2].key in passed, -row[0]))
    return [Offer(test, bits, _meanings(pictures, test, weighed)) for _, bits, test in worth[:most]]


Group = tuple[Outcome, dict[str, float]]  # an outcome, and the share of each part under it


Pictured = tuple[Mapping[str, Outcome], Hypothesis]  # what every test would show, if it were this


def pictured(pictures: Pictures, hypotheses: Sequence[Hypothesis]) -> list[Pictured]:
    """Return the hypotheses that are weighed, each with its picture."""
    return [(pictures.of(h.faults).outcomes, h) for h in hypotheses[:_FEW]]


def outcome_groups(test: Test, weighed: Sequence[Pictured]) -> list[Group]:
    """Return the outcomes that can be told apart, with the share of each part that would show them.

    Shares are spread as the test errs: a look misses some, a number scatters around its prediction.
    """
    rows = [(outcomes[test.key], h) for outcomes, h in weighed]
    if all(outcome == rows[0][0] for outcome, _ in rows):
        return [(rows[0][0], {h.blocks: h.share for _, h in rows})]  # it tells nothing
    if test.kind in ("volts", "gauge"):
        return _numbers(test, rows)
    if test.kind in FINDS:
        return _looks(rows, *FINDS[test.kind])
    groups: dict[Outcome, dict[str, float]] = {}
    for outcome, h in rows:
        _add(groups.setdefault(outcome, {}), h, 1.0)
    return list(groups.items())


def _numbers(test: Test, rows: Sequence[tuple[Outcome, Hypothesis]]) -> list[Group]:
    by_value: dict[float, list[Hypothesis]] = {}
    for outcome, h in rows:
        by_value.setdefault(round(float(outcome or 0.0), 9), []).append(h)
    centres: list[float] = []
    for value in sorted(by_value):
        if not centres or value - centres[-1] > _GAP_SIGMAS * spread(test, value):
            centres.append(value)
    edges = [-inf, *((a + b) / 2 for a, b in pairwise(centres)), inf]
    groups: list[Group] = [(centre, {}) for centre in centres]
    for value, under in by_value.items():
        width = spread(test, value)
        below = [0.5 * (1 + erf((edge - value) / (width * sqrt(2)))) for edge in edges]
        for (_, parts), (low, high) in zip(groups, pairwise(below), strict=True):
            for h in under if high - low > _DUST else ():
                _add(parts, h, high - low)
    return [(centre, parts) for centre, parts in groups if parts]


def _looks(rows: Sequence[tuple[Outcome, Hypothesis]], found: float, erred: float) -> list[Group]:
    bad: dict[str, float] = {}
    good: dict[str, float] = {}
    for outcome, h in rows:
        finds = found if outcome == BAD else erred
        _add(bad, h, finds)
        _add(good, h, 1 - finds)
    return [(BAD, bad), (GOOD, good)]


def _add(parts: dict[str, float], h: Hypothesis, chance: float) -> None:
    parts[h.blocks] = parts.get(h.blocks, 0.0) + h.share * chance


def _information(groups: Sequence[Group]) -> float:
    total: dict[str, float] = {}
    for _, parts in groups:
        for part, share in parts.items():
            total[part] = total.get(part, 0.0) + share
    whole = sum(total.values())
    after = sum(sum(parts.values()) / whole * _entropy(parts) for _, parts in groups)
    return max(_entropy(total) - after, 0.0)


def _entropy(parts: dict[str, float]) -> float:
    whole = sum(parts.values())
    return -sum(s / whole * log2(s / whole) for s in parts.values() if s > 0) if whole > 0 else 0.0


_IN_WORDS = ("stops", "look", "swap", "jump", "watch", "ohms", "code")


def line_of(test: Test, outcome: Outcome) -> str:
    """Return the line of the bar that writes an outcome; "" where a number has to be typed."""
    if isinstance(outcome, float) or test.kind not in _IN_WORDS or outcome == DARK:
        return ""
    return f"{test.starter.strip()} {outcome}"


def _meanings(pictures: Pictures, test: Test, weighed: Sequence[Pictured]) -> tuple[Meaning, ...]:
    found = []
    groups = outcome_groups(test, weighed)
    whole = sum(sum(parts.values()) for _, parts in groups)
    for outcome, parts in groups:
        mass = sum(parts.values())
        first = max(parts, key=lambda part: parts[part])
        name = pictures.circuit.part(first).name
        found.append(Meaning(in_words(test, outcome), mass / whole, name, parts[first] / mass, line_of(test, outcome)))
    return tuple(sorted((m for m in found if m.share > 0.005), key=lambda m: -m.share)[:5])
