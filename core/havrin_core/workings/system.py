"""A closed water system: the vessel and its pre-charge, and what the relief valve can carry off."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.computed import gross_input_w
from havrin_core.phrases import phrase
from havrin_core.physics.expansion import expanded_m3, precharge_pa, vessel_m3
from havrin_core.physics.hydronics import Fluid, fluid
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.workings.model import Working, width_of
from havrin_core.workings.output import output_of

_COLD_K, _HOT_K = 283.15, 355.15  # 10 and 82 °C where nobody read the water
_PRECHARGE_OFF = 0.15
_UNDER_RELIEF = 0.9


def fluid_of(context: Context) -> tuple[Fluid, float]:
    """Return what the system is filled with, and by how much its glycol lies beside a tabulated share, % of mass."""
    glycol = context.facts.newest("glycol_pct", None)
    if glycol is None:
        return fluid("water"), 0.0
    parts = dict(glycol.computed_from)
    shares = {30: "pg30_vol", 40: "pg40_vol"} if parts.get("by_volume") else _BY_MASS
    nearest = min(shares, key=lambda share: abs(share - glycol.value))
    return fluid(shares[nearest]), glycol.value - nearest


_BY_MASS = {0: "water", 20: "pg20_mass", 30: "pg30_mass", 40: "pg40_mass", 50: "pg50_mass"}


def system_workings(context: Context, flue: list[FlueView]) -> Iterator[Working]:
    """Yield the vessel, its pre-charge and the relief valve, each where its numbers were read."""
    yield from _precharge(context)
    yield from _vessel(context)
    yield from _relief(context, flue)


def _precharge(context: Context) -> Iterator[Working]:
    height, read = (context.facts.newest(q, None) for q in ("system_height_m", "precharge_pa"))
    if height is None:
        return
    wanted = precharge_pa(height.value)
    inputs = (Input(phrase("height_of_the_system"), height.value, "length"),)
    why = Why(
        phrase("head_and_four_psi"),
        inputs,
        phrase("docs_formulas_md_section_10"),
        phrase("precharge_read_with_water_off"),
    )
    off = abs(read.value / wanted - 1) if read else 0.0
    state = "" if read is None else "in" if off <= _PRECHARGE_OFF else "near"
    width = wanted * 0.05
    yield Working("precharge_wanted_pa", phrase("precharge_wanted"), wanted, "water_pressure", why, width, None, state)


def _vessel(context: Context) -> Iterator[Working]:
    facts = context.facts
    volume, height, size = (facts.newest(q, None) for q in ("system_volume_m3", "system_height_m", "vessel_m3"))
    relief = context.unit.plate.water_relief_pa
    if volume is None or height is None or relief is None:
        return
    hot = facts.newest("water_supply_temp_k", context.unit.stage_keys[-1])
    what, _ = fluid_of(context)
    hottest = max(hot.value if hot else _HOT_K, _HOT_K)
    try:
        grown = expanded_m3(what, volume.value, _COLD_K, hottest)
        wanted = vessel_m3(grown, precharge_pa(height.value), _UNDER_RELIEF * relief, context.unit.baro_pa)
    except OutOfDomain:
        return
    inputs = (
        Input(phrase("water_in_the_system"), volume.value, "content"),
        Input(phrase("cold_fill"), _COLD_K, "temperature"),
        Input(phrase("hottest_water"), hottest, "temperature"),
        Input(phrase("height_of_the_system"), height.value, "length"),
        Input(phrase("relief_valves_rating"), relief, "water_pressure"),
    )
    why = Why(
        phrase("expansion_over_pressures"),
        inputs,
        phrase("docs_formulas_md_section_10"),
        phrase("up_to_nine_tenths_of_relief"),
    )
    state = "" if size is None else "in" if size.value >= wanted else "near"
    yield Working("vessel_wanted_m3", phrase("vessel_wanted"), wanted, "content", why, 0.1 * wanted, None, state)


def _relief(context: Context, flue: list[FlueView]) -> Iterator[Working]:
    rated = context.facts.newest("relief_rated_w", None)
    stage = context.unit.stage_keys[-1]
    output, plate = output_of(context, stage, flue), gross_input_w(context.unit, stage)
    if rated is None or (output is None and plate is None):
        return
    carried = plate if plate is not None else output.value_w if output else 0.0
    inputs = (Input(phrase("relief_rated"), rated.value, "power"), Input(phrase("input_plate"), carried, "power"))
    why = Why(phrase("relief_less_input"), inputs, phrase("relief_tag"), phrase("relief_at_least_the_input"))
    spare = rated.value - carried
    width = width_of(context, rated, "power")
    said = "" if spare >= 0 else phrase("relief_too_small")
    yield Working(
        "relief_spare_w",
        phrase("relief_over_input"),
        spare,
        "power",
        why,
        width,
        None,
        "in" if spare >= 0 else "out",
        said,
    )
