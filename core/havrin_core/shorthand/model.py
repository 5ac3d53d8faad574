"""What reading a line gives."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from havrin_core.machine.circuit.model import Circuit
from havrin_core.physics.fuels import Fuel
from havrin_core.tape.entries import Body


@dataclass(frozen=True, slots=True)
class GasLine:
    """What a clocked meter needs to know: the line's fuel, barometer and pressure at the meter, Pa."""

    fuel: Fuel
    baro_pa: float
    meter_gauge_pa: float


@dataclass(frozen=True, slots=True)
class Situation:
    """What the page knows when the line is typed: the defaults for what is left unsaid."""

    stages: tuple[str, ...]
    stage: str
    phase: str = "found"
    system: str = "us"
    nodes: tuple[tuple[str, str, str], ...] = ()  # station of the string, with the circuit's nodes at its two sides
    circuit: Circuit | None = None
    codes: Mapping[str, str] = field(default_factory=dict)  # the unit's chart: pattern -> meaning
    gas: GasLine | None = None
    air_temps_k: tuple[float, float] | None = None  # return, supply as last read, for a bare "rise"


@dataclass(frozen=True, slots=True)
class Problem:
    """A piece of the line that was not understood or cannot be, with nearest meanings."""

    piece: str
    text: str
    meanings: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Line:
    """The reading-back: entries to write, how each reads, doubts, and what is in the way."""

    bodies: tuple[Body, ...]
    echo: tuple[str, ...]
    problems: tuple[Problem, ...]
    doubts: tuple[str, ...]
    phase: str
    stage: str
    station: str

    @property
    def writable(self) -> bool:
        """True when the whole line was understood and can be written."""
        return bool(self.bodies) and not self.problems
