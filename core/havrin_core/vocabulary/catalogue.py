"""The one place where parts, conditions, verbs and whole phrases are known: read once from ``data/``."""

import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase
from havrin_core.vocabulary.forms import done_well, not_done

GOOD, WORN, BAD, DANGER, SEEN = "good", "worn", "bad", "danger", "seen"
VERDICTS = (GOOD, SEEN, WORN, BAD, DANGER)  # from the best to the worst
LEVEL_OF_VERDICT = {GOOD: 0, SEEN: 0, WORN: 2, BAD: 3, DANGER: 4}  # the level that a condition opens; 0: none
DOUBTFUL = "?"  # behind a condition in phrases.toml: said with a doubt


@dataclass(frozen=True, slots=True)
class Part:
    """One part of a unit. ``on`` are traits (machine/traits.py), any of which is enough; empty: every unit has it."""

    key: str
    name: str
    words: tuple[str, ...]
    station: str
    on: tuple[str, ...]
    like: str
    safety: bool
    together: tuple[str, ...]
    demands: Mapping[str, tuple[str, ...]]
    leaves: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Condition:
    """What a part may be like; ``of`` is the part that is meant where none is named. ``said``: what it fails to do, or does well.

    ``lasting``: it does not go away by itself, so that a later look alone does not lift it.
    """

    key: str
    name: str
    words: tuple[str, ...]
    of: str
    lasting: bool
    said: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Verb:
    """What is done to a part, and the conditions that it can cure ("*": any). ``of``: the part where none is named."""

    key: str
    name: str
    words: tuple[str, ...]
    cures: frozenset[str]
    of: str = ""


@cache
def _table(name: str) -> dict[str, Any]:
    file = resources.files("havrin_core.vocabulary") / "data" / f"{name}.toml"
    return tomllib.loads(file.read_text(encoding="utf-8"))


@cache
def parts() -> Mapping[str, Part]:
    """Return every part by its key."""
    return {key: _part(key, row) for key, row in _table("parts").items()}


@cache
def conditions() -> Mapping[str, Condition]:
    """Return every condition by its key."""
    rows = _table("conditions")
    return {
        k: Condition(
            k, row["name"], tuple(row["words"]), row.get("of", ""), row.get("lasting", False), tuple(_said(row))
        )
        for k, row in rows.items()
    }


def _said(row: Mapping[str, Any]) -> Iterator[str]:
    """Yield the wordings that follow from what a condition does not do (``fails``), or does well (``does``, ``well``)."""
    for verb in row.get("fails", ()):
        yield from not_done(verb)
    for verb in row.get("does", ()):
        yield from done_well(verb, tuple(row["well"]))


@cache
def verbs() -> Mapping[str, Verb]:
    """Return every verb by its key."""
    rows = _table("actions")
    return {
        k: Verb(k, row["name"], tuple(row["words"]), frozenset(row["cures"]), row.get("of", ""))
        for k, row in rows.items()
    }


@cache
def whole_phrases() -> Mapping[str, tuple[str, str, bool]]:
    """Return each phrase that says part and condition at once: phrase -> (part, condition, said with a doubt)."""
    rows = _table("phrases")
    return {said: (part, like.rstrip(DOUBTFUL), like.endswith(DOUBTFUL)) for said, (part, like) in rows.items()}


def part(key: str) -> Part:
    """Return the part called ``key``. Raises UnknownName."""
    if key not in parts():
        raise UnknownName("part_unknown", phrase("no_part_called", key_=key), value=key)
    return parts()[key]


def condition(key: str) -> Condition:
    """Return the condition called ``key``. Raises UnknownName."""
    if key not in conditions():
        raise UnknownName("condition_unknown", phrase("no_condition_called", key_=key), value=key)
    return conditions()[key]


def verb(key: str) -> Verb:
    """Return the verb called ``key``. Raises UnknownName."""
    if key not in verbs():
        raise UnknownName("verb_unknown", phrase("no_action_called", key_=key), value=key)
    return verbs()[key]


def verdict_of(part_key: str, condition_key: str) -> str:
    """Return good, worn, bad, danger, or seen where the pair has no verdict of its own."""
    return _verdicts().get((part_key, condition_key), SEEN)


@cache
def _verdicts() -> Mapping[tuple[str, str], str]:
    rows = _table("verdicts")
    return {
        (key, like): verdict
        for key, row in parts().items()
        for verdict, likes in {**rows[row.like], **rows.get(f"{key}!", {})}.items()
        for like in likes
    }


def can_cure(verb_key: str, condition_key: str) -> bool:
    """Tell whether an action of ``verb_key`` can cure what is ``condition_key``."""
    cures = verb(verb_key).cures
    return "*" in cures or condition_key in cures


def cured_with(part_key: str) -> tuple[str, ...]:
    """Return the parts on which an action can cure what was found on ``part_key``: itself, those changed together, the unit."""
    return (part_key, *part(part_key).together, "unit")


def _part(key: str, row: Mapping[str, Any]) -> Part:
    return Part(
        key=key,
        name=row["name"],
        words=tuple(row["words"]),
        station=row["station"],
        on=tuple(row.get("on", ())),
        like=row["like"],
        safety=row.get("safety", False),
        together=tuple(row.get("together", ())),
        demands={verb_key: tuple(names) for verb_key, names in row.get("demands", {}).items()},
        leaves=dict(row.get("leaves", {})),
    )
