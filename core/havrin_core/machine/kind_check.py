"""What a kind's document must be before a unit is built from it; every answer names the element."""

from collections.abc import Iterable, Mapping
from typing import Any

from havrin_core.errors import BadDocument, CoreError
from havrin_core.machine.unit import EXCHANGERS
from havrin_core.phrases import Phrase, phrase
from havrin_core.vocabulary.measurands import measurand

FORMAT, VERSION = "havrin-kind", 1
_FIELDS = {
    "format": str,
    "version": int,
    "key": str,
    "name": str,
    "condensing": bool,
    "o2_doubt_pct": list,
    "safety_devices": list,
    "ties": list,
    "paths": list,
    "must_show": dict,
}
_MAY = {"circuits": dict, "modulating": bool, "draft_hood": bool, "second_source": bool, "about": str, "exchanger": str}
_PATH = {"key": str, "name": str, "direction": str, "hint": str, "stations": list}
_STATION = {"key": str, "name": str}
_STATION_MAY = {"quantity": str, "stages": str, "between": dict, "caution": str}
_SPREADS = ("none", "each", "top")
PATHS = ("gas", "fire", "air", "water", "string")
VISIT_REASONS = ("every", "maintenance", "start_up", "no_heat", "after_repair", "return_parts", "recheck")


def check_kind(document: Any, proofs: Iterable[str] = ()) -> None:
    """Raise BadDocument for a kind that no unit could be built from; ``proofs`` are the names it may ask for."""
    if not isinstance(document, Mapping) or document.get("format") != FORMAT:
        _refuse(phrase("no_kind_unit_its_format", format=FORMAT), "format")
    if document.get("version") != VERSION:
        _refuse(phrase("kind_has_version_havrin_reads", document=document.get("version"), version=VERSION), "version")
    _check_object(document, _FIELDS, _MAY, "kind")
    low_high = document["o2_doubt_pct"]
    if len(low_high) != 2 or not all(_number(x) for x in low_high) or not 0 <= low_high[0] < low_high[1] <= 21:
        _refuse(phrase("o2_doubt_pct_two_numbers"), "o2_doubt_pct")
    if document.get("exchanger") and document["exchanger"] not in EXCHANGERS:
        _refuse(
            phrase("exchanger_one_not", exchangers=", ".join(EXCHANGERS), document=document["exchanger"]), "exchanger"
        )
    stations = _check_paths(document["paths"])
    for index, tie in enumerate(document["ties"]):
        if not isinstance(tie, list) or len(tie) != 2:
            _refuse(phrase("ties_tie_joins_switch_string", index=index), "ties")
        for end in tie:
            if end not in stations:
                _refuse(phrase("ties_no_station_called", index=index, end=end), str(end))
    _check_must_show(document["must_show"], set(proofs))


def _check_paths(paths: Any) -> set[str]:
    stations: set[str] = set()
    seen: set[str] = set()
    for path in paths:
        _check_object(path, _PATH, {}, f"path {_key(path)}")
        if path["key"] not in PATHS or path["key"] in seen:
            _refuse(phrase("path_path_one_each_once", path=path["key"], paths=", ".join(PATHS)), str(path["key"]))
        if path["direction"] not in ("up", "down"):
            _refuse(phrase("path_its_direction_up_down", path=path["key"], path_2=path["direction"]), path["key"])
        seen.add(path["key"])
        for row in path["stations"]:
            _check_station(row)
            if row["key"] in stations:
                _refuse(phrase("two_stations_are_called", row=row["key"]), row["key"])
            stations.add(row["key"])
    if not stations:
        _refuse(phrase("kind_needs_least_one_path"), "paths")
    return stations


def _check_station(row: Any) -> None:
    _check_object(row, _STATION, _STATION_MAY, f"station {_key(row)}")
    if row.get("stages", "none") not in _SPREADS:
        _refuse(phrase("station_stages_one", row=row["key"], spreads=", ".join(_SPREADS)), row["key"])
    if "quantity" in row:
        try:
            measurand(row["quantity"])
        except CoreError as unknown:
            _refuse(phrase("station", row=row["key"], unknown=unknown.said), row["key"])
    for stage, pair in row.get("between", {}).items():
        if stage not in ("only", "high") or not isinstance(pair, list) or len(pair) != 2:
            _refuse(phrase("station_between_names_two_nodes", row=row["key"]), row["key"])


def _check_must_show(must_show: Mapping[str, Any], proofs: set[str]) -> None:
    if "every" not in must_show:
        _refuse(phrase("must_show_lacks_every_what"), "must_show")
    for reason, names in must_show.items():
        if reason not in VISIT_REASONS:
            _refuse(phrase("must_show_no_visit_reason", reason=reason, visit_reasons=", ".join(VISIT_REASONS)), reason)
        for name in names:
            if proofs and name not in proofs:
                _refuse(
                    phrase("must_show_no_proof_called", reason=reason, name=name, proofs=", ".join(sorted(proofs))),
                    str(name),
                )


def _check_object(row: Any, must: Mapping[str, type], may: Mapping[str, type], what: str) -> None:
    if not isinstance(row, Mapping):
        _refuse(phrase("not_object", what=what), what)
    for name, kind in must.items():
        if name not in row:
            _refuse(phrase("lacks", what=what, name=name), name)
        _check_type(row[name], kind, f"{what}: “{name}”", name)
    for name, value in row.items():
        if name in must:
            continue
        if name not in may:
            _refuse(phrase("has_no_field_2", what=what, name=name, known=", ".join([*must, *may])), str(name))
        _check_type(value, may[name], f"{what}: “{name}”", name)


_SAID = {str: "words", int: "a whole number", bool: "true or false", list: "a list", dict: "an object"}


def _check_type(value: Any, kind: type, place: str, name: str) -> None:
    if not isinstance(value, kind):
        _refuse(phrase("not", place=place, said=_SAID[kind], value=value), name)


def _number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def _key(row: Any) -> str:
    return str(row.get("key", "?")) if isinstance(row, Mapping) else "?"


def _refuse(text: Phrase, value: str) -> None:
    raise BadDocument("kind_form", text, value=value)
