"""The vocabulary as lines to pick: what a unit has, each with the level that it opens."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from havrin_core.machine.traits import devices_of, parts_of
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import NOT_YET
from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.vocabulary.catalogue import LEVEL_OF_VERDICT, SEEN, conditions, part, parts, verbs, verdict_of
from havrin_core.walks.documents import shipped_stops
from havrin_core.wording.chips import Beside, said_beside
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import made_good, put_in
from havrin_core.wording.names import condition_name, part_inside, part_name, part_words, verb_name

_BY_FROST = ("snowed_in", "iced", "frozen", "wet")
_ON_DEVICES = ("hold", "release", "lift", "land")  # what is done to the device itself, besides bridging it
_UNSAID = ("try", "test", "zero", "power_cycle")


@dataclass(frozen=True, slots=True)
class Choice:
    """A line that can be picked instead of typed; ``level`` is the one that it opens, 0 for none.

    ``text`` says it whole, ``short`` beside the name of its part. A line that ends with a space is followed by a place.
    """

    line: str
    text: str
    short: str
    station: str = ""
    level: int = 0


@dataclass(frozen=True, slots=True)
class PartChoices:
    """All that can be picked at one part: how it is found, what is done to it, what may be left abnormal at it.

    ``path`` is where it is drawn, "" for none. ``usual``: it is looked at on visits of this kind. ``beside``: what is
    asked beside a finding on it.
    """

    key: str
    name: str
    path: str
    usual: bool
    found: tuple[Choice, ...]
    done: tuple[Choice, ...]
    jumpers: tuple[Choice, ...]
    beside: tuple[Beside, ...]


def part_choices(unit: Unit, usual: Sequence[str] = (), *, cold: bool = False) -> list[PartChoices]:
    """Return the unit's parts, those in ``usual`` first and in that order, each with its lines.

    ``cold``: what frost does is offered before the rest.
    """
    own = parts_of(unit)
    keys = dict.fromkeys((*(key for key in usual if key in own), *(key for key in parts() if key in own)))
    paths = {station.base: path.key for path in unit.paths for station in path.stations}
    devices = (*devices_of(unit), "call")
    return [
        PartChoices(
            key=key,
            name=part_name(key),
            path=paths.get(part(key).station, ""),
            usual=key in usual,
            found=tuple(_found(key, cold)),
            done=tuple(_done(key)),
            jumpers=tuple(_at_device(key)) if key in devices else (),
            beside=said_beside(key, unit),
        )
        for key in keys
    ]


def things_elsewhere() -> list[Choice]:
    """Return what may be left abnormal at a place that is no device: the place is typed behind."""
    return [
        Choice(f"{verb} ", text("{what}: where?", what=said), said, level=level)
        for verb, said, level in _ways(known_devices_only=False)
    ]


def finding(part_key: str, like: str) -> Choice:
    """Return the line that finds a part like that."""
    return Choice(
        f"found {part_words(part_key)} {conditions()[like].words[0]}",
        f"{part_name(part_key)}: {condition_name(like)}",
        condition_name(like),
        part(part_key).station,
        LEVEL_OF_VERDICT[verdict_of(part_key, like)],
    )


def _found(key: str, cold: bool) -> list[Choice]:
    first = [*_met_most().get(key, ()), *(_BY_FROST if cold else ())]
    rows = [like for like in dict.fromkeys((*first, *conditions())) if verdict_of(key, like) != SEEN]
    return [finding(key, like) for like in rows]


@cache
def _met_most() -> Mapping[str, tuple[str, ...]]:
    """Return what each part is met like most: what a walk asks at its stops."""
    found: dict[str, tuple[str, ...]] = {}
    for stop in shipped_stops().values():
        found[stop.part] = (*found.get(stop.part, ()), *stop.found)
    return found


def _done(key: str) -> list[Choice]:
    usual: Iterable[str] = dict.fromkeys(("change", "clean", "adjust", "repair", *part(key).demands))
    return [
        Choice(
            f"did {verb} {part_words(key)}",
            f"{verb_name(verb)}: {part_inside(key)}",
            lower_first(verb_name(verb)),
            part(key).station,
        )
        for verb in usual
        if verb in verbs() and verb not in _UNSAID
    ]


def _ways(*, known_devices_only: bool) -> list[tuple[str, str, int]]:
    ways = [way for way in WAYS if way.known_devices_only == known_devices_only]
    put = [(way.verb_in, put_in(way.key), NOT_YET) for way in ways]
    return put + [(way.verb_out, made_good(way.key), 0) for way in ways]


def _at_device(device: str) -> list[Choice]:
    rows = _ways(known_devices_only=True) + [row for row in _ways(known_devices_only=False) if row[0] in _ON_DEVICES]
    if device != "call":
        rows.append(("proved", text("Shown to act"), 0))
    return [
        Choice(f"{verb} {part_words(device)}", f"{said}: {part_inside(device)}", said, device, level)
        for verb, said, level in rows
    ]
