"""Laying pieces over the words of a line: as few words left over as can be, then as few pieces."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

# What a piece costs: a word left over more than any line of pieces; a filler less than a piece that says something, and two
# fillers more than one piece of both words; a phrase known to mean something else less than the words that it is made of.
_LEFT_OVER, _FILLER, _STRANGE = 1000.0, 0.9, 0.5
_EQUAL = 1e-9
_COSTS = {"left": _LEFT_OVER, "filler": _FILLER, "strange": _STRANGE, "small": 0.95, "denial": 1.05}


@dataclass(frozen=True, slots=True)
class Piece:
    """Words ``start`` up to ``stop``: what sort of thing they say (``kind``) and which (``value``)."""

    kind: str
    start: int
    stop: int
    value: object = None


@dataclass(frozen=True, slots=True)
class Cover:
    """The pieces of a line from left to right, and the words that none of them uses."""

    pieces: tuple[Piece, ...]
    left: tuple[int, ...]


def cover(count: int, pieces_at: Callable[[int], Iterable[Piece]]) -> Cover:
    """Return the best cover of ``count`` words by the pieces that begin at each; the first of equals wins."""
    costs: list[float] = [0.0] + [_LEFT_OVER * (count + 1)] * count
    came_by: list[Piece | None] = [None] * (count + 1)
    for at in range(count):
        here = costs[at]
        for piece in pieces_at(at):
            stop = piece.stop
            more = here + _COSTS.get(piece.kind, 1.0) - costs[stop]
            if more < -_EQUAL or (more <= _EQUAL and _is_later(piece, came_by[stop])):
                costs[stop], came_by[stop] = costs[stop] + more, piece
        if here + _LEFT_OVER < costs[at + 1]:
            costs[at + 1], came_by[at + 1] = here + _LEFT_OVER, Piece("left", at, at + 1)
    return _walked_back(came_by)


def _is_later(piece: Piece, other: Piece | None) -> bool:
    """Tell whether a piece of an equal cover begins later: the pieces before it are longer ("vent damper | propped")."""
    return other is not None and piece.start > other.start


def _walked_back(came_by: Sequence[Piece | None]) -> Cover:
    pieces: list[Piece] = []
    at = len(came_by) - 1
    while at > 0:
        piece = came_by[at]
        assert piece is not None  # every word can at least be left over
        pieces.append(piece)
        at = piece.start
    said = tuple(piece for piece in reversed(pieces) if piece.kind not in ("left", "filler", "strange"))
    left = (piece for piece in reversed(pieces) if piece.kind in ("left", "strange"))
    return Cover(said, tuple(at for piece in left for at in range(piece.start, piece.stop)))
