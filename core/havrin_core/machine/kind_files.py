"""Build units from kinds, shipped as data files in ``kinds/`` or a firm's own."""

import json
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.errors import BadDocument, UnknownName
from havrin_core.machine.circuit.codes import code_chart, with_codes
from havrin_core.machine.circuit.fuelled import of_fuel
from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.machine.circuit.second_source import beside_heat_pump
from havrin_core.machine.unit import (
    STAGE_LABELS,
    CodeMeaning,
    Kind,
    ManualLimit,
    Path,
    Plate,
    Stage,
    Station,
    Unit,
    check_plate,
)
from havrin_core.machine.unit_model import UnitModel, merged_plate
from havrin_core.phrases import phrase
from havrin_core.quantities.strict import misfitting_field

# keys of devices in documents of earlier days -> the vocabulary's
DEVICE_ALIASES: Mapping[str, str] = {
    "spill": "spill_switch",
    "gas_pressure": "gas_pressure_switch_low",
    "airflow_low": "airflow_switch_low",
    "airflow_high": "airflow_switch_high",
}
_FOLDER = resources.files("havrin_core.machine") / "kinds"
MOST_CELLS = 100  # of an exchanger


@cache
def kind_names() -> tuple[str, ...]:
    """Return the keys of all shipped kinds."""
    return tuple(sorted(f.name.removesuffix(".json") for f in _FOLDER.iterdir() if f.name.endswith(".json")))


@dataclass(frozen=True, slots=True)
class Library:
    """A firm's own kinds and circuits, by key; what is not in it is looked for among the shipped ones."""

    kinds: Mapping[str, Any] = field(default_factory=dict)
    circuits: Mapping[str, Circuit] = field(default_factory=dict)

    def kind(self, key: str) -> Any:
        """Return a kind's document. Raises UnknownName."""
        return self.kinds[key] if key in self.kinds else kind_document(key)

    def circuit(self, key: str) -> Circuit:
        """Return a circuit. Raises UnknownName."""
        return self.circuits[key] if key in self.circuits else shipped_circuit(key)


SHIPPED = Library()


def build_unit(
    name: str,
    kind: str,
    plate: Plate,
    altitude_m: float,
    *,
    circuit: str = "",
    codes: Sequence[CodeMeaning] = (),
    manual: Sequence[ManualLimit] = (),
    library: Library = SHIPPED,
) -> Unit:
    """Return a unit of ``kind`` with ``plate``, at ``altitude_m``.

    ``circuit`` is the model's own where it has one; ``codes`` is the model's chart, the circuit's where empty.
    Raises UnknownName (kind, circuit), BadDocument (a plate that contradicts itself), OutOfDomain (altitude).
    """
    check_plate(plate)
    document = library.kind(kind)
    stages = tuple(stage.key for stage in plate.stages)
    described = _kind(kind, document)
    key = circuit or described.circuits.get(stages[-1], "")
    wired = of_fuel(library.circuit(key), plate.fuel) if key else None
    if wired is not None and described.second_source:
        wired = beside_heat_pump(wired)
    if wired is not None and codes:
        wired = with_codes(wired, tuple((code.state, code.pattern) for code in codes if code.state))
    chart = {code.pattern: code.meaning for code in codes} or (code_chart(wired) if wired else {})
    paths = tuple(_path(p, stages) for p in document["paths"])
    unit = Unit(name, described, plate, paths, altitude_m, wired, tuple(manual), chart)
    assert unit.baro_pa > 0  # raises for an altitude outside the atmosphere
    return unit


def build_of_model(
    name: str, model: UnitModel, own_plate: Mapping[str, Any], altitude_m: float, library: Library = SHIPPED
) -> Unit:
    """Return a unit of ``model``; ``own_plate`` holds what was read on this unit itself. Raises as build_unit."""
    plate = plate_from_dict(merged_plate(model.plate, own_plate))
    return build_unit(
        name,
        model.kind,
        plate,
        altitude_m,
        circuit=model.circuit,
        codes=model.codes,
        manual=model.manual,
        library=library,
    )


def plate_from_dict(data: Mapping[str, Any]) -> Plate:
    """Return the plate that a bundle or the shop wrote. Raises BadDocument naming the field."""
    known = set(Plate.__slots__)
    for name in data:
        if name not in known:
            raise BadDocument("plate_field", phrase("plate_has_no_field", name=name), value=name)
    try:
        stages = tuple(Stage(**stage) for stage in data["stages"])
        plate = Plate(**{**data, "stages": stages})
    except (KeyError, TypeError) as error:
        raise BadDocument("plate_form", phrase("plate_cannot_read", error=error), value="plate") from error
    return _checked_plate(plate)


def _checked_plate(plate: Plate) -> Plate:
    """Return a plate whose every field is of its kind. Raises BadDocument naming the one that is not."""
    misfit = next(filter(None, map(misfitting_field, (*plate.stages, plate))), "")
    if not misfit and not 1 <= plate.exchanger_cells <= MOST_CELLS:
        misfit = "exchanger_cells"
    if misfit:
        raise BadDocument("plate_value", phrase("plate_value_misfits", name=misfit), value=misfit)
    return plate


@cache
def kind_document(kind: str) -> Any:
    """Return a shipped kind's document. Raises UnknownName."""
    if kind not in kind_names():
        raise UnknownName(
            "kind_unknown", phrase("no_kind_unit_called", kind=kind, kind_names=", ".join(kind_names())), value=kind
        )
    return json.loads((_FOLDER / f"{kind}.json").read_text(encoding="utf-8"))


def _kind(key: str, document: Mapping[str, Any]) -> Kind:
    low, high = document["o2_doubt_pct"]
    return Kind(
        key=key,
        name=document["name"],
        condensing=document["condensing"],
        o2_doubt_pct=(low, high),
        safety_devices=tuple(DEVICE_ALIASES.get(key, key) for key in document["safety_devices"]),
        ties=tuple((a, b) for a, b in document["ties"]),
        modulating=document.get("modulating", False),
        circuits=document.get("circuits", {}),
        second_source=document.get("second_source", False),
        draft_hood=document.get("draft_hood", False),
        exchanger=document.get("exchanger", ""),
        must_show={reason: tuple(names) for reason, names in document["must_show"].items()},
    )


def _path(data: Mapping[str, Any], stages: tuple[str, ...]) -> Path:
    stations = tuple(s for row in data["stations"] for s in _stations(row, data["key"], stages))
    return Path(data["key"], data["name"], data["direction"], data["hint"], stations)


def _stations(row: Mapping[str, Any], path: str, stages: tuple[str, ...]) -> Iterable[Station]:
    between = tuple(row["between"].get(stages[-1], ())) or None if "between" in row else None
    fixed = {
        "base": row["key"],
        "path": path,
        "quantity": row.get("quantity"),
        "between": between,
        "caution": row.get("caution", ""),
    }
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
