"""What a visit is judged by: pinned with its first line, version by version, so that no later edit reaches it."""

from datetime import datetime
from typing import Any

from havrin_core.machine.circuit.read import circuit_names
from havrin_core.machine.kind_files import kind_names
from havrin_core.quantities.formats import day_words
from havrin_server.instruments.models import Instrument
from havrin_server.shop.library import circuit_document, library_for
from havrin_server.units.models import Unit
from havrin_server.units.plates import own_plate
from havrin_server.versions.models import Sort, Version
from havrin_server.versions.services import keep_version, newer_than, number_of
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import unit_document

HOUSE_RULES = "house"  # the key of a firm's rules: it has one set
_NAMES = {
    Sort.UNIT: "the unit's own plate",
    Sort.MODEL: "the model",
    Sort.KIND: "the kind",
    Sort.CIRCUIT: "the circuit",
    Sort.RULES: "the house rules",
    Sort.INSTRUMENT: "an instrument's accuracy",
}


def pinned_document(visit: Visit, now: datetime) -> dict[str, Any]:
    """Return what the visit is judged by, whole, with the version of each part. Call in a transaction."""
    unit = visit.unit
    firm_id = unit.site.firm_id
    instruments = {row.name: row.accuracy for row in Instrument.objects.filter(firm_id=firm_id)}
    versions = [
        *_unit_versions(unit, now),
        *(
            [Sort.INSTRUMENT, name, keep_version(firm_id, Sort.INSTRUMENT, name, accuracy, now=now)]
            for name, accuracy in instruments.items()
        ),
        [Sort.RULES, HOUSE_RULES, number_of(firm_id, Sort.RULES, HOUSE_RULES, visit.house_rules)],
    ]
    return {
        "unit": unit_document(visit),
        "surroundings": list(unit.surroundings),
        "instruments": instruments,
        "versions": versions,
    }


def _unit_versions(unit: Unit, now: datetime) -> list[list[Any]]:
    firm_id, model = unit.site.firm_id, unit.of_model()
    library = library_for(firm_id, model)
    rows = [
        [Sort.UNIT, str(unit.pk), keep_version(firm_id, Sort.UNIT, str(unit.pk), own_plate(unit), now=now)],
        [Sort.MODEL, unit.model.key, keep_version(firm_id, Sort.MODEL, unit.model.key, unit.model.document, now=now)],
    ]
    if model.kind not in kind_names():  # shipped ones change with Havrin alone
        document = library.kinds[model.kind]
        rows.append([Sort.KIND, model.kind, keep_version(firm_id, Sort.KIND, model.kind, document, now=now)])
    circuit = unit.described().circuit
    if circuit is not None and circuit.key not in circuit_names():
        document = unit.circuit or circuit_document(firm_id, circuit.key)
        rows.append([Sort.CIRCUIT, circuit.key, keep_version(firm_id, Sort.CIRCUIT, circuit.key, document, now=now)])
    return rows


def moved_on(visit: Visit) -> list[Version]:
    """Return the versions that were made since an open visit was pinned; nothing of what is closed or not begun.

    House rules are not among them: a visit that has begun keeps those it is judged by.
    """
    if visit.pinned is None or visit.closed_at is not None:
        return []
    rows = [(sort, key, number) for sort, key, number in visit.pinned["versions"] if sort != Sort.RULES]
    return newer_than(visit.unit.site.firm_id, rows)


def moved_words(version: Version) -> str:
    """Return what was changed, by whom, when and why."""
    who = version.author.get_full_name() if version.author else "somebody"
    why = f": “{version.reason}”" if version.reason else ""
    return f"{_NAMES[Sort(version.sort)]} was changed by {who} on {day_words(version.at)}{why}"
