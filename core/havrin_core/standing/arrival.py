"""Before anything is touched: one minute of triage, looks along the paths, and whether the code came first."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.unit import Unit
from havrin_core.tape.entries import Code, Entry
from havrin_core.vocabulary.findings import FINDINGS, Finding

GAS_SMELL = (
    "Touch no switch, no thermostat, no phone. Get everybody out.",
    "Shut the gas outside, if that is safe.",
    "Call from outside. This visit stops here.",
)
_TRAP = ("trap_dry", "trap_filled")
_RESETS = ("manual_reset",)


@dataclass(frozen=True, slots=True)
class Triage:
    """One question of the first minute, with the lines that answer it; ``begin`` where a number is wanted."""

    key: str
    question: str
    good: str = ""
    bad: str = ""
    begin: str = ""
    answered: str = ""


@dataclass(frozen=True, slots=True)
class Stop:
    """One station of the walk, with the findings that matter there."""

    station: str
    name: str
    findings: tuple[Finding, ...]


@dataclass(frozen=True, slots=True)
class Walk:
    """One path of the walk."""

    path: str
    name: str
    stops: tuple[Stop, ...]


def triage(unit: Unit, entries: tuple[Entry, ...]) -> list[Triage]:
    """Return the questions of the first minute for this kind of unit, with what was answered already."""
    facts = Facts(entries)
    stations = {station.key for station in unit.stations()}
    rows = [
        Triage("power", "Power: service switch, breaker, door switch", "look line ok", "look line bad"),
        Triage("call", "A call for heat: mode and set point", "try thermostat ok", "try thermostat bad"),
        Triage("gas", "Gas on: cocks, meter or tank", "look gas supply ok", "look gas supply bad"),
    ]
    if "water_pressure" in stations:
        rows.append(Triage("water", "Water pressure on the gauge", begin="wp "))
    if "vent" in stations:
        rows.append(Triage("vent", "Vent and intake open", "vent ok", "vent blocked"))
    return [_answered(row, facts) for row in rows if row.begin or row.key == "vent" or _known(unit, row)]


def _known(unit: Unit, row: Triage) -> bool:
    part = row.good.removeprefix("look ").removeprefix("try ").removesuffix(" ok").replace(" ", "_")
    return unit.circuit is not None and any(p.key == part for p in unit.circuit.parts)


def _answered(row: Triage, facts: Facts) -> Triage:
    part = {"power": "line", "call": "thermostat", "gas": "gas_supply"}.get(row.key)
    tried = [b for kind in ("look", "jump") for _, b in facts.checks(kind) if b.device == part]
    looks = [look.finding for _, look in facts.looks() if look.finding in ("vent_whole", "vent_blocked")]
    answer = ""
    if tried:
        answer = tried[-1].outcome
    elif row.key == "vent" and looks:
        answer = "ok" if looks[-1] == "vent_whole" else "bad"
    elif row.key == "water" and facts.newest("water_pressure_pa", None):
        answer = "read"
    return Triage(row.key, row.question, row.good, row.bad, row.begin, answer)


def walk(unit: Unit) -> list[Walk]:
    """Return the unit's paths with the findings that matter at each station."""
    walks = []
    for path in unit.paths:
        stops = tuple(
            Stop(station.key, station.name, here) for station in path.stations if (here := _findings(unit, station.key))
        )
        if stops:
            walks.append(Walk(path.key, path.name, stops))
    return walks


def _findings(unit: Unit, station: str) -> tuple[Finding, ...]:
    here = (f for f in FINDINGS if f.station == station)
    return tuple(f for f in here if unit.kind.condensing or f.key not in _TRAP)


def code_before_reset(entries: tuple[Entry, ...]) -> str:
    """Return what to say about code and reset: a reset that came first has wiped what the control knew."""
    facts = Facts(entries)
    codes = [e.at for e in facts.entries if isinstance(e.body, Code)]
    resets = [e.at for e, deed in facts.deeds() if deed.action in _RESETS]
    if resets and not any(code <= resets[0] for code in codes):
        return "It was reset before a code was written: what the control knew may be gone. Say so in the cause."
    return (
        ""
        if codes
        else "Read the code before the power goes off: many controls forget it. Opening the door may cut the power."
    )
