"""What reading a line gives."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import date

from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.traits import devices_of, parts_of
from havrin_core.machine.unit import Unit
from havrin_core.phrases import Phrase, Saying
from havrin_core.physics.fuels import Fuel
from havrin_core.shorthand.likely import likely_of
from havrin_core.tape.entries import Body


def _unknown() -> float | None:
    return None


@dataclass(frozen=True, slots=True)
class GasLine:
    """What a clocked meter needs to know: the line's fuel and barometer, and, asked when needed, what was entered of the line.

    That is the pressure at the meter, Pa gauge, and the supplier's gross heating value at 15 °C and 101.325 kPa, J/m3;
    None where nobody entered it. The supply at the appliance is not the pressure at the meter: a regulator may lie between.
    """

    fuel: Fuel
    baro_pa: float
    meter_gauge_pa: Callable[[], float | None] = _unknown
    gross_j_m3: Callable[[], float | None] = _unknown


def _nothing_open() -> tuple[tuple[str, str], ...]:
    return ()


def _no_air_temps() -> tuple[float, float] | None:
    return None


@dataclass(frozen=True, slots=True)
class Situation:
    """What is known when the line is typed: the unit's parts, and the defaults for what is left unsaid.

    ``open``, ``air_temps_k`` and the gas line's pressure are asked only by the few lines that need them, for they cost
    a judgement or a query.
    """

    stages: tuple[str, ...]
    stage: str
    phase: str = "found"
    system: str = "us"
    parts: frozenset[str] = frozenset()
    devices: tuple[str, ...] = ()
    nodes: tuple[tuple[str, str, str], ...] = ()  # station of the string, with the circuit's nodes at its two sides
    circuit: Circuit | None = None
    codes: Mapping[str, str] = field(default_factory=dict)  # the unit's chart: pattern -> meaning
    gas: GasLine | None = None
    air_temps_k: Callable[[], tuple[float, float] | None] = _no_air_temps  # return, supply as last read: a bare "rise"
    open: Callable[[], tuple[tuple[str, str], ...]] = _nothing_open  # what asks for a cause: (code, family of causes)
    today: date | None = None
    line_hz: float = 60.0
    stations: tuple[tuple[str, str, str | None], ...] = ()  # base, key and stage of each station
    likely: Mapping[str, tuple[float, float]] = field(default_factory=dict)  # quantity -> least, most (likely.py)

    def station_at(self, base: str, stage: str | None) -> str:
        """Return the key of the station ``base`` at ``stage``; ``base`` itself where the unit has none."""
        rows = [(key, of) for name, key, of in self.stations if name == base]
        own = [key for key, of in rows if of == stage]
        return own[0] if own else rows[0][0] if rows else base


def situation_of(
    unit: Unit,
    *,
    stage: str | None = None,
    phase: str = "found",
    system: str = "us",
    meter_gauge_pa: Callable[[], float | None] = _unknown,
    gross_j_m3: Callable[[], float | None] = _unknown,
    air_temps_k: Callable[[], tuple[float, float] | None] = _no_air_temps,
    open: Callable[[], tuple[tuple[str, str], ...]] = _nothing_open,
    today: date | None = None,
    line_hz: float = 60.0,
) -> Situation:
    """Return the situation in which a line is typed at ``unit``; ``stage`` None is the top one."""
    nodes = tuple((s.key, *s.between) for path in unit.paths for s in path.stations if s.between)
    return Situation(
        stages=unit.stage_keys,
        stage=stage if stage in unit.stage_keys else unit.stage_keys[-1],
        phase=phase,
        system=system,
        parts=parts_of(unit),
        devices=devices_of(unit),
        nodes=nodes,
        circuit=unit.circuit,
        codes=unit.codes,
        gas=GasLine(unit.fuel, unit.baro_pa, meter_gauge_pa, gross_j_m3),
        air_temps_k=air_temps_k,
        open=open,
        today=today,
        line_hz=line_hz,
        stations=tuple((s.base, s.key, s.stage) for s in unit.stations()),
        likely=likely_of(unit),
    )


@dataclass(frozen=True, slots=True)
class Problem:
    """A piece of the line that was not understood or cannot be, with lines that may have been meant and what they mean."""

    piece: str
    text: Phrase
    meanings: tuple[tuple[str, Saying], ...] = ()


@dataclass(frozen=True, slots=True)
class Ask:
    """A question back, with whole lines to choose from. ``holds``: nothing is written before it is answered."""

    question: Phrase
    choices: tuple[str, ...] = ()
    holds: bool = True


@dataclass(frozen=True, slots=True)
class Line:
    """The reading-back: entries to write, doubts, questions, words that nothing used, and what is in the way."""

    bodies: tuple[Body, ...]
    problems: tuple[Problem, ...]
    doubts: tuple[Phrase, ...]
    phase: str
    stage: str
    station: str
    asks: tuple[Ask, ...] = ()
    unread: tuple[str, ...] = ()
    phases: tuple[
        str, ...
    ] = ()  # of each entry where they differ ("co 220 found, co 18 left"); empty: all of ``phase``

    @property
    def phase_of_each(self) -> tuple[str, ...]:
        """The phase of each entry."""
        return self.phases or (self.phase,) * len(self.bodies)

    @property
    def writable(self) -> bool:
        """True when the whole line was understood and can be written."""
        return bool(self.bodies) and not self.problems and not self.unread and not any(ask.holds for ask in self.asks)

    @property
    def offers_note(self) -> bool:
        """True when the line can at least be kept as a note."""
        return not self.writable
