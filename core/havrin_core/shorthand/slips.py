"""Slips of one letter: "oxgen", "low watr cutoff", "limt" are mended where one known word alone makes sense of the line."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from itertools import islice, product

from havrin_core.shorthand.lexicon import known_words as words_of_readings
from havrin_core.shorthand.senses import small_words
from havrin_core.shorthand.tokens import tokens_of
from havrin_core.vocabulary.index import condition_index, part_index, phrase_index, verb_index

_LEAST_LETTERS = 4
_LETTERS = "abcdefghijklmnopqrstuvwxyz'"
_MOST_TRIED = 4
_MOST_MENDED = 2  # a line with more strange words is not a line with slips


@dataclass(frozen=True, slots=True)
class Mended:
    """A line with its slips mended; ``said`` and ``meant`` name the words."""

    text: str
    said: str
    meant: str
    named: bool  # only words that name parts and readings were mended, none that says how something is


def mended_lines(text: str) -> Iterator[Mended]:
    """Yield ``text`` with its slips mended, for each known word that may have been meant.

    >>> [mended.text for mended in mended_lines("oxgen 7.0")], list(mended_lines("vent ok"))
    (['oxygen 7.0'], [])
    """
    slips: dict[str, list[str]] = {}
    for token in tokens_of(text):
        word = token.key
        if word not in known_words() and word.isalpha() and len(word) >= _LEAST_LETTERS:
            slips[word] = sorted(_near(word))
    if not slips or len(slips) > _MOST_MENDED:
        return
    for meant in islice(product(*slips.values()), _MOST_TRIED):
        changed = dict(zip(slips, meant, strict=True))
        mended = " ".join(_with_its_marks(word, changed) for word in text.split())
        named = all(word in _names() and word not in _telling() for word in meant)
        yield Mended(mended, ", ".join(changed), ", ".join(meant), named)


def _with_its_marks(word: str, changed: dict[str, str]) -> str:
    bare = word.strip(".,;:!?()").lower()
    return word.lower().replace(bare, changed[bare]) if bare in changed else word


@cache
def known_words() -> frozenset[str]:
    """Return every single word that the vocabulary knows."""
    indexes = (part_index(), condition_index(), verb_index(), phrase_index())
    phrases = [said for index in indexes for said in index.words()]
    words = {word for said in (*phrases, *small_words(), *words_of_readings()) for word in said.split()}
    return frozenset(words)


@cache
def _names() -> frozenset[str]:
    """Return the words that parts and readings are named by."""
    return frozenset(word for said in (*part_index().words(), *words_of_readings()) for word in said.split())


@cache
def _telling() -> frozenset[str]:
    """Return the words that alone say how something is, or what was done."""
    return frozenset(said for index in (condition_index(), verb_index(), phrase_index()) for said in index.words())


def _near(word: str) -> frozenset[str]:
    """Return the known words that are one letter away: left out, put in, changed, or two of them swapped."""
    parts = [(word[:at], word[at:]) for at in range(len(word) + 1)]
    fewer = {a + b[1:] for a, b in parts if b}
    swapped = {a + b[1] + b[0] + b[2:] for a, b in parts if len(b) > 1}
    other = {a + letter + b[1:] for a, b in parts if b for letter in _LETTERS}
    more = {a + letter + b for a, b in parts for letter in _LETTERS}
    return frozenset(near for near in (fewer | swapped | other | more) & known_words() if len(near) >= _LEAST_LETTERS)
