"""Draft: margin at each switch, theoretical draft of the vent, spillage."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.limits import band_for
from havrin_core.physics.chimney import chimney_draft, wet_flue_molar_mass_kg
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.rules.vent import category_as_read
from havrin_core.workings.model import Working, signed, spread, width_of

_USUAL_O2_PCT, _USUAL_RH_PCT, _ROOM_K = 9.0, 40.0, 293.15
_COOLING = 0.6  # share of the flue's excess over outdoors that is left as a mean of the height, uninsulated metal vent


def draft_workings(context: Context, flue: list[FlueView]) -> list[Working]:
    """Return the figures of draft and vent."""
    margins = (w for stage in context.unit.stage_keys for w in _margin(context, stage))
    return [*margins, *_theoretical(context), *(w for view in flue[-1:] for w in _category(context, view))]


def _margin(context: Context, stage: str) -> Iterator[Working]:
    point = context.unit.stage(stage).switch_makes_pa
    fact = context.facts.newest("draft_pa", stage)
    if point is None or fact is None:
        return
    value = abs(fact.value) - point
    inputs = (
        Input("suction at the switch", abs(fact.value), "pressure"),
        Input("make point stamped", point, "pressure"),
    )
    band = band_for(context.unit, context.rules, "draft_pa", stage)
    why = Why(
        "|suction| − make point",
        inputs,
        "data plate",
        f"The house wants {100 * context.rules.draft_margin_share:g} % beyond the stamp.",
    )
    said = f"{signed(100 * value / point)} % beyond the stamp."
    yield Working(
        "draft_margin_pa",
        "Margin at the switch",
        value,
        "pressure",
        why,
        width_of(context, fact, "pressure"),
        stage,
        band.verdict(abs(fact.value)) if band else "",
        said,
    )


def _theoretical(context: Context) -> Iterator[Working]:
    facts = context.facts
    height, outdoor = facts.newest("vent_height_m", None), facts.newest("outdoor_temp_k", None)
    stage = context.unit.stage_keys[-1]
    flue, oxygen = facts.newest("flue_temp_k", stage), facts.newest("o2_dry_pct", stage)
    if height is None or outdoor is None or flue is None:
        return
    o2 = oxygen.value if oxygen else _USUAL_O2_PCT

    def pascals(v: dict[str, float]) -> float:
        mean = v["outdoor"] + _COOLING * (v["flue"] - v["outdoor"])
        mass = wet_flue_molar_mass_kg(context.unit.fuel, o2, _ROOM_K, _USUAL_RH_PCT, context.unit.baro_pa)
        return chimney_draft(v["height"], mean, v["outdoor"], context.unit.baro_pa, mass).draft_pa

    values = {"height": height.value, "flue": flue.value, "outdoor": outdoor.value}
    widths = {
        "height": width_of(context, height, "length"),
        "flue": width_of(context, flue, "temperature"),
        "outdoor": width_of(context, outdoor, "temperature"),
    }
    try:
        value = pascals(values)
    except OutOfDomain:
        return
    inputs = (
        Input("height", height.value, "length"),
        Input("flue at the collar", flue.value, "temperature"),
        Input("outdoors", outdoor.value, "temperature"),
        Input("O₂", o2, "percent"),
        Input("barometer here", context.unit.baro_pa, "pressure"),
    )
    why = Why(
        "9.80665 × height × (density outdoors − density of the flue)",
        inputs,
        "docs/formulas.md section 8",
        f"Mean of the vent taken as outdoors + {_COOLING:g} of the flue's excess: bare metal. Friction and bends take away from it.",
    )
    yield Working(
        "theoretical_draft_pa",
        "Theoretical draft of the vent",
        value,
        "pressure",
        why,
        spread(lambda v: pascals(dict(v)), values, widths),
    )
    yield from _against(context, value)


def _against(context: Context, theoretical: float) -> Iterator[Working]:
    measured = context.facts.newest("vent_draft_pa", None)
    if measured is None or theoretical <= 0:
        return
    share = 100 * abs(measured.value) / theoretical
    inputs = (
        Input("draft in the vent as read", abs(measured.value), "pressure"),
        Input("theoretical", theoretical, "pressure"),
    )
    state = "out" if share < 25 else "near" if share < 50 else "in"
    said = (
        ""
        if state == "in"
        else "Most of the draft is lost: blockage, air drawn in, a cold vent, or a room under suction."
    )
    why = Why("100 × read / theoretical", inputs, "Havrin's default, for guidance")
    yield Working("draft_share_pct", "Of it is there", share, "percent", why, 0.0, None, state, said)


def _category(context: Context, view: FlueView) -> Iterator[Working]:
    category = category_as_read(context, view)
    collar = context.facts.newest("collar_static_pa", None)
    if category is None or collar is None or view.result is None or view.result.losses is None:
        return
    temp, dew = view.result.sample.flue_temp_k or 0.0, view.result.losses.dew_point_k
    plate = context.unit.plate.vent_category
    inputs = (
        Input("pressure at the collar", collar.value, "pressure"),
        Input("flue at the collar", temp, "temperature"),
        Input("dew point of this flue", dew, "temperature"),
    )
    why = Why(
        "flue − dew point; under pressure or suction by the sign at the collar",
        inputs,
        "docs/formulas.md section 8",
        "Dry is 80 K or more above the dew point. The listing of unit and vent decides what may be fitted.",
    )
    said = f"Runs as category {category}" + (
        f"; the plate says {plate}." if plate else "; the plate’s was not entered."
    )
    state = "" if plate is None else "in" if category == plate else "near"
    yield Working(
        "over_dew_point_k",
        "Flue over its dew point",
        temp - dew,
        "temperature_difference",
        why,
        width_of(context, context.facts.newest("flue_temp_k", view.stage), "temperature"),
        None,
        state,
        said,
    )
