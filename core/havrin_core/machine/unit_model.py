"""A maker's model: what its plate, its manual and its code chart say, entered once by the firm."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.machine.circuit.codes import normal_pattern
from havrin_core.machine.unit import CodeMeaning, ManualLimit
from havrin_core.phrases import phrase
from havrin_core.vocabulary.measurands import measurand

FORMAT, VERSION = "havrin-model", 1
_FIELDS = ("format", "version", "key", "maker", "name", "kind", "circuit", "plate", "manual", "codes")


@dataclass(frozen=True, slots=True)
class UnitModel:
    """One model. ``plate`` is a plate document; a unit's own plate goes before it, field by field."""

    key: str
    maker: str
    name: str
    kind: str
    plate: Mapping[str, Any]
    manual: tuple[ManualLimit, ...] = ()
    codes: tuple[CodeMeaning, ...] = ()
    circuit: str = ""  # key of a circuit; "" for the kind's own


def model_from_dict(data: Any) -> UnitModel:
    """Return the model that ``data`` (parsed JSON) describes.

    Raises BadDocument naming the field: another format, an unknown field or quantity, a limit
    whose least is not below its most, a code that stands twice.
    """
    if not isinstance(data, Mapping) or data.get("format") != FORMAT:
        raise BadDocument("model_format", phrase("no_model_its_format_not", format=FORMAT), value="format")
    if data.get("version") != VERSION:
        message = phrase("model_has_version_havrin_reads", data=data.get("version"), version=VERSION)
        raise BadDocument("model_version", message, value="version")
    for name in data:
        if name not in _FIELDS:
            raise BadDocument(
                "model_field", phrase("model_has_no_field", name=name, fields=", ".join(_FIELDS)), value=name
            )
    words = {name: _words(data, name) for name in ("key", "maker", "name", "kind")}
    manual = tuple(_limit(row) for row in _rows(data, "manual"))
    codes = tuple(_code(row) for row in _rows(data, "codes"))
    _check_codes(codes)
    plate = data.get("plate")
    if not isinstance(plate, Mapping):
        raise BadDocument("model_plate", phrase("model_lacks_its_plate_object"), value="plate")
    return UnitModel(**words, plate=plate, manual=manual, codes=codes, circuit=str(data.get("circuit", "")))


def merged_plate(of_model: Mapping[str, Any], own: Mapping[str, Any]) -> dict[str, Any]:
    """Return the plate document of a unit: its own fields before those of its model, stages by their keys."""
    values = {stage["key"]: {k: v for k, v in stage.items() if v is not None} for stage in own.get("stages", ())}
    stages = [{**stage, **values.get(stage["key"], {})} for stage in of_model.get("stages", ())]
    known = {stage["key"] for stage in stages}
    stages += [stage for key, stage in values.items() if key not in known]
    given = {name: value for name, value in own.items() if name != "stages" and value is not None}
    return {**of_model, **given, "stages": stages}


def _words(data: Mapping[str, Any], name: str) -> str:
    text = data.get(name)
    if not isinstance(text, str) or not text.strip():
        raise BadDocument("model_words", phrase("models_missing", name=name), value=name)
    return text.strip()


def _rows(data: Mapping[str, Any], name: str) -> Sequence[Any]:
    rows = data.get(name, [])
    if not isinstance(rows, list):
        raise BadDocument("model_rows", phrase("models_list", name=name), value=name)
    return rows


def _limit(row: Any) -> ManualLimit:
    limit: ManualLimit = _made(ManualLimit, row, "manual limit")
    measurand(limit.quantity)  # raises UnknownName for a quantity that cannot be read
    if limit.low is None and limit.high is None:
        raise BadDocument(
            "manual_empty", phrase("manual_limit_give_low_high", quantity=limit.quantity), value=limit.quantity
        )
    if limit.low is not None and limit.high is not None and not limit.low < limit.high:
        message = phrase("manual_limit_its_least_not", quantity=limit.quantity)
        raise BadDocument("manual_order", message, value=limit.quantity)
    return limit


def _code(row: Any) -> CodeMeaning:
    code: CodeMeaning = _made(CodeMeaning, row, "code")
    return replace(code, pattern=normal_pattern(code.pattern))


def _made(cls: Any, row: Any, what: str) -> Any:
    known = {f.name for f in fields(cls)}
    if not isinstance(row, Mapping):
        raise BadDocument("model_row", phrase("object_not", what=what, row=row), value=what)
    for name in row:
        if name not in known:
            raise BadDocument(
                "model_field", phrase("has_no_field", what=what, name=name, known=", ".join(sorted(known))), value=name
            )
    try:
        return cls(**row)
    except TypeError as error:
        raise BadDocument("model_row", phrase("cannot_read", what=what, error=error), value=what) from error


def _check_codes(codes: Sequence[CodeMeaning]) -> None:
    seen: set[str] = set()
    for code in codes:
        if code.pattern in seen:
            raise BadDocument("code_twice", phrase("code_stands_twice_chart", pattern=code.pattern), value=code.pattern)
        seen.add(code.pattern)
