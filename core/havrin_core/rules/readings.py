"""Readings against their bands: the view of each, and the reasons they give."""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import DEFAULT, Band
from havrin_core.rules.beside import beside_of
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, TELL, Lift, ReadingView, Reason
from havrin_core.vocabulary.measurands import MEASURANDS, Measurand

_SUCTION = ("draft_pa", "draft_least_pa")
# judged by rules of their own: room_air.py, gas.py, vent.py, flue.py
_JUDGED_APART = (
    "room_co_ppm",
    "intake_co_ppm",
    "spillage_s",
    "vent_draft_pa",
    "gas_leak_m3_s",
    "gas_lel_pct",
    "supply_air_co_ppm",
    "discharge_co_ppm",
    "discharge_no2_ppm",
)
_OF_ONE_MOMENT = ("volts_across_v", "event_s")  # they say what the unit did then, not what it is


def judged_value(quantity: str, value: float) -> float:
    """Return the value that the band speaks of: suction at a switch counts by its size, whichever sign was typed."""
    return abs(value) if quantity in _SUCTION else value


def reading_views(context: Context) -> list[ReadingView]:
    """Return the current reading of every quantity and stage that has one."""
    views = []
    for what in MEASURANDS:
        for stage in context.unit.stage_keys if what.staged else (None,):
            fact = context.facts.newest(what.key, stage)
            if fact is not None and what.key not in _OF_ONE_MOMENT:
                views.append(_view(context, fact, _band(context, what.key, stage)))
    return views


def _band(context: Context, quantity: str, stage: str | None) -> Band | None:
    return band_for(context.unit, context.rules, quantity, stage, beside_of(context.facts))


def _view(context: Context, fact: ReadingFact, band: Band | None) -> ReadingView:
    found = context.facts.as_found(fact.quantity, fact.stage)
    return ReadingView(
        fact.quantity,
        fact.stage,
        fact.value,
        band.verdict(judged_value(fact.quantity, fact.value)) if band else "",
        band,
        fact.phase,
        fact.at,
        fact.entry_id,
        found.value if found is not None and found.entry_id != fact.entry_id else None,
        fact.computed_from,
        fact.at_least,
    )


def reading_reasons(context: Context) -> Iterator[Reason]:
    """Yield a reason for each quantity and stage that was read out of its band and not read within it since, or near it now."""
    for what in MEASURANDS:
        if what.key in _JUDGED_APART or what.key in _OF_ONE_MOMENT or not context.facts.ever(what.key):
            continue
        for stage in context.unit.stage_keys if what.staged else (None,):
            band = _band(context, what.key, stage)
            if band is not None:
                yield from _judged(context, what, stage, band)


def lock_out_reasons(context: Context) -> Iterator[Reason]:
    """Two sources whose lock-outs leave a gap: no heat between them, though nothing is broken."""
    gas, pump = (context.facts.newest(quantity, None) for quantity in ("gas_lockout_k", "heat_pump_lockout_k"))
    if not context.unit.kind.second_source or gas is None or pump is None or gas.value >= pump.value:
        return
    facts = {"low": gas.value, "high": pump.value}
    lifts = (Lift("reading", part="gas_lockout_k"),)
    yield Reason(TELL, "lock_out_gap", "call", facts, lifts, DEFAULT, (gas.entry_id,), "lock_out_gap")


def _judged(context: Context, what: Measurand, stage: str | None, band: Band) -> Iterator[Reason]:
    """A reading out of its band, a trial too, stands until a later one that is no trial lies within."""
    rows = [fact for fact in context.facts.ever(what.key) if fact.stage == stage]
    verdicts = {id(fact): band.verdict(judged_value(what.key, fact.value)) for fact in rows}
    sound = [fact for fact in rows if fact.phase != "trial" and verdicts[id(fact)] != "out"]
    out = [
        fact
        for fact in rows
        if verdicts[id(fact)] == "out" and not any(good.moment.surely_after(fact.moment) for good in sound)
    ]
    own = [fact for fact in sound if not fact.before]
    if out:
        yield _reason(context, what, stage, band, out, "out", _level_of(context, what.key))
    elif own and verdicts[id(own[-1])] == "near":
        yield _reason(context, what, stage, band, own[-1:], "near", TELL)


def _level_of(context: Context, quantity: str) -> int:
    """Static over its plate is worn while what it does to the unit is sound at each stage; it holds as soon as that is not shown."""
    if quantity != "external_static_pa":
        return NOT_YET
    amps = context.facts.newest("blower_current_a", None)
    amps_band = _band(context, "blower_current_a", None)
    if amps is not None and amps_band is not None and amps_band.verdict(amps.value) == "out":
        return NOT_YET
    for stage in context.unit.stage_keys:
        rise, band = context.facts.newest("temperature_rise_k", stage), _band(context, "temperature_rise_k", stage)
        if rise is None or band is None or not band.acquits or band.verdict(rise.value) == "out":
            return NOT_YET
    return TELL


def _reason(
    context: Context, what: Measurand, stage: str | None, band: Band, facts: list[ReadingFact], verdict: str, level: int
) -> Reason:
    newest = facts[-1]
    station = context.unit.station_at(what.station, stage)
    parts = {
        "quantity": what.key,
        "stage": stage,
        "value": newest.value,
        "band": band,
        "verdict": verdict,
        "at_least": newest.at_least,
    }
    ids = tuple(dict.fromkeys(fact.entry_id for fact in facts))
    lift = Lift("reading", part=what.key, stage=stage)
    return Reason(level, f"{what.key}_{verdict}", station, parts, (lift,), band.source, ids, what.key)
