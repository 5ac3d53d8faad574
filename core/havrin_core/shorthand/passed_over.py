"""The line that passes an offered step over: ``skip gauge draft_pa not possible``."""

from havrin_core.facts.passed_over import SHOW, WHYS
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.rules.proofs import PROOFS
from havrin_core.search.catalogue import tests_of
from havrin_core.shorthand.model import Situation
from havrin_core.tape.entries import PASSED_OVER, Proof


def read_passed_over(rest: list[str], situation: Situation) -> Proof | None:
    """Return what the words behind "skip" pass over; None where they name no step of this unit, or no reason."""
    said = " ".join(rest).lower()
    words = next((words for words in WHYS if said.endswith(f" {words}")), None)
    key = ":".join(rest[: -len(words.split())]) if words else ""
    return Proof(PASSED_OVER, True, 1, key, WHYS[words]) if words and _is_step(key, situation) else None


def _is_step(key: str, situation: Situation) -> bool:
    sort, _, named = key.partition(":")
    if sort == SHOW:
        proof, _, which = named.partition(":")
        return proof in PROOFS and (not which or which in STAGE_LABELS or which in situation.parts)
    return situation.circuit is not None and any(test.key == key for test in tests_of(situation.circuit))
