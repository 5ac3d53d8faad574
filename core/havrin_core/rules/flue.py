"""The flue of each stage: a sample from the tape, its results, and the reasons they give."""

from havrin_core.errors import OutOfDomain
from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import SOURCES
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.physics.combustion.doubts import doubts
from havrin_core.physics.combustion.losses import Surroundings
from havrin_core.physics.combustion.sample import ASSUMED_AIR_RH_PCT, DEFAULT_ACCURACY, FlueSample, analyse
from havrin_core.rules.model import NOT_YET, TELL, FlueView, Reason
from havrin_core.rules.proofs import Case

_ASSUMED_AIR_K = 293.15
_RATIO_MOST = {True: 0.004, False: 0.008}  # condensing, other flued: Havrin's default
_AIR_FREE_LIFT = "Find why (air, gas pressure, orifice, exchanger), cure it, read the flue again."


def flue_views(case: Case) -> list[FlueView]:
    """Return the current flue sample of each stage that has an O2 reading."""
    views = []
    for stage in case.unit.stage_keys:
        oxygen = case.facts.newest("o2_dry_pct", stage)
        if oxygen is not None:
            views.append(_view(case, stage, oxygen))
    return views


def _view(case: Case, stage: str, oxygen: ReadingFact) -> FlueView:
    carbon = case.facts.beside(oxygen, "co_ppm_dry")
    if carbon is None:
        note = "CO was not read within ten minutes of this O₂: nothing is computed from a pair that is none."
        return FlueView(stage, oxygen.phase, None, (note,), oxygen.entry_id)
    accuracy = {**DEFAULT_ACCURACY, **case.accuracies.get(oxygen.instrument, {})}
    try:
        result = analyse(case.unit.fuel, _sample(case, oxygen, carbon.value), accuracy)
    except OutOfDomain as refusal:
        return FlueView(stage, oxygen.phase, None, (refusal.message,), oxygen.entry_id)
    notes = tuple(doubt.text for doubt in doubts(result, accuracy))
    return FlueView(stage, oxygen.phase, result, notes, oxygen.entry_id)


def _sample(case: Case, oxygen: ReadingFact, co_ppm: float) -> FlueSample:
    facts = case.facts
    temp = facts.beside(oxygen, "flue_temp_k")
    co2 = facts.beside(oxygen, "co2_dry_pct")
    air = facts.beside(oxygen, "air_temp_k", staged=False) or facts.newest("air_temp_k", None)
    around = Surroundings(air.value if air else _ASSUMED_AIR_K, ASSUMED_AIR_RH_PCT, case.unit.baro_pa)
    return FlueSample(oxygen.value, co_ppm, temp.value if temp else None, co2.value if co2 else None, around)


def flue_reasons(case: Case, views: list[FlueView]) -> list[Reason]:
    """Return the reasons that the flue of each stage gives by the house's CO criterion."""
    reasons = []
    for view in views:
        reasons += [_doubt(view, text) for text in view.doubts]
        if view.result is not None:
            reasons += [r for r in (_carbon_monoxide(case, view), _oxygen(case, view)) if r]
    return reasons


def _stage(view: FlueView) -> str:
    label = STAGE_LABELS[view.stage]
    return f", {label} fire" if label else ""


def _doubt(view: FlueView, text: str) -> Reason:
    return Reason(
        NOT_YET, "flue_doubtful", f"Flue{_stage(view)}: {text}", "Read the flue again.", "flue", entry_id=view.entry_id
    )


def _carbon_monoxide(case: Case, view: FlueView) -> Reason | None:
    assert view.result is not None
    air_free = view.result.values["co_air_free_ppm"]
    rules = case.rules
    house = SOURCES["house"]
    if rules.co_criterion == "ratio":
        return _ratio(case, view)
    if rules.co_criterion == "as_measured":
        measured = view.result.sample.co_ppm_dry
        if measured <= rules.co_as_measured_ppm:
            return None
        return _co_reason(
            view,
            NOT_YET,
            "co_as_measured",
            f"{measured:.0f} ppm as measured",
            f"at most {rules.co_as_measured_ppm:g} ppm",
            house,
        )
    if air_free > rules.co_air_free_action_ppm:
        limit = f"act above {rules.co_air_free_action_ppm:g} ppm"
        return _co_reason(view, NOT_YET, "co_action", f"{air_free:.0f} ppm air-free", limit, house)
    if air_free > rules.co_air_free_ask_ppm:
        limit = f"ask why above {rules.co_air_free_ask_ppm:g} ppm"
        return _co_reason(view, TELL, "co_ask", f"{air_free:.0f} ppm air-free", limit, house)
    return None


def _ratio(case: Case, view: FlueView) -> Reason | None:
    assert view.result is not None
    ratio, most = view.result.values["co_co2_ratio"], _RATIO_MOST[case.unit.kind.condensing]
    if ratio <= most:
        return None
    return _co_reason(view, NOT_YET, "co_ratio", f"CO/CO₂ {ratio:.4f}", f"at most {most:g}", SOURCES["default"])


def _co_reason(view: FlueView, level: int, code: str, reading: str, limit: str, source: str) -> Reason:
    text = f"Flue CO{_stage(view)}: {reading}, {limit}."
    return Reason(level, code, text, _AIR_FREE_LIFT, "flue", reading, limit, source, view.entry_id)


def _oxygen(case: Case, view: FlueView) -> Reason | None:
    assert view.result is not None
    if case.unit.manual_limit("o2_dry_pct", view.stage) is not None:
        return None  # the manual's own band judges the reading itself
    low, high = case.unit.kind.o2_doubt_pct
    oxygen = view.result.sample.o2_dry_pct
    if low <= oxygen <= high:
        return None
    limit, reading = f"usually {low:g} to {high:g} %", f"{oxygen:.1f} %"
    text = f"O₂{_stage(view)} {reading}: {limit} on this kind of unit."
    lifts = "Look for false air, input and draft; the manual's own band goes before this one."
    return Reason(TELL, "o2_band", text, lifts, "flue", reading, limit, SOURCES["default"], view.entry_id)
