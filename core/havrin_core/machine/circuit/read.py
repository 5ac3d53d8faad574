"""Read circuits from data: the shipped ones, and those that a firm made."""

import json
from collections.abc import Iterable, Mapping
from dataclasses import fields, replace
from functools import cache, lru_cache
from importlib import resources
from sys import float_info
from typing import Any

from havrin_core.errors import BadDocument, UnknownName
from havrin_core.machine.circuit.check import check_circuit
from havrin_core.machine.circuit.model import (
    AIR,
    Circuit,
    Condition,
    Control,
    ControlState,
    Design,
    FaultMode,
    Input,
    Measured,
    Milestone,
    Move,
    Part,
    State,
)
from havrin_core.phrases import phrase

FORMAT, VERSION = "havrin-circuit", 1
_FOLDER = resources.files("havrin_core.machine.circuit")


@cache
def circuit_names() -> tuple[str, ...]:
    """Return the keys of the shipped circuits."""
    files = (_FOLDER / "circuits").iterdir()
    return tuple(sorted(f.name.removesuffix(".json") for f in files if f.name.endswith(".json")))


def shipped_document(key: str) -> Any:
    """Return a shipped circuit as JSON-ready data. Raises UnknownName."""
    if key not in circuit_names():
        known = ", ".join(circuit_names())
        raise UnknownName("circuit_unknown", phrase("no_circuit_called", key_=key, known=known), value=key)
    return json.loads((_FOLDER / "circuits" / f"{key}.json").read_text(encoding="utf-8"))


@cache
def shipped_circuit(key: str) -> Circuit:
    """Return a shipped circuit. Raises UnknownName."""
    return circuit_from_dict(shipped_document(key))


@cache
def part_families() -> Mapping[str, Any]:
    """Return the families of parts: fault modes and the test of the part alone."""
    data: Mapping[str, Any] = json.loads((_FOLDER / "part_families.json").read_text(encoding="utf-8"))
    return data


def circuit_from_dict(data: Any) -> Circuit:
    """Return the circuit that ``data`` (parsed JSON) describes, checked: one object per document, for a search keeps its pictures by it.

    Raises BadDocument naming the element: another format, unknown field or node, a floating part,
    a short across a source, a loop without a source, a state or move that leads nowhere.
    """
    if not isinstance(data, Mapping) or data.get("format") != FORMAT:
        raise BadDocument("circuit_format", phrase("no_circuit_its_format_not", format=FORMAT), value="format")
    if data.get("version") != VERSION:
        message = phrase("circuit_has_version_havrin_reads", data=data.get("version"), version=VERSION)
        raise BadDocument("circuit_version", message, value="version")
    return _built(json.dumps(data, sort_keys=True, default=str))


@lru_cache(maxsize=128)
def _built(document: str) -> Circuit:
    try:
        circuit = _circuit(json.loads(document))
    except KeyError as missing:
        raise BadDocument("circuit_field", phrase("circuit_lacks", missing=missing), value=str(missing)) from missing
    except (TypeError, ValueError, AttributeError) as error:
        raise BadDocument("circuit_form", phrase("circuit_cannot_read", error=error), value="circuit") from error
    circuit = replace(circuit, faults=tuple(f for part in circuit.parts for f in faults_of(circuit, part)))
    check_circuit(circuit)
    return circuit


def _circuit(data: Mapping[str, Any]) -> Circuit:
    return Circuit(
        key=str(data["key"]),
        name=str(data["name"]),
        ground=data["ground"],
        common=data["common"],
        nodes=dict(data["nodes"]),
        parts=tuple(_made(Part, row, f"part {row.get('key')}") for row in data["parts"]),
        string=tuple(data["string"]),
        conditions=tuple(_made(Condition, row, f"condition {row.get('name')}") for row in data["conditions"]),
        quantities=tuple(_made(Measured, row, f"quantity {row.get('name')}") for row in data["quantities"]),
        states=tuple(_made(State, row, f"state {row.get('key')}") for row in data["states"]),
        control=_control(data["control"]),
        plant=_made(Design, data["plant"], "plant") if "plant" in data else None,
    )


def _control(data: Mapping[str, Any]) -> Control:
    states = []
    for row in data["states"]:
        moves = tuple(_made(Move, move, f"state {row.get('key')}") for move in row.get("moves", ()))
        states.append(_made(ControlState, {"outputs": [], **row, "moves": moves}, f"state {row.get('key')}"))
    return Control(
        data.get("alive", ""),
        tuple(_made(Input, row, f"input {row.get('name')}") for row in data.get("inputs", ())),
        tuple(states),
        tuple(_made(Milestone, row, f"milestone {row.get('key')}") for row in data["milestones"]),
        int(data.get("tries", 1)),
        data["lockout"],
    )


def _made(cls: Any, row: Mapping[str, Any], place: str) -> Any:
    known = {f.name: f.type for f in fields(cls)}
    for name, value in row.items():
        if name in known and not _fits(known[name], value):
            raise BadDocument(
                "circuit_number", phrase("takes_a_number", place=place, name=name, given=value), value=name
            )
        if name not in known:
            raise BadDocument(
                "circuit_field", phrase("no_field", place=place, name=name, name__=cls.__name__.lower()), value=name
            )
    return cls(**{name: tuple(value) if isinstance(value, list) else value for name, value in row.items()})


def _fits(kind: Any, value: Any) -> bool:
    """Tell whether ``value`` is a finite number where ``kind`` of a field is one; other kinds are not looked at here."""
    if kind not in (float, float | None) or (value is None and kind is not float):
        return True
    return isinstance(value, int | float) and not isinstance(value, bool) and abs(value) <= float_info.max


def faults_of(circuit: Circuit, part: Part) -> Iterable[FaultMode]:
    """Yield the ways in which a part of ``circuit`` fails, as its family has them. Raises BadDocument (family)."""
    family = part_families().get(part.family or "none")
    if family is None:
        known = ", ".join(sorted(name for name in part_families() if name != "about"))
        raise BadDocument(
            "circuit_family",
            phrase("part_no_family_known", part=part.key, family=part.family, known=known),
            value=part.key,
        )
    for row in family["faults"]:
        if row.get("leak") and not (circuit.plant and circuit.plant.heats == AIR):
            continue  # only a blower pushes air through a breach
        named = {name: value for name, value in row.items() if name not in ("mode", "name")}
        named["scale"] = {_own(q, part): factor for q, factor in row.get("scale", {}).items()}
        named["force"] = {_own(c, part): held for c, held in row.get("force", {}).items()}
        named["like"] = tuple(row.get("like", ()))
        named["opens_when"] = tuple(circuit.burning if c == "@burning" else c for c in row.get("opens_when", ()))
        yield FaultMode(f"{part.key}.{row['mode']}", part.key, f"{part.name}: {row['name']}", **named)


def _own(name: str, part: Part) -> str:
    # "@feels" and "@acts" stand for the part's own quantity and condition
    return {"@feels": part.feels, "@acts": part.acts}.get(name, name)
