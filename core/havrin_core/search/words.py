"""Outcomes of tests as people say them."""

from collections.abc import Mapping

from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.virtual.run import DARK
from havrin_core.phrases import Saying, phrase
from havrin_core.quantities.formats import number
from havrin_core.search.model import NOTHING_WRONG, UNLISTED, Outcome, Test

_SAID: Mapping[str, Mapping[str, Saying]] = {
    "tripped": {"ok": phrase("not_tripped"), "bad": phrase("has_tripped")},
    "watch": {"ok": phrase("never_opens"), "bad": phrase("opens")},
    "ohms": {"ok": phrase("should"), "open": "open", "high": phrase("far_too_high")},
    "code": {DARK: phrase("no_code_control_dark")},
}
_FLUE = {
    "o2_dry_pct": (".1f", "% O₂"),
    "co_air_free_ppm": (".0f", "ppm CO air-free"),
    "o2_step_pct": ("+.1f", "% O₂"),
    "flue_temp_k": (".0f", "K"),
}
_IN_ORDER: Mapping[str, Saying] = {"ok": phrase("order_2"), "bad": phrase("not_order")}


def in_words(test: Test, outcome: Outcome) -> Saying:
    """Return an outcome in words. Gauges are told as a share of what a sound unit shows."""
    if isinstance(outcome, float):
        return _number(test, outcome)
    said: Mapping[str, Saying] = (
        dict(test.words) or _SAID.get(test.kind) or (_IN_ORDER if test.kind in ("look", "swap", "jump") else {})
    )
    return said.get(str(outcome), str(outcome))


def suspect_name(circuit: Circuit, label: str) -> Saying:
    """Return what a suspicion is called: a part by its name, what stands beside the parts by what it is."""
    kind, sign, part = label.partition(":")
    if not sign:
        return circuit.part(kind).name
    if kind == UNLISTED:
        return phrase("unlisted_near", part=circuit.part(part).name.lower()) if part else phrase("unlisted_anywhere")
    return phrase("nothing_is_wrong") if kind == NOTHING_WRONG else phrase("it_is_cured")


def _number(test: Test, value: float) -> Saying:
    if test.kind == "volts":
        return f"{number(value * 1000, '.0f')} mV" if test.direct and value < 1 else f"{number(value, '.1f')} V"
    if test.quantity == "flame_current_a":
        return f"{number(value * 1e6, '.1f')} µA"
    if test.quantity in _FLUE:
        spec, unit = _FLUE[test.quantity]
        return f"{number(value, spec)} {unit}"
    if value < 0.02 * test.nominal:
        return "nothing"
    return phrase("sound_units", value=100 * value / test.nominal)
