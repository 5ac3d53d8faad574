"""Finding words of the vocabulary in a line: the longest phrase wins."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from havrin_core.vocabulary.catalogue import conditions, parts, verbs, whole_phrases


@dataclass(frozen=True, slots=True)
class Sense:
    """Everything that a phrase may name: keys of one sort, in the vocabulary's order, and where it ends."""

    keys: tuple[str, ...]
    stop: int


@dataclass(frozen=True, slots=True)
class Found:
    """What a phrase names, and where it stands: tokens ``start`` up to ``stop``."""

    key: str
    start: int
    stop: int


class Index:
    """Phrases of one sort, by their tokens."""

    def __init__(self, phrases: Mapping[str, Sequence[str]]) -> None:
        self._by_tokens: dict[tuple[str, ...], list[str]] = {}
        for key, words in phrases.items():
            for said in words:
                keys = self._by_tokens.setdefault(tuple(said.lower().replace("-", " ").split()), [])
                if key not in keys:
                    keys.append(key)
        # lengths of the phrases by first word, the longest first: most words of a line begin no phrase at all
        self._lengths: dict[str, list[int]] = {}
        for tokens in sorted(self._by_tokens, key=len, reverse=True):
            lengths = self._lengths.setdefault(tokens[0], [])
            if len(tokens) not in lengths:
                lengths.append(len(tokens))

    def at(self, tokens: Sequence[str], start: int, among: frozenset[str] | None = None) -> Found | None:
        """Return the longest phrase that begins at ``start``; ``among`` are the keys that count."""
        for count in self._lengths.get(tokens[start], ()):
            said = tuple(tokens[start : start + count])  # shorter than count at the end of the line
            for key in self._by_tokens.get(said, ()):
                if among is None or key in among:
                    return Found(key, start, start + len(said))
        return None

    def senses(self, tokens: Sequence[str], start: int) -> Iterator[Sense]:
        """Yield every phrase that begins at ``start``, the longest first, each with all that it may name."""
        for count in self._lengths.get(tokens[start], ()):
            said = tuple(tokens[start : start + count])
            keys = self._by_tokens.get(said) if len(said) == count else None
            if keys:
                yield Sense(tuple(keys), start + count)

    def every(self, tokens: Sequence[str], among: frozenset[str] | None = None) -> list[Found]:
        """Return the phrases in ``tokens`` from left to right, none over another, the longest first."""
        candidates = [f for start in range(len(tokens)) if (f := self.at(tokens, start, among)) is not None]
        if len(candidates) < 2:
            return candidates
        taken: set[int] = set()
        kept = []
        for found in sorted(candidates, key=lambda f: (f.start - f.stop, f.start)):
            span = set(range(found.start, found.stop))
            if not span & taken:
                taken |= span
                kept.append(found)
        return sorted(kept, key=lambda f: f.start)

    def words(self) -> list[str]:
        """Return every phrase."""
        return [" ".join(tokens) for tokens in self._by_tokens]


@cache
def part_index() -> Index:
    """Return the index of parts; a plural in -s counts as its singular."""
    named = {key: [key.replace("_", " "), row.name, *row.words] for key, row in parts().items()}
    plural = {key: [*words, *(f"{word}s" for word in words if not word.endswith("s"))] for key, words in named.items()}
    return Index(plural)


@cache
def condition_index() -> Index:
    """Return the index of conditions."""
    return Index({key: [key.replace("_", " "), row.name, *row.words, *row.said] for key, row in conditions().items()})


@cache
def verb_index() -> Index:
    """Return the index of verbs."""
    return Index({key: [key.replace("_", " "), *row.words] for key, row in verbs().items()})


@cache
def phrase_index() -> Index:
    """Return the index of phrases that say part and condition at once; their keys are the phrases themselves."""
    return Index({said: [said] for said in whole_phrases()})
