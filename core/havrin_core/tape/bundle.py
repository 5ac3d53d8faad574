"""The visit bundle: one visit with its unit, rules and tape as JSON. Schema: docs/visit-bundle.schema.json.

Version 1 held entries of schema 1; both stay readable for ever.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names
from havrin_core.machine.kind_check import check_kind
from havrin_core.machine.kind_files import Library, build_unit, plate_from_dict
from havrin_core.machine.unit import Unit
from havrin_core.machine.unit_model import model_from_dict
from havrin_core.phrases import phrase
from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.tape.background import NOTHING_KNOWN, Background, Past
from havrin_core.tape.documents import entry_from_dict, field_of
from havrin_core.tape.entries import Body, Correction, Entry, Reading, Trace
from havrin_core.tape.visit import REASONS_FOR_VISIT, LeftOpen, VisitTape
from havrin_core.vocabulary.old_schema_1 import ACTIONS_1

FORMAT = "havrin-visit"
VERSION = 2


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
        raise BadDocument("bundle_format", phrase("no_visit_bundle_its_format", format=FORMAT), value="format")
    version = _checked_version(data.get("version"))
    background = _background(data.get("background", {}), version)
    built = replace(unit_from_dict(field_of(data, "unit", Mapping)), surroundings=background.surroundings)
    rules = house_rules_from_dict(dict(data.get("house_rules", {})))
    visit = _visit(field_of(data, "visit", Mapping), built, version)
    return Bundle(built, rules, visit, data.get("unit_system", "us"), background)


def unit_from_dict(data: Mapping[str, Any]) -> Unit:
    """Return the unit of a bundle. ``kind_document``, ``circuit_document``, ``codes`` and ``manual`` come from a firm's own shop.

    ``circuit`` names a shipped circuit, or is a document itself. Raises BadDocument, UnknownName.
    """
    plate = plate_from_dict(field_of(data, "plate", Mapping))
    altitude = float(field_of(data, "altitude_m", (int, float)))
    kind = field_of(data, "kind", str)
    kinds = {kind: data["kind_document"]} if "kind_document" in data else {}
    for document in kinds.values():
        check_kind(document)
    named, own = _circuit(data)
    rows = {name: data.get(name, []) for name in ("manual", "codes")}
    model = model_from_dict(
        {
            "format": "havrin-model",
            "version": 1,
            "key": "-",
            "maker": "-",
            "name": "-",
            "kind": kind,
            "plate": {},
            **rows,
        }
    )
    library = Library(kinds, {own.key: own} if own else {})
    built = build_unit(
        str(data.get("name", "unit")),
        kind,
        plate,
        altitude,
        circuit=own.key if own else named,
        codes=model.codes,
        manual=model.manual,
        library=library,
    )
    year = field_of(data, "installed_year", (int, type(None))) if "installed_year" in data else None
    return replace(built, installed_year=year)


def _circuit(data: Mapping[str, Any]) -> tuple[str, Any]:
    """Return (name of a shipped circuit, a circuit of one's own); either is empty."""
    given = data.get("circuit_document", data.get("circuit", ""))
    if isinstance(given, Mapping):
        return "", circuit_from_dict(given)
    if given and given not in circuit_names():
        raise BadDocument(
            "circuit_unknown",
            phrase("no_circuit_called_2", given=given, circuit_names=", ".join(circuit_names())),
            value="circuit",
        )
    return str(given), None


def _background(data: Any, version: int) -> Background:
    try:
        past = tuple(_past(dict(row), version) for row in data.get("past", ()))
        causes = tuple((str(part), int(count)) for part, count in data.get("causes", ()))
        vain = tuple((str(part), int(count), int(unsolved)) for part, count, unsolved in data.get("in_vain", ()))
        surroundings = tuple(data.get("surroundings", ()))
        known = {"surroundings": surroundings, "past": past, "causes": causes, "in_vain": vain}
        return Background(**{**data, **known})
    except (AttributeError, TypeError, ValueError) as error:
        message = phrase("background_cannot_read", error=error)
        raise BadDocument("background_form", message, value="background") from error


def _past(row: dict[str, Any], version: int) -> Past:
    action = row.pop("deed", None)  # its name before
    if action is not None:
        row["action"] = " ".join(ACTIONS_1[action]) if version == 1 and action in ACTIONS_1 else action
    return Past(**row)


def _checked_version(version: Any) -> int:
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise BadDocument("bundle_version", phrase("bundles_version_not_whole_number"), value="version")
    if version > VERSION:
        message = phrase("bundle_has_version_havrin_reads", version=version, version_2=VERSION)
        raise BadDocument("bundle_newer", message, value="version")
    return version


def _visit(data: Mapping[str, Any], unit: Unit, version: int) -> VisitTape:
    reason = field_of(data, "reason", str)
    if reason not in REASONS_FOR_VISIT:
        message = phrase("no_visit_reason_called_2", reason=reason, reasons_for_visit=", ".join(REASONS_FOR_VISIT))
        raise BadDocument("reason_unknown", message, value="visit.reason")
    entries = _entries(data, "entries", unit, version)
    before = _entries(data, "open_before", unit, version) if "open_before" in data else ()
    owed = tuple(str(name) for name in data.get("owed", ()))
    return VisitTape(reason, entries, _accuracies(data.get("instruments", {})), LeftOpen(before, owed))


def _entries(data: Mapping[str, Any], name: str, unit: Unit, version: int) -> tuple[Entry, ...]:
    rows = field_of(data, name, list)
    entries = tuple(entry_from_dict(row, f"visit.{name}[{i}]", version) for i, row in enumerate(rows))
    for i, entry in enumerate(entries):
        _check_stage(entry.body, unit, f"visit.{name}[{i}]")
    return entries


def _accuracies(data: Any) -> dict[str, dict[str, Accuracy]]:
    try:
        return {name: {q: Accuracy(**figures) for q, figures in stated.items()} for name, stated in data.items()}
    except (AttributeError, TypeError) as error:
        message = phrase("visit_instruments_cannot_read", error=error)
        raise BadDocument("instruments_form", message, value="visit.instruments") from error


def _check_stage(body: Body, unit: Unit, place: str) -> None:
    plain = body.replacement if isinstance(body, Correction) else body
    if isinstance(plain, Reading | Trace) and plain.stage is not None and plain.stage not in unit.stage_keys:
        stages = ", ".join(unit.stage_keys)
        raise BadDocument(
            "entry_stage", phrase("units_stages_are_not", place=place, stages=stages, stage=plain.stage), value=place
        )
