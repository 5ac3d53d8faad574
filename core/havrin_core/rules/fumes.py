"""Flue gas where people breathe: the room, a register, a direct-fired discharge, spillage at the vent.

What was once read stays a danger until its reason's own lift is on the tape: a later low reading alone shows only
that it was low then.
"""

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import (
    CO_RISE_MOST_PPM,
    NO2_RISE_MOST_PPM,
    ROOM_CO_OUT_PPM,
    ROOM_CO_SOURCE_PPM,
    ROOM_CO_STOP_PPM,
    SOURCES,
    SPILLAGE_MOST_S,
    SPILLAGE_WARM_S,
)
from havrin_core.rules.lifting import seen_whole
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, TELL, Reason
from havrin_core.rules.proofs import Case, cause_named
from havrin_core.rules.readings import reading_name
from havrin_core.vocabulary.measurands import measurand

_REGISTER_LEAST_PPM = 5.0  # over the room: the usual instrument's own accuracy
_VENT_DEEDS = ("repair_vent", "clear_vent")


def fume_reasons(case: Case) -> list[Reason]:
    """Return the reasons of flue gas where it must not be."""
    return [*_supply_air_co(case), *_discharged(case), *_spillage(case), *_room_co(case)]


def _spillage(case: Case) -> list[Reason]:
    """Flue gas that spills for longer than the vent needs to warm up is a danger; shorter is told."""
    rows = [fact for fact in case.facts.ever_read("spillage_s") if fact.phase != "trial"]
    long = [fact for fact in rows if fact.value > SPILLAGE_MOST_S]
    if long and not (rows[-1].value <= SPILLAGE_MOST_S and _vent_cured(case, long[0])):
        return [_spilt(SHUT_DOWN, long[-1])]
    return [_spilt(TELL, rows[-1])] if rows and rows[-1].value > SPILLAGE_WARM_S else []


def _vent_cured(case: Case, spilt: ReadingFact) -> bool:
    done = any(case.facts.done_after(deed, spilt.at) for deed in _VENT_DEEDS)
    return done or cause_named(case.facts, spilt.at)


def _spilt(level: int, fact: ReadingFact) -> Reason:
    limit = f"none after {SPILLAGE_MOST_S / 60:g} minutes, {SPILLAGE_WARM_S / 60:g} when the vent is warm"
    reading = f"{fact.value / 60:.1f} min"
    text = f"Flue gas spilt for {reading}: {limit}." + ("" if level == SHUT_DOWN else " Was the vent cold?")
    lifts = (
        "Name and cure the cause (vent, draft, air supply, room under suction), repeat the test, write “spill …” again."
    )
    return Reason(level, "spillage_time", text, lifts, "vent", reading, limit, SOURCES["default"], fact.entry_id)


def _room_co(case: Case) -> list[Reason]:
    rows = case.facts.ever_read("room_co_ppm")
    high = [fact for fact in rows if fact.value > ROOM_CO_SOURCE_PPM]
    if not high or (rows[-1].value <= ROOM_CO_SOURCE_PPM and cause_named(case.facts, high[0].at)):
        return []
    worst = max(high, key=lambda fact: fact.value)
    bound, level, code, words = next(row for row in _ROOM if worst.value > row[0])
    text = f"Room CO {worst.value:.0f} ppm: {words}"
    lifts = "Name the cause, cure it, and read room CO again at or under 9 ppm."
    limit = f"above {bound:g} ppm"
    return [
        Reason(level, code, text, lifts, "room", f"{worst.value:.0f} ppm", limit, SOURCES["default"], worst.entry_id)
    ]


_ROOM = (
    (ROOM_CO_OUT_PPM, SHUT_DOWN, "room_co_out", "everybody out, call from outside."),
    (ROOM_CO_STOP_PPM, SHUT_DOWN, "room_co_stop", "stop the unit."),
    (ROOM_CO_SOURCE_PPM, NOT_YET, "room_co_source", "find the source."),
)

_DISCHARGED = (
    ("discharge_co_ppm", "intake_co_ppm", CO_RISE_MOST_PPM),
    ("discharge_no2_ppm", "intake_no2_ppm", NO2_RISE_MOST_PPM),
)


def _discharged(case: Case) -> list[Reason]:
    """A direct-fired unit gives what it burns to the room: CO and NO2 over the intake are judged, at each stage."""
    reasons = []
    for quantity, of_intake, most in _DISCHARGED:
        for stage in case.unit.stage_keys:
            rows = [fact for fact in case.facts.ever_read(quantity, stage) if fact.phase != "trial"]
            if rows:
                reasons += _risen(case, rows[-1], of_intake, most)
    return reasons


def _risen(case: Case, discharge: ReadingFact, of_intake: str, most: float) -> list[Reason]:
    """Return the reason of a discharge that carries more than its intake; an intake that was not read counts as clean."""
    intake = None if discharge.entry_id in case.facts.before else case.facts.newest(of_intake, None)
    rise = discharge.value - (intake.value if intake else 0.0)
    if rise <= most:
        return []
    said = "above the intake" if intake else "in the discharge, the intake not read"
    text = (
        f"{reading_name(measurand(discharge.quantity), discharge.stage)}: {rise:.3g} ppm {said}, at most {most:g} ppm."
    )
    lifts = "Clean burner and ports, check profile plates, airflow and gas pressure; then read both again."
    return [
        Reason(
            SHUT_DOWN, discharge.quantity.removesuffix("_ppm"), text, lifts, "discharge_co", f"{discharge.value:.3g} ppm",
            f"at most {most:g} ppm over the intake", SOURCES["default"], discharge.entry_id,
        )
    ]  # fmt: skip


def _supply_air_co(case: Case) -> list[Reason]:
    rows = [fact for fact in case.facts.ever_read("supply_air_co_ppm") if fact.phase != "trial"]
    if not rows:
        return []
    sure = [fact for fact in rows if _over_room(case, fact) > ROOM_CO_SOURCE_PPM]
    now = _over_room(case, rows[-1])
    if sure and not (now <= _REGISTER_LEAST_PPM and _air_cured(case, sure[0])):
        return [_register(case, SHUT_DOWN, max(sure, key=lambda fact: _over_room(case, fact)))]
    return [_register(case, NOT_YET, rows[-1])] if now > _REGISTER_LEAST_PPM else []


def _over_room(case: Case, fact: ReadingFact) -> float:
    """Return how far a register lies above the room as it was read last before, or first of all; ppm."""
    rooms = case.facts.ever_read("room_co_ppm")
    before = [room for room in rooms if room.at <= fact.at]
    room = before[-1] if before else rooms[0] if rooms else None
    return fact.value - (room.value if room else 0.0)


def _air_cured(case: Case, register: ReadingFact) -> bool:
    has_exchanger = any(station.key == "exchanger" for station in case.unit.stations())
    return cause_named(case.facts, register.at) and (not has_exchanger or seen_whole(case, register.at))


def _register(case: Case, level: int, fact: ReadingFact) -> Reason:
    sure = level == SHUT_DOWN
    text = f"CO at a register was {_over_room(case, fact):.0f} ppm above the room: flue gas in the supply air{'.' if sure else '?'}"
    lifts = "Shut it down, see the whole exchanger (“exchanger ok …”), rule out return leaks, name the cause; then read the register again."
    limit = "more than 9 ppm above the room" if sure else "more than 5 ppm above the room"
    reading = f"{fact.value:.0f} ppm"
    return Reason(level, "supply_air_co", text, lifts, "supply_air", reading, limit, SOURCES["default"], fact.entry_id)
