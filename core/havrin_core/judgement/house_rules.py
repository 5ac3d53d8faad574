"""A firm's choice among the schools of practice, each with its reason, and its limits."""

from dataclasses import dataclass, fields
from typing import Any

from havrin_core.errors import BadDocument

SCHOOLS: dict[str, dict[str, str]] = {
    "co_criterion": {
        "air_free": "Air-free CO cannot be diluted away: act above 400 ppm, ask why above 100.",
        "as_measured": "What the analyzer shows, stable and below 100 ppm.",
        "ratio": "CO/CO₂ needs no oxygen cell: 0.004 condensing, 0.008 others.",
    },
    "manual_reset": {
        "five_cycles": "Cause named, then 5 cycles.",
        "twelve_cycles": "Cause named, 12 cycles watched, and a re-check within days.",
    },
    "exchanger_suspected": {
        "not_left_running": "A suspected exchanger is not left running until seen or tested.",
        "notice_and_date": "With one weak sign alone it runs on, with notice and a date.",
    },
    "measure_first": {
        "measure_first": "Measure first, then change one thing: only then is the cause proven.",
        "clean_at_once": "What is plainly dirty is cleaned at once; the cause is then not proven.",
    },
    "jumpers": {
        "call_and_proving_switch": "A simulated call, and a proving switch for seconds: attended, logged, out again.",
        "call_only": "A simulated call is a test; no switch of the string is ever jumped.",
        "none": "No jumper at all: every switch is read across, live or with the power off.",
    },
    "live_work": {
        "with_caution": "Line voltage is read live where it must be, by who is qualified.",
        "low_voltage_only": "Only the 24 V side is read live; line voltage is left to the electrician.",
    },
    "altitude_derate": {
        "four_pct_per_1000_ft": "Above 2000 ft, 4 % per 1000 ft counted from sea level.",
        "two_pct_per_1000_ft": "Above 2000 ft, 2 % per 1000 ft: many fan-assisted units.",
        "none": "The plate's input is used as it stands.",
    },
}


@dataclass(frozen=True, slots=True)
class HouseRules:
    """One firm's rules. Limits are house limits: plate and manual go before them."""

    name: str = "strict"
    co_criterion: str = "air_free"
    manual_reset: str = "five_cycles"
    exchanger_suspected: str = "not_left_running"
    measure_first: str = "measure_first"
    jumpers: str = "call_and_proving_switch"
    live_work: str = "with_caution"
    altitude_derate: str = "four_pct_per_1000_ft"
    co_air_free_action_ppm: float = 400.0
    co_air_free_ask_ppm: float = 100.0
    co_as_measured_ppm: float = 100.0
    draft_margin_share: float = 0.20

    @property
    def reset_cycles(self) -> int:
        """Cycles to watch after a manual-reset trip."""
        return 12 if self.manual_reset == "twelve_cycles" else 5


def house_rules_from_dict(data: dict[str, Any]) -> HouseRules:
    """Return the rules that ``data`` sets, the rest by default. Raises BadDocument."""
    known = {f.name for f in fields(HouseRules)}
    for key, value in data.items():
        if key not in known:
            raise BadDocument("rule_unknown", f"No house rule is called {key!r}.", value=key)
        if key in SCHOOLS and value not in SCHOOLS[key]:
            choices = ", ".join(SCHOOLS[key])
            raise BadDocument("rule_choice", f"House rule {key} is one of {choices}, not {value!r}.", value=key)
    return HouseRules(**data)
