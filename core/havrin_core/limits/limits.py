"""Limits by order of authority: plate, manual, house rule, Havrin's default; each named."""

from dataclasses import dataclass

from havrin_core.house.house_rules import HouseRules
from havrin_core.house.schools import SCHOOLS
from havrin_core.machine.unit import PLATE_CHOICES, ManualLimit, Unit
from havrin_core.physics.electrical import (
    CURRENT_IMBALANCE_MOST_PCT,
    IGNITER_BANDS_OHM,
    SUPPLY_TOLERANCE,
    VOLTAGE_IMBALANCE_MOST_PCT,
)
from havrin_core.physics.fuels import LP_FUELS
from havrin_core.quantities.units import FOOT_M, INWC_PA
from havrin_core.quantities.why import Input, Why

SOURCES = {
    "plate": "data plate",
    "manual": "manual",
    "house": "house rule",
    "default": "Havrin's default, for guidance",
}
MANIFOLD_TOLERANCE = 0.05  # share of the plate value where the plate states none
ROOM_CO_SOURCE_PPM, ROOM_CO_STOP_PPM, ROOM_CO_OUT_PPM = 9.0, 35.0, 70.0
# Typical running supply, Pa: natural gas 5-13.5 inWC, LP 11-13 inWC
_SUPPLY_DEFAULT = {"natural": (5 * INWC_PA, 13.5 * INWC_PA), "lp": (11 * INWC_PA, 13 * INWC_PA)}
_LOCKUP_OVER_RUNNING = 1.30
_FLAME_DOUBT = 1.5
_WATER_LEAST_PA = 55_000.0  # about 8 psi: a two-storey system still full
NO2_RISE_MOST_PPM = 0.5
CO_RISE_MOST_PPM = 5.0  # discharge over intake of a direct-fired unit
CONTROL_LEAST_V = 18.0
SPILLAGE_MOST_S, SPILLAGE_WARM_S = 300.0, 120.0
_IMBALANCE = {
    "voltage_imbalance_pct": VOLTAGE_IMBALANCE_MOST_PCT, "current_imbalance_pct": CURRENT_IMBALANCE_MOST_PCT,
}  # fmt: skip
O2_STEP_DOUBT_PCT, O2_STEP_MOST_PCT = 0.5, 1.0  # percent points of O2, blower started against not
GAS_LEAK_MOST_M3_S, GAS_LEAK_DOUBT_M3_S = 1e-3 / 3600, 2e-4 / 3600  # 1 and 0.2 l/h
_LEAK_NOTE = "the local code’s own test and criterion go first; a smell of gas outweighs any figure"
_O2_STEP_NOTE = "first rule out what looks alike: door off, starved return, air at the probe, gas pressure that moved"
_DERATE_FLOOR_FT = 2000.0


@dataclass(frozen=True, slots=True)
class Band:
    """Where a value may lie. Beyond ``low``/``high`` it is out; beyond ``near_*`` it is in doubt."""

    source: str
    low: float | None = None
    high: float | None = None
    near_low: float | None = None
    near_high: float | None = None
    note: str = ""
    why: Why | None = None  # where the bounds are computed, not simply stamped

    def verdict(self, value: float) -> str:
        """Return "in", "near" or "out"; a value that is not a number is out."""
        if value != value or _below(value, self.low) or _above(value, self.high):
            return "out"
        return "near" if _below(value, self.near_low) or _above(value, self.near_high) else "in"


_OFF = 100 * SUPPLY_TOLERANCE
_SHARES = {
    "line_voltage_off_pct": Band("default", -_OFF, _OFF, -0.8 * _OFF, 0.8 * _OFF, "of the plate’s voltage, under load"),
    "transformer_load_pct": Band("default", high=100.0, near_high=85.0, note="its rating in VA"),
    "belt_deflection_pct": Band("default", 0.8, 2.5, 1.2, 2.0, "1/64 of the span; the belt maker’s figure goes first"),
    "vent_run_pct": Band(
        "default", high=100.0, near_high=95.0, note="the manual’s most, elbows counted as 5 and 2.5 ft"
    ),
}


def band_for(
    unit: Unit, rules: HouseRules, quantity: str, stage: str | None, running_pa: float | None = None
) -> Band | None:
    """Return the band for a reading, or None where neither plate nor rule knows a limit.

    ``running_pa`` is the running supply, against which lock-up is judged.
    """
    band = _plate_or_default(unit, rules, quantity, stage, running_pa)
    if band is not None and band.source == "plate":
        return band
    limit = unit.manual_limit(quantity, stage)
    return _by_manual(limit) if limit is not None else band


def _by_manual(limit: ManualLimit) -> Band:
    note = limit.page
    if limit.low is None or limit.high is None:
        return Band("manual", limit.low, limit.high, note=note)
    tenth = 0.1 * (limit.high - limit.low)
    return Band("manual", limit.low, limit.high, limit.low + tenth, limit.high - tenth, note)


def _plate_or_default(
    unit: Unit, rules: HouseRules, quantity: str, stage: str | None, running_pa: float | None
) -> Band | None:
    plate = unit.plate
    if quantity == "manifold_pa":
        return _manifold(unit, stage)
    if quantity == "supply_running_pa":
        return _supply(unit)
    if quantity == "supply_standing_pa":
        return _lock_up(unit, running_pa)
    if quantity == "input_w":
        return _input(unit, rules, stage)
    if quantity == "draft_pa":
        return _draft(unit, rules, stage)
    if quantity == "draft_least_pa":
        return _draft_least(unit, stage)
    if quantity == "flame_least_a" and plate.flame_min_a is not None:
        return Band("plate", low=plate.flame_min_a, note="the control’s least, never under it")
    if quantity == "control_least_v":
        return Band("default", low=CONTROL_LEAST_V, near_low=21.0, note="of 24 V nominal, while it ran")
    if quantity == "flame_current_a" and plate.flame_min_a is not None:
        return _flame(plate.flame_min_a, unit.manual_limit("flame_current_a", stage))
    if quantity == "igniter_ohm":
        return _igniter(plate.igniter)
    if quantity == "temperature_rise_k":
        return _between(unit.plate.rise_min_k, unit.plate.rise_max_k)
    if quantity == "supply_air_temp_k" and plate.supply_air_max_k is not None:
        return Band("plate", high=plate.supply_air_max_k, near_high=plate.supply_air_max_k - 5)
    if quantity == "external_static_pa" and plate.static_max_pa is not None:
        return Band("plate", low=0, high=plate.static_max_pa, near_high=0.9 * plate.static_max_pa)
    if quantity == "blower_current_a" and plate.blower_full_load_a is not None:
        return Band("plate", low=0, high=plate.blower_full_load_a, near_high=0.95 * plate.blower_full_load_a)
    if quantity == "water_pressure_pa":
        return _water_pressure(plate.water_relief_pa)
    if quantity == "water_supply_temp_k" and plate.water_max_k is not None:
        return Band("plate", high=plate.water_max_k, near_high=plate.water_max_k - 5)
    if quantity == "water_rise_k":
        return _between(plate.water_rise_min_k, plate.water_rise_max_k)
    if quantity == "spillage_s":
        return Band(
            "default",
            high=SPILLAGE_MOST_S,
            near_high=SPILLAGE_WARM_S,
            note="of main burner, 2 minutes when the vent is warm",
        )
    if quantity == "o2_step_pct":
        return Band(
            "default", -O2_STEP_MOST_PCT, O2_STEP_MOST_PCT, -O2_STEP_DOUBT_PCT, O2_STEP_DOUBT_PCT, _O2_STEP_NOTE
        )
    if quantity in _SHARES:
        return _SHARES[quantity]
    if quantity == "gas_leak_m3_s":
        doubt = GAS_LEAK_DOUBT_M3_S
        return Band("default", -GAS_LEAK_MOST_M3_S, GAS_LEAK_MOST_M3_S, -doubt, doubt, _LEAK_NOTE)
    if quantity in _IMBALANCE:
        most = _IMBALANCE[quantity]
        return Band("default", high=most, near_high=0.8 * most)
    if quantity == "room_co_ppm":
        return Band("default", high=ROOM_CO_SOURCE_PPM, note="above the outdoor level")
    return None


def input_at_altitude_w(unit: Unit, rules: HouseRules, stage: str) -> float | None:
    """Return the plate's gross input at the unit's altitude by the house's derating rule, W; None without a plate."""
    rated = unit.stage(stage).input_w
    return None if rated is None else rated * (1 - derate_share(unit.altitude_m, rules))


def derate_share(altitude_m: float, rules: HouseRules) -> float:
    """Return the share of the input that altitude takes away under the house's rule, 0 to 1."""
    feet = altitude_m / FOOT_M
    per_1000_ft = {"four_pct_per_1000_ft": 0.04, "two_pct_per_1000_ft": 0.02, "none": 0.0}[rules.altitude_derate]
    return per_1000_ft * feet / 1000 if feet > _DERATE_FLOOR_FT else 0.0


def _below(value: float, bound: float | None) -> bool:
    return bound is not None and value < bound


def _above(value: float, bound: float | None) -> bool:
    return bound is not None and value > bound


def _manifold(unit: Unit, stage: str | None) -> Band | None:
    target = unit.stage(stage).manifold_pa if stage else None
    if target is None:
        return None
    width = MANIFOLD_TOLERANCE * target
    near = 0.8 * width
    inputs = (Input("manifold pressure on the plate", target, "pressure"),)
    why = Why("plate value × 0.95 to plate value × 1.05", inputs, "the plate states no tolerance: 5 % is usual")
    return Band("plate", target - width, target + width, target - near, target + near, "plate value ±5 %", why)


def _supply(unit: Unit) -> Band:
    low, high = unit.plate.supply_min_pa, unit.plate.supply_max_pa
    source = "plate"
    if low is None or high is None:
        usual = _SUPPLY_DEFAULT["lp" if unit.plate.fuel in LP_FUELS else "natural"]
        low, high, source = low or usual[0], high or usual[1], "default"
    edge = 0.05 * (high - low)
    return Band(source, low, high, low + edge, high - edge)


def _lock_up(unit: Unit, running_pa: float | None) -> Band:
    most = _supply(unit)
    if running_pa is None:
        return Band(most.source, high=most.high)
    over = min(_LOCKUP_OVER_RUNNING * running_pa, most.high or float("inf"))
    inputs = (Input("running supply", running_pa, "pressure"), Input("most at the valve", most.high or 0.0, "pressure"))
    why = Why("running supply × 1.30, and never above the most that the valve may see", inputs, SOURCES["default"])
    return Band("default", high=over, near_high=0.95 * over, note="at most 30 % over running", why=why)


def _input(unit: Unit, rules: HouseRules, stage: str | None) -> Band | None:
    rated = input_at_altitude_w(unit, rules, stage) if stage else None
    if rated is None:
        return None
    why = _input_why(unit, rules, stage or "")
    return Band("plate", 0.90 * rated, 1.05 * rated, 0.95 * rated, 1.02 * rated, "plate input at this altitude", why)


def _input_why(unit: Unit, rules: HouseRules, stage: str) -> Why:
    share = derate_share(unit.altitude_m, rules)
    inputs = (
        Input("input on the plate", unit.stage(stage).input_w or 0.0, "power"),
        Input("altitude", unit.altitude_m, "length"),
        Input("taken off for altitude", 100 * share, "percent"),
    )
    source = f"data plate; house rule for altitude: {SCHOOLS['altitude_derate'][rules.altitude_derate].rstrip('.')}"
    note = "Gross heating value, as the plate. The maker's own altitude table goes before this rule."
    return Why("plate input × (1 − altitude share), of which 90 % to 105 %", inputs, source, note)


def _draft(unit: Unit, rules: HouseRules, stage: str | None) -> Band | None:
    point = unit.stage(stage).switch_makes_pa if stage else None
    if point is None:
        return None
    margin = rules.draft_margin_share
    inputs = (Input("make point stamped on the switch", point, "pressure"), Input("margin", 100 * margin, "percent"))
    why = Why("near below: make point × (1 + margin)", inputs, "data plate; margin by house rule")
    return Band("plate", point, near_low=point * (1 + margin), note="suction beyond the stamped make point", why=why)


def _draft_least(unit: Unit, stage: str | None) -> Band | None:
    point = unit.stage(stage).switch_makes_pa if stage else None
    return None if point is None else Band("plate", low=point, note="the stamped make point, never under it")


def _flame(least_a: float, manual: ManualLimit | None) -> Band:
    """Return the band of the flame signal: the control's least, and the most that its manual knows of a sound rod."""
    why = Why(
        f"near below: least on the plate × {_FLAME_DOUBT:g}",
        (Input("least on the plate", least_a, "current_small"),),
        "data plate; the margin is " + SOURCES["default"],
    )
    usual = manual.high if manual else None
    note = f"over its usual most, {manual.page}: rod touching, or moisture?" if manual and usual else ""
    return Band("plate", low=least_a, near_low=_FLAME_DOUBT * least_a, near_high=usual, note=note, why=why)


def _igniter(kind: str | None) -> Band:
    """Return the band of a cold hot-surface igniter; of an unknown type the widest of all."""
    bands = IGNITER_BANDS_OHM
    low, high = bands[kind] if kind else (min(b[0] for b in bands.values()), max(b[1] for b in bands.values()))
    said = PLATE_CHOICES["igniter"][1][kind] if kind else "type not on the plate: any hot-surface type"
    return Band("default", low, high, note=f"{said}, cold; white marks count whatever the ohms say")


def _water_pressure(relief_pa: float | None) -> Band | None:
    """Return the band of a closed system's pressure: enough to fill it, and clear of the relief valve."""
    if relief_pa is None:
        return Band(
            "default", low=_WATER_LEAST_PA, near_low=1.2 * _WATER_LEAST_PA, note="enough to keep the system full"
        )
    inputs = (Input("relief valve's rating", relief_pa, "water_pressure"),)
    why = Why("relief rating × 0.90; doubt from 0.80", inputs, "relief valve's tag; margin is " + SOURCES["default"])
    return Band(
        "plate",
        _WATER_LEAST_PA,
        0.9 * relief_pa,
        1.2 * _WATER_LEAST_PA,
        0.8 * relief_pa,
        "clear of the relief valve",
        why,
    )


def _between(low: float | None, high: float | None) -> Band | None:
    if low is None or high is None:
        return None
    tenth = 0.1 * (high - low)
    return Band("plate", low, high, low + tenth, high - tenth)
