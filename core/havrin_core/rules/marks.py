"""How figures are marked by the reasons that speak of them."""

from collections.abc import Sequence

from havrin_core.rules.model import STATE_OF_LEVEL, Reason

_SPEAK_OF = {  # codes of reasons, the graver first
    "co_air_free_ppm": ("co_action", "co_ask"),
    "co_co2_ratio": ("co_ratio",),
    "excess_air_pct": ("o2_band",),
}


def flue_mark(key: str, reasons: Sequence[Reason]) -> str:
    """Return how a figure of the flue is marked: in, near, out, or "" for one that nothing judges."""
    levels = {reason.code: reason.level for reason in reasons}
    if key not in _SPEAK_OF:
        return ""
    opened = [levels[code] for code in _SPEAK_OF[key] if code in levels]
    return STATE_OF_LEVEL[opened[0]] if opened else "in"
