"""Gas: input by plate, meter and orifice; the adjuster; supply and lock-up; does the orifice fit the gas?"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.computed import MANIFOLD_TOLERANCE, gross_input_w, input_at_altitude_w
from havrin_core.limits.limits import band_for
from havrin_core.phrases import Saying, phrase, together
from havrin_core.physics.constants import STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import LP_FUELS, Fuel, shipped_fuel
from havrin_core.physics.gas.drills import nearest_drill
from havrin_core.physics.gas.orifice import (
    USUAL_DISCHARGE,
    USUAL_DISCHARGE_SHARE,
    diameter_for_input_m,
    input_at_pressure_w,
    orifice_flow,
    pressure_for_input_pa,
)
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import number
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.beside import beside_of
from havrin_core.rules.context import Context
from havrin_core.workings.fuel_change import LP, NATURAL, fuel_workings
from havrin_core.workings.leak import leak_workings
from havrin_core.workings.model import Working, signed, spread, width_of
from havrin_core.workings.pipe import pipe_workings
from havrin_core.workings.screw import screw_workings
from havrin_core.workings.tank import tank_workings
from havrin_core.workings.whys import computed_why

GAS_TEMP_K = 288.15  # of the line, where nobody read it
FIT_SHARE = 0.04  # a bore within this share of the one that the plate's input needs fits: one drill up or down
GROSS_TAKEN_SHARE = 0.03  # of a heating value that nobody entered
_GIVEN_DISCHARGE_SHARE = 0.02
_GAS_TEMP_DOUBT_K, _WEATHER_PA = 5.0, 1000.0
_SOURCE = phrase("orifice_equation_docs_formulas_md")


def gas_workings(context: Context, system: str) -> list[Working]:
    """Return the figures of the gas path, stage by stage, then those of the supply."""
    found = [working for stage in context.unit.stage_keys for working in _stage(context, stage, system)]
    return [
        *found,
        *_supply(context),
        *pipe_workings(context, system),
        *leak_workings(context, system),
        *fuel_workings(context),
        *tank_workings(context),
    ]


def orifice_of(context: Context, stage: str) -> tuple[ReadingFact, int] | None:
    """Return the orifice as read, and how many there are: as typed, else the plate's cells."""
    fact = context.facts.newest("orifice_diameter_m", stage)
    if fact is None:
        fact = next((f for s in context.unit.stage_keys if (f := context.facts.newest("orifice_diameter_m", s))), None)
    if fact is None:
        return None
    counted = dict(fact.computed_from).get("burner_count")
    return fact, int(counted or context.unit.plate.exchanger_cells)


def _stage(context: Context, stage: str, system: str) -> Iterator[Working]:
    manifold = context.facts.newest("manifold_pa", stage)
    metered = context.facts.newest("input_w", stage)
    rated = input_at_altitude_w(context.unit, context.rules, stage)
    if rated is not None:
        yield _rated(context, stage, rated)
    if metered is not None:
        yield _metered(context, stage, metered)
    if manifold is not None:
        yield from _adjuster(context, stage, manifold, metered, system)
        yield from screw_workings(context, stage, system)
    yield from _by_orifice(context, stage, manifold, rated)


def _rated(context: Context, stage: str, rated: float) -> Working:
    band = band_for(context.unit, context.rules, "input_w", stage)
    assert band is not None  # a rated input gives its band
    assert band.why is not None
    why = Why(phrase("plate_input_1_altitude_share_2"), band.why.inputs, band.why.source, band.why.note)
    return Working("input_rated_w", phrase("rated_input_here"), rated, "power", why, stage=stage)


def _metered(context: Context, stage: str, metered: ReadingFact) -> Working:
    band = band_for(context.unit, context.rules, "input_w", stage)
    state = band.verdict(metered.value) if band else ""
    parts = dict(metered.computed_from)
    why = Why(phrase("typed_read"), (), phrase("technician"))
    width = width_of(context, metered, "power")
    if "time_s" in parts:
        why = computed_why("input_w", metered.computed_from)
        width = width if "half_width_w" in parts else metered.value * 0.5 / parts["time_s"]
    return Working("input_metered_w", phrase("input_meter"), metered.value, "power", why, width, stage, state)


def _adjuster(
    context: Context, stage: str, manifold: ReadingFact, metered: ReadingFact | None, system: str
) -> Iterator[Working]:
    plated = context.unit.stage(stage).manifold_pa
    if plated is None:
        return
    gap = plated - manifold.value
    inputs = (Input("plate", plated, "pressure"), Input(phrase("manifold_now"), manifold.value, "pressure"))
    why = Why(phrase("plate_value_manifold_read"), inputs, phrase("data_plate"), phrase("one_turn_time_read_again"))
    yield Working(
        "manifold_gap_pa",
        phrase("reach_plate"),
        gap,
        "pressure",
        why,
        width_of(context, manifold, "pressure"),
        stage,
        _gap_state(context, stage, manifold.value),
        _turn(gap, plated, system),
    )
    if metered is None:
        return
    after = input_at_pressure_w(metered.value, manifold.value, plated) if manifold.value > 1 else 0.0
    parts = (Input(phrase("input_meter_2"), metered.value, "power"), *inputs)
    width = width_of(context, metered, "power")
    why = Why(phrase("input_plate_manifold_now"), parts, phrase("flow_goes_root_manifold_pressure"))
    band = band_for(context.unit, context.rules, "input_w", stage)
    yield Working(
        "input_after_w",
        phrase("input_once_stands_plate"),
        after,
        "power",
        why,
        width,
        stage,
        band.verdict(after) if band else "",
    )
    yield from _wanted(context, stage, manifold, metered, plated, system)


def _wanted(
    context: Context, stage: str, manifold: ReadingFact, metered: ReadingFact, plated: float, system: str
) -> Iterator[Working]:
    rated = input_at_altitude_w(context.unit, context.rules, stage)
    if rated is None:
        return
    try:
        target = pressure_for_input_pa(manifold.value, metered.value, rated)
    except OutOfDomain:
        return
    low, high = ((1 + sign * MANIFOLD_TOLERANCE) * plated for sign in (-1, 1))
    inputs = (
        Input(phrase("rated_input_here_2"), rated, "power"),
        Input(phrase("input_meter_2"), metered.value, "power"),
        Input(phrase("manifold_now"), manifold.value, "pressure"),
    )
    why = Why(phrase("manifold_now_rated_input_input"), inputs, phrase("flow_goes_root_manifold_pressure"))
    inside = low <= target <= high
    said = (
        ""
        if inside
        else (
            phrase(
                "outside_plates_range_not_screw",
                low=sentence(low, "pressure", system),
                high=sentence(high, "pressure", system),
            )
        )
    )
    yield Working(
        "manifold_for_rated_pa",
        phrase("manifold_would_give_rated_input"),
        target,
        "pressure",
        why,
        spread(
            lambda v: v["m"] * (rated / v["i"]) ** 2,
            {"m": manifold.value, "i": metered.value},
            {"m": width_of(context, manifold, "pressure"), "i": width_of(context, metered, "power")},
        ),
        stage,
        "in" if inside else "out",
        said,
    )


def _gap_state(context: Context, stage: str, manifold_pa: float) -> str:
    band = band_for(context.unit, context.rules, "manifold_pa", stage)
    return band.verdict(manifold_pa) if band else ""


def _turn(gap_pa: float, plated_pa: float, system: str) -> Saying:
    if abs(gap_pa) <= 0.01 * plated_pa:
        return phrase("stands_plate")
    way, amount = ("in", "up") if gap_pa > 0 else ("out", "down")
    return phrase(
        "about_turn_wait_until_settles", gap_pa=sentence(abs(gap_pa), "pressure", system), amount=amount, way=way
    )


def _by_orifice(context: Context, stage: str, manifold: ReadingFact | None, rated: float | None) -> Iterator[Working]:
    fitted = _orifices(context, stage)
    if fitted is None:
        return
    if manifold is not None and manifold.value > 0:
        yield _orifice_input(context, stage, fitted, manifold)
    plated = context.unit.stage(stage).manifold_pa
    if rated is not None and plated is not None:
        yield _fit(context, stage, fitted, rated, plated)


@dataclass(frozen=True, slots=True)
class _Orifices:
    """The orifices as read: bore and count; the discharge coefficient with its half-width as a share of it."""

    bore: ReadingFact
    count: int
    discharge: float
    discharge_share: float


def _orifices(context: Context, stage: str) -> _Orifices | None:
    known = orifice_of(context, stage)
    if known is None:
        return None
    bore, count = known
    given = dict(bore.computed_from).get("discharge")
    if given is None:
        return _Orifices(bore, count, USUAL_DISCHARGE, USUAL_DISCHARGE_SHARE)
    return _Orifices(bore, count, given, _GIVEN_DISCHARGE_SHARE)


def _orifice_input(context: Context, stage: str, fitted: _Orifices, manifold: ReadingFact) -> Working:
    def watts(v: Mapping[str, float]) -> float:
        flow = orifice_flow(
            context.unit.fuel, v["bore"], v["manifold"], fitted.discharge, context.unit.baro_pa, GAS_TEMP_K
        )
        return fitted.count * flow.input_gross_w

    values = {"bore": fitted.bore.value, "manifold": manifold.value}
    widths = {"bore": width_of(context, fitted.bore, "bore"), "manifold": width_of(context, manifold, "pressure")}
    value = watts(values)
    inputs = (
        Input("orifices", fitted.count, "count"),
        Input("bore", fitted.bore.value, "bore"),
        Input("manifold", manifold.value, "pressure"),
        Input(phrase("barometer_here"), context.unit.baro_pa, "pressure"),
        Input(phrase("gas_taken"), GAS_TEMP_K, "temperature"),
    )
    doubt = phrase(
        "discharge_coefficient_taken_usual_3", usual_discharge=fitted.discharge, doubt=100 * fitted.discharge_share
    )
    why = Why(phrase("count_area_2_density_manifold", usual_discharge=fitted.discharge), inputs, _SOURCE, doubt)
    by_gas = math.hypot(0.5 * _GAS_TEMP_DOUBT_K / GAS_TEMP_K, 0.5 * _WEATHER_PA / context.unit.baro_pa)
    shares = math.hypot(fitted.discharge_share, GROSS_TAKEN_SHARE, by_gas)
    width = math.hypot(spread(watts, values, widths), shares * value)
    band = band_for(context.unit, context.rules, "input_w", stage)
    state = band.verdict(value) if band else ""
    return Working("input_orifice_w", phrase("input_orifice"), value, "power", why, width, stage, state)


def _needed(context: Context, fuel: Fuel, watts: float, fitted: _Orifices, manifold_pa: float, baro_pa: float) -> float:
    return diameter_for_input_m(fuel, watts, fitted.count, manifold_pa, fitted.discharge, baro_pa, GAS_TEMP_K)


def _fit(context: Context, stage: str, fitted: _Orifices, rated: float, manifold_pa: float) -> Working:
    needed = _needed(context, context.unit.fuel, rated, fitted, manifold_pa, context.unit.baro_pa)
    inputs = (
        Input(phrase("rated_input_here_2"), rated, "power"),
        Input("orifices", fitted.count, "count"),
        Input(phrase("bore_read"), fitted.bore.value, "bore"),
    )
    why = Why(phrase("bore_passes_rated_input_plates"), inputs, _SOURCE)
    share = fitted.bore.value / needed - 1
    fits = abs(share) <= FIT_SHARE
    said = phrase("nearest_drill_fitted", needed=nearest_drill(needed), share=signed(100 * share))
    if not fits:
        said = together(said, " ", _what_it_fits(context, stage, fitted, rated, manifold_pa, share))
    width = 0.5 * fitted.discharge_share * needed
    state = "in" if fits else "out"
    return Working("bore_needed_m", phrase("bore_plates_input_needs"), needed, "bore", why, width, stage, state, said)


def _what_it_fits(
    context: Context, stage: str, fitted: _Orifices, rated: float, manifold_pa: float, share: float
) -> Saying:
    """Return what an orifice that does not fit here is right for: sea level, the other gas, or neither."""
    plated = gross_input_w(context.unit, stage)
    if plated is not None:
        at_sea = _needed(context, context.unit.fuel, plated, fitted, manifold_pa, STANDARD_PRESSURE_PA)
        if abs(fitted.bore.value / at_sea - 1) <= FIT_SHARE:
            return phrase("needed_at_sea_level", share=number(100 * (1 + share) ** 2, ".0f"))
    other = _other_gas(context, rated, fitted)
    return phrase("fits_other_gas", other=other) if other else phrase("fits_neither_gas")


def _other_gas(context: Context, rated: float, fitted: _Orifices) -> str:
    other = NATURAL if context.unit.plate.fuel in LP_FUELS else LP
    usual = {NATURAL: 872.0, LP: 2491.0}[other]  # 3.5 and 10 inWC
    needed = _needed(context, shipped_fuel(other), rated, fitted, usual, context.unit.baro_pa)
    return shipped_fuel(other).label if abs(fitted.bore.value / needed - 1) <= FIT_SHARE else ""


def _supply(context: Context) -> Iterator[Working]:
    standing, running = (context.facts.newest(q, None) for q in ("supply_standing_pa", "supply_running_pa"))
    if standing is None or running is None:
        return
    inputs = (
        Input(phrase("supply_no_flow"), standing.value, "pressure"),
        Input(phrase("supply_all_running"), running.value, "pressure"),
    )
    width = width_of(context, standing, "pressure") + width_of(context, running, "pressure")
    yield Working(
        "supply_drop_pa",
        phrase("lost_between_no_flow_all"),
        standing.value - running.value,
        "pressure",
        Why(phrase("supply_no_flow_supply_all"), inputs, phrase("read")),
        width,
    )
    over = 100 * (standing.value / running.value - 1) if running.value > 0 else 0.0
    band = band_for(context.unit, context.rules, "supply_standing_pa", None, beside_of(context.facts))
    state = band.verdict(standing.value) if band else ""
    yield Working(
        "lock_up_pct",
        phrase("lock_up_over_running"),
        over,
        "percent",
        Why(phrase("100_no_flow_running_1"), inputs, phrase("havrins_default_guidance"), phrase("most_30")),
        0.0,
        None,
        state,
    )
