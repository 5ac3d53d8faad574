"""How likely a breach is: every sign as a likelihood ratio, combined, and the next look that would settle it.

The ratios are Havrin's judgement, for guidance: no figure of a handbook. A seen breach needs none of them.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from math import log2, sqrt

from havrin_core.exchanger.coverage import WHOLE_AT_ONCE, Coverage, coverages, found_by_now
from havrin_core.exchanger.signs import Sign, is_breached, o2_step_sign, register_sign, seen_sign, signs_of
from havrin_core.facts.facts import Facts
from havrin_core.machine.unit import Unit
from havrin_core.vocabulary.methods import FINDS

SUSPECTED_FROM = 0.10  # one in ten
WEAK_BELOW = 5.0  # a ratio under this is a weak sign
_PRIORS = ((10, 0.005), (20, 0.015), (200, 0.03))  # below so many years: share of exchangers that are breached
_PRIOR_UNKNOWN = 0.02
# What a look finds on a breached exchanger and on a sound one, for the order in which looks are offered alone
_STEP_FINDS, _STEP_ALARMS, _REGISTER_FINDS, _REGISTER_ALARMS = 0.7, 0.08, 0.35, 0.03
_LOOK_ALARMS = 0.01
_STEP_SEEN_PCT, _REGISTER_SEEN_PPM = 1.5, 20.0  # readings that stand for "found"


@dataclass(frozen=True, slots=True)
class NextLook:
    """A further look: its key (words: wording/exchanger.py), minutes, the words that begin its line, and the odds after either outcome (0 to 1)."""

    key: str
    minutes: int
    starter: str
    if_found: float
    if_not: float


@dataclass(frozen=True, slots=True)
class Evidence:
    """``probability`` 0 to 1 that the exchanger is breached; 1 with ``breached`` where it was seen."""

    prior: float
    age_years: int | None
    signs: tuple[Sign, ...]
    probability: float
    breached: bool
    next_looks: tuple[NextLook, ...]


def evidence_of(unit: Unit, facts: Facts) -> Evidence:
    """Return what the tape and the unit's age and surroundings say of the exchanger."""
    prior, age = _prior(unit, facts)
    signs = tuple(signs_of(unit, facts))
    if is_breached(facts):
        return Evidence(prior, age, signs, 1.0, True, ())
    return Evidence(prior, age, signs, _probability(signs, prior), False, tuple(_next_looks(unit, facts, signs, prior)))


def _probability(signs: tuple[Sign, ...], prior: float) -> float:
    odds = prior / (1 - prior) * combined(signs)
    return odds / (1 + odds)


def is_suspected(evidence: Evidence) -> bool:
    """Tell whether a breach is likely enough to act on, though none was seen."""
    return not evidence.breached and evidence.probability >= SUSPECTED_FROM


def evidence_state(evidence: Evidence) -> str:
    """Return how the evidence is marked: out (a breach was seen), near (suspected), in."""
    return "out" if evidence.breached else "near" if is_suspected(evidence) else "in"


def only_one_weak(evidence: Evidence) -> bool:
    """Tell whether a single weak sign is all that speaks for a breach."""
    against = [sign for sign in evidence.signs if sign.ratio > 1.2 and sign.entry_id]
    return len(against) == 1 and against[0].ratio < WEAK_BELOW


def combined(signs: tuple[Sign, ...]) -> float:
    """Return the ratio of all signs together: of signs with one common cause the strongest counts whole, the rest half.

    Half is the square root: two signs that always come together would otherwise be counted twice.
    """
    ratio = 1.0
    for group in {sign.group for sign in signs}:
        rows = [sign.ratio for sign in signs if sign.group == group]
        for side in (sorted((r for r in rows if r >= 1), reverse=True), sorted(r for r in rows if r < 1)):
            for index, value in enumerate(side):
                ratio *= value if index == 0 else sqrt(value)
    return ratio


def _prior(unit: Unit, facts: Facts) -> tuple[float, int | None]:
    year = facts.lines[-1].moment.at.year if facts.lines else None
    if unit.installed_year is None or year is None:
        return _PRIOR_UNKNOWN, None
    age = max(year - unit.installed_year, 0)
    return next(share for below, share in _PRIORS if age < below), age


@dataclass(frozen=True, slots=True)
class _Offer:
    """A look with what it would add to the signs: ``found`` None is a breach that was seen, which decides."""

    key: str
    minutes: int
    starter: str
    finds: float
    alarms: float
    found: Sign | None
    nothing: Sign


def _next_looks(unit: Unit, facts: Facts, signs: tuple[Sign, ...], prior: float) -> list[NextLook]:
    """Return the looks that tell most per minute; their odds are those that the signs give once the look is on the tape."""
    before = _probability(signs, prior)
    offers = [*_looks_inside(unit, facts), *_looks_outside(unit, facts)]
    told = sorted(offers, key=lambda offer: -_gain(before, offer.finds, offer.alarms) / offer.minutes)
    return [
        NextLook(
            offer.key,
            offer.minutes,
            offer.starter,
            1.0 if offer.found is None else _probability(_with(signs, offer.found), prior),
            _probability(_with(signs, offer.nothing), prior),
        )
        for offer in told
        if offer.finds > 0.02
    ][:3]


def _looks_inside(unit: Unit, facts: Facts) -> Iterator[_Offer]:
    parts = unit.plate.exchanger_cells
    rows = coverages(facts, parts)
    missed = 1 - found_by_now(rows)
    for key, method, minutes, starter in (
        ("borescope", "borescope", 12, f"exchanger ok {parts}/{parts} by borescope"),
        ("pressure", WHOLE_AT_ONCE, 30, "exchanger ok by pressure test"),
    ):
        own = Coverage(parts, parts, method, FINDS[method], "")
        after = sorted([*(row for row in rows if row.method != method), own], key=lambda row: -row.finds)
        finds = 1 - (1 - found_by_now(after)) / missed
        yield _Offer(key, minutes, starter, finds, _LOOK_ALARMS, None, seen_sign(after))


def _looks_outside(unit: Unit, facts: Facts) -> Iterator[_Offer]:
    if not any(path.key == "air" for path in unit.paths):
        return
    if facts.newest("o2_step_pct", None) is None:
        found, nothing = o2_step_sign(_STEP_SEEN_PCT), o2_step_sign(0.0)
        yield _Offer("o2_step", 6, "o2 step ", _STEP_FINDS, _STEP_ALARMS, found, nothing)
    if facts.newest("supply_air_co_ppm", None) is None:
        found, nothing = register_sign(_REGISTER_SEEN_PPM), register_sign(0.0)
        yield _Offer("register", 4, "register ", _REGISTER_FINDS, _REGISTER_ALARMS, found, nothing)


def _with(signs: tuple[Sign, ...], added: Sign) -> tuple[Sign, ...]:
    return (*(sign for sign in signs if sign.key != added.key), added)


def _gain(before: float, finds: float, alarms: float) -> float:
    """Return the bits that a look brings on the average."""
    found = before * finds + (1 - before) * alarms
    after_found = before * finds / found if found else 0.0
    after_not = before * (1 - finds) / (1 - found) if found < 1 else 0.0
    return _bits(before) - found * _bits(after_found) - (1 - found) * _bits(after_not)


def _bits(share: float) -> float:
    return 0.0 if not 0 < share < 1 else -share * log2(share) - (1 - share) * log2(1 - share)
