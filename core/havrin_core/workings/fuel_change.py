"""Wobbe index and what a change of fuel wants; season's money from a difference of efficiency is left to the owner."""

from collections.abc import Iterator

from havrin_core.phrases import phrase
from havrin_core.physics.fuels import LP_FUELS, gross_wobbe_j_m3, shipped_fuel
from havrin_core.quantities.formats import number
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working

NATURAL, LP = "NG_H", "LPG_C3_COMM"
_MANIFOLD_PA = {NATURAL: 872.0, LP: 2491.0}  # 3.5 and 10 inWC, as is usual for each


def fuel_workings(context: Context) -> Iterator[Working]:
    """Yield the Wobbe index of the plate's fuel and the bore that the other one wants, where orifices or a conversion are spoken of."""
    if not _spoken_of(context):
        return
    own, other_key = context.unit.fuel, NATURAL if context.unit.plate.fuel in LP_FUELS else LP
    other = shipped_fuel(other_key)
    mine, theirs = gross_wobbe_j_m3(own), gross_wobbe_j_m3(other)
    own_pa = (
        context.unit.stage(context.unit.stage_keys[-1]).manifold_pa
        or _MANIFOLD_PA[LP if own.name in LP_FUELS else NATURAL]
    )
    bore = (mine / theirs) ** 0.5 * (own_pa / _MANIFOLD_PA[other_key]) ** 0.25
    inputs = (Input(own.label, mine, "heating_value"), Input(other.label, theirs, "heating_value"))
    why = Why(
        phrase("gross_over_root_of_density"),
        inputs,
        phrase("docs_formulas_md_section_2"),
        phrase("conversion_kit_by_the_maker"),
    )
    said = phrase("other_fuel_wants_bore", other=other.label, share=number(100 * bore, ".0f"))
    yield Working("wobbe_j_m3", phrase("wobbe_index"), mine, "heating_value", why, 0.02 * mine, None, "", said)


def _spoken_of(context: Context) -> bool:
    facts = context.facts
    parts = {body.part for _, body in facts.conditions()} | {body.part for _, body in facts.actions("change")}
    return bool(facts.ever("orifice_diameter_m")) or bool(parts & {"orifices", "conversion"})
