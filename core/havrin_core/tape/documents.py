"""Entries as JSON-ready data, and back: whatever schema they were written in, they come up as the newest."""

import math
from collections.abc import Callable, Mapping
from dataclasses import fields
from datetime import date, datetime
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase
from havrin_core.quantities.strict import misfitting_field
from havrin_core.tape.entries import (
    ACTION_SENSES,
    CAUSE_STATES,
    KINDS,
    PHASES,
    SCHEMA,
    WAYS_LEFT,
    Abnormal,
    Action,
    Body,
    Condition,
    Correction,
    Entry,
    PlateValue,
    Reading,
    Said,
    Trace,
    kind_of,
)
from havrin_core.tape.upcasters import upcast
from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.vocabulary.catalogue import condition, part, verb
from havrin_core.vocabulary.measurands import measurand
from havrin_core.vocabulary.methods import FINDS, SURENESS

_TUPLES = ("under", "told", "parts")
_NUMBERS = ("value", "values", "means")
_MOST_SHOWN = 60
_YEARS = (2000, 2100)  # a clock outside of them stands wrong


def body_from_dict(kind: str, data: Mapping[str, Any], place: str = "entry", schema: int = SCHEMA) -> Body:
    """Return the body of ``kind`` that ``data`` describes, in whichever schema. Raises BadDocument, UnknownName."""
    try:
        kind, raw = upcast(kind, data, schema)
    except (KeyError, TypeError, AttributeError) as error:
        raise BadDocument(
            "entry_form", phrase("missing_not_what_belongs_there", place=place, error=error), value=place
        ) from error
    return _made(kind, raw, place)


def _made(kind: str, raw: dict[str, Any], place: str) -> Body:
    if kind not in KINDS:
        known = ", ".join(KINDS)
        raise BadDocument(
            "entry_kind_unknown", phrase("no_entry_kind_called_known", place=place, kind=kind, known=known), value=place
        )
    cls: Any = KINDS[kind]
    extra = set(raw) - {f.name for f in fields(cls)}
    if extra:
        raise BadDocument(
            "entry_field", phrase("has_no_field_3", place=place, kind=kind, extra=sorted(extra)[0]), value=place
        )
    try:
        body: Body = cls(**_typed(cls, raw, place))
    except (TypeError, ValueError, AttributeError, KeyError) as error:
        raise BadDocument("entry_form", phrase("words", place=place, error=error), value=place) from error
    _check(body, place)
    return body


def _typed(cls: Any, raw: dict[str, Any], place: str) -> dict[str, Any]:
    values = dict(raw)
    if cls is Correction and values.get("replacement") is not None:
        inner = values["replacement"]
        values["replacement"] = _made(inner["kind"], dict(inner["data"]), f"{place}.replacement")
    if cls is Reading:
        values["computed_from"] = tuple((str(q), float(v)) for q, v in values.get("computed_from", ()))
        values["leads"] = tuple(values["leads"]) if values.get("leads") else None
    if cls is PlateValue:
        values["values"] = tuple(values.get("values", ()))
    if cls is Trace:
        values["means"] = tuple((str(q), float(m), float(s)) for q, m, s in values.get("means", ()))
    for name in _TUPLES:
        if name in values:
            values[name] = tuple(values[name])
    if isinstance(values.get("until"), str):
        values["until"] = date.fromisoformat(values["until"])
    return values


def _check(body: Body, place: str) -> None:
    wrong = misfitting_field(body)
    if wrong:
        value = str(getattr(body, wrong))[:_MOST_SHOWN]
        message = phrase("not_what_belongs_there", where=f"{place}.{wrong}", value=value)
        code = "entry_number" if wrong in _NUMBERS else "field_kind"
        raise BadDocument(code, message, value=f"{place}.{wrong}")
    check = _CHECKS.get(type(body))
    if check is not None:
        check(body, place)
    for quantity, value in _numbers(body):
        what = measurand(quantity)
        if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
            raise BadDocument("entry_number", phrase("not_number_2", place=place, quantity=quantity), value=place)
        if not what.least <= value <= what.most:
            message = phrase(
                "cannot_lies_between_2", place=place, quantity=quantity, value=value, least=what.least, most=what.most
            )
            raise BadDocument("entry_number", message, value=place)


def _numbers(body: Body) -> list[tuple[str, Any]]:
    if isinstance(body, Reading):
        return [(body.quantity, body.value)]
    if isinstance(body, PlateValue):
        return [(body.quantity, value) for value in body.values]
    return [(quantity, mean) for quantity, mean, _ in body.means] if isinstance(body, Trace) else []


def _one_of(value: str, allowed: tuple[str, ...], what: str, place: str) -> None:
    if value not in allowed:
        raise BadDocument(
            "entry_form",
            phrase("one_not_2", place=place, what=what, a=", ".join(a for a in allowed if a), value=value),
            value=place,
        )


def _check_condition(body: Condition, place: str) -> None:
    part(body.part)  # raises UnknownName
    condition(body.condition)
    _one_of(body.method, ("", *FINDS), "the method of a look", place)
    _one_of(body.sure, ("", *SURENESS), "how sure a look was", place)


def _check_action(body: Action, place: str) -> None:
    verb(body.verb)  # raises UnknownName
    if body.part:
        part(body.part)
    _one_of(body.sense, ACTION_SENSES, "the sense of an action", place)


def _check_abnormal(body: Abnormal, place: str) -> None:
    _one_of(body.how, tuple(way.key for way in WAYS), "what is left abnormal", place)


def _check_plate(body: PlateValue, place: str) -> None:
    if not 1 <= len(body.values) <= 2:
        raise BadDocument("entry_form", phrase("plate_value_one_number_least", place=place), value=place)


def _check_said(body: Said, place: str) -> None:
    if body.what == "cause":
        _one_of(body.state, ("", *CAUSE_STATES), "the state of a cause", place)
    if body.what == "leaves":
        _one_of(body.state, WAYS_LEFT, "the way a unit is left", place)


_CHECKS: Mapping[type, Callable[[Any, str], None]] = {
    Condition: _check_condition,
    Action: _check_action,
    Abnormal: _check_abnormal,
    PlateValue: _check_plate,
    Said: _check_said,
}


_FIELDS: Mapping[type, tuple[str, ...]] = {cls: tuple(field.name for field in fields(cls)) for cls in KINDS.values()}


def body_to_dict(body: Body) -> dict[str, Any]:
    """Return the fields of ``body`` as JSON-ready data of the newest schema."""
    data = {name: _plain(getattr(body, name)) for name in _FIELDS[type(body)]}
    if isinstance(body, Correction) and body.replacement is not None:
        inner = body.replacement
        data["replacement"] = {"kind": kind_of(inner), "data": body_to_dict(inner)}
    return data


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(item) for item in value]
    return value.isoformat() if isinstance(value, date) else value


def entry_to_dict(entry: Entry) -> dict[str, Any]:
    """Return ``entry`` as it stands in a bundle."""
    data: dict[str, Any] = {
        "id": entry.id,
        "at": entry.at.isoformat(),
        "author": entry.author,
        "kind": entry.kind,
        "phase": entry.phase,
        "group": entry.group,
        "instrument": entry.instrument,
        "schema": SCHEMA,
        "data": body_to_dict(entry.body),
    }
    said = {
        "device": entry.device,
        "sent_at": entry.sent_at,
        "received_at": entry.received_at,
        "out_of_calibration": entry.out_of_calibration,
    }
    return data | {name: _plain(value) for name, value in said.items() if value}


def entry_from_dict(row: Any, place: str, schema: int = SCHEMA) -> Entry:
    """Return the entry that ``row`` describes; ``schema`` is meant where it names none. Raises BadDocument, UnknownName."""
    if not isinstance(row, Mapping):
        raise BadDocument("entry_form", phrase("not_object_2", place=place), value=place)
    kind, data = field_of(row, "kind", str, place), field_of(row, "data", Mapping, place)
    body = body_from_dict(kind, data, place, row.get("schema", schema))
    phase = row.get("phase", "found")
    if phase not in PHASES:
        raise BadDocument(
            "entry_phase", phrase("phase_one_not", place=place, phases=", ".join(PHASES), phase=phase), value=place
        )
    sent, received = (time_of(row[name], place) if row.get(name) else None for name in ("sent_at", "received_at"))
    return Entry(
        field_of(row, "id", str, place),
        time_of(field_of(row, "at", str, place), place),
        str(row.get("author", "")),
        phase,
        body,
        str(row.get("group", "")),
        str(row.get("instrument", "")),
        str(row.get("device", "")),
        sent,
        received,
        row.get("out_of_calibration") is True,
    )


def time_of(text: str, place: str) -> datetime:
    """Return the moment that ``text`` says, with its zone. Raises BadDocument."""
    try:
        at = datetime.fromisoformat(text)
    except (ValueError, TypeError):
        raise BadDocument("entry_time", phrase("not_iso_8601_time", place=place, text=text), value=place) from None
    if at.tzinfo is None:
        raise BadDocument("entry_time", phrase("time_has_no_zone", place=place, text=text), value=place)
    if not is_plausible(at):
        raise BadDocument("entry_time", phrase("clock_stands_wrong", place=place, text=text), value=place)
    return at


def is_plausible(at: datetime | date) -> bool:
    """Tell whether a clock or a calendar may have shown ``at``; far outside lies a clock that stands wrong."""
    return _YEARS[0] <= at.year < _YEARS[1]


def field_of(data: Mapping[str, Any], name: str, kinds: Any, place: str = "") -> Any:
    """Return a field that must be there and of one of ``kinds``. Raises BadDocument with its place."""
    where = f"{place}.{name}" if place else name
    if name not in data:
        raise BadDocument("field_missing", phrase("bundle_lacks", where=where), value=where)
    value = data[name]
    if not isinstance(value, kinds) or isinstance(value, bool):
        raise BadDocument("field_kind", phrase("not_what_belongs_there", where=where, value=value), value=where)
    return value
