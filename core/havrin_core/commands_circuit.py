"""``./havrin solve``, ``circuits`` and ``next``: circuits, meters and suspects from the command line."""

import json
from argparse import Namespace
from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Any

from havrin_core.errors import UnknownName
from havrin_core.machine.circuit.meter import read_meter
from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.machine.virtual.run import VirtualUnit
from havrin_core.phrases import Phrase, phrase
from havrin_core.search.model import Outlook
from havrin_core.search.pictures import pictures_of
from havrin_core.search.visit_search import outlook_of
from havrin_core.search.words import in_words
from havrin_core.tape.bundle import Bundle, read_bundle
from havrin_core.wording.phrases import words


def solve(options: Namespace) -> int:
    """Print what a meter reads on a circuit file (or a shipped circuit's name) as JSON."""
    _print(solve_answer(options))
    return 0


def solve_answer(options: Namespace) -> dict[str, Any]:
    """Return what a meter reads on a circuit. Raises UnknownName, BadDocument."""
    circuit = _circuit(options.circuit)
    leads = tuple(options.leads.split(",")) if options.leads else None
    if leads is not None and len(leads) != 2:
        leads = (options.leads, "")  # refused below, by the name that is no node
    shown = read_meter(circuit, options.state, options.mode, leads, part=options.part, faults=options.fault)
    return {
        "circuit": circuit.key,
        "state": options.state,
        "faults": options.fault,
        "leads": leads,
        "mode": options.mode,
        **_plain(shown),
    }


def circuits(options: Namespace) -> int:
    """Print one shipped circuit as JSON, or the list of all with states, nodes, parts and fault modes."""
    if options.name:
        _print(shipped_document(options.name))
        return 0
    _print([_summary(shipped_circuit(name)) for name in circuit_names()])
    return 0


def call(options: Namespace) -> int:
    """Print what a call for heat shows on a virtual unit with faults put in: events, code, where it stands still."""
    _print(call_answer(options))
    return 0


def call_answer(options: Namespace) -> dict[str, Any]:
    """Return what a call for heat shows. Raises UnknownName, BadDocument."""
    circuit = _circuit(options.circuit)
    known = {fault.key: fault for fault in circuit.faults}
    for name in options.fault:
        if name not in known:
            raise UnknownName("fault_unknown", phrase("no_fault_called", name=name, known=", ".join(known)), value=name)
    unit = VirtualUnit(circuit, [known[name] for name in options.fault], seed=options.seed)
    run = unit.call()
    solved = unit.wiring.solve(run.stop.holds)
    volts = {node: round(abs(solved.between(node, circuit.common)), 2) for node in circuit.nodes}
    stands = {
        "control": run.stop.control,
        "conditions": sorted(run.stop.holds),
        "quantities": dict(run.stop.values),
        "volts_to_common": volts,
    }
    return {
        "circuit": circuit.key,
        "seed": options.seed,
        "events_s": dict(run.events),
        "code": run.code,
        "failures": run.failures,
        "stands_still": stands,
    }


def next_test(options: Namespace) -> int:
    """Print suspects and the next test of a visit bundle as JSON. Status 1 when the unit's circuit is not known."""
    bundle = read_bundle(json.loads(Path(options.file).read_text(encoding="utf-8")))
    _print(next_answer(bundle))
    return 0 if bundle.unit.circuit is not None else 1


def next_answer(bundle: Bundle) -> dict[str, Any]:
    """Return suspects and the next test of a visit."""
    found = outlook_of(bundle.unit, bundle.rules, bundle.visit.entries, bundle.background)
    if found is None or bundle.unit.circuit is None:
        return {"suspects": [], "next": None, "note": words(phrase("no_circuit_for_this_kind"))}
    return _outlook(found, bundle.unit.circuit)


def _circuit(name: Any) -> Circuit:
    if isinstance(name, dict):
        return circuit_from_dict(name)
    if name in circuit_names():
        return shipped_circuit(name)
    return circuit_from_dict(json.loads(Path(name).read_text(encoding="utf-8")))


def _summary(circuit: Circuit) -> dict[str, Any]:
    return {
        "key": circuit.key,
        "name": circuit.name,
        "ground": circuit.ground,
        "common": circuit.common,
        "states": {state.key: state.name for state in circuit.states},
        "nodes": dict(circuit.nodes),
        "parts": {part.key: part.name for part in circuit.parts},
        "faults": {fault.key: fault.name for fault in circuit.faults},
    }


def _outlook(found: Outlook, circuit: Circuit) -> dict[str, Any]:
    tests = pictures_of(circuit).tests
    data = _plain(found)
    data["circuit"] = circuit.key
    data["next"] = data.pop("next_test")
    data["expected"] = {key: words(in_words(tests[key], outcome)) for key, outcome in found.expected.items()}
    return dict(data)


def _plain(value: Any) -> Any:
    """Return ``value`` as JSON-ready data, what is to be said in words."""
    if isinstance(value, Phrase):
        return words(value)
    if is_dataclass(value):
        return {field.name: _plain(getattr(value, field.name)) for field in fields(value)}
    if isinstance(value, frozenset):
        return sorted(value)
    if isinstance(value, list | tuple):
        return [_plain(item) for item in value]
    return {key: _plain(item) for key, item in value.items()} if isinstance(value, Mapping) else value


def _print(data: Any) -> None:
    print(json.dumps(data, ensure_ascii=False, indent=1))
