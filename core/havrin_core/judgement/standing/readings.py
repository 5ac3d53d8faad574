"""Readings against their bands: the view of each, and the reasons they give."""

from havrin_core.judgement.limits import (
    CO_RISE_MOST_PPM,
    NO2_RISE_MOST_PPM,
    ROOM_CO_OUT_PPM,
    ROOM_CO_SOURCE_PPM,
    ROOM_CO_STOP_PPM,
    SOURCES,
    SPILLAGE_MOST_S,
    SPILLAGE_WARM_S,
    Band,
    band_for,
)
from havrin_core.judgement.standing.facts import ReadingFact
from havrin_core.judgement.standing.model import NOT_YET, SHUT_DOWN, TELL, ReadingView, Reason
from havrin_core.judgement.standing.proofs import Case
from havrin_core.machine.measurands import MEASURANDS, Measurand, measurand
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence

_LIFTS = {
    "manifold_pa": "Set it to the plate, wait until it settles, read it again, then prove it with meter and flue.",
    "supply_running_pa": "Find what takes the pressure (line size, regulator, tank, neighbours burning), then read it again.",
    "supply_standing_pa": "Watch the lock-up; a regulator that creeps is changed.",
    "gas_leak_m3_s": "Find it with leak fluid, joint by joint; cure it, then the whole test again.",
    "o2_step_pct": "Repeat it with door on and filter out; look into the exchanger before it runs on.",
    "draft_pa": "Hose, port, trap, vent and intake, wheel, then the inducer, in this order; then read it again.",
    "flame_current_a": "Clean the rod, check gap, porcelain, wire and GROUND; read it again.",
    "temperature_rise_k": "Filter, coil, dampers, blower and input decide it; read it again at each stage.",
    "input_w": "Check orifices and manifold pressure, then clock the meter again.",
}
_READ_AGAIN = "Find the cause, then read it again."
_SUCTION = ("draft_pa", "vent_draft_pa")
_JUDGED_APART = ("room_co_ppm", "spillage_s")


def judged_value(quantity: str, value: float) -> float:
    """Return the value that the band speaks of: suction counts by its size, whichever sign was typed."""
    return abs(value) if quantity in _SUCTION else value


def reading_views(case: Case) -> list[ReadingView]:
    """Return the current reading of every quantity and stage that has one."""
    running = case.facts.newest("supply_running_pa", None)
    views = []
    for what in MEASURANDS:
        for stage in case.unit.stage_keys if what.staged else (None,):
            fact = case.facts.newest(what.key, stage)
            if fact is not None and what.key not in ("volts_across_v", "event_s"):
                band = band_for(case.unit, case.rules, what.key, stage, running.value if running else None)
                views.append(_view(case, fact, band))
    return views


def _view(case: Case, fact: ReadingFact, band: Band | None) -> ReadingView:
    found = case.facts.as_found(fact.quantity, fact.stage)
    earlier = found.value if found is not None and found.entry_id != fact.entry_id else None
    verdict = band.verdict(judged_value(fact.quantity, fact.value)) if band else ""
    return ReadingView(
        fact.quantity, fact.stage, fact.value, verdict, band, fact.phase, fact.at, fact.entry_id, earlier,
        fact.computed_from,
    )  # fmt: skip


def reading_reasons(case: Case, views: list[ReadingView], system: str) -> list[Reason]:
    """Return a reason for every reading that is out of its band or near its edge."""
    reasons = [
        _reason(view, system)
        for view in views
        if view.verdict in ("near", "out") and view.quantity not in _JUDGED_APART
    ]
    return [
        *reasons,
        *_lock_outs(case, system),
        *_supply_air_co(case),
        *_discharged(case),
        *_spillage(case),
        *_room_co(case),
    ]


def _spillage(case: Case) -> list[Reason]:
    """Flue gas that spills for longer than the vent needs to warm up is a danger; shorter is told."""
    fact = case.facts.newest("spillage_s", None)
    if fact is None or fact.value <= SPILLAGE_WARM_S:
        return []
    long = fact.value > SPILLAGE_MOST_S
    limit = f"none after {SPILLAGE_MOST_S / 60:g} minutes, {SPILLAGE_WARM_S / 60:g} when the vent is warm"
    reading = f"{fact.value / 60:.1f} min"
    text = f"Flue gas spilt for {reading}: {limit}." + ("" if long else " Was the vent cold?")
    lifts = "Cure the cause (vent, draft, air supply, room under suction), repeat the test, write “spill …” again."
    level = SHUT_DOWN if long else TELL
    return [Reason(level, "spillage_time", text, lifts, "vent", reading, limit, SOURCES["default"], fact.entry_id)]


def _lock_outs(case: Case, system: str) -> list[Reason]:
    """Two sources whose lock-outs leave a gap: no heat between them, though nothing is broken."""
    gas, pump = (case.facts.newest(quantity, None) for quantity in ("gas_lockout_k", "heat_pump_lockout_k"))
    if not case.unit.kind.second_source or gas is None or pump is None or gas.value >= pump.value:
        return []
    low, high = (sentence(fact.value, "temperature", system) for fact in (gas, pump))
    text = f"Neither source may run between {low} and {high} outdoors."
    lifts = "Set the lock-outs so that they overlap, then read both again."
    return [
        Reason(TELL, "lock_out_gap", text, lifts, "call", f"{low}, {high}", "no gap", SOURCES["default"], gas.entry_id)
    ]


def limit_text(quantity: str, band: Band, value: float, system: str) -> str:
    """Return the bound that ``value`` broke or nears, in words, like "least 0.8 µA"."""
    dimension = measurand(quantity).dimension
    judged = judged_value(quantity, value)
    bounds = [(bound, word) for bound, word in ((band.low, "least"), (band.high, "most")) if bound is not None]
    bound, word = min(bounds, key=lambda pair: abs(judged - pair[0]))
    return f"{word} {sentence(bound, dimension, system)}"


def _reason(view: ReadingView, system: str) -> Reason:
    assert view.band is not None
    what = measurand(view.quantity)
    reading = sentence(view.value, what.dimension, system)
    limit = limit_text(view.quantity, view.band, view.value, system)
    name = reading_name(what, view.stage)
    label = f"{name}," if "," in name else name
    if view.verdict == "out":
        level, text = NOT_YET, f"{label} out of its limit: {reading}, {limit}."
    else:
        level, text = TELL, f"{label} near its limit: {reading}, {limit}."
    lifts = _LIFTS.get(view.quantity, _READ_AGAIN)
    source = SOURCES[view.band.source] + (f" ({view.band.note})" if view.band.note else "")
    return Reason(
        level,
        f"{view.quantity}_{view.verdict}",
        text,
        lifts,
        station_of(what, view.stage),
        reading,
        limit,
        source,
        view.entry_id,
    )


def reading_name(what: Measurand, stage: str | None) -> str:
    """Return how a reading is called, with its stage where the unit has more than one."""
    label = STAGE_LABELS[stage] if stage else ""
    return f"{what.name}, {label} fire" if label else what.name


def station_of(what: Measurand, stage: str | None) -> str:
    """Return the key of the station that shows ``what`` at ``stage``."""
    return f"manifold_{stage}" if what.station == "manifold" and stage in ("low", "high") else what.station


def _room_co(case: Case) -> list[Reason]:
    # A high reading stays a danger until its cause is named and a later reading is low.
    rows = [f for f in case.facts.readings if f.quantity == "room_co_ppm"]
    if not rows:
        return []
    worst = max(rows, key=lambda fact: fact.value)
    current = rows[-1]
    cause_since = case.facts.decisions("cause", worst.at)
    cleared = current.at > worst.at and current.value <= ROOM_CO_SOURCE_PPM
    if cleared and (cause_since or worst.value <= ROOM_CO_STOP_PPM):
        return []
    level, code, words = _room_level(worst.value)
    if not level:
        return []
    limit = f"above {_room_bound(worst.value):g} ppm"
    lifts = "Name the cause, cure it, and read room CO again at or under 9 ppm."
    text = f"Room CO {worst.value:.0f} ppm: {words}"
    return [
        Reason(level, code, text, lifts, "room", f"{worst.value:.0f} ppm", limit, SOURCES["default"], worst.entry_id)
    ]


def _room_level(ppm: float) -> tuple[int, str, str]:
    if ppm > ROOM_CO_OUT_PPM:
        return SHUT_DOWN, "room_co_out", "everybody out, call from outside."
    if ppm > ROOM_CO_STOP_PPM:
        return SHUT_DOWN, "room_co_stop", "stop the unit."
    if ppm > ROOM_CO_SOURCE_PPM:
        return NOT_YET, "room_co_source", "find the source."
    return 0, "", ""


def _room_bound(ppm: float) -> float:
    return max(b for b in (ROOM_CO_SOURCE_PPM, ROOM_CO_STOP_PPM, ROOM_CO_OUT_PPM) if ppm > b)


_DISCHARGED = (
    ("discharge_co_ppm", "intake_co_ppm", CO_RISE_MOST_PPM),
    ("discharge_no2_ppm", "intake_no2_ppm", NO2_RISE_MOST_PPM),
)


def _discharged(case: Case) -> list[Reason]:
    """A direct-fired unit gives what it burns to the room: CO and NO2 over the intake are judged, at each stage."""
    reasons = []
    for quantity, of_intake, most in _DISCHARGED:
        intake = case.facts.newest(of_intake, None)
        for stage in case.unit.stage_keys:
            discharge = case.facts.newest(quantity, stage)
            rise = discharge.value - intake.value if discharge and intake else 0.0
            if discharge is None or rise <= most:
                continue
            text = f"{reading_name(measurand(quantity), stage)}: {rise:.3g} ppm above the intake, at most {most:g} ppm."
            lifts = "Clean burner and ports, check profile plates, airflow and gas pressure; then read both again."
            reasons.append(
                Reason(
                    SHUT_DOWN, quantity.removesuffix("_ppm"), text, lifts, "discharge_co", f"{discharge.value:.3g} ppm",
                    f"at most {most:g} ppm over the intake", SOURCES["default"], discharge.entry_id,
                )
            )  # fmt: skip
    return reasons


def _supply_air_co(case: Case) -> list[Reason]:
    reasons = []
    for stage in (None, *case.unit.stage_keys):
        register = case.facts.newest("supply_air_co_ppm", stage)
        room = case.facts.newest("room_co_ppm", None)
        over = register.value - (room.value if room else 0.0) if register else 0.0
        if register is None or over <= 5:  # the usual instrument's own accuracy, ppm
            continue
        sure = over > ROOM_CO_SOURCE_PPM
        text = f"CO at a register is {over:.0f} ppm above the room: flue gas in the supply air{'' if sure else '?'}"
        lifts = "Shut it down, see the whole exchanger, rule out return leaks; then read the register again."
        level = SHUT_DOWN if sure else NOT_YET
        limit = "more than 9 ppm above the room" if sure else "more than 5 ppm above the room"
        reasons.append(
            Reason(
                level,
                "supply_air_co",
                text,
                lifts,
                "supply_air",
                f"{register.value:.0f} ppm",
                limit,
                SOURCES["default"],
                register.entry_id,
            )
        )
    return reasons
