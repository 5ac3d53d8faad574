"""What the words of a clause may mean: parts, conditions, whole phrases, verbs and the small words between them."""

import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from importlib import resources

from havrin_core.shorthand.cover import Piece
from havrin_core.vocabulary.index import condition_index, part_index, phrase_index, verb_index

PART, LIKE, PHRASE, VERB = "part", "like", "phrase", "verb"
_INDEXES = ((PHRASE, phrase_index), (PART, part_index), (LIKE, condition_index), (VERB, verb_index))


@dataclass(frozen=True, slots=True)
class Senses:
    """All that the words of one span may mean: keys by sort (PART, LIKE, PHRASE, VERB), and sorts of small words."""

    keys: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    small: frozenset[str] = frozenset()

    def of(self, sort: str) -> tuple[str, ...]:
        """Return the keys of one sort."""
        return self.keys.get(sort, ())


@cache
def small_words() -> Mapping[str, frozenset[str]]:
    """Return each small word with its sorts: the tables of data/clauses.toml."""
    file = resources.files("havrin_core.shorthand") / "data" / "clauses.toml"
    found: dict[str, frozenset[str]] = {}
    for sort, table in tomllib.loads(file.read_text(encoding="utf-8")).items():
        for word in table["words"]:
            found[word] = found.get(word, frozenset()) | {sort}
    return found


@cache
def words_of_sort(sort: str) -> frozenset[str]:
    """Return the small words of one sort."""
    return frozenset(word for word, sorts in small_words().items() if sort in sorts)


@cache
def _longest_small_words() -> Mapping[str, int]:
    """Return how many words the longest entry of ``small_words`` has that begins with each word."""
    found: dict[str, int] = {}
    for said in small_words():
        first, *rest = said.split()
        found[first] = max(found.get(first, 0), 1 + len(rest))
    return found


def senses_at(keys: Sequence[str], at: int) -> Iterator[Piece]:
    """Yield a piece for every span that begins at ``at`` and means something, the longest first."""
    spans: dict[int, dict[str, tuple[str, ...]]] = {}
    for sort, index in _INDEXES:
        for sense in index().senses(keys, at):
            spans.setdefault(sense.stop, {})[sort] = sense.keys
    small = small_words()
    for count in range(min(_longest_small_words().get(keys[at], 0), len(keys) - at), 0, -1):
        if " ".join(keys[at : at + count]) in small:
            spans.setdefault(at + count, {})
    for stop in sorted(spans, reverse=True):
        sorts = small.get(" ".join(keys[at:stop]), frozenset())
        yield Piece(_kind(keys[at], spans[stop], sorts), at, stop, Senses(spans[stop], sorts))


def _kind(first: str, senses: Mapping[str, tuple[str, ...]], sorts: frozenset[str]) -> str:
    """Return how a span counts: small words alone a little less, a phrase that begins with a denial a little more.

    So "rust hole | in | flue" goes before "rust | hole in | flue", and "no | gas leaks" before "no gas | leaks".
    """
    if not senses:
        return "filler" if sorts <= {"fillers"} else "small"
    return "denial" if "negations" in small_words().get(first, ()) else "said"
