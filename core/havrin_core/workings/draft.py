"""Draft: margin at each switch, theoretical draft of the vent, spillage."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band
from havrin_core.phrases import Saying, phrase, together
from havrin_core.physics.chimney import chimney_draft, wet_flue_molar_mass_kg
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.beside import beside_of
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView
from havrin_core.rules.vent import category_as_read
from havrin_core.workings.model import Working, signed, spread, width_of
from havrin_core.workings.room_air import room_air_workings

_USUAL_O2_PCT, _USUAL_RH_PCT, _ROOM_K = 9.0, 40.0, 293.15
# Share of the flue's excess over outdoors that is left as a mean of the height: bare metal in the cold to a lined shaft
_COOLING, _COOLING_WIDTH = 0.6, 0.2


def draft_workings(context: Context, flue: list[FlueView], system: str) -> list[Working]:
    """Return the figures of draft and vent."""
    margins = (w for stage in context.unit.stage_keys for w in (*_margin(context, stage), *_break(context, stage)))
    category = (w for view in flue[-1:] for w in _category(context, view))
    return [*margins, *_least(context), *_theoretical(context), *category, *room_air_workings(context, system)]


def spillage_rule(band: Band | None) -> Saying:
    """Return how long spillage may last, by ``band`` of the seconds until it stopped; nothing where nobody knows."""
    if band is None or band.high is None or band.near_high is None:
        return ""
    return phrase("spillage_rule", most=band.high / 60, warm=band.near_high / 60)


def _margin(context: Context, stage: str) -> Iterator[Working]:
    point = context.unit.stage(stage).switch_makes_pa
    fact = context.facts.newest("draft_pa", stage)
    if point is None or fact is None:
        return
    value = abs(fact.value) - point
    inputs = (
        Input(phrase("suction_switch"), abs(fact.value), "draft"),
        Input(phrase("make_point_stamped"), point, "draft"),
    )
    band = band_for(context.unit, context.rules, "draft_pa", stage)
    why = Why(
        phrase("suction_make_point"),
        inputs,
        phrase("data_plate"),
        phrase("house_wants_beyond_stamp", draft_margin_share=100 * context.rules.draft_margin_share),
    )
    said = phrase("beyond_stamp", value=signed(100 * value / point))
    yield Working(
        "draft_margin_pa",
        phrase("margin_switch"),
        value,
        "draft",
        why,
        width_of(context, fact, "draft"),
        stage,
        band.verdict(abs(fact.value)) if band else "",
        said,
    )


def _break(context: Context, stage: str) -> Iterator[Working]:
    """How far the suction may fall before the switch lets go: from its break point, which lies under its make point."""
    opens, fact = context.facts.newest("switch_break_pa", stage), context.facts.newest("draft_pa", stage)
    if opens is None or fact is None:
        return
    value = abs(fact.value) - abs(opens.value)
    makes = context.facts.newest("switch_make_pa", stage)
    inputs = [
        Input(phrase("suction_switch"), abs(fact.value), "draft"),
        Input(phrase("breaks_at"), abs(opens.value), "draft"),
    ]
    inputs += [Input(phrase("makes_at"), abs(makes.value), "draft")] if makes else []
    why = Why(phrase("suction_break_point"), tuple(inputs), phrase("read"))
    width = 2**0.5 * width_of(context, fact, "draft")
    stamp = context.unit.stage(stage).switch_makes_pa
    drifted = makes is not None and stamp is not None and abs(abs(makes.value) - stamp) > max(0.1 * stamp, width)
    said = phrase("makes_off_its_stamp") if drifted else ""
    state = "out" if value <= 0 else "near" if drifted or value <= width else "in"
    yield Working("break_margin_pa", phrase("suction_over_break"), value, "draft", why, width, stage, state, said)


def _theoretical(context: Context) -> Iterator[Working]:
    facts = context.facts
    height, outdoor = facts.newest("vent_height_m", None), facts.newest("outdoor_temp_k", None)
    stage = context.unit.stage_keys[-1]
    flue, oxygen = facts.newest("flue_temp_k", stage), facts.newest("o2_dry_pct", stage)
    if height is None or outdoor is None or flue is None:
        return
    o2 = oxygen.value if oxygen else _USUAL_O2_PCT

    def pascals(v: dict[str, float]) -> float:
        mean = v["outdoor"] + v["cooling"] * (v["flue"] - v["outdoor"])
        mass = wet_flue_molar_mass_kg(context.unit.fuel, o2, _ROOM_K, _USUAL_RH_PCT, context.unit.baro_pa)
        return chimney_draft(v["height"], mean, v["outdoor"], context.unit.baro_pa, mass).draft_pa

    values = {"height": height.value, "flue": flue.value, "outdoor": outdoor.value, "cooling": _COOLING}
    widths = {
        "height": width_of(context, height, "length"),
        "flue": width_of(context, flue, "temperature"),
        "outdoor": width_of(context, outdoor, "temperature"),
        "cooling": _COOLING_WIDTH,
    }
    try:
        value = pascals(values)
    except OutOfDomain:
        return
    inputs = (
        Input("height", height.value, "length"),
        Input(phrase("flue_collar"), flue.value, "temperature"),
        Input("outdoors", outdoor.value, "temperature"),
        Input("O₂", o2, "percent"),
        Input(phrase("barometer_here"), context.unit.baro_pa, "pressure"),
    )
    why = Why(
        phrase("9_80665_height_density_outdoors"),
        inputs,
        phrase("docs_formulas_md_section_8"),
        phrase("mean_vent_taken_outdoors_flues", cooling=_COOLING),
    )
    width = spread(lambda v: pascals(dict(v)), values, widths)
    yield Working("theoretical_draft_pa", phrase("theoretical_draft_vent"), value, "draft", why, width)
    yield from _against(context, value, width)


def _against(context: Context, theoretical: float, half_width: float) -> Iterator[Working]:
    """Of a vent past a hood or a barometric damper theory is no measure: room air is drawn in on purpose."""
    measured = context.facts.newest("vent_draft_pa", None)
    if measured is None or theoretical <= 0:
        return
    share = -100 * measured.value / theoretical  # suction is negative: a vent under pressure has none of it
    width = spread(
        lambda v: 100 * v["read"] / v["theory"],
        {"read": abs(measured.value), "theory": theoretical},
        {"read": width_of(context, measured, "draft"), "theory": half_width},
    )
    inputs = (
        Input(phrase("draft_vent_read"), measured.value, "draft"),
        Input("theoretical", theoretical, "draft"),
    )
    state, said = _share_state(context, share + width)
    why = Why(phrase("100_read_theoretical"), inputs, phrase("havrins_default_guidance"))
    yield Working("draft_share_pct", phrase("there"), share, "percent", why, width, None, state, said)


def _share_state(context: Context, share_at_best: float) -> tuple[str, Saying]:
    if share_at_best < 0:
        return "out", phrase("vent_under_pressure")
    if context.unit.kind.draft_hood:
        return "", phrase("judged_by_least_draft")
    state = "out" if share_at_best < 25 else "near" if share_at_best < 50 else "in"
    return state, "" if state == "in" else phrase("most_draft_lost_blockage_air")


def _least(context: Context) -> Iterator[Working]:
    outdoor, measured = (context.facts.newest(q, None) for q in ("outdoor_temp_k", "vent_draft_pa"))
    band = band_for(context.unit, context.rules, "vent_draft_pa", None, beside_of(context.facts))
    if outdoor is None or band is None or band.high is None or band.why is None:
        return
    state = band.verdict(measured.value) if measured else ""
    yield Working(
        "draft_wanted_pa", phrase("least_draft_wanted"), -band.high, "draft", band.why, 0.0, None, state, band.note
    )


def _category(context: Context, view: FlueView) -> Iterator[Working]:
    category = category_as_read(context, view)
    collar = context.facts.newest("collar_static_pa", None)
    if category is None or collar is None or view.result is None or view.result.losses is None:
        return
    temp, dew = view.result.sample.flue_temp_k or 0.0, view.result.losses.dew_point_k
    plate = context.unit.plate.vent_category
    inputs = (
        Input(phrase("pressure_collar"), collar.value, "draft"),
        Input(phrase("flue_collar"), temp, "temperature"),
        Input(phrase("dew_point_flue"), dew, "temperature"),
    )
    why = Why(
        phrase("flue_dew_point_under_pressure"),
        inputs,
        phrase("docs_formulas_md_section_8"),
        phrase("dry_80_k_more_above"),
    )
    said = together(
        phrase("runs_category", category=category),
        phrase("plate_says", plate=plate) if plate else phrase("plates_not_entered"),
    )
    state = "" if plate is None else "in" if category == plate else "near"
    yield Working(
        "over_dew_point_k",
        phrase("flue_over_its_dew_point"),
        temp - dew,
        "temperature_difference",
        why,
        width_of(context, context.facts.newest("flue_temp_k", view.stage), "temperature"),
        None,
        state,
        said,
    )
