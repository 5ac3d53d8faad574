"""Demands: what has to be on the tape before a danger is lifted, each after the danger's last occurrence and for this very one."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.table import most
from havrin_core.rules.causes import cause_of
from havrin_core.rules.context import Context
from havrin_core.rules.model import Lift
from havrin_core.tape.clock import Moment
from havrin_core.tape.entries import Action, Condition
from havrin_core.vocabulary.catalogue import GOOD, can_cure, cured_with, part, verdict_of
from havrin_core.vocabulary.methods import CLOSE

_EXCHANGER_PARTS = ("exchanger", "boiler_section", "unit")
# what is read only while the burner runs
_FIRE_QUANTITIES = (
    "o2_dry_pct",
    "co_ppm_dry",
    "co2_dry_pct",
    "flue_temp_k",
    "flame_current_a",
    "input_w",
    "temperature_rise_k",
    "water_rise_k",
    "manifold_pa",
    "discharge_co_ppm",
    "spillage_s",
    "supply_air_co_ppm",
)


@dataclass(frozen=True, slots=True)
class Opened:
    """A danger that is open: its code, what it was found on, and when it last occurred (and was known)."""

    code: str
    family: str  # which causes can bring it about: a key of causes.py
    since: Moment
    part: str = ""
    condition: str = ""
    device: str = ""


@dataclass(frozen=True, slots=True)
class Demand:
    """One thing to show. ``met`` returns when it was, after the moment given; None while it was not."""

    key: str
    met: Callable[[Context, Opened, Moment], Moment | None]
    lift: Callable[[Context, Opened], Lift]
    cures: bool = False  # what follows must come after it


def open_demands(context: Context, opened: Opened, demands: tuple[Demand, ...]) -> tuple[Lift, ...]:
    """Return the demands that are still open, in the order in which hands meet them."""
    after, lacking = opened.since, []
    for demand in demands:
        when = demand.met(context, opened, after)
        if when is None:
            lacking.append(demand.lift(context, opened))
        elif demand.cures:
            after = _later(after, when)
    return tuple(lacking)


def _later(one: Moment, other: Moment) -> Moment:
    return other if (other.at, other.order) > (one.at, one.order) else one


def _cured(verbs: frozenset[str] | None) -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        parts = cured_with(opened.part) if opened.part else ()

        def fits(body: Action) -> bool:
            if body.part not in parts or not can_cure(body.verb, opened.condition or "not_ok"):
                return False
            return verbs is None or body.verb in verbs

        line = context.facts.first_after(context.facts.real_actions(), after, fits)
        good_again = [out.moment for out, body, _ in context.facts.made_good() if body.device == opened.part]
        back = next((m for m in good_again if m.surely_after(after)), None) if opened.part else None
        return line.moment if line is not None else back

    return Demand(
        "cure",
        met,
        lambda context, opened: Lift("cure", opened.part, number=None, device=_verb(opened, verbs)),
        cures=True,
    )


def _verb(opened: Opened, verbs: frozenset[str] | None) -> str:
    """Return the verb of the line that cures it: the plainest one that can."""
    can = [v for v in _PLAINEST if (verbs is None or v in verbs) and can_cure(v, opened.condition or "not_ok")]
    replaced = part(opened.part).like in _REPLACED if opened.part else False
    return "change" if not can or (replaced and "change" in can) else can[0]


_PLAINEST = (
    "clear",
    "fill",
    "tighten",
    "refit",
    "close",
    "open",
    "clean",
    "thaw",
    "remove",
    "adjust",
    "restore",
    "repair",
    "change",
)
_REPLACED = (
    "igniter",
    "electrical",
    "moving",
    "inducer",
    "belt",
    "hose",
    "filter",
    "safety",
    "relief",
    "expansion_tank",
    "control",
    "regulator",
    "gas_valve",
)


def _changed() -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        parts = _EXCHANGER_PARTS if opened.part in _EXCHANGER_PARTS else (opened.part, "unit")
        line = context.facts.first_after(
            context.facts.real_actions(), after, lambda b: b.verb == "change" and b.part in parts
        )
        return line.moment if line is not None else None

    return Demand("changed", met, lambda context, opened: Lift("cure", opened.part, device="change"), cures=True)


def is_good(context: Context, look: Condition) -> bool:
    """Tell whether a look found its part in order, whole, and without a doubt."""
    if look.absent or look.sure == "unsure" or verdict_of(look.part, look.condition) != GOOD:
        return False
    return unseen_of(context, look) in (None, 0)


def unseen_of(context: Context, look: Condition) -> int | None:
    """Return how many parts of an exchanger a look left out; None where it did not say how many it saw."""
    parts = context.unit.plate.exchanger_cells
    if look.seen is None:
        # "by pressure test" sees the whole of it at once
        return 0 if look.part != "exchanger" or look.method == "pressure test" else (None if parts <= 1 else parts)
    return max(max(look.of or parts, parts) - look.seen, 0)


def _good(of_part: str = "") -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        parts = cured_with(of_part or opened.part)[:-1]
        looks = [(line, body) for line, body in context.facts.conditions() if line.phase != "trial"]
        line = context.facts.first_after(looks, after, lambda b: b.part in parts and is_good(context, b))
        return line.moment if line is not None else None

    return Demand("good", met, lambda context, opened: Lift("good", of_part or opened.part))


def seen_whole(context: Context, after: Moment, methods: tuple[str, ...] = ()) -> Moment | None:
    """Return when every part of the exchanger was seen sound, by one of ``methods`` where given, or it was changed."""
    looks = [(line, body) for line, body in context.facts.conditions() if line.phase != "trial"]

    def fits(look: Condition) -> bool:
        by = not methods or look.method in methods
        return look.part == "exchanger" and by and is_good(context, look)

    line = context.facts.first_after(looks, after, fits)
    new = context.facts.first_after(
        context.facts.real_actions(), after, lambda b: b.verb == "change" and b.part in _EXCHANGER_PARTS
    )
    found = line or new
    return found.moment if found is not None else None


def _whole(methods: tuple[str, ...] = ()) -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        return seen_whole(context, after, methods) if context.has_exchanger else after

    return Demand("whole", met, lambda context, opened: Lift("close_look" if methods else "whole", "exchanger"))


def _cause() -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        found = cause_of(context, opened.code, opened.family, opened.since)
        return found.met

    def lift(context: Context, opened: Opened) -> Lift:
        found = cause_of(context, opened.code, opened.family, opened.since)
        if found.uncured:
            return Lift("cure", found.uncured, device="repair")
        return Lift("cause", explains=opened.code)

    return Demand("cause", met, lift, cures=True)


_SECONDS_A_M3 = 1800.0 / 14.158  # half an hour for each 500 ft3 of pipe, as codes for large systems want


def leak_passed(facts: Facts, after: Moment) -> Moment | None:
    """Return when a leak check passed after ``after``; None where the newest one did not, or none came after."""
    checks = [(line, body) for line, body in facts.proofs("leak") if line.moment.surely_after(after)]
    return checks[-1][0].moment if checks and checks[-1][1].passed else None


def _leak() -> Demand:
    return Demand("leak", lambda context, opened, after: leak_passed(context.facts, after), lambda c, o: Lift("leak"))


def _tight() -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        tests = _readings_after(context, "gas_leak_m3_s", after)
        limit = most("gas_leak.most")
        held = tests and abs(tests[-1].value) <= limit and not is_too_short(tests[-1], context.rules)
        return tests[-1].moment if held else None

    return Demand("tight", met, lambda context, opened: Lift("tight"))


def least_test_s(test: ReadingFact, rules: HouseRules) -> float:
    """Return how long a closed line has to be watched: until its criterion shows, and never less than the code wants."""
    parts = dict(test.computed_from)
    by_volume = _SECONDS_A_M3 * parts.get("closed_volume_m3", 0.0)
    return max(parts.get("least_s", 0.0), 60 * rules.tightness_least_min, by_volume)


def is_too_short(test: ReadingFact, rules: HouseRules) -> bool:
    """Tell whether a closed line was watched for less time than that."""
    return dict(test.computed_from).get("time_s", 0.0) < least_test_s(test, rules)


def cycles_after(facts: Facts, after: Moment | None) -> int:
    """Return the full cycles that were watched after ``after``; a failed one sets the count back to none."""
    count = 0
    for line, body in facts.proofs("cycles"):
        if after is None or line.moment.surely_after(after):
            count = count + body.count if body.passed else 0
    return count


def _cycles(needed: int) -> Demand:
    def wanted(context: Context, opened: Opened) -> int:
        # a tripped safety device asks for as many as the house watches after a reset
        return max(needed, context.rules.reset_cycles) if opened.condition == "tripped" else needed

    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        if cycles_after(context.facts, after) < wanted(context, opened):
            return None
        rows = context.facts.proofs("cycles")
        return rows[-1][0].moment

    return Demand("cycles", met, lambda context, opened: Lift("cycles", number=wanted(context, opened)))


def device_proved(facts: Facts, device: str, after: Moment | None) -> Moment | None:
    """Return when ``device`` was last shown to act after ``after``; None where the newest test says that it does not."""
    rows = [(line, body) for line, body in facts.proofs("device") if body.device == device]
    rows = [(line, body) for line, body in rows if after is None or line.moment.surely_after(after)]
    return rows[-1][0].moment if rows and rows[-1][1].passed else None


def _proved() -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        return device_proved(context.facts, opened.device or opened.part, after)

    return Demand("proved", met, lambda context, opened: Lift("proved", device=opened.device or opened.part))


def _readings_after(context: Context, quantity: str, after: Moment) -> list[ReadingFact]:
    rows = [fact for fact in context.facts.ever(quantity) if fact.phase != "trial"]
    return [fact for fact in rows if fact.moment.surely_after(after)]


def within_again(key: str, quantity: str, bound: str, *, burner_ran: bool = False) -> Demand:
    """Return the demand that ``quantity`` was read again within ``bound``, the burner having run since where that counts."""

    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        rows = _readings_after(context, quantity, after)
        if not rows or rows[-1].value > most(bound) or rows[-1].at_least:
            return None
        ran = not burner_ran or burner_ran_between(context, after, rows[-1].moment)
        return rows[-1].moment if ran else None

    return Demand(key, met, lambda context, opened: Lift(key))


def burner_ran_between(context: Context, after: Moment, until: Moment) -> bool:
    """Tell whether the tape shows that the burner ran after ``after`` and not after ``until``."""
    cycles = [line.moment for line, body in context.facts.proofs("cycles") if body.passed]
    fire = [fact.moment for quantity in _FIRE_QUANTITIES for fact in context.facts.ever(quantity)]
    return any(m.surely_after(after) and (m.at, m.order) <= (until.at, until.order) for m in (*cycles, *fire))


def _pressure() -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        rows = _readings_after(context, "water_pressure_pa", after)
        return rows[-1].moment if rows else None

    return Demand("pressure", met, lambda context, opened: Lift("pressure"))


def _either(*demands: Demand) -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        found = [when for demand in demands if (when := demand.met(context, opened, after)) is not None]
        return min(found, key=lambda m: (m.at, m.order)) if found else None

    def lift(context: Context, opened: Opened) -> Lift:
        return Lift("either", either=tuple(demand.lift(context, opened) for demand in demands))

    return Demand("either", met, lift, cures=any(demand.cures for demand in demands))


def _all_of(*demands: Demand) -> Demand:
    def met(context: Context, opened: Opened, after: Moment) -> Moment | None:
        found = [demand.met(context, opened, after) for demand in demands]
        moments = [when for when in found if when is not None]
        return max(moments, key=lambda m: (m.at, m.order)) if len(moments) == len(demands) else None

    def lift(context: Context, opened: Opened) -> Lift:
        return demands[-1].lift(context, opened)

    return Demand("all", met, lift)


CAUSE, LEAK, TIGHT, WHOLE, PROVED = _cause(), _leak(), _tight(), _whole(), _proved()
CLOSE_LOOK = _whole(CLOSE)
ROOM = within_again("room", "room_co_ppm", "room_co.source", burner_ran=True)
REGISTER = within_again("register", "supply_air_co_ppm", "register_co.least")
INTAKE = within_again("intake_co", "intake_co_ppm", "room_co.source", burner_ran=True)
SPILL = within_again("spill", "spillage_s", "spillage.most")
NO_GAS = within_again("lel", "gas_lel_pct", "gas.none")
CURE, GOOD_LOOK = _cured(None), _good()
VENT_GOOD = _good("vent")

_NAMED: Mapping[str, Demand] = {
    "cure": CURE,
    "changed": _changed(),
    "good": GOOD_LOOK,
    "cause": CAUSE,
    "leak": LEAK,
    "tight": TIGHT,
    "whole": WHOLE,
    "proved": PROVED,
    "close_look": CLOSE_LOOK,
    "room": ROOM,
    "register": REGISTER,
    "spill": SPILL,
    "pressure": _pressure(),
    "whole_and_cause": _all_of(CAUSE, WHOLE),
}


def demand(said: str) -> Demand:
    """Return the demand that a row of data/lifts.toml names. Raises KeyError for one that does not exist."""
    if "|" in said:
        return _either(*(demand(one) for one in said.split("|")))
    name, _, rest = said.partition(":")
    if name == "cure" and rest:
        return _cured(frozenset(rest.split("+")))
    return _cycles(int(rest)) if name == "cycles" else _NAMED[name]
