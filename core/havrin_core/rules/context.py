"""All that a rule may look at."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.traits import devices_of, parts_of
from havrin_core.machine.unit import Unit
from havrin_core.quantities.uncertainty import Accuracy


@dataclass(frozen=True)
class Context:
    """One visit of one unit, under one house's rules. ``owed`` are proofs that an earlier visit left open."""

    unit: Unit
    rules: HouseRules
    reason: str
    facts: Facts
    accuracies: Mapping[str, Mapping[str, Accuracy]]
    owed: tuple[str, ...] = ()

    @cached_property
    def parts(self) -> frozenset[str]:
        """The parts that the unit has."""
        return parts_of(self.unit)

    @cached_property
    def devices(self) -> tuple[str, ...]:
        """The safety devices of the unit."""
        return devices_of(self.unit)

    @cached_property
    def stations(self) -> frozenset[str]:
        """The keys of the unit's stations."""
        return frozenset(station.key for station in self.unit.stations())

    @property
    def has_exchanger(self) -> bool:
        """Whether flue gas and air or water are parted by a wall."""
        return "exchanger" in self.stations

    def station_for(self, wanted: str, otherwise: str = "") -> str:
        """Return ``wanted`` where the unit has such a station, else ``otherwise``."""
        return wanted if wanted in self.stations else otherwise

    def is_safety(self, device: str) -> bool:
        """Tell whether ``device`` is a safety device of this unit, or one that nobody may ever bridge."""
        return device in self.devices or device in NEVER_BRIDGED


# In no school, not even for a test.
NEVER_BRIDGED: Iterable[str] = frozenset(
    (
        "limit",
        "aux_limit",
        "high_limit",
        "rollout",
        "spill_switch",
        "low_water",
        "gas_pressure_switch_low",
        "gas_pressure_switch_high",
        "flame_rod",
        "flame_detector",
        "flame_amplifier",
        "pilot_safety",
        "relief",
        "vent_damper",
        "float_switch",
        "interlock",
    )
)
