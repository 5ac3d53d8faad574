"""Proofs: what must be shown, when each counts as shown, and how to show it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime

from havrin_core.facts.facts import Facts
from havrin_core.facts.plate_values import is_staged
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.rules.model import Missing
from havrin_core.rules.suited import suited
from havrin_core.tape.entries import Decision
from havrin_core.vocabulary.abnormal import abnormal, device_name
from havrin_core.vocabulary.actions import deed, is_deed
from havrin_core.vocabulary.findings import unseen_share
from havrin_core.vocabulary.measurands import measurand

Shown = Callable[["Case", datetime | None], list[str]]


@dataclass(frozen=True, slots=True)
class Case:
    """All that a rule may look at."""

    unit: Unit
    rules: HouseRules
    reason: str
    facts: Facts
    accuracies: Mapping[str, Mapping[str, Accuracy]]


@dataclass(frozen=True, slots=True)
class Proof:
    """One thing to show. ``lacks`` returns what is still open, one text each."""

    key: str
    station: str
    how: str
    minutes: int
    lacks: Shown


def _each_stage(quantity: str, name: str, *others: str) -> Shown:
    def lacks(case: Case, after: datetime | None) -> list[str]:
        missing = []
        for stage in case.unit.stage_keys:
            if any(case.facts.newest(q, stage, after) is None for q in (quantity, *others)):
                label = STAGE_LABELS[stage]
                missing.append(f"{name}, {label} fire" if label else name)
        return missing

    return lacks


def _reading(quantity: str, name: str) -> Shown:
    def lacks(case: Case, after: datetime | None) -> list[str]:
        return [] if case.facts.newest(quantity, None, after) else [name]

    return lacks


def _seen(findings: tuple[str, ...], name: str) -> Shown:
    def lacks(case: Case, after: datetime | None) -> list[str]:
        seen = any(body.finding in findings and (after is None or e.at >= after) for e, body in case.facts.looks())
        return [] if seen else [name]

    return lacks


def cycles_since(case: Case, after: datetime | None) -> int:
    """Return the full cycles that were watched at or after ``after``; a failed one sets the count back to none."""
    count = 0
    for _, body in case.facts.checks("cycles", after):
        count = count + body.count if body.passed else 0
    return count


def _cycles(needed: Callable[[HouseRules], int]) -> Shown:
    def lacks(case: Case, after: datetime | None) -> list[str]:
        done, wanted = cycles_since(case, after), needed(case.rules)
        if done >= wanted:
            return []
        return ["a full cycle from its own thermostat" if wanted == 1 else f"{wanted - done} of {wanted} cycles"]

    return lacks


def _exchanger(case: Case, after: datetime | None) -> list[str]:
    looks = [(e, look) for e, look in case.facts.looks() if after is None or e.at >= after]
    if any(look.finding == "exchanger_breach" for _, look in looks):
        return []
    whole = [look for _, look in looks if look.finding == "exchanger_whole"]
    if not whole:
        return ["heat exchanger"]
    unseen = unseen_share(whole[-1].place, case.unit.plate.exchanger_cells)
    return [f"heat exchanger: {unseen[0]} of {unseen[1]} not seen"] if unseen else []


def _leak_check(case: Case, after: datetime | None) -> list[str]:
    checks = case.facts.checks("leak", after)
    return [] if checks and checks[-1][1].passed else ["leak check of every joint that was opened"]


def is_cause(body: Decision) -> bool:
    """Tell whether ``body`` names a cause: "not found" names none."""
    return not body.text.lower().startswith(("not found", "not known", "unknown", "none found"))


def cause_named(facts: Facts, after: datetime | None) -> bool:
    """Tell whether a cause was named at or after ``after``."""
    return any(is_cause(body) for _, body in facts.decisions("cause", after))


def _cause(case: Case, after: datetime | None) -> list[str]:
    """A cause is named, or said not to be found: that will do unless a safety trip was reset."""
    causes = case.facts.decisions("cause", after)
    reset = any(body.action == "manual_reset" for _, body in case.facts.deeds())
    named = cause_named(case.facts, after) if reset else bool(causes)
    return [] if named else ["the cause of the trip" if reset and causes else "the cause of the call"]


def _device_proved(case: Case, after: datetime | None) -> list[str]:
    checks = case.facts.checks("device", after)
    return [] if any(body.passed for _, body in checks) else ["that the device acts"]


def _low_water(case: Case, after: datetime | None) -> list[str]:
    proved = any(body.passed and body.device == "low_water" for _, body in case.facts.checks("device", after))
    return [] if proved else ["that the low-water cut-off acts"]


def _discharge_co(case: Case, after: datetime | None) -> list[str]:
    lacking = _reading("intake_co_ppm", "CO at the intake")(case, after)
    return lacking + _each_stage("discharge_co_ppm", "CO in the discharge")(case, after)


PROOFS: dict[str, Proof] = {
    p.key: p
    for p in (
        Proof("room_co", "room", "Room CO at the unit: “room 1”.", 1, _reading("room_co_ppm", "room CO")),
        Proof("vent_seen", "vent", "Look at the vent end to end: “vent ok”, or what you found.", 4,
              _seen(("vent_whole", "vent_blocked", "vent_disconnected", "spillage"), "vent and terminal")),
        Proof("spillage_tested", "vent", "Five minutes of main burner, doors and fans as at their worst: “spill 45”, the seconds until it stopped.", 6,
              _reading("spillage_s", "spillage test")),
        Proof("trap_seen", "vent", "Look at the condensate trap: “trap ok”.", 2, _seen(("trap_filled", "trap_dry"), "condensate trap")),
        Proof("exchanger_seen", "exchanger", "See the exchanger by mirror or borescope: “exchanger ok 5/5”, or what you found.", 12,
              _exchanger),
        Proof("supply_running", "supply_running", "Supply with everything on the line burning: “supply 6.6”.", 3, _reading("supply_running_pa", "supply, all running")),
        Proof("supply_standing", "supply_standing", "Supply with nothing burning: “lockup 7.4”.", 2, _reading("supply_standing_pa", "supply, no flow")),
        Proof("manifold_each_stage", "manifold", "Manifold pressure, cover on, settled: “mp 3.5”.", 4, _each_stage("manifold_pa", "manifold")),
        Proof("input_each_stage", "input", "Clock the meter: “input 64”.", 5, _each_stage("input_w", "input by meter")),
        Proof("draft_each_stage", "draft", "Tee into the switch hose: “draft .92”.", 3, _each_stage("draft_pa", "draft at the switch")),
        Proof("flame_each_stage", "burner", "µA in series, steady: “ua 2.4”.", 4, _each_stage("flame_current_a", "flame signal")),
        Proof("rise_each_stage", "rise", "Return and supply out of the burner's sight: “rise 55”.", 5, _each_stage("temperature_rise_k", "temperature rise")),
        Proof("flue_each_stage", "flue", "Steady flue sample: “o2 6.4 co 46 t 118”.", 6, _each_stage("o2_dry_pct", "flue", "co_ppm_dry")),
        Proof("water_pressure", "water_pressure", "Water pressure, cold and hot: “wp 16”.", 1, _reading("water_pressure_pa", "water pressure")),
        Proof("water_rise_each_stage", "water_rise", "Supply and return water, settled: “wrise 20”.", 5, _each_stage("water_rise_k", "water rise")),
        Proof("relief_seen", "relief", "Look at the relief valve and its pipe: “relief ok”.", 1, _seen(("relief_sound", "relief_weeps", "relief_plugged"), "relief valve")),
        Proof("low_water_proved", "low_water", "Open the low-water cut-off by its own test, see the burner drop out: “proved low water”.", 6, _low_water),
        Proof("discharge_co_each_stage", "discharge_co", "CO at the intake and in the discharge: “ico 1 dco 3”.", 4, _discharge_co),
        Proof("tightness", "supply_running", "Line closed, pressure watched: “tight 12 l 20 mbar 19.8 mbar 5 min”. Then purge and relight every appliance.", 15, _reading("gas_leak_m3_s", "that the line is tight")),
        Proof("leak_check", "supply_running", "Soap or detector at every joint opened: “leak ok”.", 3, _leak_check),
        Proof("cause_named", "room", "Write the cause: “cause …”.", 1, _cause),
        Proof("full_cycle", "call", "Watch a full cycle, doors on: “cycles 1”.", 8, _cycles(lambda rules: 1)),
        Proof("cycles_after_reset", "call", "Cycle it from its own thermostat: “cycles 5”.", 20, _cycles(lambda rules: rules.reset_cycles)),
        Proof("device_proved", "limit", "See the device open and the burner drop out: “proved limit”.", 5, _device_proved),
    )
}  # fmt: skip


def missing(case: Case) -> list[Missing]:
    """Return all that is still to show: what deeds demand first, then what the visit's reason demands."""
    found: dict[str, Missing] = {}
    demands: dict[str, tuple[datetime, str]] = {}
    for entry, body in case.facts.deeds():
        if is_deed(body.action):
            for name in (*deed(body.action).demands, *_by_house(case.rules, body.action)):
                demands[name] = (entry.at, deed(body.action).text)
    for entry, out in case.facts.made_good():
        for name in abnormal(out.how).demands:
            demands[name] = (entry.at, f"{abnormal(out.how).said_out}: {device_name(out.device)}")
    for name, (after, work) in demands.items():
        if fitting := suited(case.unit, name):
            _add(found, case, PROOFS[fitting], after, work)
    wanted = (*case.unit.kind.must_show["every"], *case.unit.kind.must_show.get(case.reason, ()))
    for name in wanted:
        _add(found, case, PROOFS[name], None, "")
        _add_plate_value(found, case, name)
    return list(found.values())


def _by_house(rules: HouseRules, action: str) -> tuple[str, ...]:
    """Return what the house demands after a deed, beyond what every school does."""
    return ("input_each_stage",) if action == "adjust_manifold" and rules.setting_the_fire == "meter_first" else ()


def _add(found: dict[str, Missing], case: Case, proof: Proof, after: datetime | None, work: str) -> None:
    for text in proof.lacks(case, _not_before_cause(proof, after)):
        key = f"{proof.key}:{text}"
        if key not in found:
            found[key] = Missing(proof.key, text, proof.station, proof.how, proof.minutes, work, after)


_JUDGED_BY_PLATE = {
    "manifold_each_stage": "manifold_pa",
    "draft_each_stage": "draft_pa",
    "flame_each_stage": "flame_current_a",
    "rise_each_stage": "temperature_rise_k",
    "water_rise_each_stage": "water_rise_k",
    "input_each_stage": "input_w",
}


def _add_plate_value(found: dict[str, Missing], case: Case, name: str) -> None:
    # A reading without a limit shows nothing: the plate's value is asked for as soon as it is needed.
    quantity = _JUDGED_BY_PLATE.get(name)
    for stage in case.unit.stage_keys if quantity else ():
        read = quantity and case.facts.newest(quantity, stage)
        if read and band_for(case.unit, case.rules, read.quantity, stage) is None:
            text = f"the plate's value for {measurand(read.quantity).name.lower()}"
            found[f"plate:{quantity}:{stage}"] = _plate_value(text, PROOFS[name].station, read.quantity, stage)


def _plate_value(text: str, station: str, quantity: str, stage: str) -> Missing:
    starter = f"plate {measurand(quantity).words[0]} "
    how = f"Read it off the data plate: “{starter}…”. The unit keeps it."
    return Missing(
        "plate_value",
        f"{text}, {STAGE_LABELS[stage]} fire" if STAGE_LABELS[stage] and is_staged(quantity) else text,
        station,
        how,
        2,
        starter=starter,
    )


def _not_before_cause(proof: Proof, after: datetime | None) -> datetime | None:
    # The cause of a trip is looked for before the reset: naming it earlier in the visit counts.
    return None if proof.key == "cause_named" else after
