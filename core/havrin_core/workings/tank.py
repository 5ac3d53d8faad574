"""LP: pressure in the tank, what it sustains at this cold, how long it lasts, and a regulator that may be frozen."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.limits.limits import band_for
from havrin_core.phrases import phrase
from havrin_core.physics.fuels import LP_FUELS
from havrin_core.physics.gas.lp_vapour import hours_left, sustained_input_w, vapour_pressure_pa
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.beside import beside_of
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working

_REGULATOR_WANTS_PA = 70_000.0  # gauge, about 10 psi: what a first-stage regulator still works with
_SUSTAINED_SHARE = 0.35  # half-width: wall, wind, frost on the tank, how long it has been drawn from
_FROST_K = 275.15


def tank_workings(context: Context) -> Iterator[Working]:
    """Yield the figures of the tank; nothing for a unit that burns from the mains."""
    outdoor = context.facts.newest("outdoor_temp_k", None)
    if context.unit.plate.fuel not in LP_FUELS or outdoor is None:
        return
    try:
        yield from _pressure(context, outdoor.value)
        yield from _lasting(context, outdoor.value)
    except OutOfDomain:
        return


def _pressure(context: Context, outdoor_k: float) -> Iterator[Working]:
    value = vapour_pressure_pa(context.unit.fuel, outdoor_k) - context.unit.baro_pa
    why = Why(
        phrase("vapour_pressure_liquid_barometer"),
        (
            Input(phrase("tank_outdoors"), outdoor_k, "temperature"),
            Input(phrase("barometer_here"), context.unit.baro_pa, "pressure"),
        ),
        phrase("saturation_line_propane_butane_docs"),
        phrase("temperatures_not_fills_tank_being"),
    )
    state = "out" if value < 35_000 else "near" if value < 100_000 else "in"
    supply = context.facts.newest("supply_running_pa", None)
    band = band_for(context.unit, context.rules, "supply_running_pa", None, beside_of(context.facts))
    off = supply is not None and band is not None and band.verdict(supply.value) == "out"
    said = phrase("regulator_may_be_frozen") if off and outdoor_k < _FROST_K and state == "in" else ""
    yield Working(
        "tank_gauge_pa", phrase("pressure_tank"), max(value, 0.0), "water_pressure", why, 0.0, None, state, said
    )


def _lasting(context: Context, outdoor_k: float) -> Iterator[Working]:
    volume, fill = (context.facts.newest(q, None) for q in ("tank_volume_m3", "tank_fill_pct"))
    load = context.facts.newest("room_input_w", None)
    rated = load.value if load else input_at_altitude_w(context.unit, context.rules, context.unit.stage_keys[-1])
    if volume is None or fill is None or not rated:
        return
    fuel, share = context.unit.fuel, fill.value / 100
    least = context.unit.baro_pa + _REGULATOR_WANTS_PA
    sustained = sustained_input_w(fuel, volume.value, min(share, 0.85), outdoor_k, least)
    inputs = (
        Input(phrase("tank_water_capacity"), volume.value, "content"),
        Input(phrase("fill"), fill.value, "percent"),
        Input(phrase("tank_outdoors"), outdoor_k, "temperature"),
        Input(phrase("load_on_the_tank"), rated, "power"),
    )
    why = Why(
        phrase("wetted_wall_times_difference"),
        inputs,
        phrase("docs_formulas_md_section_7"),
        phrase("tank_for_guidance"),
    )
    state = (
        "out"
        if sustained < (1 - _SUSTAINED_SHARE) * rated
        else "near"
        if sustained < (1 + _SUSTAINED_SHARE) * rated
        else "in"
    )
    said = "" if state == "in" else phrase("tank_may_not_keep_up")
    yield Working(
        "tank_sustains_w",
        phrase("tank_sustains"),
        sustained,
        "power",
        why,
        _SUSTAINED_SHARE * sustained,
        None,
        state,
        said,
    )
    hours = hours_left(fuel, volume.value, share, rated)
    why = Why(
        phrase("liquid_over_load"), inputs, phrase("docs_formulas_md_section_7"), phrase("at_full_fire_all_the_time")
    )
    yield Working(
        "tank_lasts_s",
        phrase("gas_lasts"),
        3600 * hours,
        "hours",
        why,
        0.1 * 3600 * hours,
        None,
        "near" if hours < 48 else "",
    )
