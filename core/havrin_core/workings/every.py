"""All workings of a visit, path by path."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.facts.plate_values import plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.machine.unit import Unit
from havrin_core.physics.gas.meter import DIAL_UNITS_M3, seconds_per_turn
from havrin_core.quantities.units import INWC_PA
from havrin_core.rules.context import Context
from havrin_core.rules.flue import flue_views
from havrin_core.tape.visit import VisitTape
from havrin_core.workings.air import air_workings
from havrin_core.workings.draft import draft_workings
from havrin_core.workings.gas import gas_workings
from havrin_core.workings.model import Working
from havrin_core.workings.season import season_workings
from havrin_core.workings.water import water_workings

_DIALS = (("0.5", "ft3"), ("1", "ft3"), ("2", "ft3"), ("5", "ft3"), ("0.01", "m3"), ("0.1", "m3"))
_METER_PA, _METER_K = 7 * INWC_PA, 288.15


@dataclass(frozen=True, slots=True)
class Dial:
    """A meter's dial, as it is typed, and the seconds of one turn at the rated input of each stage."""

    volume: str
    unit: str
    seconds: tuple[tuple[str, float], ...]


@dataclass(frozen=True, slots=True)
class Workings:
    """Computed figures by path, and what the stopwatch should show at each dial."""

    gas: tuple[Working, ...]
    draft: tuple[Working, ...]
    air: tuple[Working, ...]
    water: tuple[Working, ...]
    dials: tuple[Dial, ...]


def workings_of(unit: Unit, rules: HouseRules, visit: VisitTape, system: str) -> Workings:
    """Return every figure that the tape lets compute; words in unit system ``us`` or ``metric``."""
    described = plated(unit, visit.entries)
    context = Context(described, rules, visit.reason, Facts(visit.entries), visit.accuracies)
    flue = flue_views(context)
    paths = {path.key for path in described.paths}
    return Workings(
        (*gas_workings(context, system), *season_workings(context, flue)),
        tuple(draft_workings(context, flue, system)),
        tuple(air_workings(context, flue, system)) if "air" in paths else (),
        tuple(water_workings(context, flue)) if "water" in paths else (),
        tuple(_dial(context, volume, unit) for volume, unit in _DIALS),
    )


def _dial(context: Context, volume: str, unit: str) -> Dial:
    cubic = float(volume) * DIAL_UNITS_M3[unit]
    rated = {stage: input_at_altitude_w(context.unit, context.rules, stage) for stage in context.unit.stage_keys}
    seconds = tuple(
        (stage, seconds_per_turn(context.unit.fuel, watts, cubic, _METER_PA, _METER_K, context.unit.baro_pa))
        for stage, watts in rated.items()
        if watts
    )
    return Dial(volume, unit, seconds)
