"""Where on this unit volts are read and things are seen: devices of its string, loads, pairs of nodes, steps of its sequence."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from havrin_core.machine.circuit.model import Circuit
from havrin_core.shorthand.lexicon import Name
from havrin_core.vocabulary.index import part_index

VOLTS, EVENT = "volts_across_v", "event_s"
_VOLTS_WORDS = ("v", "volt", "volts", "voltage", "vac", "ac")
_BEFORE = (
    "across",
    "over",
    "between",
    "at",
    "on",
    "from",
    "through",
    "the",
    "into",
    "out",
    "of",
    "in",
    "reading",
    "for",
)
_TO = ("to", "and", "with")
_SEEN = ("seen",)
_COLOURS: Mapping[str, str] = {
    "red": "R",
    "white": "W",
    "yellow": "Y",
    "green": "G",
    "common": "C",
    "com": "C",
    "blue": "C",
    "hot": "L1",
    "line": "L1",
    "black": "L1",
    "neutral": "N",
    "ground": "G",
    "earth": "G",
    "chassis": "G",
    "gnd": "G",
    "w1": "W",
}
_PART_KINDS = ("load", "switch")


@dataclass(frozen=True, slots=True)
class Places:
    """The places of one unit. ``stations``: name of a station with the nodes at its sides; ``loads``: part with its nodes."""

    stations: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    loads: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    nodes: frozenset[str] = frozenset()
    milestones: frozenset[str] = frozenset()

    def names_at(self, keys: Sequence[str], at: int) -> Mapping[int, Name]:
        """Return the names that the words from ``at`` on have here, by the count of their words."""
        if not self.stations and not self.nodes and not self.milestones:
            return {}
        found: dict[int, Name] = {}
        if keys[at] in _SEEN:
            found |= self._seen(keys, at)
        if keys[at] in _VOLTS_WORDS:
            found[1] = Name(also=frozenset((VOLTS,)))
        start, with_volts = _after_volts(keys, at)
        place = _after_words(keys, start)
        if place < len(keys):
            found |= self._between(keys, at, place, sure=with_volts or place > start)
            found |= self._at_part(keys, at, place, sure=with_volts)
        return found

    def _seen(self, keys: Sequence[str], at: int) -> Mapping[int, Name]:
        for count in (3, 2, 1):
            said = " ".join(keys[at + 1 : at + 1 + count])
            if said in self.milestones and at + count < len(keys):
                return {1 + count: Name(own=frozenset((EVENT,)), station=said)}
        return {}

    def _between(self, keys: Sequence[str], at: int, place: int, *, sure: bool) -> Mapping[int, Name]:
        """Two nodes: "v 2 3", "r to c", "between yellow and common"."""
        first = self._node(keys[place])
        second_at = place + 2 if place + 1 < len(keys) and keys[place + 1] in _TO else place + 1
        joined = second_at == place + 2
        second = self._node(keys[second_at]) if second_at < len(keys) else ""
        if not first or not second or first == second or not (joined or sure):
            return {}
        volts = frozenset((VOLTS,))
        station = next((name for name, pair in self.stations.items() if set(pair) == {first, second}), "")
        return {second_at + 1 - at: Name(own=volts, also=volts, station=station, leads=(first, second))}

    def _node(self, word: str) -> str:
        upper = word.upper()
        if upper in self.nodes:
            return upper
        named = _COLOURS.get(word, "")
        return named if named in self.nodes else ""

    def _at_part(self, keys: Sequence[str], at: int, place: int, *, sure: bool) -> Mapping[int, Name]:
        """A device or a load: "across limit", "to the inducer"; by its number's unit alone where nothing says volts."""
        to = keys[at] == "to" or (at < place and "to" in keys[at:place])
        found = part_index().at(keys, place, frozenset((*self.stations, *self.loads)))
        if found is None:
            return {}
        volts = frozenset((VOLTS,))
        leads = self.stations.get(found.key) or self.loads[found.key]
        own = volts if sure or to or "across" in keys[at:place] or "over" in keys[at:place] else frozenset()
        station = found.key if found.key in self.stations else ""
        return {found.stop - at: Name(own, volts, volts, "", station, leads)}


NOWHERE = Places()


def _after_volts(keys: Sequence[str], at: int) -> tuple[int, bool]:
    """Return where the words behind "volts" begin; ``at`` where it does not stand there."""
    said = keys[at] in _VOLTS_WORDS
    return (at + 1, True) if said else (at, False)


def _after_words(keys: Sequence[str], at: int) -> int:
    while at < len(keys) and (keys[at] in _BEFORE or keys[at] == "to"):
        at += 1
    return at


def places_of(circuit: Circuit | None, nodes: Sequence[tuple[str, str, str]]) -> Places:
    """Return the places of a unit: its circuit, and (station, node, node) of its string."""
    stations = {name: (a, b) for name, a, b in nodes}
    if circuit is None:
        return Places(stations, {}, frozenset(node for pair in stations.values() for node in pair))
    loads = {
        part.key: (part.nodes[0], part.nodes[1])
        for part in circuit.parts
        if part.kind in _PART_KINDS and len(part.nodes) == 2 and part.key not in stations
    }
    seen = frozenset(m.key for m in circuit.control.milestones)
    return Places(stations, loads, frozenset(circuit.nodes), seen)
