"""What stands beside a finding: where, how large, how it was seen, how sure, how many of how many."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from havrin_core.errors import CoreError
from havrin_core.quantities.parse import parse_quantity
from havrin_core.quantities.units import find_unit, units_of
from havrin_core.shorthand.words import measurand_words
from havrin_core.shorthand.words_of_clause import PART, Clause, Span
from havrin_core.vocabulary.catalogue import part
from havrin_core.vocabulary.methods import METHOD_WORDS

_MOST_SIZE_M = 1.0
_DROPPED = ("looked",)
_PLAIN_METHODS = ("mirror", "borescope", "scope")  # said without "by": nothing else is meant by them
_TIMES = ("s", "sec", "secs", "second", "seconds", "min", "mins", "minute", "minutes")
_FIGURE = re.compile(r"[-+−]?\d*[.,]\d+|[-+−]\d+")
_VOLTS = re.compile(r"\d+(?:[.,]\d+)?\s*(?:m?v|vac|vdc|volts?)\b", re.IGNORECASE)
_SURENESS = ("unsure", "likely", "sure")


@dataclass(frozen=True, slots=True)
class Beside:
    """What was said beside findings. ``places``: one of each; ``unread``: words that may not stand beside a good finding."""

    places: tuple[str, ...]
    size_m: float | None
    method: str
    sure: str
    coverage: tuple[int | None, int | None]
    unread: tuple[str, ...]


def beside_of(clause: Clause, used: Sequence[Span], key: str, starts: Sequence[int], strict: Sequence[bool]) -> Beside:
    """Return what stands beside findings that begin at ``starts``; ``used`` are the spans that say them.

    Behind a ``strict`` one (good, or only seen) none but words of place may stand.
    """
    gone = {i for span in used for i in range(span.start, span.stop)} | clause.fillers
    method = _method(clause, gone)
    sure = _sure(clause, gone)
    size = _size(clause, gone)
    coverage = _coverage(clause, gone, key)
    gone |= {i for sort in _DROPPED for span in clause.with_sort(sort) for i in range(span.start, span.stop)}
    left = [i for i in range(len(clause.tokens)) if i not in gone]
    shares = [_share(left, starts, at) for at in range(len(starts))]
    unread = [
        i
        for share, is_strict in zip(shares, strict, strict=True)
        if is_strict
        for i in share
        if not _is_place(clause, i)
    ]
    places = tuple(" ".join(clause.tokens[i].typed for i in _trimmed(clause, share)) for share in shares)
    return Beside(places, size, method, sure, coverage, tuple(clause.tokens[i].typed for i in unread))


def begins_with_a_figure(place: str) -> bool:
    """Tell whether what stands beside begins with something measured: ".85" is a set point or a reading, "3" a burner."""
    return bool(place) and _FIGURE.fullmatch(place.split()[0]) is not None


def begins_with_volts(place: str) -> bool:
    """Tell whether what stands beside begins with volts, which were read and are no place: "24v to gas valve, no gas"."""
    return _VOLTS.match(place) is not None


def _trimmed(clause: Clause, share: Sequence[int]) -> list[int]:
    """Return the words of a place without a word of place that has nothing behind it: "rust on (burners)"."""
    kept = list(share)
    while kept and _sorts(clause, kept[-1]) == frozenset(("prepositions",)):
        kept.pop()
    return kept


def _share(left: Sequence[int], starts: Sequence[int], at: int) -> list[int]:
    """Return the words that belong to finding ``at``: from where it begins until the next one does; the first has those before."""
    ordered = sorted(starts)
    place = ordered.index(starts[at]) + ordered[: ordered.index(starts[at])].count(starts[at])
    if starts.index(starts[at]) != at:
        return []  # two findings said by one run of words: the first has what stands beside
    least = 0 if place == 0 else starts[at]
    later = [start for start in ordered if start > starts[at]]
    most = later[0] if later else 10**6
    return [i for i in left if least <= i < most]


def _sorts(clause: Clause, at: int) -> frozenset[str]:
    span = next((span for span in clause.spans if span.start <= at < span.stop), None)
    return span.senses.small if span else frozenset()


def _is_place(clause: Clause, at: int) -> bool:
    """Tell whether a word may stand beside a good finding: where, which one, a number, a part in a place."""
    key = clause.keys[at]
    span = next((span for span in clause.spans if span.start <= at < span.stop), None)
    if key.strip(".#").isdigit() or (key in _TIMES and at and clause.keys[at - 1].isdigit()):
        return True
    if span is None:
        return False
    behind_place = any(other.is_("prepositions") and other.stop <= span.start for other in clause.spans)
    return (
        span.is_("places")
        or span.is_("prepositions")
        or (bool(span.of(PART)) and (behind_place or _is_counted(clause, span)))
    )


def _is_counted(clause: Clause, span: Span) -> bool:
    return span.stop < len(clause.keys) and clause.keys[span.stop].strip(".#").isdigit()


def _method(clause: Clause, gone: set[int]) -> str:
    """Take "by borescope", "with mirror" out of what is left and return the method."""
    for at, key in enumerate(clause.keys):
        for count in (2, 1):
            said = " ".join(clause.keys[at + 1 : at + 1 + count])
            if key in ("by", "with") and said in METHOD_WORDS and not {at} & gone:
                gone |= set(range(at, at + 1 + count))
                return METHOD_WORDS[said]
            article = " ".join(clause.keys[at + 2 : at + 2 + count])
            if key in ("by", "with") and clause.keys[at + 1 : at + 2] in (("a",), ("the",)) and article in METHOD_WORDS:
                gone |= set(range(at, at + 2 + count))
                return METHOD_WORDS[article]
        if key in _PLAIN_METHODS and at not in gone:
            gone |= {at}
            return METHOD_WORDS[key]
    return ""


def _sure(clause: Clause, gone: set[int]) -> str:
    for span in clause.spans:
        sure = next((sort for sort in _SURENESS if span.is_(sort)), "")
        if sure and not set(range(span.start, span.stop)) & gone:
            gone |= set(range(span.start, span.stop))
            return sure
    return ""


def _size(clause: Clause, gone: set[int]) -> float | None:
    """Take "15 mm", "1/2 in" out of what is left and return the size in m."""
    for at, token in enumerate(clause.tokens):
        if at in gone or not token.key[:1].isdigit() or (at and clause.keys[at - 1] in measurand_words()):
            continue  # "co 12 in supply air" is no size
        behind = clause.tokens[at + 1].typed if at + 1 < len(clause.tokens) else ""
        spelled = find_unit(behind, "bore") is not None if behind else False
        size_m = _length_of(f"{token.typed} {behind}" if spelled else token.typed)
        if size_m is not None and size_m <= _MOST_SIZE_M:
            gone |= {at, at + 1} if spelled else {at}
            return size_m
    return None


def _length_of(said: str) -> float | None:
    """Return a number with its unit of length, in m; None for a number alone or anything else."""
    if said[-1:].isdigit():
        return None
    try:
        return parse_quantity(said, "bore", units_of("bore")[0]).value_si
    except CoreError:
        return None


def _coverage(clause: Clause, gone: set[int], key: str) -> tuple[int | None, int | None]:
    """Take "3/4" or "3 of 4" behind a finding on an exchanger: cells looked at, of all."""
    if part(key).station != "exchanger":
        return None, None
    for at, word in enumerate(clause.keys):
        if at in gone:
            continue
        seen, slash, of = word.partition("/")
        if slash and seen.isdigit() and of.isdigit():
            gone |= {at}
            return int(seen), int(of)
        three = clause.keys[at : at + 3]
        if len(three) == 3 and three[0].isdigit() and three[1] == "of" and three[2].isdigit():
            gone |= {at, at + 1, at + 2}
            return int(three[0]), int(three[2])
    return None, None
