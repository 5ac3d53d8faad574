"""Ways to look for a cause: what the page offers, walking the string, a good fixed habit; each until the unit runs or nobody knows on."""

import time
from collections.abc import Callable
from dataclasses import dataclass, field, replace

from bench.truth.cases import Case
from havrin_core.house.house_rules import HouseRules
from havrin_core.search.likelihood import DIRECT
from havrin_core.search.model import (
    NOTHING_WRONG,
    PART,
    UNLISTED,
    ActionTaken,
    Observation,
    Outcome,
    Outlook,
    Seen,
    Test,
)
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import BAD, GOOD, STEADY, Pictures, pictures_of

FIT_MINUTES, RESET_MINUTES = 20.0, 3.0
_MOST_TESTS = 45
_AS_A_LAST_RESORT = 0.5  # nothing more can be tested, the part leads
_FITS_FROM = 0.9  # of the suspicion, from which on a hunter fits the part, proved or not
_RULES = HouseRules()


@dataclass
class Hunt:
    """How a hunt went. ``right_first``: the right part was fitted before any wrong one, or rightly none was."""

    sort: str
    right_first: bool = False
    wrong_fitted: int = 0
    minutes: float = 0.0
    cured: bool = False
    clear_and_wrong: int = 0
    sure: list[bool] = field(default_factory=list)  # of the moments at 90 % and more, whether it was right
    waits_s: list[float] = field(default_factory=list)
    told: list[str] = field(default_factory=list)


Way = Callable[[Case, Pictures], Hunt]


@dataclass
class _Hunter:
    case: Case
    pictures: Pictures
    hunt: Hunt
    observations: list[Observation] = field(default_factory=list)
    actions: list[ActionTaken] = field(default_factory=list)

    def seen(self) -> Seen:
        return Seen(tuple(self.observations), tuple(self.actions))

    def do(self, test: Test) -> Outcome:
        self.hunt.minutes += test.minutes
        shown = self.case.shows(test)
        self._keep(Observation(test.key, shown, epoch=len(self.actions)))
        self.hunt.told.append(f"{test.key} {shown if not isinstance(shown, float) else round(shown, 3)}")
        return shown

    def _keep(self, seen: Observation) -> None:
        """Keep the newest of each test in its epoch, as the tape does."""
        before = [o for o in self.observations if (o.test, o.epoch) == (seen.test, seen.epoch)]
        self.observations = [o for o in self.observations if o not in before]
        self.observations.append(replace(seen, times=1 + sum(o.times for o in before)))

    def reset(self) -> None:
        parts = frozenset(
            p.key for p in self.case.circuit.parts if any(t[1:] in self.case.tripped for t in p.closed_when)
        )
        self.case.tripped = frozenset()
        self.hunt.minutes += RESET_MINUTES
        self.actions.append(ActionTaken("reset", parts))
        self.hunt.told.append(f"reset {sorted(parts)}")

    def fit(self, part: str) -> bool:
        self.hunt.minutes += FIT_MINUTES
        right = self.case.fit(part)
        if not right:
            self.hunt.wrong_fitted += 1
        elif not self.hunt.wrong_fitted:
            self.hunt.right_first = True
        self.actions.append(ActionTaken("change", frozenset({part})))
        self.hunt.told.append(f"fit {part}: {'right' if right else 'WRONG'}")
        return right

    def runs(self) -> bool:
        """Reset what tripped, watch a call, and tell whether it runs and nothing is left."""
        if self.case.tripped:
            self.reset()
        return self.do(self.pictures.tests["stops"]) == STEADY and self.case.well


def by_the_page(case: Case, pictures: Pictures) -> Hunt:
    """Do what is offered; fit what is clear, or leads with nine tenths; stop where it says that nothing listed is the matter."""
    hunter = _Hunter(case, pictures, Hunt(case.sort))
    while len(hunter.observations) < _MOST_TESTS:
        found = _asked(hunter)
        first = found.first
        if first.kind == PART and first.share >= _FITS_FROM:
            hunter.hunt.sure.append(any(f.part == first.part for f in case.faults))
        if found.clear and not any(f.part == first.part for f in case.faults):
            hunter.hunt.clear_and_wrong += 1
        if (
            first.kind == PART
            and (found.clear or first.share >= _FITS_FROM)
            and _tried_itself(hunter, first.part, found)
        ):
            hunter.fit(first.part)
            if hunter.runs():
                break
        elif (found.next_test is not None and first.share < 0.97) or (
            first.kind == PART and found.next_test is not None
        ):
            hunter.do(found.next_test.test)
        elif first.kind == PART and first.share >= _AS_A_LAST_RESORT:
            hunter.fit(first.part)
            if hunter.runs():
                break
        else:
            break
    return _ended(hunter)


def _tried_itself(hunter: _Hunter, part: str, found: Outlook) -> bool:
    """A good hunter takes the part's own test first, where it is still on offer."""
    return found.clear or found.next_test is None


def _asked(hunter: _Hunter) -> Outlook:
    begun = time.perf_counter()
    found = outlook(hunter.pictures, hunter.seen(), _RULES)
    hunter.hunt.waits_s.append(time.perf_counter() - begun)
    return found


def _ended(hunter: _Hunter) -> Hunt:
    hunt, case = hunter.hunt, hunter.case
    hunt.cured = case.well
    if case.sort in ("unlisted", "nothing"):
        last = _asked(hunter).first
        wanted = UNLISTED if case.sort == "unlisted" else NOTHING_WRONG
        hunt.right_first = not hunt.wrong_fitted and last.kind == wanted
    return hunt


def in_order(case: Case, pictures: Pictures) -> Hunt:
    """Walk the string: the own test of every part in its order; fit the first that is not in order."""
    return _one_by_one(case, pictures, [part.key for part in case.circuit.parts])


def by_habit(case: Case, pictures: Pictures) -> Hunt:
    """Watch a call, read the code, then the own test of each part that stops it there, the commonest and quickest first."""
    hunter = _Hunter(case, pictures, Hunt(case.sort))
    stops = hunter.do(pictures.tests["stops"])
    code = hunter.do(pictures.tests["code"]) if "code" in pictures.tests else ""
    ranks: dict[str, float] = {}
    for fault in case.circuit.faults:
        picture = pictures.of((fault,))
        fits = (picture["stops"] == stops) + (not code or picture["code"] == code)
        test = _own_test(pictures, fault.part)
        if test is not None:
            ranks[fault.part] = ranks.get(fault.part, 0.0) + fault.odds / test.minutes * (0.03, 0.2, 1.0)[fits]
    return _one_by_one(case, pictures, sorted(ranks, key=lambda part: -ranks[part]), hunter)


def _one_by_one(case: Case, pictures: Pictures, parts: list[str], hunter: _Hunter | None = None) -> Hunt:
    hunter = hunter or _Hunter(case, pictures, Hunt(case.sort))
    for part in parts:
        test = _own_test(pictures, part)
        if test is None or f"{test.kind}:{part}" in {o.test for o in hunter.observations}:
            continue
        if hunter.do(test) != GOOD:
            if any(t[1:] in case.tripped for t in case.circuit.part(part).closed_when if t.startswith("!")):
                continue  # tripped, not broken: on to its cause
            hunter.fit(part)
            if hunter.runs():
                break
    return _ended_without(hunter)


def _own_test(pictures: Pictures, part: str) -> Test | None:
    found = [t for t in pictures.tests.values() if t.kind in DIRECT and t.part == part and t.kind != "watch"]
    return min(found, key=lambda test: test.minutes, default=None)


def _ended_without(hunter: _Hunter) -> Hunt:
    hunt = hunter.hunt
    hunt.cured = hunter.case.well
    if hunter.case.sort in ("unlisted", "nothing"):
        hunt.right_first = not hunt.wrong_fitted
    return hunt


WAYS: dict[str, Way] = {"what is offered": by_the_page, "a good habit": by_habit, "in order": in_order}


def hunted(case: Case, way: Way) -> Hunt:
    """Return how ``way`` went on ``case``, which it uses up."""
    return way(case, pictures_of(case.circuit))


__all__ = ["BAD", "WAYS", "Hunt", "hunted"]
