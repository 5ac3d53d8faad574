"""The vent's category, as its pressure and its flue temperature show it."""

from havrin_core.phrases import phrase
from havrin_core.physics.states import require

CONDENSES_BELOW_K = 80.0  # over the dew point at the collar: nearer than that, water stays in the vent
_NUMERALS = {(False, False): "I", (False, True): "II", (True, False): "III", (True, True): "IV"}


def vent_category(collar_static_pa: float, flue_temp_k: float, dew_point_k: float) -> str:
    """Return "I" to "IV": under suction or pressure at the collar, dry or wet.

    Pressure -500 to 500 Pa against the room (suction is negative), temperatures 230 to 1000 K. Wet is a flue less
    than 80 K above its dew point. Raises OutOfDomain. Source: docs/formulas.md, section 8.
    """
    require("collar_static_pa", collar_static_pa, -500.0, 500.0, phrase("pressure_collar_pa"))
    require("flue_temp_k", flue_temp_k, 230.0, 1000.0, phrase("flue_temperature_k"))
    require("dew_point_k", dew_point_k, 230.0, 400.0, phrase("dew_point_k"))
    return _NUMERALS[collar_static_pa > 0, flue_temp_k < dew_point_k + CONDENSES_BELOW_K]
