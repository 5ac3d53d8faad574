"""How far a walk is: what the tape says at each of its stops. A walk keeps nothing of its own."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.machine.traits import parts_of
from havrin_core.machine.unit import Unit
from havrin_core.tape.entries import Abnormal, Condition, Proof
from havrin_core.vocabulary.measurands import MEASURANDS, measurand
from havrin_core.walks.model import Stop, Walk

_ROOM = "room"  # what is read there has no station of its own
# a safety device that was found bypassed stands on the tape as left abnormal: how -> the conditions that say so
_FOUND_AS: Mapping[str, tuple[str, ...]] = {"held": ("taped", "propped"), "bridged": ("bypassed",)}


@dataclass(frozen=True, slots=True)
class Asked:
    """Quantities that one sample gives at one stage, with what was read of each; None: not read yet."""

    quantities: tuple[str, ...]
    stage: str | None
    read: tuple[ReadingFact | None, ...]
    needed: bool

    @property
    def lacking(self) -> tuple[str, ...]:
        """The quantities that are not read yet."""
        return tuple(q for q, fact in zip(self.quantities, self.read, strict=True) if fact is None)


@dataclass(frozen=True, slots=True)
class StopState:
    """A stop with what was said there: readings, conditions found, verbs done, and whether it was proved or passed."""

    stop: Stop
    asked: tuple[Asked, ...]
    found: tuple[str, ...]
    did: tuple[str, ...]
    shown: bool

    @property
    def answered(self) -> bool:
        """Whether the stop can be left: everything it is for was read; else anything was said of its part."""
        needed = [asked for asked in self.asked if asked.needed]
        if needed:
            return not any(asked.lacking for asked in needed)
        return bool(self.found or self.did or self.shown or any(fact for asked in self.asked for fact in asked.read))


def progress(walk: Walk, unit: Unit, facts: Facts) -> tuple[StopState, ...]:
    """Return the stops of ``walk`` that ``unit`` has, in order, each with what this visit's tape says there."""
    own, readable = parts_of(unit), frozenset(m.key for m in MEASURANDS if station_of(m.key, unit) is not None)
    return tuple(
        _state(stop, unit, facts, readable)
        for stop in walk.stops
        if stop.part in own and (not stop.read or not readable.isdisjoint(stop.read))
    )


def station_of(quantity: str, unit: Unit) -> str | None:
    """Return the key of the station where ``quantity`` is read on ``unit``, "" for the room; None where it is not read."""
    usual = measurand(quantity).station
    if usual == _ROOM:
        return ""
    at = unit.station_at(usual, unit.stage_keys[-1])
    return at or next((station.key for station in unit.stations() if station.quantity == quantity), None)


def _state(stop: Stop, unit: Unit, facts: Facts, readable: frozenset[str]) -> StopState:
    needed, also = ([q for q in some if q in readable] for some in (stop.read, stop.may_read))
    looks = [(line, look) for line, look in facts.of(Condition) if line.entry.id not in facts.before]
    bypasses = [body for line, body in facts.of(Abnormal) if body.found and line.entry.id not in facts.before]
    actions = [(line, action) for line, action in facts.real_actions() if line.entry.id not in facts.before]
    return StopState(
        stop,
        (*_asked(needed, unit, facts, True), *(row for q in also for row in _asked([q], unit, facts, False))),
        (
            *(look.condition for _, look in looks if look.part == stop.part and not look.absent),
            *(like for body in bypasses if body.device == stop.part for like in _FOUND_AS.get(body.how, ())),
        ),
        tuple(action.verb for _, action in actions if action.part == stop.part),
        any(_shows(proof, stop) for line, proof in facts.of(Proof) if line.entry.id not in facts.before),
    )


def _shows(proof: Proof, stop: Stop) -> bool:
    if stop.proved and proof.what == "device" and proof.device == stop.part:
        return proof.passed
    return bool(stop.check) and proof.what == stop.check and proof.passed


def _asked(quantities: Sequence[str], unit: Unit, facts: Facts, needed: bool) -> list[Asked]:
    """Return one sample for what has no stage, and one for each stage of what is staged."""
    staged = tuple(q for q in quantities if measurand(q).staged)
    plain = tuple(q for q in quantities if not measurand(q).staged)
    samples: list[tuple[tuple[str, ...], str | None]] = [(plain, None)] if plain else []
    samples += [(staged, stage) for stage in unit.stage_keys] if staged else []
    return [Asked(some, stage, tuple(facts.newest(q, stage) for q in some), needed) for some, stage in samples]
