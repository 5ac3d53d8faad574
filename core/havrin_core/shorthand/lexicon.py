"""The words of readings: which quantities, units, stages, phases and circumstances a phrase may stand for."""

import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.quantities.units import ALL_SPELLINGS
from havrin_core.shorthand.cover import Piece
from havrin_core.shorthand.numbers import number_at
from havrin_core.shorthand.said_words import MARK, SaidWord
from havrin_core.vocabulary.measurands import MEASURANDS

_ZEROS = "000"


@dataclass(frozen=True, slots=True)
class Name:
    """What a word may mean: quantities of its own, those it is with a unit, and those that other words make of it."""

    own: frozenset[str] = frozenset()
    with_unit: frozenset[str] = frozenset()
    also: frozenset[str] = frozenset()
    bar: str = ""  # the quantity whose own short word it is
    shortest: bool = False  # the bar's first word for it, which means nothing else
    station: str = ""  # where it was read, for volts and what was seen
    leads: tuple[str, str] | None = None  # nodes of the circuit
    state: str = ""  # of the circuit, in which it was read

    def __or__(self, other: "Name") -> "Name":
        return Name(
            self.own | other.own,
            self.with_unit | other.with_unit,
            self.also | other.also,
            self.bar or other.bar,
            self.shortest or other.shortest,
            self.station or other.station,
            self.leads or other.leads,
            self.state or other.state,
        )

    def __and__(self, other: "Name") -> "Name | None":
        """Return what two words of one reading mean together; None where they cannot stand together."""
        mine, others = self.own | self.also | self.with_unit, other.own | other.also | other.with_unit
        either = mine & others
        own = (self.own & others) | (other.own & mine) or either
        station, leads = self.station or other.station, self.leads or other.leads
        joined = Name(own, either, either, "", False, station, leads, self.state or other.state)
        return joined if either else None


@dataclass(frozen=True, slots=True)
class Number:
    """A number as it was said, with the unit behind it as it is written and as it was said; "" for none."""

    text: str
    unit: str = ""
    said_unit: str = ""


@cache
def _data() -> Mapping[str, Any]:
    file = resources.files("havrin_core.shorthand") / "data" / "readings.toml"
    return tomllib.loads(file.read_text(encoding="utf-8"))


@cache
def names() -> Mapping[str, Name]:
    """Return every phrase that names a quantity, or helps to."""
    found: dict[str, Name] = {}

    def add(phrase: str, name: Name) -> None:
        found[phrase] = found[phrase] | name if phrase in found else name

    data = _data()
    for one in MEASURANDS:
        for word in one.words:
            if one.key not in ("volts_across_v", "event_s"):
                shortest = word == one.words[0]
                add(word.replace("-", " "), Name(own=frozenset((one.key,)), bar=one.key, shortest=shortest))
    for quantity, phrases in data["names"].items():
        for phrase in phrases:
            add(phrase, Name(own=frozenset((quantity,))))
    for quantity, phrases in data["with_unit"].items():
        for phrase in phrases:
            add(phrase, Name(with_unit=frozenset((quantity,))))
    for phrase, quantities in data["also"].items():
        add(phrase, Name(also=frozenset(quantities)))
    return found


@cache
def single_names() -> frozenset[str]:
    """Return the single words that name a quantity: a number may be glued to them."""
    return frozenset(phrase for phrase in names() if " " not in phrase)


@cache
def whole_words() -> frozenset[str]:
    """Return the single words that are a unit, a stage or the like as they stand ("in2", "w2")."""
    return frozenset(phrase for phrase in (*_units(), *_others()) if " " not in phrase)


@cache
def _others() -> Mapping[str, tuple[tuple[str, str], ...]]:
    """Return what else a phrase may be: (kind, value) each."""
    found: dict[str, tuple[tuple[str, str], ...]] = {}
    data = _data()
    for kind, table in (("stage", data["stages"]), ("phase", data["phases"])):
        for value, phrases in table.items():
            for phrase in phrases:
                found[phrase] = (*found.get(phrase, ()), (kind, value))
    for kind in ("least", "most", "over", "with"):
        for phrase in data[kind]["words"]:
            found[phrase] = (*found.get(phrase, ()), (kind, phrase))
    for phrase in data["strange"]["words"]:
        found[phrase] = (("strange", phrase),)
    for phrase in (*data["fillers"]["words"], MARK):
        found[phrase] = (*found.get(phrase, ()), ("filler", phrase))
    return found


@cache
def _units() -> Mapping[str, str]:
    said = {phrase: unit for unit, phrases in _data()["units"].items() for phrase in phrases}
    return {spelling.lower(): spelling for spelling in ALL_SPELLINGS if spelling.lower() not in said} | said


def of_unit(unit: str) -> str:
    """Return the quantity that a number with ``unit`` is without a name; "" where it may be several."""
    return str(_data()["of_unit"].get(unit, ""))


def flowing_at(words: Sequence[SaidWord]) -> Iterator[tuple[int, int]]:
    """Yield from where to where the words say that the gas flows, the longest phrase of each place."""
    phrases = {tuple(phrase.split()) for phrase in _data()["runs"]["words"]}
    keys = tuple(word.key for word in words)
    at = 0
    while at < len(keys):
        count = max((len(phrase) for phrase in phrases if keys[at : at + len(phrase)] == phrase), default=0)
        if count:
            yield at, at + count
        at += count or 1


def pieces_at(words: Sequence[SaidWord], at: int, here: Mapping[int, Name]) -> Iterator[Piece]:
    """Yield every piece of a reading that begins at ``at``, longer ones first.

    ``here`` are names that the unit itself gives to the words from ``at`` on, by their count (places.py).
    """
    keys = [word.key for word in words[at : at + _longest_by_first_word().get(words[at].key, 0)]]
    for count in range(max(len(keys), *here, 0), 0, -1):
        phrase = " ".join(keys[:count]) if count <= len(keys) else ""
        name = names().get(phrase)
        own = here.get(count)
        if name or own:
            yield Piece("name", at, at + count, name | own if name and own else name or own)
        for kind, value in _others().get(phrase, ()):
            yield Piece(kind, at, at + count, value)
    yield from _numbers_at(words, at)


@cache
def _longest_by_first_word() -> Mapping[str, int]:
    """Return how many words the longest phrase has that begins with each word: nothing longer need be looked up."""
    found: dict[str, int] = {}
    for said in (*names(), *_others()):
        words = said.split()
        if words:
            found[words[0]] = max(found.get(words[0], 0), len(words))
    return found


def _numbers_at(words: Sequence[SaidWord], at: int) -> Iterator[Piece]:
    """Yield the number that begins at ``at``: with its unit first, then alone."""
    found = number_at([word.key for word in words], at)
    if found is None:
        return
    text, stop = found.text, found.stop
    if stop < len(words) and words[stop].key == _ZEROS and text.isdigit():
        text, stop = text + _ZEROS, stop + 1  # "80 000"
    for count in range(min(4, len(words) - stop), 0, -1):
        said = " ".join(word.key for word in words[stop : stop + count])
        if said in _units() and not _names_what_follows(words, said, stop + count):
            yield Piece("number", at, stop + count, Number(text, _units()[said], said))
    yield Piece("number", at, stop, Number(text))


def _names_what_follows(words: Sequence[SaidWord], said: str, at: int) -> bool:
    """Tell whether a word that is unit and name names the number behind it: "manifold 3.5 ua 2.8"."""
    name = names().get(said)
    return name is not None and bool(name.own) and number_at([word.key for word in words], at) is not None


@cache
def known_words() -> frozenset[str]:
    """Return every phrase that readings are made of."""
    return frozenset((*names(), *_others(), *_units()))
