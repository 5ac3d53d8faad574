"""Make the two sample logs from the combustion core plus noise, warm-up and lag: python -m demo.make_logs."""

import math
import random
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.fuels import Fuel, shipped_fuel

FOLDER = Path(__file__).parent / "logs"


@dataclass(frozen=True, slots=True)
class Run:
    """A light-off and steady run as an analyzer sees it."""

    fuel: Fuel
    o2_pct: float
    co_ppm: float
    flue_c: float
    air_c: float
    light_off_s: float
    length_s: int
    seed: int


@dataclass(frozen=True, slots=True)
class Sample:
    """What the analyzer shows at one second."""

    second: int
    o2_pct: float
    co_ppm: float
    co2_pct: float
    flue_c: float
    air_c: float


def samples(run: Run) -> Iterator[Sample]:
    """Yield one sample a second: cells lag by 12 s, the flue warms with 70 s, CO peaks at light-off."""
    noise = random.Random(run.seed)
    o2, co, flue = 20.9, 0.0, run.air_c
    for second in range(run.length_s):
        burning = second >= run.light_off_s
        since = second - run.light_off_s
        peak = 260 * math.exp(-since / 25) if burning else 0.0
        o2 += ((run.o2_pct if burning else 20.9) - o2) / 12
        co += ((run.co_ppm + peak if burning else 0.0) - co) / 12
        flue += ((run.flue_c if burning else run.air_c) - flue) / 70
        shown_o2 = o2 + noise.gauss(0, 0.03)
        co2 = balance(run.fuel, min(max(o2, 0.0), 20.9), max(co, 0.0)).co2_dry_pct + noise.gauss(0, 0.03)
        yield Sample(
            second,
            shown_o2,
            max(co + noise.gauss(0, 0.8), 0.0),
            max(co2, 0.0),
            flue + noise.gauss(0, 0.1),
            run.air_c + noise.gauss(0, 0.1),
        )


def comma_log(run: Run, begun: datetime) -> str:
    """Return a log with semicolons, decimal commas, a preamble, and units in a row of their own."""
    lines = [
        "Combustion log;FA-204",
        f"Date;{begun:%d.%m.%Y}",
        "",
        "Time;O2;CO;CO2;T flue;T air",
        "hh:mm:ss;%;ppm;%;°C;°C",
    ]
    for s in samples(run):
        clock = begun + timedelta(seconds=s.second)
        row = f"{clock:%H:%M:%S};{s.o2_pct:.1f};{s.co_ppm:.0f};{s.co2_pct:.1f};{s.flue_c:.1f};{s.air_c:.1f}"
        lines.append(row.replace(".", ","))
    return "\r\n".join(lines) + "\r\n"


def point_log(run: Run) -> str:
    """Return a log with commas, decimal points, elapsed seconds, and units in the names; no CO2 cell."""
    lines = ["elapsed_s,Oxygen (%),CO [ppm],Stack [°F],Ambient [°F]"]
    for s in samples(run):
        lines.append(f"{s.second},{s.o2_pct:.2f},{s.co_ppm:.0f},{s.flue_c * 1.8 + 32:.1f},{s.air_c * 1.8 + 32:.1f}")
    return "\n".join(lines) + "\n"


HIGH_FIRE = Run(shipped_fuel("NG_H"), 6.5, 46, 48, 21, 66, 540, 11)
LP_RUN = Run(shipped_fuel("LPG_C3_COMM"), 6.1, 27, 45, 19, 48, 480, 12)
# A made-up evening; only the clock column of the log comes from it.
_BEGUN = datetime(2026, 1, 14, 10, 29, 8)  # noqa: DTZ001  an analyzer's clock has no zone


def write_logs() -> None:
    """Write both logs into demo/logs/."""
    FOLDER.mkdir(exist_ok=True)
    (FOLDER / "F-2-high-fire.csv").write_text(comma_log(HIGH_FIRE, _BEGUN), encoding="utf-8", newline="")
    (FOLDER / "F-3-lp.csv").write_text(point_log(LP_RUN), encoding="utf-8", newline="")


if __name__ == "__main__":
    write_logs()
