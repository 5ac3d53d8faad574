"""What could be the matter: each listed fault at several severities, devices that had tripped before anybody came,
something that nobody listed, and nothing at all."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from havrin_core.machine.circuit.model import FaultMode
from havrin_core.search.pictures import NONE, STEADY, Pictures
from havrin_core.search.severities import severities

# Shares of all calls, before anything is known; judgements, set against hunts with another truth.
UNLISTED_SHARE, NOTHING_SHARE, PAIR_SHARE = 0.14, 0.05, 0.08
_TRIPPED_BEFORE = 0.8  # of faults that trip a device, that it was open on arrival
_NO_SYMPTOM = 0.3  # of faults that leave it running: nobody is called for most of them
_TRIPPED_BY_OTHERS = 0.015  # of all calls, for each latching device: tripped by what nobody listed


@dataclass(frozen=True, slots=True)
class World:
    """One thing that could be the matter: one fault or two, or none. ``share`` is its weight beforehand.

    ``unlisted``: it shows as the fault does, but that part is sound. ``tripped``: conditions under which a latching
    device opened before anybody came.
    """

    faults: tuple[FaultMode, ...]
    share: float
    unlisted: bool = False
    tripped: frozenset[str] = NONE


def worlds_of(pictures: Pictures, odds: Mapping[str, float] | None = None) -> list[World]:
    """Return all single worlds of a circuit; ``odds`` overrides the fault modes' own weights by their keys."""
    weights = weights_of(pictures, odds)
    listed = 1 - UNLISTED_SHARE - NOTHING_SHARE - PAIR_SHARE
    found = [World((), NOTHING_SHARE)]
    for fault in pictures.circuit.faults:
        share = weights[fault.key]
        found += _arrivals(pictures, fault, listed * share)
        if pictures.of((fault,))["stops"] != STEADY:  # what nobody listed is called for because something stops
            found.append(World((fault,), UNLISTED_SHARE * share, unlisted=True))
    for name in sorted(pictures.latching):
        found.append(World((), _TRIPPED_BY_OTHERS, unlisted=True, tripped=frozenset((name,))))
    return found


def weights_of(pictures: Pictures, odds: Mapping[str, float] | None) -> Mapping[str, float]:
    """Return the share of each fault mode among all, by key."""
    weights = {f.key: (odds or {}).get(f.key, f.odds) for f in pictures.circuit.faults}
    total = sum(weights.values())
    return {key: weight / total for key, weight in weights.items()}


def _arrivals(pictures: Pictures, fault: FaultMode, share: float) -> Iterator[World]:
    for point, weight in severities(fault):
        picture = pictures.of((point,))
        trips = picture.trips
        if picture["stops"] == STEADY and not fault.comes_and_goes:
            weight *= _NO_SYMPTOM
        if trips:
            yield World((point,), share * weight * _TRIPPED_BEFORE, tripped=trips)
            yield World((point,), share * weight * (1 - _TRIPPED_BEFORE))
        else:
            yield World((point,), share * weight)
