"""What each stand-in measures: lag, noise and drift of its own on top of the bench."""

import math
import random
from collections.abc import Callable, Mapping

from instruments.bench import VirtualBench

Channels = Mapping[str, float]
Device = Callable[[VirtualBench, float, float, random.Random], Channels]
_AIR_O2, _WARM_UP_S, _LAG_S = 20.9, 30.0, 9.0


def _approach(burning_s: float, cold: float, hot: float, lag_s: float) -> float:
    """Return a cell that moves from ``cold`` to ``hot`` with a lag once it burns."""
    return cold if burning_s < 0 else hot + (cold - hot) * math.exp(-burning_s / lag_s)


def manometer(bench: VirtualBench, second: float, awake_s: float, chance: random.Random) -> Channels:
    """Return two ports: suction at the switch, and manifold; 2 Pa of noise, 0.5 Pa of drift an hour."""
    drift = 0.5 * awake_s / 3600
    draft = bench.quantity("draft_at_switch_pa", second) + drift + chance.gauss(0, 1.2)
    return {
        "draft_pa": draft,
        "manifold_pa": max(bench.quantity("manifold_pa", second) + drift + chance.gauss(0, 2.0), 0.0),
    }


def analyzer(bench: VirtualBench, second: float, awake_s: float, chance: random.Random) -> Channels:
    """Return O2, CO and temperature of the flue; nothing while it warms up and zeroes itself in clean air."""
    if awake_s < _WARM_UP_S:
        return {}
    burning = bench.burns(second)
    blown = 0.2 if burning > 40 else 0.0
    oxygen = _approach(burning, _AIR_O2, 6.4, _LAG_S) + blown + chance.gauss(0, 0.03)
    carbon = _approach(burning, 0.0, 42.0, _LAG_S) + (160.0 * math.exp(-burning / 4) if burning >= 0 else 0.0)
    temp = _approach(burning, 294.0, 321.0, 35.0)
    return {
        "o2_dry_pct": min(max(oxygen, 0.0), 20.94), "co_ppm_dry": max(carbon + chance.gauss(0, 1.0), 0.0),
        "flue_temp_k": temp + chance.gauss(0, 0.2),
    }  # fmt: skip


def clamp_meter(bench: VirtualBench, second: float, awake_s: float, chance: random.Random) -> Channels:
    """Return volts before and behind the draft switch, and flame current."""
    flame = 2.9e-6 if bench.burns(second) > 2 else 0.0
    before, behind = (("3", "C"), ("4", "C"))
    return {
        f"volts_across_v@{before[0]}-{before[1]}": max(bench.volts(*before, second) + chance.gauss(0, 0.04), 0.0),
        f"volts_across_v@{behind[0]}-{behind[1]}": max(bench.volts(*behind, second) + chance.gauss(0, 0.04), 0.0),
        "flame_current_a": max(flame + chance.gauss(0, 4e-8), 0.0),
    }


def co_monitor(bench: VirtualBench, second: float, awake_s: float, chance: random.Random) -> Channels:
    """Return CO of the room."""
    return {"room_co_ppm": max(round(chance.gauss(0.4, 0.4)), 0.0)}


DEVICES: Mapping[str, tuple[Device, float]] = {  # with samples per second
    "manometer": (manometer, 10.0), "analyzer": (analyzer, 1.0), "multimeter": (clamp_meter, 10.0), "monitor": (co_monitor, 0.5),
}  # fmt: skip
