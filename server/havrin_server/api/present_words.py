"""The vocabulary as lines to pick: what the visit's own unit has."""

from havrin_core.machine.traits import devices_of, parts_of
from havrin_core.machine.unit import Unit
from havrin_core.shorthand.words import VERBS
from havrin_core.vocabulary.abnormal import IN_VERBS, OUT_VERBS, WAYS
from havrin_core.vocabulary.catalogue import BAD, DANGER, GOOD, SEEN, WORN, conditions, part, parts, verbs, verdict_of
from havrin_core.wording.ledger import made_good, put_in
from havrin_core.wording.names import condition_name, part_inside, part_name, part_words, verb_name
from havrin_core.wording.phrases import words
from havrin_server.api.schemas import Vocabulary, WordOut

_OWN_LISTS = ("did", "found", "saw", *IN_VERBS, *OUT_VERBS)
_WEIGHTS = {GOOD: 0, SEEN: 0, WORN: 2, BAD: 3, DANGER: 4}
_UNSAID = ("try", "test", "zero", "power_cycle")


def pickable_lines(unit: Unit) -> Vocabulary:
    """Return everything that the bar's lists offer for ``unit``."""
    own = [key for key in parts() if key in parts_of(unit)]
    return Vocabulary(
        done=[row for key in own for row in _done(key)],
        found=[row for key in own for row in _found(key)],
        jumpers=[*_devices(unit), *_places()],
        other=[
            WordOut(line=f"{verb} ", text=words(text), station="", level=0)
            for verb, text in VERBS.items()
            if verb not in _OWN_LISTS
        ],
    )


def _done(key: str) -> list[WordOut]:
    """Return what can be done to a part: changing and cleaning first, then what has demands of its own."""
    usual = ("change", "clean", "adjust", "repair", *part(key).demands)
    return [
        WordOut(
            line=f"did {verb} {part_words(key)}",
            text=f"{verb_name(verb)}: {part_inside(key)}",
            station=part(key).station,
            level=0,
        )
        for verb in dict.fromkeys(usual)
        if verb in verbs() and verb not in _UNSAID
    ]


def _found(key: str) -> list[WordOut]:
    rows = [(like, verdict_of(key, like)) for like in conditions()]
    return [
        WordOut(
            line=f"found {part_words(key)} {conditions()[like].words[0]}",
            text=f"{part_name(key)}: {condition_name(like)}",
            station=part(key).station,
            level=_WEIGHTS[verdict],
        )
        for like, verdict in rows
        if verdict != SEEN
    ]


def _devices(unit: Unit) -> list[WordOut]:
    """Return what can be put in, taken out and proved at the unit's devices."""
    known = [(way.verb_in, put_in(way.key), 3) for way in WAYS if way.known_devices_only]
    known += [(way.verb_out, made_good(way.key), 0) for way in WAYS if way.known_devices_only]
    rows = [(device, *row) for device in (*devices_of(unit), "call") for row in known]
    rows += [(device, "proved", "Shown to act", 0) for device in devices_of(unit)]
    return [
        WordOut(line=f"{verb} {part_words(device)}", text=f"{said}: {part_inside(device)}", station=device, level=level)
        for device, verb, said, level in rows
    ]


def _places() -> list[WordOut]:
    """Return what is followed by a place in the technician's own words."""
    ways = [way for way in WAYS if not way.known_devices_only]
    rows = [(way.verb_in, put_in(way.key), 3) for way in ways] + [(way.verb_out, made_good(way.key), 0) for way in ways]
    return [WordOut(line=f"{verb} ", text=f"{said}: where?", station="", level=level) for verb, said, level in rows]
