"""What was seen, with its place, size, how it was looked at and how sure: ``crack cell 3 seam 12 mm by borescope sure``."""

from havrin_core.quantities.units import find_unit
from havrin_core.shorthand.model import Problem
from havrin_core.shorthand.pieces import typed_pieces
from havrin_core.shorthand.words import longest_phrase
from havrin_core.tape.entries import Look, told_of
from havrin_core.vocabulary.findings import coverage_of, finding
from havrin_core.vocabulary.methods import METHOD_WORDS, SURENESS

_MOST_SIZE_M = 1.0


def read_look(key: str, rest: list[str]) -> tuple[Look, str] | Problem:
    """Return the look that ``rest`` makes of finding ``key``, and how it reads. What is no size or method is the place."""
    seen, of = coverage_of(" ".join(rest)) or (1, 1)
    if not 1 <= seen <= of:
        return Problem(f"{seen}/{of}", "Seen, of how many: exchanger ok 3/4.")
    words, method = _without_method(rest)
    words, sure = _without_sureness(words)
    words, size = _without_size(words)
    look = Look(key, " ".join(words), size, method, sure)
    told = told_of(look)
    return look, finding(key).text + (f" ({told})" if told else "")


def _without_method(words: list[str]) -> tuple[list[str], str]:
    for index, word in enumerate(words):
        named = longest_phrase(words[index + 1 :], dict(METHOD_WORDS)) if word.lower() == "by" else None
        if named:
            return [*words[:index], *words[index + 1 + named[1] :]], named[0]
    return words, ""


def _without_sureness(words: list[str]) -> tuple[list[str], str]:
    sure = next((w.lower() for w in words if w.lower() in SURENESS), "")
    return [w for w in words if w.lower() not in SURENESS], sure


def _without_size(words: list[str]) -> tuple[list[str], float | None]:
    for index, word in enumerate(words):
        pieces = typed_pieces(" ".join(words[index : index + 2]), "bore")
        unit = pieces[0][1] if pieces else None
        if word[0].isdigit() and unit is not None and unit.to_si(pieces[0][0]) <= _MOST_SIZE_M:
            spelled = index + 1 < len(words) and find_unit(words[index + 1], "bore") is not None
            return [*words[:index], *words[index + (2 if spelled else 1) :]], unit.to_si(pieces[0][0])
    return words, None
