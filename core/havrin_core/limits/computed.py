"""Bounds that follow from the plate: plate value with its tolerance, lock-up over running, input at altitude, margins."""

from collections.abc import Callable, Mapping

from havrin_core.house.house_rules import HouseRules
from havrin_core.house.schools import SCHOOLS
from havrin_core.limits.least_draft import least_draft_pa
from havrin_core.limits.model import DEFAULT, HOUSE, PLATE, Band, Beside
from havrin_core.limits.table import LP, NATURAL, usual
from havrin_core.machine.unit import PLATE_CHOICES, ManualLimit, Unit
from havrin_core.phrases import phrase
from havrin_core.physics.electrical import IGNITER_BANDS_OHM
from havrin_core.physics.expansion import precharge_pa
from havrin_core.physics.fuels import LP_FUELS
from havrin_core.quantities.units import FOOT_M
from havrin_core.quantities.why import Input, Why

MANIFOLD_TOLERANCE = 0.05  # share of the plate value where the plate states none
_LOCKUP_OVER_RUNNING = 1.30
_FLAME_DOUBT = 1.5
_WATER_LEAST_PA = 55_000.0  # about 8 psi: a two-storey system still full
_DERATE_FLOOR_FT, _TEN_PCT_CEILING_FT = 2000.0, 4500.0

Computed = Callable[[Unit, HouseRules, str | None, Beside], Band | None]


def fuel_group(unit: Unit) -> str:
    """Return NATURAL or LP."""
    return LP if unit.plate.fuel in LP_FUELS else NATURAL


def input_at_altitude_w(unit: Unit, rules: HouseRules, stage: str) -> float | None:
    """Return the plate's gross input at the unit's altitude by the house's derating rule, W.

    None without a plate, and at an altitude of which the house's rule says nothing.
    """
    rated, share = gross_input_w(unit, stage), derate_share(unit.altitude_m, rules)
    return None if rated is None or share is None else rated * (1 - share)


def gross_input_w(unit: Unit, stage: str) -> float | None:
    """Return the plate's input at sea level, gross, W, whichever heating value the plate counts by; None without a plate."""
    stamped = unit.stage(stage).input_w
    if stamped is None or unit.plate.input_basis != "net":
        return stamped
    return stamped * unit.fuel.gross_j_mol / unit.fuel.net_j_mol


def derate_share(altitude_m: float, rules: HouseRules) -> float | None:
    """Return the share of the input that altitude takes away under the house's rule, 0 to 1; None where it says nothing.

    >>> derate_share(3000 * 0.3048, HouseRules())
    0.12
    """
    feet = altitude_m / FOOT_M
    if feet <= _DERATE_FLOOR_FT or rules.altitude_derate == "none":
        return 0.0
    if rules.altitude_derate == "table":
        return None  # the maker's own table: it stands in the manual, as the input at this altitude
    if rules.altitude_derate == "ten_pct_to_4500_ft":
        return 0.10 if feet <= _TEN_PCT_CEILING_FT else None
    return {"four_pct_per_1000_ft": 0.04, "two_pct_per_1000_ft": 0.02}[rules.altitude_derate] * feet / 1000


def _manifold(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    target = unit.stage(stage).manifold_pa if stage else None
    if target is None:
        return None
    width = MANIFOLD_TOLERANCE * target
    near = 0.8 * width
    inputs = (Input(phrase("manifold_pressure_plate"), target, "pressure"),)
    why = Why(phrase("plate_value_0_95_plate"), inputs, phrase("plate_states_no_tolerance_5"))
    return Band(DEFAULT, target - width, target + width, target - near, target + near, phrase("plate_value_5"), why)


def _supply(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    low, high = unit.plate.supply_min_pa, unit.plate.supply_max_pa
    if low is None and high is None:
        return None
    if low is None or high is None:
        return Band(PLATE, low, high)
    edge = 0.05 * (high - low)
    return Band(PLATE, low, high, low + edge, high - edge)


def _lock_up(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    stamped, typical = (
        _supply(unit, rules, stage, beside),
        usual("supply_running_pa", fuel_group(unit), unit.traits, rules.region),
    )
    supply = stamped if stamped and stamped.high is not None else typical
    most, running_pa = supply.high if supply else None, beside.running_pa
    if running_pa is None:
        return Band(supply.source, high=most, acquits=False) if supply and most is not None else None
    if supply is not None and supply.low is not None and running_pa < supply.low:
        # a line that sags under load makes a sound regulator look as if it locked up high
        return Band(supply.source, high=most, note=phrase("line_sags_no_lock_up"), acquits=False)
    over = min(_LOCKUP_OVER_RUNNING * running_pa, most or float("inf"))
    inputs = (
        Input(phrase("running_supply"), running_pa, "pressure"),
        Input(phrase("most_valve"), most or 0.0, "pressure"),
    )
    why = Why(phrase("running_supply_1_30_never"), inputs, "")
    return Band(DEFAULT, high=over, near_high=0.95 * over, note=phrase("most_30_over_running"), why=why)


def _input(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    rated = input_at_altitude_w(unit, rules, stage) if stage else None
    if rated is None or stage is None:
        return None
    why = _input_why(unit, rules, stage)
    source = HOUSE if derate_share(unit.altitude_m, rules) else DEFAULT
    return Band(source, 0.90 * rated, 1.05 * rated, 0.95 * rated, 1.02 * rated, phrase("plate_input_altitude"), why)


def _input_why(unit: Unit, rules: HouseRules, stage: str) -> Why:
    share = derate_share(unit.altitude_m, rules) or 0.0
    inputs = (
        Input(phrase("input_plate"), gross_input_w(unit, stage) or 0.0, "power"),
        Input("altitude", unit.altitude_m, "length"),
        Input(phrase("taken_off_altitude"), 100 * share, "percent"),
    )
    source = phrase("data_plate_house_rule_altitude", schools=SCHOOLS["altitude_derate"][rules.altitude_derate])
    note = phrase("gross_heating_value_plate_makers")
    return Why(phrase("plate_input_1_altitude_share"), inputs, source, note)


def _draft(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    point = unit.stage(stage).switch_makes_pa if stage else None
    if point is None:
        return None
    margin = rules.draft_margin_share
    inputs = (Input(phrase("make_point_stamped_switch"), point, "pressure"), Input("margin", 100 * margin, "percent"))
    why = Why(phrase("near_below_make_point_1"), inputs, phrase("data_plate_margin_house_rule"))
    return Band(PLATE, point, near_low=point * (1 + margin), note=phrase("suction_beyond_stamped_make_point"), why=why)


def _draft_least(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    point = unit.stage(stage).switch_makes_pa if stage else None
    return None if point is None else Band(PLATE, low=point, note=phrase("stamped_make_point_never_under"))


_DRAFT_DOUBT_PA = 1.0  # what a usual draft gauge does not tell apart


def _vent_draft(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    """Suction is negative: a vent that draws by itself must draw at least so much, the less the warmer it is outdoors."""
    if not unit.kind.draft_hood:
        return None
    if beside.outdoor_k is None:
        return Band(DEFAULT, high=0.0, note=phrase("least_draft_needs_outdoors"), acquits=False)
    least = least_draft_pa(beside.outdoor_k)
    why = Why(
        phrase("least_draft_over_outdoors"),
        (Input("outdoors", beside.outdoor_k, "temperature"),),
        phrase("havrins_default_guidance"),
        phrase("least_draft_differs"),
    )
    return Band(
        DEFAULT, high=-least, near_high=-least - _DRAFT_DOUBT_PA, note=phrase("least_draft_at_this_outdoors"), why=why
    )


def _flame(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    """The control's least, and the most that its manual knows of a sound rod."""
    least = unit.plate.flame_min_a
    if least is None:
        return None
    why = Why(
        phrase("near_below_least_plate", flame_doubt=_FLAME_DOUBT),
        (Input(phrase("least_plate"), least, "current_small"),),
        phrase("data_plate"),
    )
    manual = unit.manual_limit("flame_current_a", stage)
    usual_most = manual.high if manual else None
    note = phrase("over_its_usual_most_rod", page=manual.page) if manual and usual_most else ""
    return Band(PLATE, low=least, near_low=_FLAME_DOUBT * least, near_high=usual_most, note=note, why=why)


def _flame_least(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    least = unit.plate.flame_min_a
    return None if least is None else Band(PLATE, low=least, note=phrase("controls_least_never_under"))


def _igniter(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    """A cold hot-surface igniter by its type and voltage; of an unknown type anything that is usual at line voltage."""
    kind, bands = unit.plate.igniter, IGNITER_BANDS_OHM
    low, high = bands[kind] if kind else (bands["silicon_nitride"][0], bands["silicon_carbide"][1])
    said = PLATE_CHOICES["igniter"][1][kind] if kind else phrase("type_not_plate_any_hot")
    return Band(DEFAULT, low, high, note=phrase("cold_white_marks_count_whatever", said=said))


def _rise(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    return _between(unit.plate.rise_min_k, unit.plate.rise_max_k)


def _water_rise(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    return _between(unit.plate.water_rise_min_k, unit.plate.water_rise_max_k)


def _most(field: str, near: Callable[[float], float]) -> Computed:
    def band(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
        value: float | None = getattr(unit.plate, field)
        return None if value is None else Band(PLATE, high=value, near_high=near(value))

    return band


def _water_pressure(unit: Unit, rules: HouseRules, stage: str | None, beside: Beside) -> Band | None:
    """A closed system: enough to fill it, and clear of the relief valve."""
    relief_pa = unit.plate.water_relief_pa
    if relief_pa is None:
        return None
    inputs: tuple[Input, ...] = (Input(phrase("relief_valves_rating"), relief_pa, "water_pressure"),)
    least = _WATER_LEAST_PA if beside.height_m is None else precharge_pa(beside.height_m)
    if beside.height_m is not None:
        inputs = (*inputs, Input(phrase("height_of_the_system"), beside.height_m, "length"))
    why = Why(phrase("relief_rating_0_90_doubt"), inputs, phrase("relief_valves_tag_margin_havrins"))
    return Band(DEFAULT, least, 0.9 * relief_pa, 1.2 * least, 0.8 * relief_pa, phrase("clear_relief_valve"), why)


def _between(low: float | None, high: float | None) -> Band | None:
    if low is None or high is None:
        return None
    tenth = 0.1 * (high - low)
    return Band(PLATE, low, high, low + tenth, high - tenth)


COMPUTED: Mapping[str, Computed] = {
    "manifold_pa": _manifold,
    "supply_running_pa": _supply,
    "supply_standing_pa": _lock_up,
    "input_w": _input,
    "draft_pa": _draft,
    "draft_least_pa": _draft_least,
    "vent_draft_pa": _vent_draft,
    "flame_current_a": _flame,
    "flame_least_a": _flame_least,
    "igniter_ohm": _igniter,
    "temperature_rise_k": _rise,
    "supply_air_temp_k": _most("supply_air_max_k", lambda value: value - 5),
    "external_static_pa": _most("static_max_pa", lambda value: 0.9 * value),
    "blower_current_a": _most("blower_full_load_a", lambda value: 0.95 * value),
    "water_pressure_pa": _water_pressure,
    "water_supply_temp_k": _most("water_max_k", lambda value: value - 5),
    "water_rise_k": _water_rise,
}


def by_manual(limit: ManualLimit) -> Band:
    """Return the band of a limit out of the model's manual."""
    note = limit.page
    if limit.low is None or limit.high is None:
        return Band("manual", limit.low, limit.high, note=note)
    tenth = 0.1 * (limit.high - limit.low)
    return Band("manual", limit.low, limit.high, limit.low + tenth, limit.high - tenth, note)
