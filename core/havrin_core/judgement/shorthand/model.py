"""What reading a line gives."""

from dataclasses import dataclass

from havrin_core.judgement.tape import Body


@dataclass(frozen=True, slots=True)
class Situation:
    """What the page knows when the line is typed: the defaults for what is left unsaid."""

    stages: tuple[str, ...]
    stage: str
    phase: str = "found"
    system: str = "us"
    nodes: tuple[tuple[str, str, str], ...] = ()  # station of the string, with the circuit's nodes at its two sides
    circuit: str = ""  # key of the unit's circuit
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
