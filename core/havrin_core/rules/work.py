"""What is still to show: what the visit's reason asks for, what work made necessary, what an earlier visit left open."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from havrin_core.limits.limits import PLATE_JUDGED, band_for
from havrin_core.rules.context import Context
from havrin_core.rules.model import Missing
from havrin_core.rules.proofs import PROOFS, Lack, ProofKind
from havrin_core.tape.clock import Moment
from havrin_core.tape.entries import AS_TRIAL
from havrin_core.vocabulary.abnormal import abnormal
from havrin_core.vocabulary.catalogue import part

# proof -> the quantity at whose station it is read
_READ = {
    "draft_each_stage": "draft_pa",
    "manifold_each_stage": "manifold_pa",
    "input_each_stage": "input_w",
    "flame_each_stage": "flame_current_a",
    "rise_each_stage": "temperature_rise_k",
    "water_rise_each_stage": "water_rise_k",
    "water_pressure": "water_pressure_pa",
    "discharge_co_each_stage": "discharge_co_ppm",
    "supply_running": "supply_running_pa",
    "supply_standing": "supply_standing_pa",
}
# proof -> the station at which it is seen
_SEEN = {
    "vent_seen": "vent",
    "exchanger_seen": "exchanger",
    "relief_seen": "relief",
    "flue_each_stage": "flue",
    "low_water_proved": "low_water",
}
_INSTEAD: Mapping[str, str] = {
    "draft_each_stage": "spillage_tested",
    "flue_each_stage": "discharge_co_each_stage",
    "rise_each_stage": "water_rise_each_stage",
    "low_water_proved": "device_proved",
}
_ON_A_RECHECK = ("cause_named",)  # who comes back to look names no cause


@dataclass(frozen=True, slots=True)
class Asked:
    """A proof that work made necessary: after the latest work that asks for it."""

    proof: str
    device: str
    after: Moment
    because: tuple[str, str]
    entry_id: str


def missing(context: Context) -> list[Missing]:
    """Return all that is still to show: what work demands first, then what the visit's reason demands, then plate values."""
    found: dict[tuple[str, Lack], Missing] = {}
    for asked in after_work(context):
        proof = applicable(context, asked.proof)
        if proof is not None:
            _add(found, context, PROOFS[proof], asked)
    for name in must_show(context):
        _add(found, context, PROOFS[name], None)
    return [*found.values(), *_plate_values(context)]


def must_show(context: Context) -> list[str]:
    """Return the proofs that the visit's reason asks for on this kind of unit, and those that an earlier visit owes."""
    shown = context.unit.kind.must_show
    wanted = (*shown["every"], *shown.get(context.reason, ()), *context.owed)
    return [name for name in dict.fromkeys(wanted) if not (context.reason == "recheck" and name in _ON_A_RECHECK)]


def after_work(context: Context) -> Iterable[Asked]:
    """Return what actions and put-backs demand, each after the latest work that asks for it."""
    latest: dict[tuple[str, str], Asked] = {}
    for asked in (*_of_actions(context), *_of_put_backs(context)):
        key = (asked.proof, asked.device)
        before = latest.get(key)
        if before is None or (asked.after.at, asked.after.order) > (before.after.at, before.after.order):
            latest[key] = asked
    return latest.values()


def _of_actions(context: Context) -> Iterator[Asked]:
    for line, body in context.facts.actions():
        if body.part not in context.parts or body.sense == AS_TRIAL:
            continue
        demands = part(body.part).demands.get(body.verb, ())
        for name in (*demands, *_by_house(context, body.verb, body.part)):
            device = body.part if name in ("device_proved", "low_water_proved") else ""
            yield Asked(name, device, line.moment, (body.verb, body.part), line.entry.id)


def _by_house(context: Context, verb: str, part_key: str) -> tuple[str, ...]:
    """Return what the house demands after an action, beyond what every school does."""
    screw = part_key == "gas_valve" and verb in ("adjust", "set")
    return ("input_each_stage",) if screw and context.rules.setting_the_fire == "meter_first" else ()


def _of_put_backs(context: Context) -> Iterator[Asked]:
    for out, body, _ in context.facts.made_good():
        for name in abnormal(body.how).demands:
            yield Asked(name, "", out.moment, (body.how, body.device), out.entry.id)


def applicable(context: Context, proof: str) -> str | None:
    """Return the proof by which this unit shows what ``proof`` asks for; None where it has nothing of the kind."""
    if _has(context, proof):
        return proof
    other = _INSTEAD.get(proof)
    return other if other is not None and _has(context, other) else None


def _has(context: Context, proof: str) -> bool:
    if proof == "trap_seen":
        return context.unit.kind.condensing
    if proof == "spillage_tested":
        return context.unit.kind.draft_hood
    if proof in _READ:
        return any(station.quantity == _READ[proof] for station in context.unit.stations())
    return proof not in _SEEN or _SEEN[proof] in context.stations


def _add(found: dict[tuple[str, Lack], Missing], context: Context, proof: ProofKind, asked: Asked | None) -> None:
    after = asked.after if asked else None
    for lack in proof.lacks(context, after, asked.device if asked else ""):
        key = (proof.key, Lack(lack.stage, lack.device, lack.quantity))
        station = (
            context.station_for(lack.device, context.station_for(proof.station, "call"))
            if lack.device
            else proof.station
        )
        if key not in found:
            found[key] = Missing(
                proof.key,
                station,
                proof.minutes,
                lack.stage,
                lack.device,
                lack.quantity,
                lack.still,
                lack.of,
                asked.because if asked else None,
                asked.after.at if asked else None,
                asked.entry_id if asked else "",
            )


def _plate_values(context: Context) -> Iterator[Missing]:
    """A reading without a limit shows nothing: the plate's value is asked for as soon as something was read against it."""
    done: set[tuple[str, str | None]] = set()
    shown = {_READ[name] for name in must_show(context) if name in _READ}
    for fact in context.facts.readings:
        key = (fact.quantity, fact.stage)
        if fact.quantity not in PLATE_JUDGED or key in done or fact.quantity not in shown:
            continue
        done.add(key)
        band = band_for(context.unit, context.rules, fact.quantity, fact.stage)
        if band is None or not band.acquits:
            yield Missing(
                "plate_value", _station(context, fact.quantity, fact.stage), 2, fact.stage, quantity=fact.quantity
            )


def _station(context: Context, quantity: str, stage: str | None) -> str:
    rows = [station for station in context.unit.stations() if station.quantity == quantity]
    own = [station for station in rows if station.stage == stage]
    return (own or rows)[0].key if rows else "call"
