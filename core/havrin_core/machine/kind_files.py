"""Build units from the kinds shipped as data files in ``kinds/``."""

import json
from collections.abc import Iterable, Mapping
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.errors import BadDocument, UnknownName
from havrin_core.machine.unit import STAGE_LABELS, Kind, Path, Plate, Stage, Station, Unit, check_plate

_FOLDER = resources.files("havrin_core.machine") / "kinds"


def kind_names() -> tuple[str, ...]:
    """Return the keys of all shipped kinds."""
    return tuple(sorted(f.name.removesuffix(".json") for f in _FOLDER.iterdir() if f.name.endswith(".json")))


def build_unit(name: str, kind: str, plate: Plate, altitude_m: float) -> Unit:
    """Return a unit of shipped ``kind`` with ``plate``, at ``altitude_m``.

    Raises UnknownName (kind), BadDocument (a plate that contradicts itself), OutOfDomain (altitude).
    """
    check_plate(plate)
    document = _document(kind)
    stages = tuple(stage.key for stage in plate.stages)
    unit = Unit(name, _kind(kind, document), plate, tuple(_path(p, stages) for p in document["paths"]), altitude_m)
    assert unit.baro_pa > 0  # raises for an altitude outside the atmosphere
    return unit


def plate_from_dict(data: Mapping[str, Any]) -> Plate:
    """Return the plate that a bundle or the shop wrote. Raises BadDocument naming the field."""
    known = set(Plate.__slots__)
    for field in data:
        if field not in known:
            raise BadDocument("plate_field", f"A plate has no field {field!r}.", value=field)
    try:
        stages = tuple(Stage(**stage) for stage in data["stages"])
        return Plate(**{**data, "stages": stages})
    except (KeyError, TypeError) as error:
        raise BadDocument("plate_form", f"The plate cannot be read: {error}.", value="plate") from error


@cache
def _document(kind: str) -> Any:
    if kind not in kind_names():
        raise UnknownName("kind_unknown", f"No kind of unit is called {kind!r}: {', '.join(kind_names())}.", value=kind)
    return json.loads((_FOLDER / f"{kind}.json").read_text(encoding="utf-8"))


def _kind(key: str, document: Mapping[str, Any]) -> Kind:
    low, high = document["o2_doubt_pct"]
    return Kind(
        key=key, name=document["name"], condensing=document["condensing"], o2_doubt_pct=(low, high),
        safety_devices=tuple(document["safety_devices"]),
        ties=tuple((a, b) for a, b in document["ties"]),
        modulating=document.get("modulating", False), circuits=document.get("circuits", {}),
        must_show={reason: tuple(names) for reason, names in document["must_show"].items()},
    )  # fmt: skip


def _path(data: Mapping[str, Any], stages: tuple[str, ...]) -> Path:
    stations = tuple(s for row in data["stations"] for s in _stations(row, data["key"], stages))
    return Path(data["key"], data["name"], data["direction"], data["hint"], stations)


def _stations(row: Mapping[str, Any], path: str, stages: tuple[str, ...]) -> Iterable[Station]:
    between = tuple(row["between"].get(stages[-1], ())) or None if "between" in row else None
    fixed = {"path": path, "quantity": row.get("quantity"), "between": between, "caution": row.get("caution", "")}
    spread = row.get("stages", "none")
    if spread == "each" and len(stages) > 1:
        for stage in stages:
            yield Station(
                key=f"{row['key']}_{stage}", name=f"{row['name']}, {STAGE_LABELS[stage]}", stage=stage, **fixed
            )
        return
    top = stages[-1] if spread != "none" else None
    suffix = f", {STAGE_LABELS[top]}" if top and STAGE_LABELS[top] and spread == "top" else ""
    yield Station(key=row["key"], name=row["name"] + suffix, stage=top, **fixed)
