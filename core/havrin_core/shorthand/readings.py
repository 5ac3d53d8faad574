"""Readings in any words and order: "mp 3.5 hi", "3.5 inches on the manifold", "low fire o2 8.8 co 15, high fire o2 6.0".

Pieces are laid over the words (cover.py, lexicon.py); names and numbers go in pairs; unit, likely values and the other readings
of the line tell what a word of several meanings is. What stays open is asked, with whole lines to choose from.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from havrin_core.shorthand.cover import Piece, cover
from havrin_core.shorthand.lexicon import Name, Number, flowing_at, of_unit, pieces_at, single_names, whole_words
from havrin_core.shorthand.places import Places
from havrin_core.shorthand.said_words import MARK, SaidWord, said_words
from havrin_core.vocabulary.measurands import measurand

Apart = tuple[str, str, tuple[str, ...]]  # the stage, the phase and the circumstances of a number
STANDING, RUNNING = "supply_standing_pa", "supply_running_pa"


@dataclass(frozen=True, slots=True)
class SaidReading:
    """One reading as it was said: what it may be, its number, stage ("" where unsaid) and what was said beside it."""

    name: Name
    number: Number
    stage: str = ""
    phase: str = ""
    least: bool = False
    most: str = ""
    over: bool = False
    beside: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class SaidReadings:
    """What a line says in readings. ``left`` are words that are no part of one; ``phases`` as said, in their order.

    ``begins_as_one``: its first words name a quantity. ``loose`` are names without a number and numbers without a name.
    """

    words: tuple[SaidWord, ...]
    readings: tuple[SaidReading, ...]
    phases: tuple[str, ...]
    left: tuple[int, ...]
    begins_as_one: bool
    loose: tuple[Piece, ...] = ()

    @property
    def whole(self) -> bool:
        """True where the whole line is readings, and nothing else."""
        return bool(self.readings) and not self.left and not self.loose


@lru_cache(maxsize=256)  # one line asks for its readings several times
def said_readings(text: str, places: Places) -> SaidReadings:
    """Return what ``text`` says in readings; ``places`` are those of the unit at which volts are read and things seen.

    >>> [(r.number.text, r.stage) for r in said_readings("manifold low 1.7 high 3.5", NOWHERE).readings]
    [('1.7', 'low'), ('3.5', 'high')]
    """
    words = said_words(text, single_names(), whole_words())
    keys = [word.key for word in words]
    covered = cover(len(words), lambda at: pieces_at(words, at, places.names_at(keys, at)))
    pieces = _named_by_flow(words, _named_by_unit(covered.pieces))
    phases = tuple(dict.fromkeys(str(piece.value) for piece in pieces if piece.kind == "phase"))
    first = next((piece for piece in pieces if piece.kind not in ("stage", "phase")), None)
    begins = first is not None and first.kind == "name" and bool(_name_of(first).own) and 0 not in covered.left
    readings = _paired(words, pieces)
    if readings is not None and all(one.name.own or one.number.unit for one in readings):
        return SaidReadings(words, readings, phases, covered.left, begins)
    near, loose = _side_by_side(words, pieces)
    return SaidReadings(words, near, phases, covered.left, begins, loose)


def _side_by_side(
    words: Sequence[SaidWord], pieces: Sequence[Piece]
) -> tuple[tuple[SaidReading, ...], tuple[Piece, ...]]:
    """Return the names that have a number right behind them, and what is left of names and numbers."""
    told = [piece for piece in pieces if piece.kind in ("name", "number")]
    found: list[SaidReading] = []
    loose: list[Piece] = []
    at = 0
    while at < len(told):
        pair = told[at : at + 2]
        if [piece.kind for piece in pair] == ["name", "number"] and _name_of(pair[0]).own:
            found.append(_reading(words, pair, [pair[1]], 0, _name_of(pair[0]), ("", "", ())))
            at += 2
        else:
            loose.append(told[at])
            at += 1
    return tuple(found), tuple(loose)


def _named_by_unit(pieces: tuple[Piece, ...]) -> tuple[Piece, ...]:
    """Return the pieces with a name for a lone number whose unit belongs to one quantity alone: "3.0 ua" is the flame signal."""
    numbers = [piece for piece in pieces if piece.kind == "number"]
    if len(numbers) != 1 or any(piece.kind == "name" for piece in pieces):
        return pieces
    quantity = of_unit(_number_of(numbers[0]).unit)
    return (Piece("name", 0, 0, Name(own=frozenset((quantity,)))), *pieces) if quantity else pieces


def _named_by_flow(words: Sequence[SaidWord], pieces: tuple[Piece, ...]) -> tuple[Piece, ...]:
    """Return the pieces with a name for each word that says the gas flows, where standing pressure is named beside it.

    Without it "inlet 7.2 standing 6.4 running" gives the standing pressure to the wrong number: "running" alone says little.
    """
    named = [piece for piece in pieces if piece.kind == "name"]
    if not any(STANDING in _name_of(piece).own for piece in named):
        return pieces
    taken = {at for piece in pieces if piece.kind != "with" for at in range(piece.start, piece.stop)}
    flows = [
        Piece("name", *span, Name(own=frozenset((RUNNING,)))) for span in flowing_at(words) if span[0] not in taken
    ]
    return tuple(sorted((*pieces, *flows), key=lambda piece: piece.start))


def _name_of(piece: Piece) -> Name:
    assert isinstance(piece.value, Name)
    return piece.value


def _number_of(piece: Piece) -> Number:
    assert isinstance(piece.value, Number)
    return piece.value


def _paired(words: Sequence[SaidWord], pieces: Sequence[Piece]) -> tuple[SaidReading, ...] | None:
    """Return the readings of the pieces; None where names and numbers do not go in pairs."""
    numbers = [piece for piece in pieces if piece.kind == "number"]
    if not numbers:
        return None
    gaps = _gaps(pieces, numbers)
    stages, phases = _said_of(pieces, numbers, "stage"), _said_of(pieces, numbers, "phase")
    if stages is None or phases is None:
        return None
    beside = [_beside(words, pieces, numbers, at) for at in range(len(numbers))]
    apart = list(zip(stages, phases, beside, strict=True))
    names = _shared_out(gaps, apart, names_first=bool(gaps[0])) or _one_name(gaps, apart)
    if names is None:
        return None
    return tuple(_reading(words, pieces, numbers, i, name, apart[i]) for i, name in enumerate(names))


def _gaps(pieces: Sequence[Piece], numbers: Sequence[Piece]) -> list[list[Name]]:
    """Return the names before the first number, between each two, and behind the last."""
    edges = [-1, *(piece.start for piece in numbers), 10**6]
    named = [piece for piece in pieces if piece.kind == "name"]
    return [[_name_of(p) for p in named if least <= p.start < most] for least, most in pairwise(edges)]


def _shared_out(gaps: Sequence[Sequence[Name]], apart: Sequence[Apart], *, names_first: bool) -> list[Name] | None:
    """Return the name of each number: names of a gap belong to the number before them or to the one behind them.

    A number without a name of its own is another one of the name before, at another stage, in another phase or in other
    circumstances ("mp low 1.7 high 3.5", "draft -.03 door closed, -.05 door open").
    """

    def shares(at: int, before: Sequence[Name], last: Name | None) -> list[Name] | None:
        gap = gaps[at + 1]
        is_last = at == len(gaps) - 2
        for count in _splits(len(gap), names_first=names_first, is_last=is_last):
            name = _merged([*before, *gap[:count]])
            if name is None and not before and not count and last and at and apart[at] != apart[at - 1]:
                name = last
            if name is None:
                continue
            if is_last:
                return [name]
            more = shares(at + 1, gap[count:], name)
            if more is not None:
                return [name, *more]
        return None

    return shares(0, gaps[0], None)


def _splits(count: int, *, names_first: bool, is_last: bool) -> Iterator[int]:
    if is_last:
        yield count
        return
    yield from range(count + 1) if names_first else range(count, -1, -1)


def _merged(names: Sequence[Name]) -> Name | None:
    """Return what the names of one number mean together; None where they contradict each other or say nothing."""
    merged: Name | None = names[0] if names else None
    for name in names[1:]:
        if merged is None or (name is merged and name.own):
            return None  # "supply supply 7"
        merged = merged & name
    return merged if merged and (merged.own or merged.with_unit) else None


def _one_name(gaps: Sequence[Sequence[Name]], apart: Sequence[Apart]) -> list[Name] | None:
    """Return the one name of several numbers that stand apart by stage or phase: "first stage 1.7 second stage 3.5 manifold"."""
    every = [name for gap in gaps for name in gap]
    merged = _merged(every)
    return [merged] * len(apart) if merged and len(apart) > 1 and len(set(apart)) == len(apart) else None


def _said_of(pieces: Sequence[Piece], numbers: Sequence[Piece], kind: str) -> list[str] | None:
    """Return the stage or the phase of each number: one that was said once is that of all, several hold in their order."""
    said = [piece for piece in pieces if piece.kind == kind]
    if len({piece.value for piece in said}) <= 1:
        return [str(said[0].value) if said else ""] * len(numbers)
    if said[0].start < numbers[0].start:
        return [str([s for s in said if s.start < n.start][-1].value) for n in numbers]
    behind = [[s for s in said if s.start > n.start] for n in numbers]
    return [str(after[0].value) for after in behind] if all(behind) else None


def _reading(
    words: Sequence[SaidWord],
    pieces: Sequence[Piece],
    numbers: Sequence[Piece],
    at: int,
    name: Name,
    apart: Apart,
) -> SaidReading:
    """Return the reading of number ``at`` with what was said beside it: since the number before, the last one takes the rest."""
    start = numbers[at - 1].stop if at else 0
    stop = numbers[at].stop if at < len(numbers) - 1 else len(words)
    own = [piece for piece in pieces if start <= piece.start < stop]
    most = next((str(piece.value) for piece in own if piece.kind == "most"), "")
    stage, phase, beside = apart
    number, is_least = _without_least(name, _number_of(numbers[at]))
    over = number.text.startswith(">") or any(piece.kind == "over" for piece in own)
    return SaidReading(
        name,
        replace(number, text=number.text.lstrip(">")),
        stage,
        phase,
        is_least or any(piece.kind == "least" for piece in own),
        most,
        over,
        beside,
    )


def _beside(words: Sequence[SaidWord], pieces: Sequence[Piece], numbers: Sequence[Piece], at: int) -> tuple[str, ...]:
    """Return the circumstances that were said of number ``at``, as typed."""
    said = [p for p in pieces if p.kind == "with" and _number_beside(words, pieces, numbers, p) == at]
    return tuple(" ".join(w.typed for w in words[p.start : p.stop]) for p in said)


def _number_beside(words: Sequence[SaidWord], pieces: Sequence[Piece], numbers: Sequence[Piece], said: Piece) -> int:
    """Return which number a circumstance was said of: the one behind it, unless a mark or the line's last words say otherwise."""
    before = [at for at, number in enumerate(numbers) if number.stop <= said.start]
    if not before or len(before) == len(numbers):
        return len(before) - 1 if before else 0
    number, following = numbers[before[-1]], numbers[before[-1] + 1]
    marked = any(word.key == MARK for word in words[said.stop : following.start])
    apart = any(word.key == MARK for word in words[number.stop : said.start])
    behind_each = any(p.kind == "with" and p.start >= numbers[-1].stop for p in pieces)
    return before[-1] if not apart and (marked or behind_each) else before[-1] + 1


def _without_least(name: Name, number: Number) -> tuple[Number, bool]:
    """Return the number, and whether the "min" behind it says the least: it does where nothing is read in minutes."""
    timed = any(measurand(key).dimension == "time" for key in name.own | name.with_unit)
    if number.said_unit != "min" or timed:
        return number, False
    return replace(number, unit="", said_unit=""), True
