"""What each stand-in measures of a virtual unit: lag, noise and drift of its own."""

import random
from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping
from math import exp

from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.virtual.live_unit import LiveUnit, Moment

Channels = Mapping[str, float]
_FRESH_O2 = 20.9
_WARM_UP_S = 30.0  # it warms its cells, then zeroes them in whatever air its pump draws
_CELL_LAG_S = {"o2_dry_pct": 7.0, "co_ppm_dry": 10.0, "flue_temp_k": 4.0}
_CELL_NOISE = {"o2_dry_pct": 0.03, "co_ppm_dry": 1.0, "flue_temp_k": 0.2}
_O2_DRIFT_PER_H = -0.05
_DILUTES_FROM_PPM, _DILUTED_STEP_PPM = 2000.0, 20.0
_ROOM_STEP_PPM, _ROOM_LAG_S = 1.0, 20.0


class Device(ABC):
    """One instrument. ``hertz`` samples a second; ``woke`` is the second at which it was switched on."""

    hertz = 10.0

    def __init__(self, chance: random.Random, woke: float) -> None:
        self.chance, self.woke = chance, woke
        self._cells: dict[str, float] = {}
        self._before = woke

    @abstractmethod
    def measure(self, unit: LiveUnit, second: float) -> Channels:
        """Return the channels at ``second`` of the unit's life, canonical units; none while it is not ready."""

    def noise(self, sigma: float) -> float:
        """Return noise of the device itself."""
        return self.chance.gauss(0, sigma)

    def lagged(self, name: str, seen: float, lag_s: float, passed_s: float) -> float:
        """Return what a cell shows that follows ``seen`` with a lag."""
        before = self._cells.get(name, seen)
        self._cells[name] = seen + (before - seen) * exp(-passed_s / lag_s)
        return self._cells[name]


class Manometer(Device):
    """Two ports: suction at the switch, and manifold. 2 Pa of noise, drift of 0.5 Pa an hour."""

    def measure(self, unit: LiveUnit, second: float) -> Channels:
        """Return both ports; a unit without one of them leaves that port open to the air."""
        values = unit.at(second).values
        drift = 0.5 * (second - self.woke) / 3600
        suction = next((values[name] for name in _SUCTION if name in values), 0.0)
        manifold = values.get("manifold_pa", 0.0)
        return {
            "draft_pa": suction + drift + self.noise(1.2),
            "manifold_pa": max(manifold + drift + self.noise(2.0), 0.0),
            "supply_running_pa": max(values.get("supply_running_pa", 0.0) + drift + self.noise(3.0), 0.0),
        }


class Analyzer(Device):
    """O2, CO and temperature of the flue, with a pump, cells that lag, and dilution at high CO."""

    hertz = 1.0

    def measure(self, unit: LiveUnit, second: float) -> Channels:
        """Return nothing while it warms up; what it drew in meanwhile became its zero."""
        moment = unit.at(second)
        seen = {
            "o2_dry_pct": moment.values["o2_dry_pct"],
            "co_ppm_dry": moment.values["co_ppm_dry"],
            "flue_temp_k": moment.values["flue_temp_k"],
        }
        passed, self._before = second - self._before, second
        shown = {name: self.lagged(name, value, _CELL_LAG_S[name], max(passed, 0.0)) for name, value in seen.items()}
        awake = second - self.woke
        if awake < _WARM_UP_S:
            self._zero = (shown["o2_dry_pct"] - _FRESH_O2, shown["co_ppm_dry"])
            return {}
        oxygen = (
            shown["o2_dry_pct"] - self._zero[0] + _O2_DRIFT_PER_H * awake / 3600 + self.noise(_CELL_NOISE["o2_dry_pct"])
        )
        carbon = shown["co_ppm_dry"] - self._zero[1] + self.noise(_CELL_NOISE["co_ppm_dry"])
        return {
            "o2_dry_pct": min(max(oxygen, 0.0), 20.94),
            "co_ppm_dry": max(_as_diluted(carbon), 0.0),
            "flue_temp_k": shown["flue_temp_k"] + self.noise(_CELL_NOISE["flue_temp_k"]),
        }

    _zero = (0.0, 0.0)


def _as_diluted(ppm: float) -> float:
    """Above its cell's range the pump adds clean air, and the number moves in coarse steps."""
    return ppm if ppm < _DILUTES_FROM_PPM else _DILUTED_STEP_PPM * round(ppm / _DILUTED_STEP_PPM)


class ClampMeter(Device):
    """Volts before and behind the first switch of the string, flame current, motor amps; the capacitor at rest."""

    def measure(self, unit: LiveUnit, second: float) -> Channels:
        """Return what the leads and the jaws are on."""
        circuit, moment = unit.circuit, unit.at(second)
        found = {}
        for node in _around_the_switch(circuit):
            volts = unit.volts(node, circuit.common, second) if node != circuit.common else 0.0
            found[f"volts_across_v@{node}-{circuit.common}"] = max(volts + self.noise(0.04), 0.0)
        keys = {part.key for part in circuit.parts}
        if "flame_input" in keys:
            found["flame_current_a"] = max(unit.amps("flame_input", second, direct=True) + self.noise(4e-8), 0.0)
        if "blower" in keys:
            found["blower_current_a"] = max(unit.amps("blower", second) + self.noise(0.02), 0.0)
        if "blower" in keys and not _anything_runs(moment):
            found["capacitor_f"] = 7.4e-6 + self.noise(2e-8)
        return found


class RoomMonitor(Device):
    """CO of the room, in whole ppm."""

    hertz = 0.5

    def measure(self, unit: LiveUnit, second: float) -> Channels:
        """Return the room's CO, which follows the spill slowly."""
        passed, self._before = second - self._before, second
        ppm = self.lagged("room", unit.at(second).values["room_co_ppm"], _ROOM_LAG_S, max(passed, 0.0))
        return {"room_co_ppm": max(_ROOM_STEP_PPM * round((ppm + self.noise(0.3)) / _ROOM_STEP_PPM), 0.0)}


_SUCTION = ("draft_at_high_switch_pa", "draft_at_switch_pa", "draft_pa", "profile_low_pa")


def _around_the_switch(circuit: Circuit) -> tuple[str, ...]:
    proving = [part for part in circuit.parts if part.kind == "switch" and part.family.endswith("pressure_switch")]
    return (proving or [circuit.part(circuit.string[0])])[0].nodes[:2]


def _anything_runs(moment: Moment) -> bool:
    return any(name.endswith("_runs") for name in moment.holds)


DEVICES: Mapping[str, Callable[[random.Random, float], Device]] = {
    "manometer": Manometer,
    "analyzer": Analyzer,
    "multimeter": ClampMeter,
    "monitor": RoomMonitor,
}
