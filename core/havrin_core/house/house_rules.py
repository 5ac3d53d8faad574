"""A firm's choice among the schools of practice, and its limits."""

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from math import isfinite
from typing import Any

from havrin_core.errors import BadDocument
from havrin_core.house.schools import SCHEMES, SCHOOLS
from havrin_core.phrases import Saying, phrase


@dataclass(frozen=True, slots=True)
class HouseRules:
    """One firm's rules. Limits are house limits: plate and manual go before them."""

    name: str = "common practice"
    measure_first: str = "measure_first"
    code_and_reset: str = "read_first"
    switch_test: str = "live_volts"
    jumpers: str = "call_and_proving_switch"
    live_work: str = "with_caution"
    inducer_switch: str = "on_evidence"
    replacement_switch: str = "universal_matched"
    flame_rod: str = "every_maintenance"
    setting_the_fire: str = "manifold_first"
    co_criterion: str = "air_free"
    efficiency_shown: str = "by_units"
    exchanger_suspected: str = "not_left_running"
    manual_reset: str = "five_cycles"
    worn_part: str = "advise"
    temporary_repair: str = "allowed_dated"
    altitude_derate: str = "four_pct_per_1000_ft"
    region: str = "north_america"
    scheme: str = "four_levels"
    photo_place: str = "removed"
    co_air_free_action_ppm: float = 400.0
    co_air_free_ask_ppm: float = 100.0
    co_as_measured_ppm: float = 100.0
    draft_margin_share: float = 0.20
    tightness_least_min: float = 10.0
    line_hz: float = 60.0

    @property
    def reset_cycles(self) -> int:
        """Cycles to watch after a manual-reset trip."""
        return 12 if self.manual_reset == "twelve_cycles" else 5

    def words_for(self, level: int) -> Saying:
        """Return what the house's scheme calls the standing ``level``."""
        return SCHEMES[self.scheme][level]


MOST_NAME = 60
# house limit -> (name, dimension, least, most)
LIMITS: Mapping[str, tuple[str, str, float, float]] = {
    "co_air_free_action_ppm": ("Flue CO air-free: act above", "ppm", 50, 2000),
    "co_air_free_ask_ppm": ("Flue CO air-free: ask why above", "ppm", 10, 1000),
    "co_as_measured_ppm": ("Flue CO as measured: at most", "ppm", 10, 1000),
    "draft_margin_share": ("Draft beyond the switch's stamp, share of it", "share", 0.0, 1.0),
    "line_hz": ("Line frequency", "Hz", 50.0, 60.0),
    "tightness_least_min": ("Tightness test: at least", "min", 1.0, 240.0),
}

PRESETS: Mapping[str, HouseRules] = {
    "common practice": HouseRules(),
    "strict": HouseRules(
        "strict",
        switch_test="both",
        jumpers="none",
        inducer_switch="always_together",
        replacement_switch="original_only",
        setting_the_fire="meter_first",
        efficiency_shown="both",
        manual_reset="twelve_cycles",
        worn_part="replace",
        temporary_repair="not_allowed",
        co_air_free_action_ppm=200.0,
        co_air_free_ask_ppm=50.0,
    ),
    "ratio school, metric": HouseRules(
        "ratio school, metric",
        co_criterion="ratio",
        setting_the_fire="meter_first",
        altitude_derate="none",
        region="metric",
        scheme="two_classes",
        tightness_least_min=2.0,
        line_hz=50.0,
    ),
}


def efficiencies_shown(rules: HouseRules, system: str) -> tuple[str, ...]:
    """Return the efficiencies that the house shows to a reader of unit system ``us`` or ``metric``."""
    both = ("efficiency_gross_pct", "efficiency_net_pct")
    return both if rules.efficiency_shown == "both" else both[:1] if system == "us" else both[1:]


def house_rules_from_dict(data: Mapping[str, Any]) -> HouseRules:
    """Return the rules that ``data`` sets, the rest by default. Raises BadDocument with the rule in ``value``."""
    known = {f.name for f in fields(HouseRules)}
    for key, value in data.items():
        if key not in known:
            raise BadDocument("rule_unknown", phrase("no_house_rule_called", key_=key), value=key)
        if key in SCHOOLS and not (isinstance(value, str) and value in SCHOOLS[key]):
            choices = ", ".join(SCHOOLS[key])
            raise BadDocument(
                "rule_choice", phrase("house_rule_one_not", key_=key, choices=choices, value=value), value=key
            )
        if key in LIMITS:
            _check_limit(key, value)
    name = data.get("name", "house rules")
    if not isinstance(name, str) or not 1 <= len(name.strip()) <= MOST_NAME:
        raise BadDocument("rule_name", phrase("house_rules_have_name_1", most_name=MOST_NAME), value="name")
    rules = replace(HouseRules(), **data)
    if rules.co_air_free_ask_ppm >= rules.co_air_free_action_ppm:
        message = phrase("flue_co_air_free_asking")
        raise BadDocument("rule_order", message, value="co_air_free_ask_ppm")
    return rules


def _check_limit(key: str, value: Any) -> None:
    name, dimension, least, most = LIMITS[key]
    number = isinstance(value, int | float) and not isinstance(value, bool) and isfinite(value)
    if not number or not least <= value <= most:
        unit = "" if dimension == "share" else f" {dimension}"
        raise BadDocument(
            "rule_limit",
            phrase("number_from_not", name=name, least=least, most=most, unit=unit, value=value),
            value=key,
        )
