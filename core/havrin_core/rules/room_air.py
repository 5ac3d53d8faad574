"""Flue gas where people breathe: the room, the intake, a register, a direct-fired unit's discharge.

What was once read stays a danger until its own demands are on the tape: a later low reading shows only that it was low then.
"""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.model import DEFAULT
from havrin_core.limits.table import most
from havrin_core.rules.context import Context
from havrin_core.rules.demands import CAUSE, INTAKE, REGISTER, ROOM, WHOLE, Opened, open_demands
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, Lift, Reason, Sample
from havrin_core.rules.occurrences import beyond, ids_of, last_known

# code, bound, level; the worst first
_ROOM = (
    ("room_co.out", "room_co.out", SHUT_DOWN),
    ("room_co.stop", "room_co.stop", SHUT_DOWN),
    ("room_co.source", "room_co.source", NOT_YET),
)
# discharge, its intake, bound of the rise
_RISES = (
    ("discharge_co_ppm", "intake_co_ppm", "discharge_co.rise"),
    ("discharge_no2_ppm", "intake_no2_ppm", "discharge_no2.rise"),
)
_ROOM_QUANTITIES = ("room_co_ppm", "intake_co_ppm")  # what a make-up air unit takes in is the air of a room


def room_air_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reasons of flue gas in the air that people breathe."""
    for quantity in _ROOM_QUANTITIES:
        yield from _room(context, quantity)
    yield from _register(context)
    for discharge, intake, bound in _RISES:
        yield from _risen(context, discharge, intake, bound)


def _room(context: Context, quantity: str) -> Iterator[Reason]:
    least = most("room_co.source") + _outdoors(context)
    high = beyond(context, quantity, lambda value: value > least)
    if not high:
        return
    worst = max(high, key=lambda fact: fact.value)
    code, bound, level = next(row for row in _ROOM if worst.value > most(row[1]))
    since = last_known(context, high, lambda value: value > least)
    demands = (CAUSE, ROOM) if quantity == "room_co_ppm" else (CAUSE, INTAKE)
    lifts = open_demands(context, Opened(code, "fumes", since), demands)
    if lifts:
        station = context.station_for("room", "room") if quantity == "room_co_ppm" else "intake_co"
        facts = {
            "quantity": quantity,
            "value": worst.value,
            "limit": most(bound),
            "at_least": worst.at_least,
            "place": worst.place,
        }
        yield Reason(level, code, station, facts, lifts, DEFAULT, ids_of(high), code)


def _outdoors(context: Context) -> float:
    """Return the CO outdoors that a source indoors is looked for above; what stops a unit or empties a room stays absolute.

    More outdoors than the limit itself is no baseline: something burns out there, or the monitor was not zeroed.
    """
    baseline = context.facts.newest("outdoor_co_ppm", None)
    return min(baseline.value, most("room_co.source")) if baseline else 0.0


def _register(context: Context) -> Iterator[Reason]:
    """CO at a register over the room is flue gas in the supply air; a little over it is asked about."""
    sure = most("register_co.sure")
    rows = context.facts.ever("supply_air_co_ppm")
    high = [fact for fact in rows if over_room(context, fact) > sure]
    if high:
        opened = Opened("register_co", "fumes", high[-1].moment)
        lifts = open_demands(context, opened, (CAUSE, WHOLE, REGISTER))
        worst = max(high, key=lambda fact: over_room(context, fact))
        if lifts:
            yield _register_reason(context, SHUT_DOWN, "register_co", worst, lifts, sure)
            return
    least = most("register_co.least")
    read = [fact for fact in rows if fact.phase != "trial"]
    if read and over_room(context, read[-1]) > least and read[-1] not in high:
        yield _register_reason(context, NOT_YET, "register_co.doubt", read[-1], (Lift("register"),), least)


def _register_reason(
    context: Context, level: int, code: str, fact: ReadingFact, lifts: tuple[Lift, ...], limit: float
) -> Reason:
    facts = {"quantity": fact.quantity, "value": fact.value, "over_room": over_room(context, fact), "limit": limit}
    return Reason(level, code, "supply_air", facts, lifts, DEFAULT, (fact.entry_id,), "register")


def over_room(context: Context, fact: ReadingFact) -> float:
    """Return how far a register lies above the room as it was read last before, or first of all; ppm."""
    rooms = context.facts.ever("room_co_ppm")
    before = [room for room in rooms if room.at <= fact.at]
    room = before[-1] if before else rooms[0] if rooms else None
    return fact.value - (room.value if room else 0.0)


def _risen(context: Context, quantity: str, intake_quantity: str, bound: str) -> Iterator[Reason]:
    """A direct-fired unit gives what it burns to the room: the rise over the intake is judged, at each stage.

    An intake that was not read counts as clean. The newest reading that is no trial answers for the ones before it.
    """
    limit = most(bound)
    for stage in context.unit.stage_keys:
        rows = [fact for fact in context.facts.ever(quantity) if fact.stage in (stage, None)]
        high = [fact for fact in rows if _rise(context, fact, intake_quantity) > limit]
        settled = [fact for fact in rows if fact.phase != "trial" and fact not in high]
        standing = [fact for fact in high if not any(good.moment.surely_after(fact.moment) for good in settled)]
        if standing:
            worst = max(standing, key=lambda fact: fact.value)
            read = _intake_of(context, worst, intake_quantity) is not None
            facts = {
                "quantity": quantity,
                "stage": stage,
                "value": worst.value,
                "rise": _rise(context, worst, intake_quantity),
                "limit": limit,
                "intake_read": read,
            }
            lift = Lift("reading", part=quantity, stage=stage)
            yield Reason(
                SHUT_DOWN,
                bound.partition(".")[0],
                "discharge_co",
                facts,
                (lift,),
                DEFAULT,
                ids_of(standing),
                "discharge",
            )


def _rise(context: Context, fact: ReadingFact, intake_quantity: str) -> float:
    intake = _intake_of(context, fact, intake_quantity)
    return fact.value - (intake if intake is not None else 0.0)


def _intake_of(context: Context, fact: ReadingFact, intake_quantity: str) -> float | None:
    beside = context.facts.beside(fact, intake_quantity, staged=False)
    newest = context.facts.newest(intake_quantity, None)
    return beside.value if beside else newest.value if newest and not fact.before else None


SAMPLES = (
    Sample(
        "room_co.stop",
        opens=("room 40", "room co .0045 %"),
        not_opens=("room 6", "room co 0"),
        lifted=("room 40 | cause cracked vent | did repair vent | cycles 1 | room 2",),
        not_lifted=(
            "room 40 | room 2",
            "room 40 | cause ? | room 2",
            "room 40 | cause worn igniter of the call | room 2",
            "room 40 | cause cracked vent | did repair vent | room 2",
            "cause cracked vent | did repair vent | cycles 1 | room 2 | room 40",
            "room 40 | cause cracked vent | did repair vent | cycles 1 | room 2 | room 41",
        ),
        needs=("vent", "igniter"),
    ),
    Sample(
        "register_co",
        opens=("room 0 | register 30",),
        not_opens=("room 25 | register 26",),
        lifted=(
            "register 30 | cause cracked exchanger | did change exchanger | exchanger ok by pressure test | register 1",
        ),
        not_lifted=(
            "register 30 | register 1",
            "register 30 | cause cracked exchanger | did change exchanger | exchanger ok by pressure test",
        ),
        needs=("exchanger", "air"),
    ),
    Sample(
        "discharge_co",
        opens=("dco 40", "ico 1 | dco 9"),
        not_opens=("ico 2 | dco 4",),
        lifted=("dco 40 | did clean burner | ico 1 dco 3",),
        not_lifted=("dco 40 | did clean burner", "dco 3 | dco 40"),
        needs=("direct_fired",),
    ),
)
