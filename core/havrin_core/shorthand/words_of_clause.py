"""One clause laid out: its tokens, what spans of them mean, and the words that mean nothing known."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cache, cached_property

from havrin_core.shorthand.cover import Piece, cover
from havrin_core.shorthand.model import Ask, Situation
from havrin_core.shorthand.senses import LIKE, PART, PHRASE, VERB, Senses, senses_at, words_of_sort
from havrin_core.shorthand.tokens import Token, tokens_of
from havrin_core.tape.entries import Body


@dataclass(frozen=True, slots=True)
class Read:
    """What a clause gave: bodies, or words that nothing used, or a question back."""

    bodies: tuple[Body, ...] = ()
    unread: tuple[str, ...] = ()
    asks: tuple[Ask, ...] = ()
    part: str = ""  # that it spoke of: "cleaned" behind "rod dirty" means the rod


@dataclass(frozen=True, slots=True)
class Span:
    """Words ``start`` up to ``stop`` and what they may mean."""

    start: int
    stop: int
    senses: Senses

    def is_(self, sort: str) -> bool:
        """Tell whether the span is a small word of ``sort``."""
        return sort in self.senses.small

    def of(self, sort: str) -> tuple[str, ...]:
        """Return the keys that it may mean, of one sort."""
        return self.senses.of(sort)


@dataclass(frozen=True)
class Clause:
    """The words of a clause with what they mean; ``spans`` from left to right, fillers apart."""

    tokens: tuple[Token, ...]
    spans: tuple[Span, ...]
    strange: tuple[int, ...]  # words that mean nothing known
    situation: Situation
    fillers: frozenset[int] = field(default_factory=frozenset)

    @cached_property
    def keys(self) -> tuple[str, ...]:
        """The words as they are looked up."""
        return tuple(token.key for token in self.tokens)

    @property
    def words(self) -> tuple[str, ...]:
        """Every word as it was typed."""
        return tuple(token.typed for token in self.tokens)

    @property
    def said(self) -> str:
        """The clause as it was typed."""
        return " ".join(self.words)

    def key_of(self, span: Span) -> str:
        """Return the words of a span as they are looked up."""
        return " ".join(self.keys[span.start : span.stop])

    def with_sort(self, sort: str) -> tuple[Span, ...]:
        """Return the spans that are small words of ``sort``."""
        return tuple(span for span in self.spans if span.is_(sort))

    def having(self, *sorts: str) -> tuple[Span, ...]:
        """Return the spans that may mean something of any of ``sorts``."""
        return tuple(span for span in self.spans if any(span.of(sort) for sort in sorts))

    def first(self) -> Span | None:
        """Return the span that the clause begins with; None where it begins with a word that means nothing known."""
        start = min((span.start for span in self.spans), default=len(self.tokens))
        return self.spans[0] if self.spans and not any(at < start for at in self.strange) else None

    def typed(self, used: Sequence[Span], also: frozenset[int] = frozenset()) -> str:
        """Return what neither ``used`` nor a filler is, as it was typed."""
        gone = {i for span in used for i in range(span.start, span.stop)} | also | self.fillers
        return " ".join(token.typed for i, token in enumerate(self.tokens) if i not in gone)

    def here(self, span: Span) -> tuple[str, ...]:
        """Return the parts of this unit that a span may mean."""
        return tuple(key for key in span.of(PART) if key in self.situation.parts)


def clause_of(text: str, situation: Situation) -> Clause:
    """Return ``text`` laid out; verbs parted from their second word are put together ("turned the gas on")."""
    tokens = _put_together(tokens_of(text))
    keys = [token.key for token in tokens]
    found = cover(len(keys), lambda at: senses_at(keys, at))
    spans = tuple(_span(piece) for piece in found.pieces)
    inside = {i for span in spans for i in range(span.start, span.stop)} | set(found.left)
    fillers = frozenset(i for i in range(len(keys)) if i not in inside)
    return Clause(tuple(tokens), spans, found.left, situation, fillers)


def _span(piece: Piece) -> Span:
    assert isinstance(piece.value, Senses)
    return Span(piece.start, piece.stop, piece.value)


_MOST_BETWEEN = 4


def _put_together(tokens: list[Token]) -> list[Token]:
    """Return the tokens with the second word of a parted verb moved behind its first: "put panels back" → "put back panels"."""
    if {"on", "off"} <= {token.key for token in tokens}:
        return tokens  # "turned power off and on"
    keys = {token.key for token in tokens}
    for first, *rest in _parted():
        if first not in keys:
            continue
        at = next((i for i, token in enumerate(tokens) if token.key == first), None)
        if at is None:
            continue
        for behind in range(at + 2, min(at + 2 + _MOST_BETWEEN, len(tokens) - len(rest) + 1)):
            if [token.key for token in tokens[behind : behind + len(rest)]] == list(rest) and _ends(
                tokens, behind + len(rest)
            ):
                particle = tokens[behind : behind + len(rest)]
                return [*tokens[: at + 1], *particle, *tokens[at + 1 : behind], *tokens[behind + len(rest) :]]
    return tokens


def _ends(tokens: Sequence[Token], at: int) -> bool:
    """Tell whether a second word stands at the end, or before a word of place: "took nest out of flue"."""
    return at >= len(tokens) or tokens[at].key in (
        "in",
        "at",
        "of",
        "from",
        "to",
        "and",
        "again",
        "now",
        "for",
        "with",
        "on",
    )


@cache
def _parted() -> tuple[tuple[str, ...], ...]:
    return tuple(
        sorted((tuple(words.split()) for words in words_of_sort("parted")), key=lambda words: (-len(words), words))
    )


__all__ = ["LIKE", "PART", "PHRASE", "VERB", "Clause", "Read", "Span", "clause_of"]
