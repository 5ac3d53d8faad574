"""Which virtual unit stands behind which label: what an instrument is held on follows the visit that records it."""

import json
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.machine.virtual.live_unit import LiveUnit

ANY = "*"  # a unit that the file does not know


class UnitsByLabel:
    """The units of a file, made when first measured; every instrument with the same file sees the same ones."""

    def __init__(self, file: Path) -> None:
        self._rows: Mapping[str, Mapping[str, Any]] = json.loads(file.read_text(encoding="utf-8"))
        self._made: dict[str, LiveUnit] = {}

    def unit(self, label: str) -> LiveUnit:
        """Return the unit of ``label``, or the file's "*" for one that it does not know."""
        known = label if label in self._rows else ANY
        if known not in self._made:
            row = dict(self._rows[known])
            circuit = shipped_circuit(row.pop("circuit"))
            faults = [circuit.fault(key) for key in row.pop("faults", ())]
            self._made[known] = LiveUnit(circuit, faults, **row)
        return self._made[known]
