"""Stack temperature, and the vent's category as it runs against the one on the plate."""

from havrin_core.limits.limits import SOURCES
from havrin_core.physics.venting import CONDENSES_BELOW_K, vent_category
from havrin_core.quantities.display import sentence
from havrin_core.rules.model import NOT_YET, TELL, FlueView, Reason
from havrin_core.rules.proofs import Case

NET_STACK_MOST_K = 270.0  # flue over combustion air, non-condensing
_SUCTION, _DRY = ("I", "II"), ("I", "III")


def category_as_read(case: Case, view: FlueView) -> str | None:
    """Return the category that the collar's pressure and this flue make; None where either was not read."""
    collar = case.facts.newest("collar_static_pa", None)
    losses = view.result.losses if view.result else None
    temp = view.result.sample.flue_temp_k if view.result else None
    if collar is None or losses is None or temp is None:
        return None
    return vent_category(collar.value, temp, losses.dew_point_k)


def venting_reasons(case: Case, views: list[FlueView], system: str) -> list[Reason]:
    """Return the reasons of a stack too cold or too hot for its vent, and of a vent under pressure that must not be."""
    reasons = [r for view in views for r in _stack(case, view, system)]
    return [*reasons, *_pressure(case, system)]


def _stack(case: Case, view: FlueView, system: str) -> list[Reason]:
    losses = view.result.losses if view.result else None
    temp = view.result.sample.flue_temp_k if view.result else None
    if losses is None or temp is None or view.result is None or not _made_dry(case):
        return []
    if case.unit.manual_limit("flue_temp_k", view.stage) is not None:
        return []  # the manual's own band judges the reading itself
    reading = sentence(temp, "temperature", system)
    over_air = view.result.values["net_stack_k"]
    if temp < losses.dew_point_k + CONDENSES_BELOW_K:
        limit = f"{sentence(CONDENSES_BELOW_K, 'temperature_difference', system)} above its dew point at the collar"
        text = f"Flue {reading}: too near its dew point for a dry vent, water stays in it."
        lifts = "Look at input, airflow and what cools the vent; look for rust and drips, then read it again."
        return [_reason("stack_cold", text, lifts, reading, limit, view)]
    if over_air > NET_STACK_MOST_K:
        limit = f"at most {sentence(NET_STACK_MOST_K, 'temperature_difference', system)} over the combustion air"
        text = f"Flue {reading}: hotter than a flue should be, {limit}."
        lifts = "Look at input, airflow or water flow, soot and scale; then read it again."
        return [_reason("stack_hot", text, lifts, reading, limit, view)]
    return []


def _made_dry(case: Case) -> bool:
    category = case.unit.plate.vent_category
    return not case.unit.kind.condensing if category is None else category in _DRY


def _reason(code: str, text: str, lifts: str, reading: str, limit: str, view: FlueView) -> Reason:
    return Reason(TELL, code, text, lifts, "flue", reading, limit, SOURCES["default"], view.entry_id)


def _pressure(case: Case, system: str) -> list[Reason]:
    collar = case.facts.newest("collar_static_pa", None)
    category = case.unit.plate.vent_category
    if collar is None or category not in _SUCTION or collar.value <= 0:
        return []
    reading = sentence(collar.value, "pressure", system)
    text = f"The vent is under pressure at the collar ({reading}); category {category} runs under suction, its joints leak."
    lifts = (
        "Clear vent and terminal, look for a fan that blows into it, then read the collar again (suction is negative)."
    )
    limit = "not above nothing"
    return [Reason(NOT_YET, "vent_pressure", text, lifts, "vent", reading, limit, SOURCES["plate"], collar.entry_id)]
