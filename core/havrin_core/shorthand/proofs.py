"""Proofs in whole sentences: ``limit tested good``, ``5 cycles ok``, ``watched a full cycle``."""

import re

from havrin_core.shorthand.model import Situation
from havrin_core.shorthand.senses import words_of_sort
from havrin_core.shorthand.tokens import tokens_of
from havrin_core.tape.entries import Proof
from havrin_core.vocabulary.index import part_index

_CYCLES = re.compile(
    r"(?:watched |ran )?(\d{1,2}|a|one|two|three|five|ten|twelve) (?:full |complete )?cycles?(?: watched| ok| good| passed| fine)?$"
)
_COUNTS = {"a": 1, "one": 1, "two": 2, "three": 3, "five": 5, "ten": 10, "twelve": 12}
_TESTED = frozenset(("tested", "test", "proved", "proven", "acts", "checked"))
_PASSED = frozenset(("ok", "good", "acts", "passed", "fine", "proved", "proven"))
_FAILED = frozenset(("bad", "failed", "fails"))


def read_proof(text: str, situation: Situation) -> Proof | None:
    """Return the proof that a clause says; None where it says none."""
    tokens = tokens_of(text)
    keys = [token.key for token in tokens]
    return _cycles(" ".join(keys)) or _tested(keys, situation)


def _cycles(said: str) -> Proof | None:
    match = _CYCLES.match(said)
    if match is None:
        return None
    count = _COUNTS.get(match[1]) or int(match[1])
    return Proof("cycles", True, count) if count else None


def _tested(keys: list[str], situation: Situation) -> Proof | None:
    if not _TESTED & set(keys) or words_of_sort("negations") & set(keys):
        return None
    found = part_index().every(keys, frozenset(situation.devices))
    if len(found) != 1:
        return None
    used = set(range(found[0].start, found[0].stop))
    rest = {key for i, key in enumerate(keys) if i not in used and key not in words_of_sort("fillers")} - {
        "tested",
        "test",
        "checked",
        "and",
        "again",
        "it",
    }
    if rest and rest <= _PASSED:
        return Proof("device", True, 1, found[0].key)
    if rest and rest <= _FAILED:
        return Proof("device", False, 1, found[0].key)
    return None
