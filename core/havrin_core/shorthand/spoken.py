"""Readings as people say them: "manifold pressure was 3.3 in wc", "5 ppm co in the room", "o two six point four".

A line is read so where the short words of the bar do not read it. Every word has to be a name, a number, a unit, a stage, a
phase or a listed filler, and names and numbers have to go in pairs; else nothing is said. What is found is put in the bar's
own words, so that bounds, questions and doubts are those of any reading.
"""

import re
import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Literal

from havrin_core.shorthand.numbers import number_at
from havrin_core.shorthand.words import measurand_words
from havrin_core.vocabulary.measurands import LEAST_OF, MEASURANDS

Kind = Literal["name", "place", "number", "unit", "stage", "phase", "least", "over", "filler"]
_LONGEST = 6
_KINDS: Mapping[str, Kind] = {
    "names": "name",
    "of_co": "place",
    "units": "unit",
    "stages": "stage",
    "phases": "phase",
}
_PARTED = re.compile(r"(?<=[a-z0-9²₂µ%])\s*[:=/](?=\s*[a-z\d.\-−<>])|[;,]+(?=\s|$)|(?<!\d)/|/(?=[a-z])")
_GLUED = re.compile(r"^([a-zµ]+)([-−]?[\d.][\d.,]*)$")
_NUMBER_UNIT = re.compile(r"^([-−+<>]?[\d.][\d.,]*)([a-zµ°%Ω\"][\w.%°\"]*)$")


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece of a line: what it is, what it stands for, and how it was said."""

    kind: Kind
    value: str
    said: str = ""


@dataclass(frozen=True, slots=True)
class SpokenReading:
    """One reading in the words of the bar: name, number with unit; stage and phase where they were said, else ""."""

    name: str
    number: str
    stage: str = ""
    phase: str = ""


def spoken_readings(text: str, *, heats_water: bool) -> tuple[SpokenReading, ...]:
    """Return the readings that a whole line says; none where any of its words is something else."""
    pieces = _placed(_named_by_unit(_pieces(_words_of(text), heats_water=heats_water)))
    return tuple(_paired(pieces)) if pieces else ()


def _words_of(text: str) -> list[str]:
    low = text.lower().replace("₂", "2").replace("−", "-").replace("-", " -") if text else ""
    low = re.sub(r"(?<=[a-z])\s-(?=[a-z])", " ", low)  # a hyphen between words parts them
    words: list[str] = []
    for word in _PARTED.sub(" ", low).split():
        words += _apart(word.strip("()[]"))
    return [word for word in words if word]


def _apart(word: str) -> list[str]:
    """Return a word, a name or a unit that stands at its number taken off: "ua2.4", "3.5in"."""
    name, unit = _GLUED.match(word), _NUMBER_UNIT.match(word)
    if word in _phrases(heats_water=False):
        return [word]
    if name and name[1] in _phrases(heats_water=False):
        return [name[1], name[2]]
    return [unit[1], unit[2]] if unit else [word]


@cache
def _data() -> Mapping[str, Mapping[str, Sequence[str]]]:
    file = resources.files("havrin_core.shorthand") / "data" / "spoken.toml"
    found: Mapping[str, Mapping[str, Sequence[str]]] = tomllib.loads(file.read_text(encoding="utf-8"))
    return found


@cache
def _phrases(*, heats_water: bool) -> Mapping[str, tuple[Piece, ...]]:
    """Return everything that a phrase may be: a name, a unit, a stage, a phase, "least", "over", a filler."""
    data = _data()
    found: dict[str, list[Piece]] = {}
    for word in measurand_words():
        found.setdefault(word, []).append(Piece("name", word))
    rows = [(kind, data[table]) for table, kind in _KINDS.items()]
    for kind, table in rows:
        for value, phrases in table.items():
            for phrase in phrases:
                found.setdefault(phrase, []).append(Piece(kind, value, phrase))
    if heats_water:
        for value, phrases in data["water"].items():
            for phrase in phrases:
                found[phrase] = [Piece("name", value)]
    for phrase, _ in data["with_unit"].values():
        found.setdefault(phrase, []).append(Piece("name", "", phrase))
    plain: tuple[tuple[Kind, str], ...] = (("least", "least"), ("over", "over"), ("filler", "fillers"))
    for kind, table_name in plain:
        for phrase in data[table_name]["words"]:
            found.setdefault(phrase, []).append(Piece(kind, phrase))
    return {phrase: tuple(pieces) for phrase, pieces in found.items()}


def _pieces(words: list[str], *, heats_water: bool) -> list[Piece]:
    """Return the pieces of a line, the longest phrase first; none where a word is no piece of a reading."""
    phrases = _phrases(heats_water=heats_water)
    found: list[Piece] = []
    at = 0
    while at < len(words):
        number = number_at(words, at)
        longest = next(
            (n for n in range(min(_LONGEST, len(words) - at), 0, -1) if " ".join(words[at : at + n]) in phrases), 0
        )
        if number is not None and number.stop - at >= longest:
            found.append(Piece("number", number.text))
            at = number.stop
        elif longest:
            found.append(_fitting(phrases[" ".join(words[at : at + longest])], found))
            at += longest
        else:
            return []
    return [piece for piece in found if piece.kind != "filler"]


def _fitting(choices: Sequence[Piece], before: Sequence[Piece]) -> Piece:
    """Return what a phrase is here: a unit only behind a number ("a", "in", "t"), a name elsewhere."""
    behind_number = bool(before) and before[-1].kind == "number"
    units = [piece for piece in choices if piece.kind == "unit"]
    if units and behind_number:
        return units[0]
    others = [piece for piece in choices if piece.kind != "unit"]
    return others[0] if others else units[0]


def _named_by_unit(pieces: list[Piece]) -> list[Piece]:
    """Return the pieces with a name for a number whose unit belongs to one quantity alone: "3.0 ua" is the flame signal."""
    named = any(piece.kind in ("name", "place") for piece in pieces)
    alone = [piece for piece in pieces if piece.kind == "unit" and piece.value in _data()["of_unit"]]
    if named or len(alone) != 1:
        return pieces
    return [Piece("name", str(_data()["of_unit"][alone[0].value])), *pieces]


def _placed(pieces: list[Piece]) -> list[Piece]:
    """Return the pieces with a place of CO joined to its name ("co 5 in the room"); none where it stands beside something else."""
    places = [piece.value for piece in pieces if piece.kind == "place"]
    if not places:
        return pieces
    others = [piece for piece in pieces if piece.kind != "place"]
    names = [piece for piece in others if piece.kind == "name"]
    if len(places) > 1 or [name.value for name in names] not in ([], ["co"]):
        return []
    if names:
        return [Piece("name", places[0]) if piece is names[0] else piece for piece in others]
    in_ppm = any(piece.kind == "unit" and piece.value == "ppm" for piece in others)
    return [Piece("name", places[0]), *others] if in_ppm else []


def _paired(pieces: list[Piece]) -> Iterator[SpokenReading]:
    """Yield the readings of pieces in which every name has its number: all names first in their pairs, or all behind."""
    if any(piece.kind == "unit" and not (i and pieces[i - 1].kind == "number") for i, piece in enumerate(pieces)):
        return
    order = [piece.kind for piece in pieces if piece.kind in ("name", "number")]
    count = len(order) // 2
    if not count or order not in (["name", "number"] * count, ["number", "name"] * count):
        return
    stages = [piece.value for piece in pieces if piece.kind == "stage"]
    phases = {piece.value for piece in pieces if piece.kind == "phase"}
    least = sum(piece.kind == "least" for piece in pieces)
    if len(phases) > 1 or len(stages) > count or (least and count > 1):
        return
    numbers = [_with_unit(pieces, i) for i, piece in enumerate(pieces) if piece.kind == "number"]
    names = [_name(piece, number) for piece, number in zip(_names(pieces), numbers, strict=True)]
    named = [_minimum(name) if least else name for name in names]
    if not all(named):
        return
    for name, number, stage in zip(named, numbers, _stages(pieces, stages, count), strict=True):
        yield SpokenReading(name or "", number, stage, next(iter(phases), ""))


def _names(pieces: Sequence[Piece]) -> list[Piece]:
    return [piece for piece in pieces if piece.kind == "name"]


def _name(piece: Piece, number: str) -> str:
    """Return the word of the bar for a name; one that its unit tells apart ("discharge 2 ppm") by its number."""
    for name, (said, unit) in _data()["with_unit"].items():
        if piece.said == said and number.endswith(unit):
            return name
    return piece.value


def _with_unit(pieces: Sequence[Piece], at: int) -> str:
    over = ">" if at and pieces[at - 1].kind == "over" else ""
    unit = pieces[at + 1].value if at + 1 < len(pieces) and pieces[at + 1].kind == "unit" else ""
    return f"{over}{pieces[at].value} {unit}".strip()


def _minimum(name: str) -> str | None:
    """Return the word of the least value of a quantity; None where it has none."""
    if name not in measurand_words():
        return None
    least = LEAST_OF.get(measurand_words()[name].key)
    return next((one.words[0] for one in MEASURANDS if one.key == least), None)


def _stages(pieces: Sequence[Piece], said: Sequence[str], count: int) -> list[str]:
    """Return the stage of each reading: one that was said once is that of all, several hold until the next one."""
    if len(said) <= 1:
        return [said[0] if said else ""] * count
    found: list[str] = []
    stage = ""
    for piece in pieces:
        if piece.kind == "stage":
            stage = piece.value
        elif piece.kind == "name":
            found.append(stage)
    return found


_ACROSS = re.compile(
    r"(?:(?P<number>[\d.,]+) ?(?:v|volts?|vac) (?:across|over|at|on) (?:the )?(?P<name>.+)"
    r"|(?:across |over )?(?:the )?(?P<name_first>.+?) (?P<number_last>[\d.,]+) ?(?:v|volts?|vac)"
    r"|(?:volts? )?(?:across|over) (?:the )?(?P<name_across>.+?) (?P<number_across>[\d.,]+))"
)


def spoken_volts(text: str, names: Sequence[str]) -> tuple[str, str] | None:
    """Return (name of a station of the string, volts) of "26 v across pressure switch"; None for any other line.

    >>> spoken_volts("26 volts across the pressure switch", ["pressure_switch"])
    ('pressure_switch', '26')
    """
    match = _ACROSS.fullmatch(" ".join(text.lower().split()))
    if match is None:
        return None
    said = next(filter(None, (match["name"], match["name_first"], match["name_across"])), "")
    number = next(filter(None, (match["number"], match["number_last"], match["number_across"])), "")
    found = [name for name in names if name.replace("_", " ") in (said, said.removesuffix(" switch"))]
    return (found[0], number) if len(found) == 1 else None


def spoken_verb(text: str) -> tuple[str, str] | None:
    """Return (verb of the bar, what was said) where a line begins with words that mean no finding and no work done.

    >>> spoken_verb("quoted new board 640"), spoken_verb("found the cause: loose ground")
    (('advise', 'quoted new board 640'), ('cause', 'loose ground'))
    """
    plain = " ".join(text.split())
    low = plain.lower()
    for verb, words in _data()["verbs"].items():
        if any(low.startswith(f"{word} ") for word in words):
            return verb, plain
    for verb, words in _data()["verbs_before"].items():
        for word in sorted(words, key=len, reverse=True):
            if low.startswith(f"{word} "):
                return verb, plain[len(word) :].strip()
    return None


def of_another_system(text: str) -> str:
    """Return the word by which a line speaks of another system; "" where it has none."""
    low = f" {' '.join(re.sub(r'[,;:.!()]', ' ', text.lower()).split())} "
    return next((word for word in _data()["elsewhere"]["words"] if f" {word} " in low), "")
