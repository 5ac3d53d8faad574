"""Which parts of a circuit a part of the vocabulary means: "board" is its relays and its logic, "wiring" every wire."""

import json
from collections.abc import Mapping
from functools import cache, lru_cache
from importlib import resources

from havrin_core.machine.circuit.model import Circuit, FaultMode, Part
from havrin_core.machine.circuit.read import part_families
from havrin_core.vocabulary.catalogue import parts, verbs

_SURELY, _LIKELY, _HARDLY = (
    0.96,
    0.9,
    0.03,
)  # that a fault is gone once its part was renewed, treated rightly, treated otherwise


@cache
def called_parts() -> Mapping[str, tuple[str, ...]]:
    """Return the parts of the vocabulary that mean single parts of circuits, by the circuits' keys."""
    file = resources.files("havrin_core.machine.circuit") / "called_parts.json"
    data = json.loads(file.read_text(encoding="utf-8"))
    return {key: tuple(words) for key, words in data.items() if key != "about"}


@lru_cache(maxsize=4096)
def parts_meant(circuit: Circuit, word: str) -> frozenset[str]:
    """Return the keys of the parts that ``word`` (a key of the circuit or of the vocabulary) means; none where it has no such part."""
    return frozenset(part.key for part in circuit.parts if _means(word, part))


def _means(word: str, part: Part) -> bool:
    """Tell whether ``word`` means a part: by its own key or its own words; by those of its family where it has none."""
    called = called_parts().get(part.key, ())
    if part.key == word or word in called:
        return True
    own_name = bool(called) or part.key in parts()
    return not own_name and word in part_families().get(part.family or "none", {}).get("words", ())


def cure_chance(fault: FaultMode, verb: str) -> float:
    """Return how likely ``fault`` is gone once ``verb`` was done to its part, 0 to 1."""
    known = verbs().get(verb)
    if known is None:
        return 0.0
    if verb == "change":
        return _SURELY
    return _LIKELY if "*" in known.cures or known.cures & set(fault.like) else _HARDLY
