"""Readings against their bands: the view of each, and the reasons they give."""

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import SOURCES, Band, band_for
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence
from havrin_core.rules.model import NOT_YET, TELL, ReadingView, Reason
from havrin_core.rules.proofs import Case
from havrin_core.vocabulary.measurands import MEASURANDS, Measurand, measurand

_LIFTS = {
    "manifold_pa": "Set it to the plate, wait until it settles, read it again, then prove it with meter and flue.",
    "supply_running_pa": "Find what takes the pressure (line size, regulator, tank, neighbours burning), then read it again.",
    "supply_standing_pa": "Watch the lock-up; a regulator that creeps is changed.",
    "o2_step_pct": "Repeat it with door on and filter out; look into the exchanger before it runs on.",
    "draft_pa": "Hose, port, trap, vent and intake, wheel, then the inducer, in this order; then read it again.",
    "draft_least_pa": "Find what takes the draft (hose, water in it, vent, wind, wheel), then record it again while it runs.",
    "flame_least_a": "Rod, wire, GROUND and the flame itself; then record it again while it runs.",
    "control_least_v": "Find what takes the voltage (contact, transformer, its load, line), then record it again while it runs.",
    "flame_current_a": "Clean the rod, check gap, porcelain, wire and GROUND; read it again.",
    "temperature_rise_k": "Filter, coil, dampers, blower and input decide it; read it again at each stage.",
    "input_w": "Check orifices and manifold pressure, then clock the meter again.",
}
_READ_AGAIN = "Find the cause, then read it again."
_SUCTION = ("draft_pa", "draft_least_pa", "vent_draft_pa")
_JUDGED_APART = ("room_co_ppm", "spillage_s", "gas_leak_m3_s", "gas_lel_pct")  # in fumes.py and leaks.py


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
    judged = [view for view in views if view.verdict in ("near", "out") and view.quantity not in _JUDGED_APART]
    return [*(_reason(view, system) for view in judged), *_lock_outs(case, system)]


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
