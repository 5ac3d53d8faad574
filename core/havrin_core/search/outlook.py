"""Suspects and the next test from what was observed: the one entrance to this package."""

from collections.abc import Mapping, Sequence

from havrin_core.house.house_rules import HouseRules
from havrin_core.phrases import phrase
from havrin_core.search.clear import is_clear
from havrin_core.search.conflicts import conflicts
from havrin_core.search.inference import Hypothesis, shares
from havrin_core.search.model import CURED, LEADS_FROM, NOTHING_WRONG, PART, UNLISTED, Conflict, Outlook, Seen, Suspect
from havrin_core.search.next_test import NOTHING_PASSED, offers, retest, second_look
from havrin_core.search.odds import Prior
from havrin_core.search.pictures import Pictures
from havrin_core.search.severities import mode_of
from havrin_core.search.words import suspect_name

_SHOWN, _OTHERS = 6, 4
_LEAST_SHARE = 0.01
_ENDS_FROM = {NOTHING_WRONG: 0.9, CURED: 0.95, UNLISTED: 0.97}  # from which share on no further test is offered
_CURED_SHARE = 0.5  # from which on it says what follows a cure
PROOF = (
    phrase("read_same_thing_once_more"),
    phrase("where_safe_bring_fault_back"),
    phrase("then_watch_whole_sequence_again"),
)


def outlook(
    pictures: Pictures,
    seen: Seen,
    rules: HouseRules,
    against: Sequence[Conflict] = (),
    prior: Prior | None = None,
    others: int = _OTHERS,
    passed: Mapping[str, str] = NOTHING_PASSED,
) -> Outlook:
    """Return who is under suspicion now, with shares that sum to 1, and what to test next.

    ``against`` are readings that contradict each other; they stand beside those that fit no suspect.
    ``prior`` is what was known before the first reading; ``others`` is how many tests are offered beside the first.
    ``passed`` are tests that were passed over, with why.
    """
    hypotheses = shares(pictures, seen, prior.odds if prior else None)
    suspects = _suspects(pictures, hypotheses)
    found = [*against, *conflicts(pictures, _leading(suspects[0], hypotheses), seen)]
    clear = not found and is_clear(pictures, suspects[0], hypotheses, seen)
    ended = clear or suspects[0].share >= _ENDS_FROM.get(suspects[0].kind, 2.0)
    tests = [] if ended else offers(pictures, hypotheses, seen, rules, 1 + others, passed)
    again = retest(pictures, hypotheses, seen, found)
    if not tests and suspects[0].kind == UNLISTED:
        again = again or second_look(pictures, hypotheses, seen)
    if again is not None:
        tests = [again, *(offer for offer in tests if offer.test.key != again.test.key)]
    beside = {kind: sum(h.share for h in hypotheses if h.kind == kind) for kind in (UNLISTED, NOTHING_WRONG, CURED)}
    return Outlook(
        suspects=tuple(suspects[:_SHOWN]),
        next_test=tests[0] if tests else None,
        conflicts=tuple(found),
        clear=clear,
        proof=PROOF if clear or beside[CURED] > _CURED_SHARE else (),
        other_tests=tuple(tests[1:]),
        expected=pictures.sound,
        observations=seen.observations,
        beforehand=prior.reasons if prior else (),
        unlisted=beside[UNLISTED],
        nothing_wrong=beside[NOTHING_WRONG],
        cured=beside[CURED],
        again=again.test.key if again else "",
    )


def _leading(first: Suspect, hypotheses: Sequence[Hypothesis]) -> Hypothesis:
    return next(h for h in hypotheses if h.kind == first.kind and (h.kind != PART or h.blocks == first.part))


def _suspects(pictures: Pictures, hypotheses: Sequence[Hypothesis]) -> list[Suspect]:
    """Return the parts, and beside them what is unlisted, sound or cured, each as one suspicion; most likely first.

    All that is unlisted is many things, so that it leads only with more than all others together.
    """
    under: dict[tuple[str, str], list[Hypothesis]] = {}
    for h in hypotheses:
        under.setdefault((h.kind, h.blocks if h.kind == PART else ""), []).append(h)
    rows = [_suspect(pictures, kind, part, found) for (kind, part), found in under.items()]
    rows.sort(key=lambda s: (s.kind == UNLISTED and s.share < LEADS_FROM, -s.share))
    return [s for s in rows if s.share >= _LEAST_SHARE] or rows[:1]


def _suspect(pictures: Pictures, kind: str, part: str, found: Sequence[Hypothesis]) -> Suspect:
    share = sum(h.share for h in found)
    name = suspect_name(pictures.circuit, part if kind == PART else f"{kind}:")
    if kind != PART:
        return Suspect("", name, share, (), kind)
    modes: dict[str, list[float | str]] = {}
    for h in found:
        key = " and ".join(mode_of(fault).partition(".")[2] for fault in h.faults)
        said = " and ".join(pictures.circuit.fault(mode_of(fault)).name for fault in h.faults)
        row = modes.setdefault(key, [said, 0.0])
        row[1] = float(row[1]) + h.share
    named = sorted(((key, str(said), float(share)) for key, (said, share) in modes.items()), key=lambda row: -row[2])
    return Suspect(part, name, share, tuple(named[:3]), kind)
