"""Reference rows, and small builders for units and tapes."""

import csv
import uuid
from datetime import UTC, datetime, timedelta
from pathlib import Path

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage, Unit
from havrin_core.shorthand.model import Situation, situation_of
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.assess import assess
from havrin_core.standing.model import Assessment
from havrin_core.tape.entries import Entry
from havrin_core.tape.visit import VisitTape

REFERENCE = Path(__file__).parent.parent / "reference"
BEGUN = datetime(2026, 1, 14, 9, 0, tzinfo=UTC)


def reference(name: str) -> list[dict[str, str]]:
    with (REFERENCE / f"{name}.csv").open(encoding="utf-8") as file:
        return list(csv.DictReader(file))


def furnace(*, stages: int = 1, condensing: bool = False, fuel: str = "NG_H") -> Unit:
    rows = (
        (Stage("only", 20515, 871.8, 149.5),)
        if stages == 1
        else (Stage("low", 15240, 373.6, 99.6), Stage("high", 23446, 797.1, 174.4))
    )
    plate = Plate(fuel, rows, 1120.9, 2615.4, 19.44, 36.11, 347.0, 124.5, 7.8, 8e-7, 4)
    return build_unit("F-9 · Test bench", "furnace_condensing" if condensing else "furnace_80", plate, 1540)


SOUND = (
    "room 0",
    "supply 7.1",
    "mp 3.5",
    "draft .88",
    "ua 2.9",
    "o2 7.4 co 22 t 342 air 66",
    "rise 49",
    "vent ok",
    "exchanger ok 4/4",
    "cycles 1",
)


def situation(unit: Unit | None = None, phase: str = "found", **more: object) -> Situation:
    return situation_of(
        unit or furnace(), phase=phase, **{"meter_gauge_pa": lambda: 1743.6, "today": BEGUN.date(), **more}
    )


def tape(*lines: str, unit: Unit | None = None, start: datetime = BEGUN) -> tuple[Entry, ...]:
    """Write shorthand lines a minute apart; "left: mp 3.5" gives the phase."""
    entries: list[Entry] = []
    for index, line in enumerate(lines):
        phase, text = line.split(": ", 1) if line.split(": ")[0] in ("found", "left", "trial") else ("found", line)
        read = read_line(text, situation(unit, phase))
        assert read.writable, (text, read.problems, read.unread, read.asks)
        at = start + timedelta(minutes=index)
        entries += [
            Entry(str(uuid.uuid5(uuid.NAMESPACE_OID, f"{start}{index}/{i}")), at, "T", read.phase, body, str(index))
            for i, body in enumerate(read.bodies)
        ]
    return tuple(entries)


def judge(
    *lines: str,
    unit: Unit | None = None,
    rules: HouseRules | None = None,
    reason: str = "maintenance",
    leave: str | None = None,
) -> Assessment:
    chosen = unit or furnace()
    return assess(chosen, rules or HouseRules(), VisitTape(reason, tape(*lines, unit=chosen)), leave)


def codes(found: Assessment) -> set[str]:
    return {reason.code for reason in found.reasons}
