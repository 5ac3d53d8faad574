"""Which parts a condition of a clause speaks of: those before it, else the first one behind it, and never a mere place."""

from collections.abc import Sequence

from havrin_core.shorthand.words_of_clause import LIKE, PART, PHRASE, Clause, Span
from havrin_core.vocabulary.catalogue import condition, whole_phrases

_OUT_OF_IT = frozenset(("leaking", "dripping"))
_COMES_OUT = frozenset(("water", "gas", "air", "condensate"))


def subjects_of(clause: Clause, likes: Sequence[Span]) -> list[list[Span]]:
    """Return the parts that each condition speaks of: those before it that stand in no place, else the first one behind it."""
    parts = [span for span in clause.having(PART) if span not in likes]
    found: list[list[Span]] = []
    before = 0
    for at, like in enumerate(likes):
        until = likes[at + 1].start if at + 1 < len(likes) else len(clause.tokens)
        ahead = [
            span for span in parts if before <= span.start and span.stop <= like.start and not _in_place(clause, span)
        ]
        behind = [
            span
            for span in parts
            if like.stop <= span.start < until and not (_is_with(clause, span) and usual_part(like))
        ]
        comes_out = set(like.of(LIKE)) & _OUT_OF_IT and ahead and clause.key_of(ahead[-1]) in _COMES_OUT
        if comes_out and behind and _in_place(clause, behind[0]):
            ahead = []  # "water dripping from relief": it is the relief that drips
        own = (
            meant_of(clause, ahead)
            if ahead
            else meant_of(clause, behind)[:1]
            if _follows(clause, like, behind, likes, at)
            else []
        )
        found.append(own)
        before = max([like.stop, *(span.stop for span in own)])
    return found


def usual_part(like: Span) -> str:
    """Return the part that a condition is said of without naming it: what spills is the vent."""
    keys = like.of(LIKE) or tuple(whole_phrases()[one][1] for one in like.of(PHRASE)[:1])
    return next((condition(one).of for one in keys if condition(one).of), "")


def _is_with(clause: Clause, subject: Span) -> bool:
    """Tell whether a part only tells in which circumstances: "no spillage with the doors closed"."""
    before = [key for at, key in enumerate(clause.keys[: subject.start]) if at not in clause.fillers]
    return before[-1:] == ["with"]


def _follows(clause: Clause, like: Span, behind: Sequence[Span], likes: Sequence[Span], at: int) -> bool:
    """Tell whether the part behind a condition is its subject: "dirty filter", "soot in exchanger", not "rusted, burner ok"."""
    if not behind:
        return False
    only_one_left = at + 1 == len(likes)
    return only_one_left or at == 0 or _near(clause, like.stop, behind[0].start)


def _near(clause: Clause, start: int, stop: int) -> bool:
    between = [span for span in clause.spans if start <= span.start < stop]
    return all(span.is_("prepositions") or span.is_("places") for span in between)


def _in_place(clause: Clause, span: Span) -> bool:
    """Tell whether a part stands behind a word of place: "wire loose at gas valve"; at the head of a clause it never does."""
    before = [other for other in clause.spans if other.stop <= span.start]
    return bool(before) and before[-1].is_("prepositions") and len(before) > 1


def meant_of(clause: Clause, parts: Sequence[Span]) -> list[Span]:
    """Return the parts that are meant: of several side by side the last ("ps port"), each of those joined by "and"."""
    found: list[Span] = []
    for span in parts:
        if found and span.start == found[-1].stop:
            found[-1] = span
        elif not found or {"and", "&"} & set(clause.keys[found[-1].stop : span.start]):
            found.append(span)
    return found
