"""Where on this unit volts are read and things are seen: devices of its string, loads, pairs of nodes, steps of its sequence."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from havrin_core.machine.circuit.model import LOCKED_OUT, Circuit
from havrin_core.phrases import phrase
from havrin_core.shorthand.lexicon import Name
from havrin_core.shorthand.model import Problem
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
_LINE, _LEGS = ("L1", "N"), ("L1", "L2")  # a line of 208 or 240 V has legs and no neutral
_NAMED_PAIRS: Mapping[str, tuple[str, str]] = {
    "line voltage": _LINE,
    "incoming voltage": _LINE,
    "incoming power": _LINE,
    "mains voltage": _LINE,
    "supply voltage": _LINE,
    "secondary voltage": ("R", "C"),
    "transformer secondary": ("R", "C"),
    "transformer output": ("R", "C"),
    "secondary": ("R", "C"),
    "control voltage": ("R", "C"),
    "low voltage": ("R", "C"),
    "transformer puts out": ("R", "C"),
    "transformer puts": ("R", "C"),
    "transformer reads": ("R", "C"),
}
_PART_KINDS = ("load", "switch")
_IN_A_STATE = ("in", "at", "during", "while")
_GAVE_UP = ("lockout", "lock out", "locked out")


@dataclass(frozen=True, eq=False, slots=True)
class Places:
    """The places of one unit, looked up as itself. ``stations``: name of a station with the nodes at its sides; ``loads``: part with its nodes."""

    stations: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    loads: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    nodes: frozenset[str] = frozenset()
    milestones: frozenset[str] = frozenset()
    states: Mapping[str, str] = field(default_factory=dict)  # words of a state of the circuit -> its key

    def names_at(self, keys: Sequence[str], at: int) -> Mapping[int, Name]:
        """Return the names that the words from ``at`` on have here, by the count of their words."""
        if not self.stations and not self.nodes and not self.milestones:
            return {}
        found: dict[int, Name] = {}
        if keys[at] in _SEEN:
            found |= self._seen(keys, at)
        if keys[at] in _VOLTS_WORDS:
            found[1] = Name(also=frozenset((VOLTS,)))
        found |= self._named_pair(keys, at)
        start, with_volts = _after_volts(keys, at)
        place = _after_words(keys, start)
        if place < len(keys):
            found |= self._between(keys, at, place, sure=with_volts or place > start)
            found |= self._at_part(keys, at, place, sure=with_volts)
        return {**found, **self._in_states(keys, at, found)}

    def _in_states(self, keys: Sequence[str], at: int, found: Mapping[int, Name]) -> Mapping[int, Name]:
        """The same places with the state of the circuit behind them: "v 3 4 in trial", "across limit during pre-purge"."""
        longer: dict[int, Name] = {}
        for count, name in found.items():
            start = at + count
            if name.leads is None or start >= len(keys) or keys[start] not in _IN_A_STATE:
                continue
            for words in (3, 2, 1):
                state = self.states.get(" ".join(keys[start + 1 : start + 1 + words]))
                if state is not None and start + words < len(keys):
                    longer[count + 1 + words] = replace(name, state=state)
                    break
        return longer

    def _named_pair(self, keys: Sequence[str], at: int) -> Mapping[int, Name]:
        """Voltages with a name of their own: "line voltage 119", "transformer secondary 26"."""
        for count in (3, 2, 1):
            leads = _NAMED_PAIRS.get(" ".join(keys[at : at + count]))
            if leads == _LINE and "N" not in self.nodes:
                leads = _LEGS
            if leads and set(leads) <= self.nodes and at + count <= len(keys):
                volts = frozenset((VOLTS,))
                own = volts if count > 1 else frozenset()
                return {count: Name(own, volts, volts, leads=leads)}
        return {}

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
        key, stop = self._part_at(keys, place)
        if not key:
            return {}
        volts = frozenset((VOLTS,))
        leads = self.stations.get(key) or self.loads[key]
        own = volts if sure or to or "across" in keys[at:place] or "over" in keys[at:place] else frozenset()
        return {stop - at: Name(own, volts, volts, station=key, leads=leads)}

    def _part_at(self, keys: Sequence[str], place: int) -> tuple[str, int]:
        """Return the station or the part that is named at ``place``, and where its name ends; "" for none."""
        for count in (3, 2, 1):
            said = "_".join(keys[place : place + count])
            if said in self.stations and place + count <= len(keys):
                return said, place + count
        found = part_index().at(keys, place, frozenset((*self.stations, *self.loads)))
        return (found.key, found.stop) if found else ("", place)


NOWHERE = Places()


def _after_volts(keys: Sequence[str], at: int) -> tuple[int, bool]:
    """Return where the words behind "volts" begin; ``at`` where it does not stand there."""
    said = keys[at] in _VOLTS_WORDS
    return (at + 1, True) if said else (at, False)


def _after_words(keys: Sequence[str], at: int) -> int:
    while at < len(keys) and (keys[at] in _BEFORE or keys[at] == "to"):
        at += 1
    return at


@dataclass(frozen=True, eq=False, slots=True)
class _Wired:
    """A circuit that is looked up as itself: it is the same for every line of a visit, and too large to compare."""

    circuit: Circuit | None

    def __hash__(self) -> int:
        return id(self.circuit)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Wired) and other.circuit is self.circuit


def places_of(circuit: Circuit | None, nodes: Sequence[tuple[str, str, str]]) -> Places:
    """Return the places of a unit: its circuit, and (station, node, node) of its string."""
    return _places(_Wired(circuit), tuple(nodes))


@lru_cache(maxsize=256)
def _places(wired: _Wired, nodes: tuple[tuple[str, str, str], ...]) -> Places:
    circuit = wired.circuit
    stations = {name: (a, b) for name, a, b in nodes}
    if circuit is None:
        return Places(stations, {}, frozenset(node for pair in stations.values() for node in pair))
    loads = {
        part.key: (part.nodes[0], part.nodes[1])
        for part in circuit.parts
        if part.kind in _PART_KINDS and len(part.nodes) == 2 and part.key not in stations
    }
    seen = frozenset(m.key for m in circuit.control.milestones)
    states = {
        word: s.key for s in circuit.states for word in (s.key, s.name.lower().replace("-", " ").replace(",", ""))
    }
    return Places(stations, loads, frozenset(circuit.nodes), seen, states | dict.fromkeys(_GAVE_UP, LOCKED_OUT))


def volts_or_event_problem(words: Sequence[str], places: Places) -> Problem | None:
    """Return what is in the way of a line that begins with "v" or "seen"; None for any other line."""
    first = words[0].lower()
    if first in _SEEN:
        said = ", ".join(sorted(places.milestones)) or phrase("no_circuit_known_unit")
        return Problem(" ".join(words[1:]) or "seen", phrase("what_seen_then_seconds_after", said=said))
    if first not in ("v", "volts", "volt"):
        return None
    rest = [word.upper() for word in words[1:3]]
    unknown = [node for node in rest if node not in places.nodes]
    if (
        len(words) > 3
        and all(word.isdigit() or word in places.nodes for word in rest)
        and (unknown or rest[0] == rest[1])
    ):
        text = phrase("circuit_has_no_node", unknown=unknown[0]) if unknown else phrase("both_leads_are_same_node")
        return Problem(" ".join(rest), phrase("its_nodes", text=text, nodes=", ".join(sorted(places.nodes))))
    known = ", ".join(name.replace("_", " ") for name in places.stations)
    return Problem("v", phrase("volts_across_what_v_limit", known=known))
