"""After a shut-down: how long until pipes freeze, who is there, what was agreed."""

from dataclasses import dataclass
from math import inf, isinf, log

from havrin_core.facts.facts import Facts
from havrin_core.phrases import Saying, phrase
from havrin_core.quantities.display import sentence

# How long a building keeps its heat: hours until a 63 % of the difference is gone, least and most.
# Havrin's judgement, for guidance: wind, sun, open doors and pipes in outer walls change it much.
HOLDS_HOURS = {"light": (12.0, 24.0), "medium": (24.0, 60.0), "heavy": (60.0, 120.0)}
PIPES_AT_RISK_K = 273.15 + 2.0  # of the room: a pipe in an outer wall is colder than its room
_USUAL_INDOOR_K = 273.15 + 20.0
_WORDS = ("vulnerable", "tempheat", "drained", "refuse", "told")


@dataclass(frozen=True, slots=True)
class ShutdownPlan:
    """``hours`` least and most until pipes are at risk, None where the outdoor temperature is not known; inf: not at all."""

    hours: tuple[float, float] | None
    building: str
    indoor_k: float
    outdoor_k: float | None
    vulnerable: tuple[str, ...]
    temporary_heat: tuple[str, ...]
    drained: tuple[str, ...]
    refused: tuple[str, ...]
    told: tuple[str, ...]


def hours_to_frost(indoor_k: float, outdoor_k: float, holds_hours: float) -> float:
    """Return the hours until a building that keeps its heat so long is down at PIPES_AT_RISK_K; inf where it never is.

    >>> round(hours_to_frost(293.15, 263.15, 24.0), 1)
    22.0
    """
    if outdoor_k >= PIPES_AT_RISK_K:
        return inf
    if indoor_k <= PIPES_AT_RISK_K:
        return 0.0
    return holds_hours * log((indoor_k - outdoor_k) / (PIPES_AT_RISK_K - outdoor_k))


def shutdown_plan_of(facts: Facts) -> ShutdownPlan:
    """Return what the tape says for the time without this heat."""
    indoor, outdoor = facts.newest("indoor_temp_k", None), facts.newest("outdoor_temp_k", None)
    named = [body.state for _, body in facts.said("building")]
    building = next((word for word in reversed(named) if word in HOLDS_HOURS), "medium")
    inside = indoor.value if indoor else _USUAL_INDOOR_K
    least, most = HOLDS_HOURS[building]
    hours = (
        (hours_to_frost(inside, outdoor.value, least), hours_to_frost(inside, outdoor.value, most)) if outdoor else None
    )
    said = {name: tuple(body.text for _, body in facts.said(name)) for name in _WORDS}
    return ShutdownPlan(
        hours,
        building,
        inside,
        outdoor.value if outdoor else None,
        said["vulnerable"],
        said["tempheat"],
        said["drained"],
        said["refuse"],
        said["told"],
    )


def frost_says(plan: ShutdownPlan, system: str) -> Saying:
    """Return how long the pipes have, in words."""
    if plan.hours is None:
        return phrase("outdoor_temperature_not_read_how")
    outdoors = sentence(plan.outdoor_k or 0.0, "temperature", system)
    if isinf(plan.hours[0]):
        return phrase("outdoors_pipes_are_not_risk", outdoors=outdoors)
    least, most = (round(hours) for hours in plan.hours)
    inside = sentence(plan.indoor_k, "temperature", system)
    return phrase(
        "about_hours_until_pipes_are", least=least, most=most, building=plan.building, inside=inside, outdoors=outdoors
    )
