"""Before anything is touched: one minute of triage, and whether the code came first."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.unit import Unit
from havrin_core.phrases import Saying, phrase
from havrin_core.tape.entries import Code, Entry
from havrin_core.vocabulary.catalogue import GOOD, verdict_of


@dataclass(frozen=True, slots=True)
class Triage:
    """One question of the first minute, with the lines that answer it; ``begin`` where a number is wanted."""

    key: str
    question: Saying
    good: str = ""
    bad: str = ""
    begin: str = ""
    answered: str = ""


def triage(unit: Unit, entries: tuple[Entry, ...]) -> list[Triage]:
    """Return the questions of the first minute for this kind of unit, with what was answered already."""
    facts = Facts(entries)
    stations = {station.key for station in unit.stations()}
    rows = [
        Triage("power", phrase("power_service_switch_breaker_door"), "look line ok", "look line bad"),
        Triage("call", phrase("call_heat_mode_set_point"), "try thermostat ok", "try thermostat bad"),
        Triage("gas", phrase("gas_cocks_meter_tank"), "look gas supply ok", "look gas supply bad"),
    ]
    if "water_pressure" in stations:
        rows.append(Triage("water", phrase("water_pressure_gauge"), begin="wp "))
    if "vent" in stations:
        rows.append(Triage("vent", phrase("vent_intake_open"), "vent ok", "vent blocked"))
    return [_answered(row, facts) for row in rows if row.begin or row.key == "vent" or _known(unit, row)]


def _known(unit: Unit, row: Triage) -> bool:
    part = row.good.removeprefix("look ").removeprefix("try ").removesuffix(" ok").replace(" ", "_")
    return unit.circuit is not None and any(p.key == part for p in unit.circuit.parts)


def _answered(row: Triage, facts: Facts) -> Triage:
    part = {"power": "line", "call": "thermostat", "gas": "gas_supply"}.get(row.key)
    tried = [proof for _, proof in facts.tried("look", "jump") if proof.device == part]
    looks = [look for _, look in facts.conditions() if look.part == "vent" and not look.absent]
    answer = ""
    if tried:
        answer = tried[-1].outcome
    elif row.key == "vent" and looks:
        answer = "ok" if verdict_of("vent", looks[-1].condition) == GOOD else "bad"
    elif row.key == "water" and facts.newest("water_pressure_pa", None):
        answer = "read"
    return Triage(row.key, row.question, row.good, row.bad, row.begin, answer)


def code_before_reset(entries: tuple[Entry, ...]) -> str:
    """Return the code of what to say about code and reset: a reset that came first has wiped what the control knew; "" for nothing."""
    facts = Facts(entries)
    codes = [line.moment.at for line, _ in facts.of(Code)]
    resets = [line.moment.at for line, _ in facts.actions("reset", "power_cycle")]
    if resets and not any(code <= resets[0] for code in codes):
        return "reset_first"
    return "" if codes else "read_code_first"
