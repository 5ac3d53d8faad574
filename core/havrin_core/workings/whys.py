"""The 'why' behind a reading that was computed, not read."""

from havrin_core.quantities.why import Input, Why
from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand

_IMBALANCE = ("100 × largest distance from the mean / mean", "by definition", "")
_FORMULAS: dict[str, tuple[str, str, str]] = {
    "temperature_rise_k": (
        "supply air − return air",
        "by definition, from the two readings as last written",
        "A probe that sees the burner or the exchanger reads too high, and the rise with it.",
    ),
    "input_w": (
        "dial × turns / time × (barometer + gauge) / 101.325 kPa × 288.15 K / gas temperature × heating value at 15 °C",
        "meter clocking, docs/formulas.md section 7",
        "The heating value is the fuel's usual one: the supplier may have derated the line's gas for altitude already.",
    ),
    "gas_leak_m3_s": (
        "(moles before − moles after) / time, as volume at 15 °C and 101.325 kPa",
        "gas law with both pressures, both temperatures and the barometer, docs/formulas.md section 7",
        "Temperatures that were not written are taken as 20 °C before and after: 1 K of warming hides about 3.5 mbar of drop.",
    ),
    "transformer_load_pct": (
        "100 × volts × amps / rated VA",
        "by definition",
        "Read under load: everything that it feeds switched on.",
    ),
    "belt_deflection_pct": (
        "100 × deflection / free span",
        "rule of the trade: 1/64 of the span",
        "At a moderate push in the middle of the span.",
    ),
    "vent_run_pct": (
        "100 × (straight run + 5 ft each 90° elbow + 2.5 ft each 45° elbow) / the manual’s most",
        "usual equivalents",
        "The manual’s own equivalents go first.",
    ),
    "line_voltage_off_pct": (
        "100 × (line / plate − 1)",
        "by definition",
        "Read while everything runs that hangs on it.",
    ),
    "orifice_diameter_m": ("the drill as it was named", "table of numbered drills", ""),
    "capacitor_f": (
        "as read, or amps / (2π × frequency × volts) under load",
        "meter, one lead off, or under load",
        "Discharged before it was touched.",
    ),
    "voltage_imbalance_pct": _IMBALANCE,
    "current_imbalance_pct": _IMBALANCE,
}
_PARTS: dict[str, tuple[str, str]] = {
    "dial_volume_m3": ("one turn of the dial", "volume"),
    "revolutions": ("turns", "count"),
    "time_s": ("time", "time"),
    "meter_gauge_pa": ("pressure at the meter", "pressure"),
    "meter_temp_k": ("gas at the meter, taken as", "temperature"),
    "baro_pa": ("barometer here", "pressure"),
    "gross_j_m3": ("gross heating value", "heating_value"),
    "closed_volume_m3": ("closed volume", "volume"),
    "start_gauge_pa": ("gauge before", "pressure"),
    "end_gauge_pa": ("gauge after", "pressure"),
    "start_temp_k": ("temperature before", "temperature"),
    "end_temp_k": ("temperature after", "temperature"),
    "drop_corrected_pa": ("drop, temperature taken out", "pressure"),
    "least_s": ("shortest test that shows the criterion on a gauge of 0.1 mbar", "time"),
    "secondary_v": ("secondary", "voltage"),
    "secondary_a": ("secondary", "current"),
    "rated_va": ("rating, VA", "count"),
    "deflection_m": ("deflection", "bore"),
    "span_m": ("free span", "bore"),
    "straight_m": ("straight run", "length"),
    "elbows_90": ("90° elbows", "count"),
    "elbows_45": ("45° elbows", "count"),
    "most_m": ("the manual’s most", "length"),
    "burner_count": ("orifices", "count"),
    "rated_f": ("rating", "capacitance"),
    "line_v": ("line, under load", "voltage"),
    "nominal_v": ("on the plate", "voltage"),
    "amps_a": ("amps of the winding", "current"),
    "volts_v": ("volts across the capacitor", "voltage"),
}


def why_of(view: ReadingView) -> Why | None:
    """Return how the reading was computed; None when it was read from an instrument."""
    return computed_why(view.quantity, view.computed_from) if view.computed_from else None


def computed_why(quantity: str, computed_from: tuple[tuple[str, float], ...]) -> Why:
    """Return how ``quantity`` came from the numbers that the tape keeps with it."""
    formula, source, note = _FORMULAS[quantity]
    return Why(formula, tuple(_input(quantity, name, value) for name, value in computed_from), source, note)


def _input(quantity: str, name: str, value: float) -> Input:
    if name in _PARTS:
        return Input(_PARTS[name][0], value, _PARTS[name][1])
    if name.startswith("phase_"):
        return Input(name.replace("_", " "), value, "voltage" if quantity.startswith("voltage") else "current")
    return Input(measurand(name).name, value, measurand(name).dimension)
