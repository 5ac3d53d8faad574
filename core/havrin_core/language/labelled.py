"""Labelled lines: what a good reader makes of a line as it is typed, and the unit on which it is said."""

import json
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from havrin_core.batch.run import answer
from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase

_STAGES = {
    "one": [{"key": "only", "input_w": 20515, "manifold_pa": 871.8, "switch_makes_pa": 149.5}],
    "two": [
        {"key": "low", "input_w": 15240, "manifold_pa": 373.6, "switch_makes_pa": 99.6},
        {"key": "high", "input_w": 23446, "manifold_pa": 797.1, "switch_makes_pa": 174.4},
    ],
}
FULL_PLATE: Mapping[str, Any] = {
    "fuel": "NG_H",
    "supply_min_pa": 1120.9,
    "supply_max_pa": 2615.4,
    "rise_min_k": 19.44,
    "rise_max_k": 36.11,
    "supply_air_max_k": 347.0,
    "static_max_pa": 124.5,
    "blower_full_load_a": 7.8,
    "flame_min_a": 8e-7,
    "exchanger_cells": 4,
    "water_relief_pa": 206843,
    "water_max_k": 363.15,
    "water_rise_min_k": 8.3,
    "water_rise_max_k": 22.2,
}


@dataclass(frozen=True, slots=True)
class Labelled:
    """A line with its label; ``unit`` is a document of a full plate for natural gas at 200 m, ``expect`` as the label says."""

    key: str
    line: str
    group: str
    unit: Mapping[str, Any]
    phase: str
    system: str
    expect: Mapping[str, Any]

    @property
    def request(self) -> dict[str, Any]:
        """The line as a request of the machine interface."""
        return {
            "op": "read",
            "unit": self.unit,
            "line": self.line,
            "phase": self.phase,
            "system": self.system,
            "open": [],
        }


def answer_to(line: Labelled) -> dict[str, Any]:
    """Return what is answered to a labelled line."""
    found: dict[str, Any] = answer(json.dumps(line.request))
    return found


def labelled(lines: Iterable[str]) -> Iterator[Labelled]:
    """Yield the labelled lines of JSON lines. Raises BadDocument naming the line that is not valid."""
    for number, text in enumerate(lines, 1):
        if not text.strip():
            continue
        try:
            row = json.loads(text)
            unit = {
                "kind": row["kind"],
                "altitude_m": 200,
                "plate": {**FULL_PLATE, "stages": _STAGES[row.get("stages", "one")]},
            }
            yield Labelled(
                str(row.get("id", number)),
                str(row["line"]),
                str(row.get("group", "")),
                unit,
                str(row.get("phase", "found")),
                str(row.get("system", "us")),
                row["expect"],
            )
        except (ValueError, KeyError, TypeError) as error:
            raise BadDocument("labelled_line", phrase("no_labelled_line", line=number), value=str(number)) from error
