"""The visit bundle: one visit with its unit, rules and tape as JSON. Schema: docs/visit-bundle.schema.json."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from datetime import datetime
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.machine.circuit.read import circuit_from_dict
from havrin_core.machine.kind_check import check_kind
from havrin_core.machine.kind_files import Library, build_unit, plate_from_dict
from havrin_core.machine.unit import Plate, Unit
from havrin_core.machine.unit_model import model_from_dict
from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.tape.background import NOTHING_KNOWN, Background, Past
from havrin_core.tape.entries import KINDS, PHASES, Body, Correction, Entry, Look, PlateValue, Reading, Trace
from havrin_core.tape.visit import REASONS_FOR_VISIT, VisitTape
from havrin_core.vocabulary.measurands import measurand
from havrin_core.vocabulary.methods import FINDS, SURENESS

FORMAT = "havrin-visit"
VERSION = 1


@dataclass(frozen=True, slots=True)
class Bundle:
    """All that ``assess`` needs."""

    unit: Unit
    rules: HouseRules
    visit: VisitTape
    system: str
    background: Background = NOTHING_KNOWN


def read_bundle(data: Any) -> Bundle:
    """Return the bundle that ``data`` (parsed JSON) holds.

    Raises BadDocument with the place in ``value``: another format, a newer version, an unknown
    entry kind, a field that is missing or of the wrong kind. UnknownName for kinds and fuels.
    """
    if not isinstance(data, Mapping) or data.get("format") != FORMAT:
        raise BadDocument("bundle_format", f"This is no visit bundle: its “format” is not “{FORMAT}”.", value="format")
    _check_version(data.get("version"))
    unit = _field(data, "unit", Mapping)
    plate = plate_from_dict(_field(unit, "plate", Mapping))
    altitude = float(_field(unit, "altitude_m", (int, float)))
    background = _background(data.get("background", {}))
    year = _field(unit, "installed_year", (int, type(None))) if "installed_year" in unit else None
    built = replace(_unit(unit, plate, altitude), installed_year=year, surroundings=background.surroundings)
    rules = house_rules_from_dict(dict(data.get("house_rules", {})))
    visit = _visit(_field(data, "visit", Mapping), built)
    return Bundle(built, rules, visit, data.get("unit_system", "us"), background)


def _unit(data: Mapping[str, Any], plate: Plate, altitude_m: float) -> Unit:
    """Return the unit; ``kind_document``, ``circuit_document``, ``codes`` and ``manual`` come from a firm's own shop."""
    kinds = {data["kind"]: data["kind_document"]} if "kind_document" in data else {}
    for document in kinds.values():
        check_kind(document)
    own = circuit_from_dict(data["circuit_document"]) if "circuit_document" in data else None
    rows = {name: data.get(name, []) for name in ("manual", "codes")}
    model = model_from_dict(
        {
            "format": "havrin-model",
            "version": 1,
            "key": "-",
            "maker": "-",
            "name": "-",
            "kind": data["kind"],
            "plate": {},
            **rows,
        }
    )
    return build_unit(
        _field(data, "name", str), _field(data, "kind", str), plate, altitude_m, circuit=own.key if own else "",
        codes=model.codes, manual=model.manual, library=Library(kinds, {own.key: own} if own else {}),
    )  # fmt: skip


def _background(data: Any) -> Background:
    try:
        past = tuple(Past(**row) for row in data.get("past", ()))
        return Background(**{**data, "surroundings": tuple(data.get("surroundings", ())), "past": past})
    except (AttributeError, TypeError) as error:
        message = f"“background” cannot be read: {error}."
        raise BadDocument("background_form", message, value="background") from error


def _check_version(version: Any) -> None:
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise BadDocument("bundle_version", "The bundle's “version” is not a whole number from 1 on.", value="version")
    if version > VERSION:
        message = (
            f"This bundle has version {version}; this Havrin reads up to version {VERSION}. Update Havrin to read it."
        )
        raise BadDocument("bundle_newer", message, value="version")


def _visit(data: Mapping[str, Any], unit: Unit) -> VisitTape:
    reason = _field(data, "reason", str)
    if reason not in REASONS_FOR_VISIT:
        raise BadDocument(
            "reason_unknown",
            f"No visit reason is called {reason!r}: {', '.join(REASONS_FOR_VISIT)}.",
            value="visit.reason",
        )
    entries = _entries(data, "entries", unit)
    before = _entries(data, "open_before", unit) if "open_before" in data else ()
    return VisitTape(reason, entries, _accuracies(data.get("instruments", {})), before)


def _entries(data: Mapping[str, Any], name: str, unit: Unit) -> tuple[Entry, ...]:
    return tuple(_entry(row, f"visit.{name}[{i}]", unit) for i, row in enumerate(_field(data, name, list)))


def _accuracies(data: Any) -> dict[str, dict[str, Accuracy]]:
    try:
        return {name: {q: Accuracy(**figures) for q, figures in stated.items()} for name, stated in data.items()}
    except (AttributeError, TypeError) as error:
        message = f"“visit.instruments” cannot be read: {error}."
        raise BadDocument("instruments_form", message, value="visit.instruments") from error


def _entry(row: Any, place: str, unit: Unit) -> Entry:
    if not isinstance(row, Mapping):
        raise BadDocument("entry_form", f"{place} is not an object.", value=place)
    body = body_from_dict(_field(row, "kind", str, place), _field(row, "data", Mapping, place), place)
    _check_stage(body, unit, place)
    phase = row.get("phase", "found")
    if phase not in PHASES:
        raise BadDocument(
            "entry_phase", f"{place}: the phase is one of {', '.join(PHASES)}, not {phase!r}.", value=place
        )
    at = _time(_field(row, "at", str, place), place)
    return Entry(
        _field(row, "id", str, place), at, str(row.get("author", "")), phase, body,
        str(row.get("group", "")), str(row.get("instrument", "")),
    )  # fmt: skip


def _check_stage(body: Body, unit: Unit, place: str) -> None:
    plain = body.replacement if isinstance(body, Correction) else body
    if isinstance(plain, Reading | Trace) and plain.stage is not None and plain.stage not in unit.stage_keys:
        stages = ", ".join(unit.stage_keys)
        raise BadDocument("entry_stage", f"{place}: this unit's stages are {stages}, not {plain.stage!r}.", value=place)


def _time(text: str, place: str) -> datetime:
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        raise BadDocument("entry_time", f"{place}: {text!r} is not an ISO 8601 time.", value=place) from None
    if at.tzinfo is None:
        raise BadDocument("entry_time", f"{place}: the time {text!r} has no zone.", value=place)
    return at


def body_from_dict(kind: str, data: Mapping[str, Any], place: str = "entry") -> Body:
    """Return the body of ``kind`` that ``data`` describes. Raises BadDocument, UnknownName."""
    if kind not in KINDS:
        known = ", ".join(KINDS)
        raise BadDocument(
            "entry_kind_unknown", f"{place}: no entry kind is called {kind!r}. Known: {known}.", value=place
        )
    cls: Any = KINDS[kind]
    known_fields = {f.name for f in fields(cls)}
    extra = set(data) - known_fields
    if extra:
        raise BadDocument("entry_field", f"{place}: a {kind} has no field {sorted(extra)[0]!r}.", value=place)
    values = dict(data)
    if cls is Correction and values.get("replacement") is not None:
        inner = values["replacement"]
        values["replacement"] = body_from_dict(inner["kind"], inner["data"], f"{place}.replacement")
    if cls is Reading:
        values["computed_from"] = tuple((str(q), float(v)) for q, v in values.get("computed_from", ()))
        values["leads"] = tuple(values["leads"]) if values.get("leads") else None
    if cls is PlateValue:
        values["values"] = tuple(values.get("values", ()))
    if cls is Trace:
        values["means"] = tuple((str(q), float(m), float(s)) for q, m, s in values.get("means", ()))
    try:
        body: Body = cls(**values)
    except TypeError as error:
        raise BadDocument("entry_form", f"{place}: {error}.", value=place) from error
    _check_numbers(body, place)
    return body


def _check_numbers(body: Body, place: str) -> None:
    pairs: list[tuple[str, Any]] = []
    if isinstance(body, PlateValue) and not 1 <= len(body.values) <= 2:
        raise BadDocument("entry_form", f"{place}: a plate value is one number, or least and most.", value=place)
    if isinstance(body, Look) and (body.method not in ("", *FINDS) or body.sure not in ("", *SURENESS)):
        message = f"{place}: a look was made by {', '.join(FINDS)}, and is {', '.join(SURENESS)}."
        raise BadDocument("entry_form", message, value=place)
    if isinstance(body, Reading):
        pairs = [(body.quantity, body.value)]
    elif isinstance(body, PlateValue):
        pairs = [(body.quantity, value) for value in body.values]
    elif isinstance(body, Trace):
        pairs = [(quantity, mean) for quantity, mean, _ in body.means]
    for quantity, value in pairs:
        what = measurand(quantity)
        if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
            raise BadDocument("entry_number", f"{place}: {quantity} is not a number.", value=place)
        if not what.least <= value <= what.most:
            message = f"{place}: {quantity} of {value:g} cannot be; it lies between {what.least:g} and {what.most:g}."
            raise BadDocument("entry_number", message, value=place)


def body_to_dict(body: Body) -> dict[str, Any]:
    """Return the fields of ``body`` as JSON-ready data."""
    data = {f.name: getattr(body, f.name) for f in fields(body)}
    if isinstance(body, Reading):
        data["computed_from"] = [list(row) for row in body.computed_from]
        data["leads"] = list(body.leads) if body.leads else None
    if isinstance(body, PlateValue):
        data["values"] = list(body.values)
    if isinstance(body, Trace):
        data["means"] = [list(row) for row in body.means]
    if isinstance(body, Correction) and body.replacement is not None:
        inner = body.replacement
        data["replacement"] = {"kind": _kind(inner), "data": body_to_dict(inner)}
    return data


def _kind(body: Body) -> str:
    return next(kind for kind, cls in KINDS.items() if cls is type(body))


def entry_to_dict(entry: Entry) -> dict[str, Any]:
    """Return ``entry`` as it stands in a bundle."""
    return {
        "id": entry.id, "at": entry.at.isoformat(), "author": entry.author, "kind": entry.kind, "phase": entry.phase,
        "group": entry.group, "instrument": entry.instrument, "data": body_to_dict(entry.body),
    }  # fmt: skip


def _field(data: Mapping[str, Any], name: str, kinds: Any, place: str = "") -> Any:
    where = f"{place}.{name}" if place else name
    if name not in data:
        raise BadDocument("field_missing", f"The bundle lacks “{where}”.", value=where)
    value = data[name]
    if not isinstance(value, kinds) or isinstance(value, bool):
        raise BadDocument("field_kind", f"“{where}” is {value!r}: not what belongs there.", value=where)
    return value
