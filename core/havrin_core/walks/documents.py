"""Walks as documents: what ships, and what a firm made of it for one kind of unit."""

import tomllib
from collections.abc import Iterable, Mapping
from dataclasses import asdict
from functools import cache
from importlib import resources
from typing import Any, NoReturn

from havrin_core.errors import BadDocument
from havrin_core.machine.kind_check import VISIT_REASONS
from havrin_core.phrases import Phrase, phrase
from havrin_core.vocabulary.catalogue import conditions, parts, verbs
from havrin_core.vocabulary.measurands import MEASURANDS
from havrin_core.walks.model import ARRIVAL, CHECKS, Stop, Walk

FORMAT, VERSION = "havrin-walk", 1
WALKS = (ARRIVAL, *VISIT_REASONS[1:])  # what a walk can be for
MOST_STOPS = 120
_HEAD = {"format", "version", "key", "name", "kind", "walk", "stops"}
_LISTS = ("read", "may_read", "found", "did")
_STOP = {"key", "part", "proved", "check", *_LISTS}
_MOST_NAME = 80


@cache
def _table(name: str) -> Mapping[str, Any]:
    file = resources.files("havrin_core.walks") / "data" / f"{name}.toml"
    return tomllib.loads(file.read_text(encoding="utf-8"))


@cache
def shipped_stops() -> Mapping[str, Stop]:
    """Return every shipped stop by its key."""
    return {key: _stop({"key": key, **row}) for key, row in _table("stops").items()}


@cache
def shipped_walk(walk: str) -> Walk | None:
    """Return the shipped walk for any kind of unit; None where none is shipped for that reason."""
    row = _table("orders").get(walk)
    if row is None:
        return None
    return Walk(walk, "", row["name"], tuple(shipped_stops()[key] for key in row["stops"]))


def walk_from_dict(document: Any) -> Walk:
    """Return a firm's own walk. Raises BadDocument with the element in ``value``."""
    if not isinstance(document, Mapping) or document.get("format") != FORMAT or document.get("version") != VERSION:
        _refuse("walk_format", phrase("walk_format", format=FORMAT, version=VERSION), "format")
    _known(document, _HEAD, "walk")
    name = document.get("name")
    if not isinstance(name, str) or not 1 <= len(name.strip()) <= _MOST_NAME:
        _refuse("walk_name", phrase("walk_name", most=_MOST_NAME), "name")
    if document.get("walk") not in WALKS:
        _refuse("walk_reason", phrase("walk_reason", walks=", ".join(WALKS)), "walk")
    if not isinstance(document.get("kind"), str):
        _refuse("walk_kind", phrase("walk_kind"), "kind")
    rows = document.get("stops")
    if not isinstance(rows, list) or not 1 <= len(rows) <= MOST_STOPS:
        _refuse("walk_stops", phrase("walk_stops", most=MOST_STOPS), "stops")
    stops = tuple(_checked(row, index) for index, row in enumerate(rows))
    twice = next((stop.key for stop in stops if sum(one.key == stop.key for one in stops) > 1), "")
    if twice:
        _refuse("walk_twice", phrase("walk_twice", stop=twice), twice)
    return Walk(document["walk"], document["kind"], name.strip(), stops)


def walk_to_dict(walk: Walk, key: str, kind: str) -> dict[str, Any]:
    """Return ``walk`` as the document ``key`` of the kind ``kind``."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "key": key,
        "name": walk.name,
        "kind": kind,
        "walk": walk.key,
        "stops": [stop_to_dict(stop) for stop in walk.stops],
    }


def stop_to_dict(stop: Stop) -> dict[str, Any]:
    """Return a stop as it stands in a document, without what it does not have."""
    return {name: list(v) if isinstance(v, tuple) else v for name, v in asdict(stop).items() if v}


def _checked(row: Any, index: int) -> Stop:
    where = f"stops[{index}]"
    if not isinstance(row, Mapping):
        _refuse("walk_stop", phrase("walk_stop_object", where=where), where)
    _known(row, _STOP, where)
    key = row.get("key")
    if not isinstance(key, str) or not key:
        _refuse("walk_stop", phrase("walk_stop_key", where=where), where)
    if row.get("part") not in parts():
        _refuse("walk_part", phrase("walk_part", stop=key, part=row.get("part")), key)
    known: Mapping[str, Iterable[str]] = {
        "read": _quantities(),
        "may_read": _quantities(),
        "found": conditions(),
        "did": verbs(),
    }
    for field in _LISTS:
        values = row.get(field, [])
        if not isinstance(values, list):
            _refuse("walk_list", phrase("walk_list", stop=key, field=field), key)
        for value in values:
            if value not in known[field]:
                _refuse("walk_word", phrase("walk_word", stop=key, field=field, value=value), key)
    if row.get("check", "") not in ("", *CHECKS):
        _refuse("walk_check", phrase("walk_check", stop=key, checks=", ".join(CHECKS)), key)
    if not isinstance(row.get("proved", False), bool) or (row.get("proved") and not parts()[row["part"]].safety):
        _refuse("walk_proved", phrase("walk_proved", stop=key), key)
    if not any(row.get(field) for field in (*_LISTS, "proved", "check")):
        _refuse("walk_empty", phrase("walk_empty", stop=key), key)
    return _stop(row)


@cache
def _quantities() -> frozenset[str]:
    return frozenset(m.key for m in MEASURANDS)


def _stop(row: Mapping[str, Any]) -> Stop:
    lists = {field: tuple(row.get(field, ())) for field in _LISTS}
    return Stop(row["key"], row["part"], **lists, proved=row.get("proved", False), check=row.get("check", ""))


def _known(row: Mapping[str, Any], fields: set[str], where: str) -> None:
    strange = next((key for key in row if key not in fields), None)
    if strange is not None:
        _refuse("walk_field", phrase("walk_field", where=where, field=strange), str(strange))


def _refuse(code: str, said: Phrase, value: str) -> NoReturn:
    raise BadDocument(code, said, value=value)
