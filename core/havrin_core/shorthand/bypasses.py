"""What was bridged, held, propped or lifted, and taken out again: ``limit jumped out by owner``, ``jumper off the limit``."""

import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.phrases import phrase
from havrin_core.shorthand.asked_back import asked, note_only
from havrin_core.shorthand.words_of_clause import PART, Clause, Read, Span
from havrin_core.tape.entries import Abnormal

_MORE_DEVICES = (
    "call",
    "thermostat",
    "inducer",
    "blower",
    "gas_valve",
    "fire_damper",
    "vent_damper",
    "damper",
    "relief",
    "economizer",
)


@dataclass(frozen=True, slots=True)
class _Way:
    """How one way of leaving something abnormal is said: words for it, words of the thing itself, words that take it out."""

    key: str
    put_in: frozenset[str]
    things: frozenset[str]
    taken_out: frozenset[str]
    of: frozenset[str]


@cache
def _ways() -> tuple[_Way, ...]:
    file = resources.files("havrin_core.shorthand") / "data" / "bypasses.toml"
    rows: Mapping[str, Any] = tomllib.loads(file.read_text(encoding="utf-8"))
    return tuple(
        _Way(key, *(frozenset(row[name]) for name in ("put_in", "things", "taken_out", "of")))
        for key, row in rows.items()
    )


def read_bypass(clause: Clause, spoken_of: str) -> Read | None:
    """Return what a clause says to be bypassed, or no longer; None where it speaks of nothing of the kind."""
    for way in _ways():
        hits = _hits(clause.keys, way.put_in) | _hits(clause.keys, way.things)
        device = _device(clause, way, hits)
        begins = not _begins_strange(clause, hits | _hits(clause.keys, way.taken_out) | _hits(clause.keys, _PUT))
        if hits and begins and (device is not None or _hits(clause.keys, way.things)):
            return _read(clause, way, hits, device, spoken_of)
    return None


def _begins_strange(clause: Clause, hits: set[int]) -> bool:
    """Tell whether a word that means nothing known stands at the head: "co jumped to 200 when the blower came on"."""
    return 0 in clause.strange and 0 not in hits


def _hits(keys: Sequence[str], phrases: frozenset[str]) -> set[int]:
    """Return the words that the phrases cover."""
    by_first = _by_first_word(phrases)
    found: set[int] = set()
    for at, key in enumerate(keys):
        for words in by_first.get(key, ()):
            if tuple(keys[at : at + len(words)]) == words:
                found |= set(range(at, at + len(words)))
    return found


@cache
def _by_first_word(phrases: frozenset[str]) -> Mapping[str, tuple[tuple[str, ...], ...]]:
    found: dict[str, list[tuple[str, ...]]] = {}
    for said in phrases:
        words = tuple(said.split())
        found.setdefault(words[0], []).append(words)
    return {first: tuple(rows) for first, rows in found.items()}


def _device(clause: Clause, way: _Way, hits: set[int]) -> Span | None:
    """Return the part that it was done to: a safety device before any other that the way allows."""
    allowed = (
        {*clause.situation.devices, *_MORE_DEVICES}
        if not way.of
        else {*way.of, *(clause.situation.devices if "device" in way.of else ())}
    )
    spans = [span for span in clause.having(PART) if not set(range(span.start, span.stop)) & hits]
    fitting = [span for span in spans if set(clause.here(span)) & allowed]
    devices = [span for span in fitting if set(clause.here(span)) & set(clause.situation.devices)]
    return next(iter(devices or fitting), None)


def _read(clause: Clause, way: _Way, hits: set[int], device: Span | None, spoken_of: str) -> Read | None:
    if clause.with_sort("negations"):
        return note_only(clause, phrase("denied_what", said=clause.said))
    if clause.with_sort("advice") or clause.with_sort("plans"):
        return None
    if device is None and spoken_of in clause.situation.devices and _hits(clause.keys, way.taken_out):
        return Read((Abnormal(way.key, spoken_of, False),), part=spoken_of)  # "limit was jumped, removed jumper"
    if device is None:
        return asked(clause, phrase("which_part", said=clause.said))
    if set(clause.strange) - hits - _hits(clause.keys, way.taken_out) - _hits(clause.keys, _PUT):
        return Read(unread=tuple(clause.tokens[i].typed for i in clause.strange if i not in hits))
    keys = set(clause.here(device)) & {*clause.situation.devices, *_MORE_DEVICES, *way.of}
    out = bool(_hits(clause.keys, way.taken_out) - _hits(clause.keys, way.put_in))
    by_me = min(hits) < device.start and not clause.with_sort("others") and "found" not in clause.keys
    if way.key == "lifted" and not by_me:
        return None  # "blower disconnected" is how it was found
    noun_only = not _hits(clause.keys, way.put_in)
    found = not out and (not by_me or (noun_only and not _hits(clause.keys, _PUT)))
    return Read((Abnormal(way.key, sorted(keys)[0], not out, found),), part=sorted(keys)[0])


_PUT = frozenset(("put", "installed", "placed", "in at", "jumper in", "clipped", "stuck a", "used"))
