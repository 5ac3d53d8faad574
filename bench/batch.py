"""Speed of `./havrin batch`: lines read and whole visits judged a second, on one core."""

import json
import random
import re
import time
from typing import Any

from havrin_core.batch.run import answer

LINES_A_VISIT = 40
VISITS = 300
# a visit's usual lines; the braces are filled with a value that differs from visit to visit
_LINES = (
    "room {0}",
    "supply {6.8}",
    "lockup {7.7}",
    "mp {3.4}",
    "draft {0.86}",
    "ua {2.6}",
    "o2 {7} co {22} t {342} air {66}",
    "rise {48}",
    "vent ok",
    "exchanger ok 4/4",
    "filter dirty",
    "did change filter",
    "did clean rod",
    "found jumper limit",
    "jumper out limit",
    "proved limit",
    "found rollout tripped",
    "cause dirty burners",
    "did clean burners",
    "did reset rollout",
    "rollout ok",
    "leak ok",
    "cycles {5}",
    "told owner",
)
_UNIT = {
    "kind": "furnace_80",
    "altitude_m": 200,
    "plate": {
        "fuel": "NG_H",
        "stages": [{"key": "only", "input_w": 20515, "manifold_pa": 871.8, "switch_makes_pa": 149.5}],
        "supply_min_pa": 1120.9,
        "supply_max_pa": 2615.4,
        "rise_min_k": 19.44,
        "rise_max_k": 36.11,
        "flame_min_a": 8e-7,
        "exchanger_cells": 4,
    },
}


def report() -> None:
    """Print how many lines and visits one core answers a second, request to answer, JSON included."""
    print("batch")
    draw = random.Random(11)
    visits = [_visit(draw) for _ in range(VISITS)]
    lines = [json.dumps({"op": "read", "unit": _UNIT, "line": row["text"]}) for v in visits for row in v["lines"]]
    print(f"  read: {_a_second(lines):,.0f}/s")
    print(f"  visit of {LINES_A_VISIT} lines: {_a_second([json.dumps(visit) for visit in visits]):,.0f}/s")


def _visit(draw: random.Random) -> dict[str, Any]:
    lines = [_filled(line, draw) for line in draw.choices(_LINES, k=LINES_A_VISIT)]
    return {
        "op": "visit",
        "unit": _UNIT,
        "reason": draw.choice(("maintenance", "no_heat", "recheck")),
        "search": False,
        "lines": [{"text": line} for line in lines],
    }


def _filled(line: str, draw: random.Random) -> str:
    return re.sub(r"\{([\d.]+)\}", lambda m: f"{float(m[1]) * draw.uniform(0.95, 1.08):.3g}", line)


def _a_second(requests: list[str]) -> float:
    answer(requests[0])
    begun = time.perf_counter()
    for request in requests:
        json.dumps(answer(request))
    return len(requests) / (time.perf_counter() - begun)
