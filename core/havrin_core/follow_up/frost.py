"""After a shut-down: how long until pipes freeze, who is there, what was agreed."""

from dataclasses import dataclass
from math import isinf

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.cooling import USUAL_FLOOR_M2, Building, hours_to_frost
from havrin_core.phrases import Saying, in_a_row, phrase
from havrin_core.quantities.display import sentence

_USUAL_INDOOR_K = 273.15 + 20.0
FROST_LINES = ("floor ", "building medium ", "forecast ", "outdoor ", "indoor ")
_WORDS = ("vulnerable", "tempheat", "drained", "refuse", "told")


@dataclass(frozen=True, slots=True)
class ShutdownPlan:
    """``hours`` least and most until pipes are at risk, None where no outdoor temperature is known; inf: not at all.

    ``outdoor_k`` is the coldest of what was read and what is forecast.
    """

    hours: tuple[float, float] | None
    building: Building
    indoor_k: float
    outdoor_k: float | None
    vulnerable: tuple[str, ...]
    temporary_heat: tuple[str, ...]
    drained: tuple[str, ...]
    refused: tuple[str, ...]
    told: tuple[str, ...]


def building_of(facts: Facts) -> Building:
    """Return the building as far as the tape says: the newest word on each of its properties."""
    floor = facts.newest("floor_area_m2", None)
    said = [body for _, body in facts.said("building")]
    usual = Building()
    return Building(
        floor.value if floor else USUAL_FLOOR_M2,
        next((body.state for body in reversed(said) if body.state), usual.mass),
        next((body.condition for body in reversed(said) if body.condition), usual.insulation),
        next((body.means for body in reversed(said) if body.means), usual.draughts),
    )


def shutdown_plan_of(facts: Facts) -> ShutdownPlan:
    """Return what the tape says for the time without this heat."""
    indoor = facts.newest("indoor_temp_k", None)
    outdoors = [fact.value for q in ("outdoor_temp_k", "forecast_temp_k") if (fact := facts.newest(q, None))]
    building, coldest = building_of(facts), min(outdoors, default=None)
    inside = indoor.value if indoor else _USUAL_INDOOR_K
    said = {name: tuple(body.text for _, body in facts.said(name)) for name in _WORDS}
    return ShutdownPlan(
        hours_to_frost(building, inside, coldest) if coldest is not None else None,
        building,
        inside,
        coldest,
        said["vulnerable"],
        said["tempheat"],
        said["drained"],
        said["refuse"],
        said["told"],
    )


def frost_says(plan: ShutdownPlan, system: str) -> Saying:
    """Return how long the pipes have, in words: the least of it counts."""
    if plan.hours is None:
        return phrase("outdoor_temperature_not_read_how")
    outdoors = sentence(plan.outdoor_k or 0.0, "temperature", system)
    if isinf(plan.hours[0]):
        return phrase("outdoors_pipes_are_not_risk", outdoors=outdoors)
    least, most = plan.hours
    inside, floor = (
        sentence(value, dimension, system)
        for value, dimension in ((plan.indoor_k, "temperature"), (plan.building.floor_m2, "floor"))
    )
    building = _words_of(plan.building)
    if least < 1:
        return phrase("pipes_at_risk_within_the_hour", building=building, floor=floor, inside=inside, outdoors=outdoors)
    if isinf(most):
        return phrase(
            "pipes_from_hours_on",
            least=int(least),
            building=building,
            floor=floor,
            inside=inside,
            outdoors=outdoors,
        )
    return phrase(
        "about_hours_until_pipes_are",
        least=int(least),
        most=round(most),
        building=building,
        floor=floor,
        inside=inside,
        outdoors=outdoors,
    )


_MASS = {"light": phrase("mass_light"), "medium": phrase("mass_medium"), "heavy": phrase("mass_heavy")}
_INSULATED = {
    "poor": phrase("insulation_poor"),
    "average": phrase("insulation_average"),
    "good": phrase("insulation_good"),
}
_DRAUGHTS = {
    "draughty": phrase("draughts_draughty"),
    "average": phrase("draughts_average"),
    "tight": phrase("draughts_tight"),
}


def _words_of(building: Building) -> Saying:
    said = (_MASS[building.mass], _INSULATED[building.insulation], _DRAUGHTS[building.draughts])
    return in_a_row(said, ", ")
