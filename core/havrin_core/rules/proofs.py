"""Proofs: what can be asked for, and when each counts as shown."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from havrin_core.facts.facts import ReadingFact
from havrin_core.rules.context import Context
from havrin_core.rules.demands import cycles_after, device_proved, is_too_short, leak_passed, unseen_of
from havrin_core.tape.clock import Moment
from havrin_core.tape.entries import FOUND, PRESUMED, Condition
from havrin_core.vocabulary.catalogue import DANGER, GOOD, cured_with, verdict_of

After = Moment | None


@dataclass(frozen=True, slots=True)
class Lack:
    """What one proof still lacks: of which stage, device or quantity, how many of how many."""

    stage: str | None = None
    device: str = ""
    quantity: str = ""
    still: int = 0
    of: int = 0


@dataclass(frozen=True, slots=True)
class ProofKind:
    """One thing that can be asked for, at its station, in minutes."""

    key: str
    station: str
    minutes: int
    lacks: Callable[[Context, After, str], Iterable[Lack]]


def _newest(context: Context, quantity: str, stage: str | None, after: After) -> ReadingFact | None:
    rows = [f for f in context.facts.readings if f.quantity == quantity and f.stage == stage and f.phase != "trial"]
    rows = [f for f in rows if after is None or f.moment.surely_after(after)]
    return rows[-1] if rows else None


def _each_stage(*quantities: str) -> Callable[[Context, After, str], Iterable[Lack]]:
    def lacks(context: Context, after: After, device: str) -> Iterable[Lack]:
        for stage in context.unit.stage_keys:
            if any(_newest(context, quantity, stage, after) is None for quantity in quantities):
                yield Lack(stage, quantity=quantities[0])

    return lacks


def _reading(quantity: str) -> Callable[[Context, After, str], Iterable[Lack]]:
    def lacks(context: Context, after: After, device: str) -> Iterable[Lack]:
        if _newest(context, quantity, None, after) is None:
            yield Lack(quantity=quantity)

    return lacks


def _room_co(context: Context, after: After, device: str) -> Iterable[Lack]:
    """Room CO speaks of the unit once its burner has run: of a visit on which it ran, a reading from before is not enough."""
    rows = [
        f
        for f in context.facts.readings
        if f.quantity == "room_co_ppm" and (after is None or f.moment.surely_after(after))
    ]
    if not [f for f in rows if f.phase != "trial"]:
        yield Lack(quantity="room_co_ppm")


def _looks(context: Context, after: After) -> list[Condition]:
    rows = [(line, body) for line, body in context.facts.conditions() if line.phase != "trial"]
    rows = [(line, body) for line, body in rows if line.entry.id not in context.facts.before]
    return [body for line, body in rows if (after is None or line.moment.surely_after(after)) and not body.absent]


def _seen(part: str) -> Callable[[Context, After, str], Iterable[Lack]]:
    """Seen is seen, whatever was found: what was found wrong has a reason of its own."""

    def lacks(context: Context, after: After, device: str) -> Iterable[Lack]:
        parts = cured_with(part)[:-1]
        if not any(look.part in parts for look in _looks(context, after)):
            yield Lack(device=part)

    return lacks


def _vent(context: Context, after: After, device: str) -> Iterable[Lack]:
    """The whole run: the vent itself, a chimney or hood does not stand for it; what was found wrong on it does."""
    looks = [
        look
        for look in _looks(context, after)
        if look.part in ("vent", "vent_joint", "terminal", "chimney", "draft_hood")
    ]
    whole = [look for look in looks if look.part == "vent" or verdict_of(look.part, look.condition) != GOOD]
    if not whole:
        yield Lack(device="vent")


def _exchanger(context: Context, after: After, device: str) -> Iterable[Lack]:
    looks = [look for look in _looks(context, after) if look.part in ("exchanger", "boiler_section")]
    if any(verdict_of(look.part, look.condition) == DANGER and look.sure != "unsure" for look in looks):
        return  # a breach that was seen needs no further look
    whole = [look for look in looks if look.part == "exchanger" and verdict_of(look.part, look.condition) == GOOD]
    if not whole:
        yield Lack(device="exchanger", of=context.unit.plate.exchanger_cells)
        return
    unseen = min((u if (u := unseen_of(context, look)) is not None else 0) for look in whole)
    if unseen:
        yield Lack(device="exchanger", still=unseen, of=context.unit.plate.exchanger_cells)


def _cycles(needed: Callable[[Context], int]) -> Callable[[Context, After, str], Iterable[Lack]]:
    def lacks(context: Context, after: After, device: str) -> Iterable[Lack]:
        done, wanted = _cycles_of_visit(context, after), needed(context)
        if done < wanted:
            yield Lack(still=wanted - done, of=wanted)

    return lacks


def _cycles_of_visit(context: Context, after: After) -> int:
    if after is not None:
        return cycles_after(context.facts, after)
    count = 0
    for line, body in context.facts.proofs("cycles"):
        if line.entry.id not in context.facts.before:
            count = count + body.count if body.passed else 0
    return count


def _leak(context: Context, after: After, device: str) -> Iterable[Lack]:
    if after is None:
        checks = [b for line, b in context.facts.proofs("leak") if line.entry.id not in context.facts.before]
        if not checks or not checks[-1].passed:
            yield Lack()
    elif leak_passed(context.facts, after) is None:
        yield Lack()


def _tightness(context: Context, after: After, device: str) -> Iterable[Lack]:
    test = _newest(context, "gas_leak_m3_s", None, after)
    if test is None or is_too_short(test, context.rules):
        yield Lack(quantity="gas_leak_m3_s")


def _cause(context: Context, after: After, device: str) -> Iterable[Lack]:
    """A cause is named, presumed, or said not to be found. What a trip or a danger asks for is asked by its own reason."""
    if not any(body.state in (FOUND, PRESUMED) or body.state for _, body in context.facts.own_said("cause")):
        yield Lack()


def _device(context: Context, after: After, device: str) -> Iterable[Lack]:
    if device_proved(context.facts, device, after) is None:
        yield Lack(device=device)


def _low_water(context: Context, after: After, device: str) -> Iterable[Lack]:
    proofs = [
        (line, body)
        for line, body in context.facts.proofs("device")
        if body.device == "low_water" and line.entry.id not in context.facts.before
    ]
    proofs = [(line, body) for line, body in proofs if after is None or line.moment.surely_after(after)]
    if not proofs or not proofs[-1][1].passed:
        yield Lack(device="low_water")


def _discharge_co(context: Context, after: After, device: str) -> Iterable[Lack]:
    if _newest(context, "intake_co_ppm", None, after) is None:
        yield Lack(quantity="intake_co_ppm")
    yield from _each_stage("discharge_co_ppm")(context, after, device)


_ALL = (
    ProofKind("room_co", "room", 1, _room_co),
    ProofKind("vent_seen", "vent", 4, _vent),
    ProofKind("spillage_tested", "vent", 6, _reading("spillage_s")),
    ProofKind("trap_seen", "vent", 2, _seen("trap")),
    ProofKind("exchanger_seen", "exchanger", 12, _exchanger),
    ProofKind("supply_running", "supply_running", 3, _reading("supply_running_pa")),
    ProofKind("supply_standing", "supply_standing", 2, _reading("supply_standing_pa")),
    ProofKind("manifold_each_stage", "manifold", 4, _each_stage("manifold_pa")),
    ProofKind("input_each_stage", "input", 5, _each_stage("input_w")),
    ProofKind("draft_each_stage", "draft", 3, _each_stage("draft_pa")),
    ProofKind("flame_each_stage", "burner", 4, _each_stage("flame_current_a")),
    ProofKind("rise_each_stage", "rise", 5, _each_stage("temperature_rise_k")),
    ProofKind("flue_each_stage", "flue", 6, _each_stage("o2_dry_pct", "co_ppm_dry")),
    ProofKind("water_pressure", "water_pressure", 1, _reading("water_pressure_pa")),
    ProofKind("water_rise_each_stage", "water_rise", 5, _each_stage("water_rise_k")),
    ProofKind("relief_seen", "relief", 1, _seen("relief")),
    ProofKind("low_water_proved", "low_water", 6, _low_water),
    ProofKind("discharge_co_each_stage", "discharge_co", 4, _discharge_co),
    ProofKind("tightness", "supply_running", 15, _tightness),
    ProofKind("leak_check", "supply_running", 3, _leak),
    ProofKind("cause_named", "room", 1, _cause),
    ProofKind("full_cycle", "call", 8, _cycles(lambda context: 1)),
    ProofKind("cycles_after_reset", "call", 20, _cycles(lambda context: context.rules.reset_cycles)),
    ProofKind("device_proved", "limit", 5, _device),
)
PROOFS: Mapping[str, ProofKind] = {kind.key: kind for kind in _ALL}
