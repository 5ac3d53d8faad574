"""Suspects and the next test from what was observed: the one entrance to this package."""

from collections.abc import Mapping, Sequence

from havrin_core.house.house_rules import HouseRules
from havrin_core.phrases import phrase
from havrin_core.search.inference import Hypothesis, conflicts, shares
from havrin_core.search.model import Conflict, Observation, Outlook, Suspect
from havrin_core.search.next_test import CLEAR, NOTHING_PASSED, offers
from havrin_core.search.odds import Prior
from havrin_core.search.pictures import Pictures

_SHOWN, _OTHERS = 6, 4
_LEAST_SHARE = 0.01
_PROOF = (
    phrase("read_same_thing_once_more"),
    phrase("where_safe_bring_fault_back"),
    phrase("then_watch_whole_sequence_again"),
)


def outlook(
    pictures: Pictures,
    observations: Sequence[Observation],
    rules: HouseRules,
    against: Sequence[Conflict] = (),
    prior: Prior | None = None,
    others: int = _OTHERS,
    passed: Mapping[str, str] = NOTHING_PASSED,
) -> Outlook:
    """Return who is under suspicion, with shares that sum to 1, and what to test next.

    ``against`` are readings that contradict each other; they stand beside those that fit no suspect.
    ``prior`` is what was known before the first reading; ``others`` is how many tests are offered beside the first.
    ``passed`` are tests that were passed over, with why.
    """
    known = [seen for seen in observations if seen.test in pictures.tests]
    hypotheses = shares(pictures, known, prior.odds if prior else None)
    suspects = _suspects(pictures, hypotheses)
    found = [*against, *conflicts(pictures, hypotheses[0], known)]
    clear = bool(known) and suspects[0].share >= CLEAR and not found
    tests = [] if clear else offers(pictures, hypotheses, known, rules, 1 + others, passed)
    return Outlook(
        suspects=tuple(suspects[:_SHOWN]),
        next_test=tests[0] if tests else None,
        conflicts=tuple(found),
        clear=clear,
        proof=_PROOF if clear else (),
        other_tests=tuple(tests[1:]),
        expected=pictures.sound.outcomes,
        observations=tuple(known),
        beforehand=prior.reasons if prior else (),
    )


def _suspects(pictures: Pictures, hypotheses: Sequence[Hypothesis]) -> list[Suspect]:
    by_part: dict[str, list[Hypothesis]] = {}
    for h in hypotheses:
        by_part.setdefault(h.blocks, []).append(h)
    rows = []
    for part, under in by_part.items():
        share = sum(h.share for h in under)
        modes: dict[str, float] = {}
        for h in under:
            name = " and ".join(f.name for f in h.faults)
            modes[name] = modes.get(name, 0.0) + h.share
        named = tuple(sorted(modes.items(), key=lambda row: -row[1])[:3])
        rows.append(Suspect(part, pictures.circuit.part(part).name, share, named))
    rows.sort(key=lambda s: -s.share)
    return [s for s in rows if s.share >= _LEAST_SHARE] or rows[:1]
