"""The test that tells most per minute, within the house rules and within what is possible at this moment."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import erf, inf, log2, sqrt

from havrin_core.facts.passed_over import LATER
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.virtual.run import DARK
from havrin_core.phrases import phrase
from havrin_core.search.inference import Hypothesis, picture_of
from havrin_core.search.likelihood import DIRECT, FINDS, spread
from havrin_core.search.model import PART, UNLISTED, Conflict, Meaning, Offer, Outcome, Seen, Test
from havrin_core.search.pictures import BAD, GOOD, AnyPicture, Pictures
from havrin_core.search.words import in_words, suspect_name

NOTHING_PASSED: Mapping[str, str] = {}
_GAP_SIGMAS = 1.0  # predictions nearer than this fall into one outcome
_DUST = 1e-4
_WORTH_BITS = 0.01
_FEW = 60  # hypotheses that are weighed; the rest is dust
_BURNS_SHARE = 0.5  # how likely it must burn before a probe or a rise is offered
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
_LIVE_LINE, _KNOWN_GOOD = 0.5, 0.2  # what a test on live line voltage, what fitting another part is worth beside others


def allowed(test: Test, rules: HouseRules) -> bool:
    """Tell whether the house rules let this test be offered."""
    if test.line_voltage and rules.live_work == "low_voltage_only":
        return False
    return not (test.kind == "jump" and rules.jumpers == "none")


def offers(
    pictures: Pictures,
    hypotheses: Sequence[Hypothesis],
    seen: Seen,
    rules: HouseRules,
    most: int = 1,
    passed: Mapping[str, str] = NOTHING_PASSED,
) -> list[Offer]:
    """Return up to ``most`` tests that were not done since the last action, most bits per minute first; none that tells nothing.

    What was ``passed`` over is not offered again; what was put off for later stands behind all others.
    """
    weighed = pictured(pictures, hypotheses)
    worth: list[tuple[float, float, Test]] = []
    for test in _possible(pictures, weighed, seen, rules, passed):
        groups = outcome_groups(test, weighed)
        bits = _information(groups) if len(groups) > 1 else 0.0
        if bits > _WORTH_BITS:
            worth.append((_value(test, bits), bits, test))
    worth.sort(key=lambda row: (row[2].key in passed, -row[0]))
    return [Offer(test, bits, _meanings(pictures, test, weighed)) for _, bits, test in worth[:most]]


def retest(
    pictures: Pictures, hypotheses: Sequence[Hypothesis], seen: Seen, against: Sequence[Conflict]
) -> Offer | None:
    """Return the test whose repetition decides a conflict; None where each was read twice already, or cannot be read again."""
    once = {o.test for o in seen.now if o.times == 1}
    named = next((c.test for c in against if c.test in once and c.test in pictures.tests), None)
    return _offer(pictures, pictures.tests[named], hypotheses) if named else None


def second_look(pictures: Pictures, hypotheses: Sequence[Hypothesis], seen: Seen) -> Offer | None:
    """Return the look to take once more at the likeliest listed part, where everything listed seems sound: a look may miss."""
    once = {o.test for o in seen.now if o.times == 1 and o.outcome == GOOD}
    parts = (h.blocks for h in hypotheses if h.kind == PART)
    named = next((f"look:{part}" for part in parts if f"look:{part}" in once), None)
    return _offer(pictures, pictures.tests[named], hypotheses) if named else None


def _offer(pictures: Pictures, test: Test, hypotheses: Sequence[Hypothesis]) -> Offer:
    weighed = pictured(pictures, hypotheses)
    return Offer(test, _information(outcome_groups(test, weighed)), _meanings(pictures, test, weighed))


def _value(test: Test, bits: float) -> float:
    value = bits / (test.minutes + _HANDICAP[test.kind])
    return value * (_LIVE_LINE if test.line_voltage else 1.0) * (_KNOWN_GOOD if test.known_good else 1.0)


def _possible(
    pictures: Pictures, weighed: "Sequence[Pictured]", seen: Seen, rules: HouseRules, passed: Mapping[str, str]
) -> list[Test]:
    """Return the tests that can be done now: allowed, not done, not passed over, and with something there to be read."""
    done = {o.test for o in seen.now}
    whole = sum(h.share for _, h in weighed)
    burns = sum(h.share for picture, h in weighed if picture.burns) > _BURNS_SHARE * whole
    return [
        test
        for test in pictures.tests.values()
        if test.key not in done
        and passed.get(test.key, LATER) == LATER
        and allowed(test, rules)
        and (burns or not test.needs_fire)
        and (test.kind != "again" or "stops" in done)
    ]


Group = tuple[Outcome, dict[str, float]]  # an outcome, and the share of each part under it


Pictured = tuple[AnyPicture, Hypothesis]  # what every test would show, if it were this


def pictured(pictures: Pictures, hypotheses: Sequence[Hypothesis]) -> list[Pictured]:
    """Return the hypotheses that are weighed, each with its picture."""
    return [(picture_of(pictures, h), h) for h in hypotheses[:_FEW]]


def _shown(test: Test, picture: AnyPicture, h: Hypothesis) -> Outcome:
    """Return what ``test`` would show: of what nobody listed, the part that it looks like is sound by itself."""
    return GOOD if h.kind == UNLISTED and test.kind in DIRECT and test.part == h.blocks else picture[test.key]


def outcome_groups(test: Test, weighed: Sequence[Pictured]) -> list[Group]:
    """Return the outcomes that can be told apart, with the share of each part that would show them.

    Shares are spread as the test errs: a look misses some, a number scatters around its prediction.
    """
    rows = [(_shown(test, picture, h), h) for picture, h in weighed]
    if all(outcome == rows[0][0] for outcome, _ in rows):
        return [(rows[0][0], _alone(rows))]  # it tells nothing
    if test.kind in ("volts", "gauge"):
        return _numbers(test, rows)
    if test.kind in FINDS:
        return _looks(rows, *FINDS[test.kind])
    groups: dict[Outcome, dict[str, float]] = {}
    for outcome, h in rows:
        _add(groups.setdefault(outcome, {}), h, 1.0)
    return list(groups.items())


def _alone(rows: Sequence[tuple[Outcome, Hypothesis]]) -> dict[str, float]:
    parts: dict[str, float] = {}
    for _, h in rows:
        _add(parts, h, 1.0)
    return parts


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
    parts[h.label] = parts.get(h.label, 0.0) + h.share * chance


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
    rows = _side_by_side([(outcome, outcome, parts) for outcome, parts in outcome_groups(test, weighed)])
    whole = sum(sum(parts.values()) for *_, parts in rows)
    found = [_meaning(pictures, test, row, whole) for row in rows]
    return tuple(sorted((m for m in found if m.share > 0.005), key=lambda m: -m.share)[:5])


Row = tuple[Outcome, Outcome, dict[str, float]]  # from, to, the share of each suspicion under it


def _side_by_side(rows: Sequence[Row]) -> list[Row]:
    """Return the outcomes, neighbouring numbers that speak for the same suspect as one from the least to the most."""
    found: list[Row] = []
    for low, high, parts in rows:
        before = found[-1] if found else None
        if before and isinstance(low, float) and isinstance(before[0], float) and _first(parts) == _first(before[2]):
            both = {label: parts.get(label, 0.0) + before[2].get(label, 0.0) for label in {**parts, **before[2]}}
            found[-1] = (before[0], high, both)
        else:
            found.append((low, high, parts))
    return found


def _first(parts: Mapping[str, float]) -> str:
    return max(parts, key=lambda label: parts[label])


def _meaning(pictures: Pictures, test: Test, row: Row, whole: float) -> Meaning:
    low, high, parts = row
    mass, first = sum(parts.values()), _first(parts)
    said = in_words(test, low)
    if high != low and in_words(test, high) != said:
        said = phrase("from_to", low=said, high=in_words(test, high))
    kind = first.partition(":")[0] if ":" in first else PART
    name = suspect_name(pictures.circuit, first)
    return Meaning(said, mass / whole, name, parts[first] / mass, line_of(test, low), kind)
