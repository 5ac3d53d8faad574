"""Core speed: combustion points a second, assess per tape."""

import time
import tracemalloc
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from io import StringIO
from statistics import median

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage
from havrin_core.machine.virtual.live_unit import LiveUnit
from havrin_core.physics.bulk import compute_file
from havrin_core.physics.calculations import calculation
from havrin_core.physics.combustion.sample import FlueSample, analyse
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.shorthand.model import situation_of
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.assess import assess
from havrin_core.tape.entries import Entry
from havrin_core.tape.visit import VisitTape

_TICKS = 300
ROWS = 100_000
LINES = ("room 0", "supply 7.1", "mp 3.5", "draft .88", "ua 2.9", "o2 7.4 co 22 t 342 air 66", "rise 49", "vent ok")

COMBUSTION = calculation("combustion")
UNIT = build_unit("F-1", "furnace_80", Plate("NG_H", (Stage("only", 20515, 871.8, 149.5),), flame_min_a=8e-7), 1540)
SITUATION = situation_of(UNIT, meter_gauge_pa=lambda: 1743.6)


def report() -> None:
    """Print the core's figures."""
    print("core")
    seconds, megabytes = _calc()
    print(f"  calc combustion, {ROWS} rows: {seconds:.1f} s, {ROWS / seconds:,.0f} rows/s, {megabytes:.0f} MB at most")
    fuel, samples = shipped_fuel("NG_H"), (FlueSample(4 + n / 50, 46, 321.0) for n in range(1000))
    print(f"  one flue sample with uncertainty: {_median_ms(lambda: analyse(fuel, next(samples))):.2f} ms")
    print(f"  virtual units at 10 Hz on one core: {_units_in_real_time():.0f} in real time")
    unit = UNIT
    visit = VisitTape("maintenance", _tape(300))
    print(
        f"  assess, tape of {len(visit.entries)} entries: {_median_ms(lambda: assess(unit, HouseRules(), visit)):.2f} ms"
    )


def _calc() -> tuple[float, float]:
    rows = [f"r{i},NG_H,{2 + i % 120 / 10},{i % 400},{40 + i % 250},20,40,84.1" for i in range(ROWS)]
    text = ",".join(("row_id", *COMBUSTION.needed)) + "\n" + "\n".join(rows) + "\n"
    begun = time.perf_counter()
    compute_file(COMBUSTION, StringIO(text), StringIO())
    seconds = time.perf_counter() - begun
    tracemalloc.start()
    compute_file(COMBUSTION, StringIO(text[: len(text) // 20]), StringIO())
    peak = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    return seconds, peak / 1e6


def _tape(count: int) -> tuple[Entry, ...]:
    entries: list[Entry] = []
    moment = datetime(2026, 1, 14, 9, 0, tzinfo=UTC)
    while len(entries) < count:
        line = read_line(LINES[len(entries) % len(LINES)], SITUATION)
        moment += timedelta(seconds=20)
        entries += [
            Entry(f"{len(entries)}-{i}", moment, "T", "found", b, str(moment)) for i, b in enumerate(line.bodies)
        ]
    return tuple(entries[:count])


def _median_ms(work: Callable[[], object], times: int = 40) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        spent.append(time.perf_counter() - begun)
    return 1000 * median(spent)


def _units_in_real_time() -> float:
    """Return how many virtual units one core keeps up with at 10 Hz, wind and neighbours included."""
    units = [LiveUnit(shipped_circuit(name), gusts=True, neighbours=True) for name in circuit_names()]
    begun = time.perf_counter()
    for tick in range(_TICKS):
        for unit in units:
            unit.at(100 + tick / 10)
    return len(units) * (_TICKS / 10) / (time.perf_counter() - begun)
