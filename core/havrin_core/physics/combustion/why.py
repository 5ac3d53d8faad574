"""The 'why' behind each computed flue figure: formula, inputs, source, caution."""

from havrin_core.phrases import Saying, phrase
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.physics.combustion.siegert import siegert
from havrin_core.physics.constants import O2_AMBIENT_PCT, O2_AMBIENT_ROUNDED_PCT
from havrin_core.quantities.why import Input, Why

_BALANCE = phrase("carbon_oxygen_balance_dry_flue")
_ENTHALPY = phrase("enthalpies_from_nasa_polynomials_tm")
_FORMULAS: dict[str, tuple[Saying, Saying]] = {
    "co_air_free_ppm": (
        f"CO × {O2_AMBIENT_PCT} / ({O2_AMBIENT_PCT} − O₂)",
        phrase("dilution_air_docs_formulas_md"),
    ),
    "co_at_3pct_o2_ppm": (
        f"CO × ({O2_AMBIENT_PCT} − 3) / ({O2_AMBIENT_PCT} − O₂)",
        phrase("docs_formulas_md_section_4"),
    ),
    "co_pct": (phrase("ppm_over_ten_thousand"), phrase("definition")),
    "co_mg_m3_3pct": (phrase("ppm_by_molar_mass_at_3pct"), phrase("docs_formulas_md_section_4")),
    "co_mg_kwh_net": (phrase("co_mass_over_net_heat"), phrase("docs_formulas_md_section_4")),
    "excess_air_pct": (phrase("100_air_supplied_air_complete"), _BALANCE),
    "co2_from_o2_pct": (phrase("carbon_fuel_not_found_co"), _BALANCE),
    "co_co2_ratio": (phrase("co_co_co_from_balance"), _BALANCE),
    "dew_point_k": (phrase("temperature_which_flues_water_vapour"), phrase("iapws_if97_region_4")),
    "efficiency_gross_pct": (phrase("net_efficiency_net_gross_heating"), _ENTHALPY),
    "efficiency_net_pct": (phrase("100_dry_flue_loss_vapour"), _ENTHALPY),
    "net_stack_k": (phrase("flue_temperature_combustion_air_temperature"), phrase("definition")),
}
RESULT_NAMES = tuple(_FORMULAS)


def why(result: FlueResult, name: str) -> Why:
    """Return the why of ``name``, one of RESULT_NAMES present in ``result.values``."""
    formula, source = _FORMULAS[name]
    return Why(formula, _inputs(result, name), source, _note(result, name))


def _inputs(result: FlueResult, name: str) -> tuple[Input, ...]:
    sample = result.sample
    inputs = [Input("O₂, dry", sample.o2_dry_pct, "percent"), Input(phrase("co_dry"), sample.co_ppm_dry, "ppm")]
    if name.startswith(("dew", "eff", "net")) and sample.flue_temp_k is not None:
        inputs += [
            Input("flue", sample.flue_temp_k, "temperature"),
            Input(phrase("combustion_air"), sample.around.air_temp_k, "temperature"),
            Input(phrase("air_humidity"), sample.around.air_rh_pct, "percent"),
            Input("barometer", sample.around.baro_pa, "pressure"),
        ]
    return tuple(inputs)


def _note(result: FlueResult, name: str) -> Saying:
    sample = result.sample
    if name == "co_air_free_ppm":
        rounded = co_air_free_ppm(min(sample.o2_dry_pct, 20.8), sample.co_ppm_dry, O2_AMBIENT_ROUNDED_PCT)
        return phrase(
            "rounded_codes_many_handhelds_use", o2_ambient_rounded_pct=O2_AMBIENT_ROUNDED_PCT, rounded=rounded
        )
    if name == "efficiency_net_pct" and sample.flue_temp_k is not None:
        form = siegert(result.fuel)
        loss = form.loss_pct_net(sample.o2_dry_pct, sample.flue_temp_k, sample.around.air_temp_k)
        return phrase("handhelds_two_coefficient_form_b", a=form.a, b=form.b, loss=100 - loss)
    if name in ("dew_point_k", "efficiency_gross_pct"):
        return phrase("air_humidity_taken_barometer_follows", air_rh_pct=sample.around.air_rh_pct)
    if name == "excess_air_pct":
        return phrase("co_counts_carbon_oxygen_balance")
    return ""
