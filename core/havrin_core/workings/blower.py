"""What another blower speed would do, and whether a high rise could have opened the limit."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.limits import band_for
from havrin_core.phrases import Saying, in_a_row, phrase
from havrin_core.physics.blower_laws import AtSpeed, at_speed, speed_for_rise
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import number
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working, width_of

_LIMIT_OVER_AIR_K = 15.0  # a limit beside the exchanger feels more than the mean of the supply air


def blower_workings(context: Context, system: str) -> Iterator[Working]:
    """Yield the speed that brings the rise to the middle of its range, at the top stage, and the margin to the limit."""
    stage = context.unit.stage_keys[-1]
    yield from _speed(context, stage, system)
    yield from _trip(context, stage, system)


def _speed(context: Context, stage: str, system: str) -> Iterator[Working]:
    rise = context.facts.newest("temperature_rise_k", stage)
    band = band_for(context.unit, context.rules, "temperature_rise_k", stage)
    if rise is None or band is None or not band.acquits or band.low is None or band.high is None:
        return
    if band.verdict(rise.value) == "in":
        return
    middle = 0.5 * (band.low + band.high)
    try:
        after = at_speed(speed_for_rise(rise.value, middle))
    except OutOfDomain:
        return
    inputs = (
        Input("rise", rise.value, "temperature_difference"),
        Input(phrase("middle_of_its_range"), middle, "temperature_difference"),
    )
    why = Why(phrase("rise_over_wanted"), inputs, phrase("fan_laws"), phrase("same_duct_same_heat"))
    width = 100 * width_of(context, rise, "temperature_difference") / middle
    said = in_a_row(list(_consequences(context, after, system)), "; ")
    state = _after_state(context, after)
    yield Working(
        "speed_wanted_pct", phrase("blower_speed_wanted"), 100 * after.ratio, "percent", why, width, stage, state, said
    )


def _consequences(context: Context, after: AtSpeed, system: str) -> Iterator[Saying]:
    static, amps, motor = (
        context.facts.newest(q, None) for q in ("external_static_pa", "blower_current_a", "motor_sheave_m")
    )
    if static is not None:
        yield phrase("static_would_be", value=sentence(static.value * after.static, "pressure", system))
    if amps is not None:
        yield phrase("amps_would_be", value=f"{number(amps.value * after.power, '.1f')} A")
    if motor is not None:
        yield phrase("motor_pulley_of", value=sentence(motor.value * after.ratio, "bore", system))


def _after_state(context: Context, after: AtSpeed) -> str:
    for quantity, factor in (("blower_current_a", after.power), ("external_static_pa", after.static)):
        fact, band = context.facts.newest(quantity, None), band_for(context.unit, context.rules, quantity, None)
        if fact is not None and band is not None and band.verdict(fact.value * factor) == "out":
            return "out"
    return ""


def _trip(context: Context, stage: str, system: str) -> Iterator[Working]:
    point, supply = context.facts.newest("limit_point_k", None), context.facts.newest("supply_air_temp_k", stage)
    if point is None or supply is None:
        return
    margin = point.value - supply.value
    inputs = (
        Input(phrase("limit_opens_at"), point.value, "temperature"),
        Input(phrase("supply_air"), supply.value, "temperature"),
    )
    why = Why(
        phrase("limit_less_supply"),
        inputs,
        phrase("read"),
        phrase("limit_feels_more", over=sentence(_LIMIT_OVER_AIR_K, "temperature_difference", system)),
    )
    if margin <= 0:
        state, said = "out", phrase("would_open_the_limit")
    elif margin <= _LIMIT_OVER_AIR_K:
        state, said = "near", phrase("can_open_the_limit")
    else:
        state, said = "", phrase("could_not_open_the_limit")
    width = width_of(context, supply, "temperature")
    yield Working(
        "limit_margin_k",
        phrase("supply_air_under_the_limit"),
        margin,
        "temperature_difference",
        why,
        width,
        stage,
        state,
        said,
    )
