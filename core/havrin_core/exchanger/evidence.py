"""How likely a breach is: every sign as a likelihood ratio, combined, and the next look that would settle it.

The ratios are Havrin's judgement, for guidance: no figure of a handbook. A seen breach needs none of them.
"""

from dataclasses import dataclass
from math import log2, sqrt

from havrin_core.exchanger.coverage import coverages
from havrin_core.exchanger.signs import Sign, is_breached, signs_of
from havrin_core.facts.facts import Facts
from havrin_core.machine.unit import Unit
from havrin_core.vocabulary.methods import FINDS

SUSPECTED_FROM = 0.10  # one in ten
WEAK_BELOW = 5.0  # a ratio under this is a weak sign
_PRIORS = ((10, 0.005), (20, 0.02), (200, 0.05))  # below so many years: share of exchangers that are breached
_PRIOR_UNKNOWN = 0.02
_FALSE_ALARM = 0.01


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
    probability = _share(prior / (1 - prior) * combined(signs))
    return Evidence(prior, age, signs, probability, False, tuple(_next_looks(unit, facts, probability)))


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


def _share(odds: float) -> float:
    return odds / (1 + odds)


def _prior(unit: Unit, facts: Facts) -> tuple[float, int | None]:
    year = facts.lines[-1].moment.at.year if facts.lines else None
    if unit.installed_year is None or year is None:
        return _PRIOR_UNKNOWN, None
    age = max(year - unit.installed_year, 0)
    return next(share for below, share in _PRIORS if age < below), age


def _next_looks(unit: Unit, facts: Facts, probability: float) -> list[NextLook]:
    air = any(path.key == "air" for path in unit.paths)
    done = max((row.finds for row in coverages(facts, unit.plate.exchanger_cells)), default=0.0)
    parts = unit.plate.exchanger_cells
    rows = [
        ("borescope", 12, f"exchanger ok {parts}/{parts} by borescope", FINDS["borescope"] * (1 - done), _FALSE_ALARM),
        ("pressure", 30, "exchanger ok by pressure test", FINDS["pressure test"] * (1 - done), 0.02),
    ]
    if air and facts.newest("o2_step_pct", None) is None:
        rows.append(("o2_step", 6, "o2 step ", 0.7, 0.08))
    if air and facts.newest("supply_air_co_ppm", None) is None:
        rows.append(("register", 4, "register ", 0.35, 0.03))
    told = sorted(rows, key=lambda row: -_gain(probability, row[3], row[4]) / row[1])
    return [_next(probability, *row) for row in told if row[3] > 0.02][:3]


def _next(before: float, key: str, minutes: int, starter: str, finds: float, alarms: float) -> NextLook:
    odds = before / (1 - before)
    return NextLook(key, minutes, starter, _share(odds * finds / alarms), _share(odds * (1 - finds) / (1 - alarms)))


def _gain(before: float, finds: float, alarms: float) -> float:
    """Return the bits that a look brings on the average."""
    found = before * finds + (1 - before) * alarms
    after_found = before * finds / found if found else 0.0
    after_not = before * (1 - finds) / (1 - found) if found < 1 else 0.0
    return _bits(before) - found * _bits(after_found) - (1 - found) * _bits(after_not)


def _bits(share: float) -> float:
    return 0.0 if not 0 < share < 1 else -share * log2(share) - (1 - share) * log2(1 - share)
