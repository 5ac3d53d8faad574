"""Entries of earlier schemas, brought up to the newest one step at a time. A step is never changed once it has shipped."""

from collections.abc import Callable, Mapping
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase
from havrin_core.tape.entries import SCHEMA
from havrin_core.vocabulary.old_schema_1 import (
    ACTIONS_1,
    DECISIONS_1,
    DEVICES_1,
    FINDINGS_1,
    HOWS_1,
    cause_of_1,
    coverage_of_1,
)
from havrin_core.vocabulary.old_schema_2 import said_of_2

Raw = tuple[str, dict[str, Any]]  # kind, data


def upcast(kind: str, data: Mapping[str, Any], schema: int) -> Raw:
    """Return kind and data as the newest schema has them. Raises BadDocument for a schema that does not exist yet."""
    if not 1 <= schema <= SCHEMA:
        raise BadDocument(
            "entry_schema", phrase("entries_have_schema_1_not", schema=SCHEMA, schema_2=schema), value="schema"
        )
    raw: Raw = (kind, dict(data))
    for step in range(schema, SCHEMA):
        raw = _STEPS[step](*raw)
    return raw


def _from_1(kind: str, data: dict[str, Any]) -> Raw:
    """Schema 1: free findings and actions by their keys, jumpers, checks, decisions with nothing but words."""
    step = _FROM_1.get(kind)
    return (kind, data) if step is None else step(data)


def _look(data: dict[str, Any]) -> Raw:
    rest: dict[str, Any] = {name: data[name] for name in ("size_m", "method", "sure") if name in data}
    part, condition, doubtful = FINDINGS_1.get(data["finding"], ("unit", "unknown_work", False))
    if doubtful and not rest.get("sure"):
        rest["sure"] = "unsure"
    place, seen, of = coverage_of_1(data.get("place", ""))
    return "condition", {"part": part, "condition": condition, "place": place, "seen": seen, "of": of, **rest}


def _action(data: dict[str, Any]) -> Raw:
    verb, part = ACTIONS_1.get(data["action"], ("repair", ""))
    return "action", {"verb": verb, "part": part, "detail": data.get("detail", "")}


def _abnormal(is_in: bool) -> Callable[[dict[str, Any]], Raw]:
    def step(data: dict[str, Any]) -> Raw:
        how = HOWS_1[data.get("how", "jumper")]
        return "abnormal", {
            "how": how,
            "device": _device(data["device"]),
            "is_in": is_in,
            "found": data.get("found", False),
        }

    return step


def _check(data: dict[str, Any]) -> Raw:
    rest = {name: value for name, value in data.items() if name not in ("check", "device")}
    device = _device(data.get("device", "")) if data["check"] == "device" else data.get("device", "")
    return "proof", {"what": data["check"], "device": device, **rest}


def _decision(data: dict[str, Any]) -> Raw:
    rest = {name: value for name, value in data.items() if name != "decision"}
    what, state = DECISIONS_1.get(data["decision"], (data["decision"], ""))
    said = {"what": what, **rest}
    if state:
        said["state"] = state
    if what == "cause":
        said |= cause_of_1(data.get("text", ""))
    return "said", said


def _correction(data: dict[str, Any]) -> Raw:
    inner = data.get("replacement")
    if inner is None:
        return "correction", data
    kind, replaced = _from_1(inner["kind"], dict(inner["data"]))
    return "correction", {**data, "replacement": {"kind": kind, "data": replaced}}


def _device(device: str) -> str:
    return DEVICES_1.get(device, device)


_FROM_1: Mapping[str, Callable[[dict[str, Any]], Raw]] = {
    "look": _look,
    "action": _action,
    "jumper.in": _abnormal(True),
    "jumper.out": _abnormal(False),
    "check": _check,
    "decision": _decision,
    "correction": _correction,
}


def _from_2(kind: str, data: dict[str, Any]) -> Raw:
    """Schema 2: who says yes to which part, and how long a building keeps its heat, stood in the words alone."""
    if kind == "said":
        return kind, {**data, **said_of_2(data)}
    inner = data.get("replacement") if kind == "correction" else None
    if inner is None:
        return kind, data
    of, replaced = _from_2(inner["kind"], dict(inner["data"]))
    return kind, {**data, "replacement": {"kind": of, "data": replaced}}


_STEPS: Mapping[int, Callable[[str, dict[str, Any]], Raw]] = {1: _from_1, 2: _from_2}
