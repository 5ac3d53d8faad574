"""The operations that answer as the commands of the same names print."""

from argparse import Namespace
from collections.abc import Mapping
from typing import Any

from havrin_core.commands_circuit import call_answer, next_answer, solve_answer
from havrin_core.output import assessment_to_dict
from havrin_core.standing.assess import assess
from havrin_core.tape.bundle import read_bundle


def assess_op(request: Mapping[str, Any]) -> dict[str, Any]:
    """Answer an ``assess``."""
    bundle = read_bundle(request["bundle"])
    return assessment_to_dict(assess(bundle.unit, bundle.rules, bundle.visit), bundle.unit, bundle.system)


def next_op(request: Mapping[str, Any]) -> Any:
    """Answer a ``next``."""
    return next_answer(read_bundle(request["bundle"]))


def solve_op(request: Mapping[str, Any]) -> Any:
    """Answer a ``solve``."""
    leads = request.get("leads")
    options = Namespace(
        circuit=request["circuit"],
        state=request["state"],
        fault=list(request.get("faults", ())),
        leads=",".join(leads) if leads else None,
        part=request.get("part", ""),
        mode=request.get("mode", "V"),
    )
    return solve_answer(options)


def call_op(request: Mapping[str, Any]) -> Any:
    """Answer a ``call``."""
    return call_answer(
        Namespace(circuit=request["circuit"], fault=list(request.get("faults", ())), seed=int(request.get("seed", 0)))
    )
