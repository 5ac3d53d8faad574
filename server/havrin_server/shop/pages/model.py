"""A model as a form: numbers in the person's units, problems at their fields."""

from typing import Any

from havrin_core.errors import CoreError
from havrin_core.facts.plate_values import PLATE_FIELDS, STAGED_FIELDS, plate_name
from havrin_core.machine.unit import PLATE_CHOICES, STAGE_LABELS, Unit
from havrin_core.machine.unit_model import FORMAT, VERSION, model_from_dict
from havrin_core.quantities.display import show
from havrin_core.quantities.parse import parse_quantity
from havrin_core.quantities.units import shown_unit
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.phrases import words
from havrin_server.errors import NotWritable
from havrin_server.people.models import Person
from havrin_server.shop.circuit_schemas import Named
from havrin_server.shop.library import whole_library
from havrin_server.shop.schemas import (
    ChoiceField,
    CodeField,
    ManualField,
    ModelCheck,
    ModelFields,
    ModelIn,
    PlateField,
    ProblemOut,
)
from havrin_server.shop.services import bad_document, model_unit

_STAGES = {False: ("only",), True: ("low", "high")}


def model_check(given: ModelIn, person: Person) -> ModelCheck:
    """Return the form with what the checks found; a document that is no model is answered, not refused."""
    fields = given.fields or _fields_or_none(given.document or {}, person.unit_system)
    try:
        with bad_document("model"):
            document = _document(fields, person.unit_system) if given.fields and fields else given.document
            unit = model_unit(document, whole_library(person.own_firm_id))
    except CoreError as refusal:
        problem = ProblemOut.of(refusal, text=words(refusal.said), element=str(refusal.value or ""))
        return ModelCheck(problem=problem, fields=fields, states=[])
    if given.fields is None:
        fields = _fields(document, person.unit_system)
    return ModelCheck(problem=None, fields=fields, states=_states(unit))


def model_document(given: ModelIn, person: Person) -> Any:
    """Return the document that a form makes. Raises NotWritable with every problem in ``details``."""
    if given.fields is None:
        return given.document
    try:
        return _document(given.fields, person.unit_system)
    except CoreError as refusal:
        rows: list[PlateField | ManualField] = [*given.fields.plate, *given.fields.manual]
        problems = [row.problem for row in rows if row.problem] or [words(refusal.said)]
        raise NotWritable(problems[0], code=refusal.code, details=problems) from refusal


def _states(unit: Unit) -> list[Named]:
    return [Named.of(s) for s in unit.circuit.control.states] if unit.circuit else []


def _fields_or_none(document: Any, system: str) -> ModelFields | None:
    try:
        return _fields(document, system)
    except (CoreError, KeyError, TypeError, AttributeError):
        return None


def _fields(document: Any, system: str) -> ModelFields:
    model = model_from_dict(document)
    stages = {stage["key"]: stage for stage in model.plate.get("stages", ())}
    two = len(stages) > 1
    rows = [
        _plate_field(field, quantity, key, stages.get(key, {}).get(field), system)
        for quantity, field in STAGED_FIELDS.items()
        for key in _STAGES[two]
    ] + [
        _plate_field(field, quantity, "", model.plate.get(field), system)
        for quantity, fields in PLATE_FIELDS.items()
        for field in fields
    ]
    return ModelFields(
        key=model.key,
        maker=model.maker,
        name=model.name,
        kind=model.kind,
        circuit=model.circuit,
        fuel=model.plate.get("fuel", "NG_H"),
        two_stages=two,
        exchanger_cells=model.plate.get("exchanger_cells", 1),
        choices=[_choice(field, model.plate.get(field)) for field in PLATE_CHOICES],
        plate=rows,
        manual=[
            ManualField(
                quantity=m.quantity,
                stage=m.stage or "",
                low=_text(m.quantity, m.low, system),
                high=_text(m.quantity, m.high, system),
                page=m.page,
            )
            for m in model.manual
        ],
        codes=[CodeField.of(c) for c in model.codes],
    )


def _choice(field: str, value: str | None) -> ChoiceField:
    name, choices = PLATE_CHOICES[field]
    options = [Named(key=word, name=said) for word, said in choices.items()]
    return ChoiceField(key=field, name=name, value=value or "", options=options)


def _plate_field(field: str, quantity: str, stage: str, value: float | None, system: str) -> PlateField:
    bound = {"min": ", least", "max": ", most"}.get(field.split("_")[-2] if "_" in field else "", "")
    label = f", {STAGE_LABELS[stage]} fire" if stage and STAGE_LABELS[stage] else ""
    two = len(PLATE_FIELDS.get(quantity, ())) == 2
    name = (measurand(quantity).name + bound if two else plate_name(quantity, None).capitalize()) + label
    unit = shown_unit(measurand(quantity).dimension, system).symbol
    return PlateField(key=field, stage=stage, name=name, unit=unit, text=_text(quantity, value, system))


def _text(quantity: str, value: float | None, system: str) -> str:
    return "" if value is None else show(value, measurand(quantity).dimension, system).text.replace("−", "-")


def _document(fields: ModelFields, system: str) -> dict[str, Any]:
    """Return the document. Raises CoreError when a field cannot be read; the problem is written into the field too."""
    refusals: list[CoreError] = []
    quantities = {field: q for q, field in STAGED_FIELDS.items()}
    quantities |= {field: q for q, rows in PLATE_FIELDS.items() for field in rows}
    plate: dict[str, Any] = {"fuel": fields.fuel, "exchanger_cells": fields.exchanger_cells}
    plate |= {row.key: row.value for row in fields.choices if row.value}
    stages: dict[str, dict[str, Any]] = {key: {"key": key} for key in _STAGES[fields.two_stages]}
    for row in fields.plate:
        row.problem = ""
        try:
            value = _number(quantities[row.key], row.text, system)
        except CoreError as refusal:
            row.problem = words(refusal.said)
            refusals.append(refusal)
            continue
        if value is not None and row.stage in stages:
            stages[row.stage][row.key] = value
        elif value is not None and not row.stage:
            plate[row.key] = value
    manual = [_limit(row, system, refusals) for row in fields.manual]
    if refusals:
        raise refusals[0]
    return {
        "format": FORMAT,
        "version": VERSION,
        "key": fields.key,
        "maker": fields.maker,
        "name": fields.name,
        "kind": fields.kind,
        "circuit": fields.circuit,
        "plate": {**plate, "stages": list(stages.values())},
        "manual": manual,
        "codes": [row.model_dump() for row in fields.codes if row.pattern.strip()],
    }


def _limit(row: ManualField, system: str, refusals: list[CoreError]) -> dict[str, Any]:
    row.problem = ""
    bounds: dict[str, float | None] = {}
    for name, text in (("low", row.low), ("high", row.high)):
        try:
            bounds[name] = _number(row.quantity, text, system)
        except CoreError as refusal:
            row.problem = words(refusal.said)
            refusals.append(refusal)
    return {"quantity": row.quantity, "stage": row.stage or None, "page": row.page, **bounds}


def _number(quantity: str, text: str, system: str) -> float | None:
    if not text.strip():
        return None
    dimension = measurand(quantity).dimension
    return parse_quantity(text, dimension, shown_unit(dimension, system)).value_si
