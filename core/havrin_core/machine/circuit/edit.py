"""The circuit of one very unit, put right on the spot: a device put into the string, a wire moved, a node named, a string begun blank.

Every change gives a new document; the one that it was made from stays as it was. All of it is checked as any circuit is.
"""

import copy
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from havrin_core.errors import BadDocument, UnknownName
from havrin_core.machine.circuit.read import circuit_from_dict, part_families
from havrin_core.phrases import phrase

Document = dict[str, Any]
# What may be found in a string that no list has, as families of parts, with how such a part is wired.
INSERTED: Mapping[str, str] = {
    "fuse": "switch",
    "door_switch": "switch",
    "level_switch": "switch",
    "limit": "switch",
    "trip_switch": "switch",
    "gas_switch": "switch",
    "wire": "wire",
}
_NOT_NEEDED = ("limit", "trip_switch", "level_switch", "gas_switch", "fuse", "door_switch")  # a control runs without
_MOST_NAME = 80


@dataclass(frozen=True, slots=True)
class Insert:
    """A device in series with ``at``, on the side of its first or its last node (``behind``)."""

    at: str
    family: str
    name: str
    behind: bool = False


@dataclass(frozen=True, slots=True)
class Move:
    """One end of a part (0: its first node, 1: its second) put on another node."""

    part: str
    end: int
    node: str


@dataclass(frozen=True, slots=True)
class Name:
    """What a node is called on this unit: wire colour, plug pin, terminal."""

    node: str
    name: str


@dataclass(frozen=True, slots=True)
class Blank:
    """The string without the devices that a control does not need: they are put in as they are found."""


Change = Insert | Move | Name | Blank


def changed(document: Mapping[str, Any], change: Change) -> Document:
    """Return ``document`` with ``change`` made.

    Raises UnknownName (part, node, family), BadDocument where no circuit would be left: a short, a loop, a part adrift.
    """
    new = copy.deepcopy(dict(document))
    _MAKE[type(change)](new, change)
    circuit_from_dict(new)
    return new


def _insert(new: Document, change: Insert) -> None:
    part = _part(new, change.at)
    if change.family not in INSERTED:
        raise UnknownName(
            "family_unknown",
            phrase("no_called", what="device", name=change.family, names=", ".join(INSERTED)),
            value=change.family,
        )
    if not part.get("nodes"):
        _refuse(phrase("part_joins_nothing", part=change.at), change.at)
    key, node = _free(new, change.family), _free_node(new)
    end = 1 if change.behind else 0
    old = part["nodes"][end]
    part["nodes"][end] = node
    new["nodes"] = {**new["nodes"], node: f"between {old} and {part['name'].lower()}"}
    ends = [node, old] if change.behind else [old, node]
    row = {
        "key": key,
        "name": _name(change.name, key),
        "kind": INSERTED[change.family],
        "nodes": ends,
        "family": change.family,
    }
    if row["kind"] == "switch":
        row["closed_when"] = [f"!{key}_opened"]
        new["conditions"] = [*new["conditions"], {"name": f"{key}_opened", "terms": ["never"]}]
    new["parts"].insert(new["parts"].index(part) + (1 if change.behind else 0), row)
    if change.at in new["string"]:
        at = new["string"].index(change.at) + (1 if change.behind else 0)
        new["string"] = [*new["string"][:at], key, *new["string"][at:]]


def _move(new: Document, change: Move) -> None:
    part = _part(new, change.part)
    _known_node(new, change.node)
    if change.end not in range(len(part.get("nodes", ()))):
        _refuse(phrase("part_joins_nothing", part=change.part), change.part)
    part["nodes"][change.end] = change.node


def _name_node(new: Document, change: Name) -> None:
    _known_node(new, change.node)
    new["nodes"] = {**new["nodes"], change.node: _name(change.name, change.node)}


def _blank(new: Document, _: Blank) -> None:
    for key in list(new["string"]):
        part = _part(new, key)
        if part["kind"] == "switch" and part.get("family") in _NOT_NEEDED:
            _take_out(new, part)


def _take_out(new: Document, part: dict[str, Any]) -> None:
    """Take a device out of the string and join its two nodes: what hung on the second hangs on the first."""
    first, second = part["nodes"]
    new["parts"].remove(part)
    new["string"] = [key for key in new["string"] if key != part["key"]]
    for row in (*new["parts"], *new["control"]["inputs"]):
        if row.get("nodes"):
            row["nodes"] = [first if node == second else node for node in row["nodes"]]
    new["parts"] = [row for row in new["parts"] if row["kind"] != "stray" or len(set(row["nodes"])) == 2]
    new["nodes"] = {key: name for key, name in new["nodes"].items() if key != second}


_MAKE: Mapping[type, Callable[[Document, Any], None]] = {Insert: _insert, Move: _move, Name: _name_node, Blank: _blank}


def _part(new: Document, key: str) -> dict[str, Any]:
    found: dict[str, Any] | None = next((row for row in new["parts"] if row["key"] == key), None)
    if found is None:
        names = ", ".join(row["key"] for row in new["parts"])
        raise UnknownName("part_unknown", phrase("no_called", what="part", name=key, names=names), value=key)
    return found


def _known_node(new: Document, node: str) -> None:
    if node not in new["nodes"]:
        names = ", ".join(new["nodes"])
        raise UnknownName("node_unknown", phrase("no_called", what="node", name=node, names=names), value=node)


def _free(new: Document, family: str) -> str:
    taken = {row["key"] for row in new["parts"]}
    return next(key for n in range(1, 1000) if (key := family if n == 1 else f"{family}_{n}") not in taken)


def _free_node(new: Document) -> str:
    return next(key for n in range(1, 1000) if (key := f"X{n}") not in new["nodes"])


def _name(said: str, instead: str) -> str:
    name = " ".join(said.split())
    if len(name) > _MOST_NAME:
        _refuse(phrase("name_too_long_here", most=_MOST_NAME), name[:_MOST_NAME])
    return name or instead


def _refuse(text: Any, value: str) -> None:
    raise BadDocument("circuit_change", text, value=value)


def device_names() -> Mapping[str, str]:
    """Return what may be put into a string, by family, with a name for people."""
    return {family: family.replace("_", " ") for family in INSERTED if family in part_families()}
