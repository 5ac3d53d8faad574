"""The 'why' behind a reading that was computed, not read."""

from havrin_core.phrases import Saying, phrase
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand

_IMBALANCE = (phrase("100_largest_distance_from_mean"), phrase("definition"), "")
_FORMULAS: dict[str, tuple[Saying, Saying, Saying]] = {
    "temperature_rise_k": (
        phrase("supply_air_return_air"),
        phrase("definition_from_two_readings_last"),
        phrase("probe_sees_burner_exchanger_reads"),
    ),
    "input_w": (
        phrase("dial_turns_time_barometer_gauge"),
        phrase("meter_clocking_docs_formulas_md"),
        phrase("heating_value_fuels_usual_one"),
    ),
    "gas_leak_m3_s": (
        phrase("moles_before_moles_after_time"),
        phrase("gas_law_both_pressures_both"),
        phrase("temperatures_were_not_written_are"),
    ),
    "transformer_load_pct": (
        phrase("hundred_amps_over_rated"),
        phrase("definition"),
        phrase("read_under_load_everything_feeds"),
    ),
    "belt_deflection_pct": (
        phrase("100_deflection_free_span"),
        phrase("rule_trade_1_64_span"),
        phrase("moderate_push_middle_span"),
    ),
    "vent_run_pct": (
        phrase("100_straight_run_5_ft"),
        phrase("usual_equivalents"),
        phrase("manuals_own_equivalents_go_first"),
    ),
    "line_voltage_off_pct": (
        phrase("100_line_plate_1"),
        phrase("definition"),
        phrase("read_while_everything_runs_hangs"),
    ),
    "line_loss_pa": (
        phrase("friction_of_the_run"),
        phrase("docs_formulas_md_section_7"),
        phrase("steel_pipe_taken"),
    ),
    "glycol_pct": (phrase("typed_read"), phrase("technician"), ""),
    "orifice_diameter_m": (phrase("drill_named"), phrase("table_numbered_drills"), ""),
    "capacitor_f": (
        phrase("read_amps_2_frequency_volts"),
        phrase("meter_one_lead_off_under"),
        phrase("discharged_before_touched"),
    ),
    "voltage_imbalance_pct": _IMBALANCE,
    "current_imbalance_pct": _IMBALANCE,
}
_PARTS: dict[str, tuple[Saying, str]] = {
    "dial_volume_m3": (phrase("one_turn_dial"), "volume"),
    "revolutions": ("turns", "count"),
    "time_s": ("time", "time"),
    "meter_gauge_pa": (phrase("pressure_meter"), "pressure"),
    "meter_temp_k": (phrase("gas_meter_taken"), "temperature"),
    "baro_pa": (phrase("barometer_here"), "pressure"),
    "meter_taken_pa": (phrase("pressure_meter_taken"), "pressure"),
    "half_width_w": (phrase("half_width_of_the_input"), "power"),
    "discharge": (phrase("discharge_coefficient"), "count"),
    "gross_j_m3": (phrase("gross_heating_value"), "heating_value"),
    "closed_volume_m3": (phrase("closed_volume"), "volume"),
    "start_gauge_pa": (phrase("gauge_before"), "pressure"),
    "end_gauge_pa": (phrase("gauge_after"), "pressure"),
    "start_temp_k": (phrase("temperature_before"), "temperature"),
    "end_temp_k": (phrase("temperature_after"), "temperature"),
    "drop_corrected_pa": (phrase("drop_temperature_taken_out"), "pressure"),
    "gauge_step_pa": (phrase("gauges_own_step"), "pressure"),
    "drop_doubt_pa": (phrase("doubt_of_the_drop"), "pressure"),
    "half_width_m3_s": (phrase("half_width_of_the_leak"), "leak"),
    "with_air": (phrase("tested_with_air"), "count"),
    "least_s": (phrase("shortest_test_shows_criterion_gauge"), "time"),
    "secondary_v": ("secondary", "voltage"),
    "secondary_a": ("secondary", "current"),
    "rated_va": (phrase("rating_va"), "count"),
    "deflection_m": ("deflection", "bore"),
    "span_m": (phrase("free_span"), "bore"),
    "straight_m": (phrase("straight_run"), "length"),
    "elbows_90": ("90° elbows", "count"),
    "elbows_45": ("45° elbows", "count"),
    "bore_m": (phrase("pipes_bore"), "bore"),
    "length_m": (phrase("straight_run"), "length"),
    "equivalent_m": (phrase("with_its_fittings"), "length"),
    "load_w": (phrase("load_on_the_run"), "power"),
    "ethylene": (phrase("ethylene_one"), "count"),
    "by_volume": (phrase("by_volume_one"), "count"),
    "elbow_m": (phrase("one_elbow_counts"), "length"),
    "most_m": (phrase("manuals_most"), "length"),
    "burner_count": ("orifices", "count"),
    "rated_f": ("rating", "capacitance"),
    "line_v": (phrase("line_under_load"), "voltage"),
    "nominal_v": (phrase("plate"), "voltage"),
    "tolerance_share": (phrase("tolerance_stamped"), "count"),
    "line_hz": (phrase("line_frequency"), "count"),
    "amps_a": (phrase("amps_winding"), "current"),
    "volts_v": (phrase("volts_across_capacitor"), "voltage"),
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
