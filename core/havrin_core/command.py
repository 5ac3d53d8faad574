"""``./havrin calc`` and ``./havrin assess``: the core from the command line, without the server."""

import csv
import json
import sys
from collections.abc import Callable
from dataclasses import asdict, is_dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from havrin_core.commands_circuit import call, circuits, next_test, solve
from havrin_core.errors import CoreError
from havrin_core.physics.bulk import compute_file
from havrin_core.physics.calculations import calculation, calculation_names
from havrin_core.standing.assess import assess
from havrin_core.standing.model import Assessment
from havrin_core.tape.bundle import read_bundle

__all__ = ["assess_file", "calc", "calculation_names", "call", "circuits", "main", "next_test", "solve"]


def main(run: Callable[[], int]) -> int:
    """Run one command of the core; a refusal is one clear line.

    Exit status: 0 all well, 1 some rows were refused (each says why), 2 the file could not be read.
    """
    try:
        return run()
    except (CoreError, OSError, UnicodeDecodeError, json.JSONDecodeError, csv.Error) as refusal:
        print(f"havrin: {refusal}", file=sys.stderr)
        return 2


def calc(what: str, source: str, target: str) -> int:
    """Compute every row of ``source`` into ``target``; status 1 when some were refused. Raises UnknownName."""
    chosen = calculation(what)
    with (
        open(source, newline="", encoding="utf-8-sig") as reader,
        open(target, "w", newline="", encoding="utf-8") as writer,
    ):
        rows, bad = compute_file(chosen, reader, writer)
    print(f"{rows} rows, {bad} with an error.", file=sys.stderr)
    return 1 if bad else 0


def assess_file(file: str) -> int:
    """Print the assessment of a visit bundle as JSON."""
    bundle = read_bundle(json.loads(Path(file).read_text(encoding="utf-8")))
    found = assess(bundle.unit, bundle.rules, bundle.visit, bundle.system)
    print(json.dumps(assessment_to_dict(found), ensure_ascii=False, indent=1))
    return 0


def assessment_to_dict(found: Assessment) -> dict[str, Any]:
    """Return ``found`` as JSON-ready data; flue results as their values and half-widths."""
    data: dict[str, Any] = _plain(found)
    data["flue"] = [
        {
            "stage": view.stage, "phase": view.phase, "doubts": list(view.doubts),
            "values": dict(view.result.values) if view.result else None,
            "half_widths": dict(view.result.half_widths) if view.result else None,
        }
        for view in found.flue
    ]  # fmt: skip
    return data


def _plain(value: Any) -> Any:
    if isinstance(value, datetime):
        return value.isoformat()
    if isinstance(value, Assessment):
        return {name: _plain(getattr(value, name)) for name in Assessment.__slots__ if name != "flue"}
    if is_dataclass(value) and not isinstance(value, type):
        return _plain(asdict(value))
    if isinstance(value, dict):
        return {key: _plain(item) for key, item in value.items()}
    return [_plain(item) for item in value] if isinstance(value, list | tuple) else value
