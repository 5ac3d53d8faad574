"""Outcomes of tests as people say them."""

from havrin_core.machine.virtual.run import DARK
from havrin_core.search.model import Outcome, Test

_SAID = {
    "watch": {"ok": "never lets go", "bad": "lets go"},
    "ohms": {"ok": "as it should", "open": "open", "high": "far too high"},
    "code": {DARK: "no code: the control is dark"},
}
_FLUE = {
    "o2_dry_pct": "{:.1f} % O₂",
    "co_air_free_ppm": "{:.0f} ppm CO air-free",
    "o2_step_pct": "{:+.1f} % O₂",
    "flue_temp_k": "{:.0f} K",
}
_IN_ORDER = {"ok": "in order", "bad": "not in order"}


def in_words(test: Test, outcome: Outcome) -> str:
    """Return an outcome in words. Gauges are told as a share of what a sound unit shows."""
    if isinstance(outcome, float):
        return _number(test, outcome)
    said = dict(test.words) or _SAID.get(test.kind) or (_IN_ORDER if test.kind in ("look", "swap", "jump") else {})
    return said.get(str(outcome), str(outcome))


def _number(test: Test, value: float) -> str:
    if test.kind == "volts":
        return f"{value * 1000:.0f} mV" if test.direct and value < 1 else f"{value:.1f} V"
    if test.quantity == "flame_current_a":
        return f"{value * 1e6:.1f} µA"
    if test.quantity in _FLUE:
        return _FLUE[test.quantity].format(value)
    if value < 0.02 * test.nominal:
        return "nothing"
    return f"{100 * value / test.nominal:.0f} % of a sound unit’s"
