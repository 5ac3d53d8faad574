"""Chips beside the bar: how a reading was read, where and how a part was seen; each one the line that it makes."""

import re
from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.machine.exchanger import exchanger_of
from havrin_core.machine.unit import Unit
from havrin_core.shorthand.model import Line
from havrin_core.tape.entries import Reading
from havrin_core.vocabulary.catalogue import part
from havrin_core.vocabulary.methods import FINDS
from havrin_core.wording.language import text

# how it was read -> the words that are written
_READ_HOW: Mapping[str, str] = {
    "cover off": "cover off",
    "door open": "door open",
    "cold": "cold",
    "min": "minimum",
    "max": "max",
    "neighbour firing": "neighbour firing",
    "trial": "trial",
}
_SIZES = ("2 mm", "5 mm", "10 mm", "20 mm", "50 mm")
_ALONG_A_VENT = ("at the unit", "at the first elbow", "at the wall", "at the terminal")


@dataclass(frozen=True, slots=True)
class Chip:
    """One chip: what it says, whether it holds, and the line that a touch makes of the typed one."""

    label: str
    on: bool
    line: str


@dataclass(frozen=True, slots=True)
class Beside:
    """What may be said beside a finding: a question and its answers as words of the line."""

    label: str
    words: tuple[str, ...]


def reading_chips(line: Line, typed: str) -> list[Chip]:
    """Return how the readings of a line may have been read; none where it has no reading."""
    if not line.writable or not any(isinstance(body, Reading) for body in line.bodies):
        return []
    return [_chip(label, words, typed.strip()) for label, words in _READ_HOW.items()]


def _chip(label: str, words: str, typed: str) -> Chip:
    said = re.compile(rf"\s*\b{words}\b", re.IGNORECASE)
    on = said.search(typed) is not None
    return Chip(text(label), on, said.sub("", typed) if on else f"{typed} {words}")


def said_beside(part_key: str, unit: Unit) -> tuple[Beside, ...]:
    """Return what is asked beside a finding on a part where that matters: its place, size and how it was seen."""
    drawn = exchanger_of(unit)
    if part_key == "exchanger" and drawn is not None:
        cells = tuple(f"at {one.key}" for one in drawn.parts)
        seen = tuple(f"by {method}" for method in FINDS)
        return (Beside(text("Where"), cells), Beside(text("Size"), _SIZES), Beside(text("Seen"), seen))
    if part(part_key).like == "vent":
        return (Beside(text("Where"), _ALONG_A_VENT),)
    return ()
