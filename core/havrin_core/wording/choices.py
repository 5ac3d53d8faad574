"""The vocabulary as lines to pick: what a unit has, each with the level that it opens."""

from collections.abc import Iterable
from dataclasses import dataclass

from havrin_core.machine.traits import devices_of, parts_of
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import NOT_YET
from havrin_core.shorthand.words import VERBS
from havrin_core.vocabulary.abnormal import IN_VERBS, OUT_VERBS, WAYS
from havrin_core.vocabulary.catalogue import LEVEL_OF_VERDICT, SEEN, conditions, part, parts, verbs, verdict_of
from havrin_core.wording.language import text
from havrin_core.wording.ledger import made_good, put_in
from havrin_core.wording.names import condition_name, part_inside, part_name, part_words, verb_name
from havrin_core.wording.phrases import words

_OWN_LISTS = ("did", "found", "saw", *IN_VERBS, *OUT_VERBS)
_UNSAID = ("try", "test", "zero", "power_cycle")


@dataclass(frozen=True, slots=True)
class Choice:
    """A line that can be picked instead of typed; ``level`` is the one that it opens, 0 for none."""

    line: str
    text: str
    station: str = ""
    level: int = 0


def finding(part_key: str, like: str) -> Choice:
    """Return the line that finds a part like that."""
    return Choice(
        f"found {part_words(part_key)} {conditions()[like].words[0]}",
        f"{part_name(part_key)}: {condition_name(like)}",
        part(part_key).station,
        LEVEL_OF_VERDICT[verdict_of(part_key, like)],
    )


def things_done(unit: Unit) -> list[Choice]:
    """Return what can be done to the unit's parts: changing and cleaning first, then what has demands of its own."""
    return [row for key in _own(unit) for row in _done(key)]


def things_found(unit: Unit) -> list[Choice]:
    """Return how the unit's parts can be found."""
    return [finding(key, like) for key in _own(unit) for like in conditions() if verdict_of(key, like) != SEEN]


def abnormal_things(unit: Unit) -> list[Choice]:
    """Return what can be put in, taken out and proved at the unit's devices, and what is followed by a place."""
    return [*_at_devices(unit), *_at_places()]


def other_lines() -> list[Choice]:
    """Return the words that begin every other line."""
    return [Choice(f"{verb} ", words(said)) for verb, said in VERBS.items() if verb not in _OWN_LISTS]


def _own(unit: Unit) -> list[str]:
    return [key for key in parts() if key in parts_of(unit)]


def _done(key: str) -> list[Choice]:
    usual: Iterable[str] = dict.fromkeys(("change", "clean", "adjust", "repair", *part(key).demands))
    return [
        Choice(f"did {verb} {part_words(key)}", f"{verb_name(verb)}: {part_inside(key)}", part(key).station)
        for verb in usual
        if verb in verbs() and verb not in _UNSAID
    ]


def _ways(*, known_devices_only: bool) -> list[tuple[str, str, int]]:
    ways = [way for way in WAYS if way.known_devices_only == known_devices_only]
    put = [(way.verb_in, put_in(way.key), NOT_YET) for way in ways]
    return put + [(way.verb_out, made_good(way.key), 0) for way in ways]


def _at_devices(unit: Unit) -> list[Choice]:
    known = _ways(known_devices_only=True)
    rows = [(device, *row) for device in (*devices_of(unit), "call") for row in known]
    rows += [(device, "proved", text("Shown to act"), 0) for device in devices_of(unit)]
    return [
        Choice(f"{verb} {part_words(device)}", f"{said}: {part_inside(device)}", device, level)
        for device, verb, said, level in rows
    ]


def _at_places() -> list[Choice]:
    rows = _ways(known_devices_only=False)
    return [Choice(f"{verb} ", text("{what}: where?", what=said), level=level) for verb, said, level in rows]
