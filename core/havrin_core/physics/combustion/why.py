"""The 'why' behind each computed flue figure: formula, inputs, source, caution."""

from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.physics.combustion.siegert import siegert
from havrin_core.physics.constants import O2_AMBIENT_PCT, O2_AMBIENT_ROUNDED_PCT
from havrin_core.quantities.why import Input, Why

_BALANCE = "carbon and oxygen balance of the dry flue gas, docs/formulas.md section 3"
_ENTHALPY = "enthalpies from NASA polynomials (TM-4513), docs/formulas.md section 5"
_FORMULAS: dict[str, tuple[str, str]] = {
    "co_air_free_ppm": (
        f"CO × {O2_AMBIENT_PCT} / ({O2_AMBIENT_PCT} − O₂)",
        "dilution with air, docs/formulas.md section 4",
    ),
    "co_at_3pct_o2_ppm": (f"CO × ({O2_AMBIENT_PCT} − 3) / ({O2_AMBIENT_PCT} − O₂)", "docs/formulas.md section 4"),
    "excess_air_pct": ("100 × (air supplied / air for complete combustion − 1)", _BALANCE),
    "co2_from_o2_pct": ("carbon of the fuel not found as CO / dry flue gas", _BALANCE),
    "co_co2_ratio": ("CO / CO₂, CO₂ from the balance", _BALANCE),
    "dew_point_k": ("temperature at which the flue's water vapour saturates", "IAPWS-IF97 region 4"),
    "efficiency_gross_pct": ("net efficiency × net / gross heating value", _ENTHALPY),
    "efficiency_net_pct": ("100 − dry flue loss − vapour loss − CO loss + condensation heat", _ENTHALPY),
    "net_stack_k": ("flue temperature − combustion air temperature", "by definition"),
}
RESULT_NAMES = tuple(_FORMULAS)


def why(result: FlueResult, name: str) -> Why:
    """Return the why of ``name``, one of RESULT_NAMES present in ``result.values``."""
    formula, source = _FORMULAS[name]
    return Why(formula, _inputs(result, name), source, _note(result, name))


def _inputs(result: FlueResult, name: str) -> tuple[Input, ...]:
    sample = result.sample
    inputs = [Input("O₂, dry", sample.o2_dry_pct, "percent"), Input("CO, dry", sample.co_ppm_dry, "ppm")]
    if name.startswith(("dew", "eff", "net")) and sample.flue_temp_k is not None:
        inputs += [
            Input("flue", sample.flue_temp_k, "temperature"),
            Input("combustion air", sample.around.air_temp_k, "temperature"),
            Input("air humidity", sample.around.air_rh_pct, "percent"),
            Input("barometer", sample.around.baro_pa, "pressure"),
        ]
    return tuple(inputs)


def _note(result: FlueResult, name: str) -> str:
    sample = result.sample
    if name == "co_air_free_ppm":
        rounded = co_air_free_ppm(min(sample.o2_dry_pct, 20.8), sample.co_ppm_dry, O2_AMBIENT_ROUNDED_PCT)
        return f"With the rounded {O2_AMBIENT_ROUNDED_PCT} % that codes and many handhelds use: {rounded:.1f} ppm."
    if name == "efficiency_net_pct" and sample.flue_temp_k is not None:
        form = siegert(result.fuel)
        loss = form.loss_pct_net(sample.o2_dry_pct, sample.flue_temp_k, sample.around.air_temp_k)
        return (
            f"A handheld's two-coefficient form (a = {form.a:.4f}, b = {form.b:.5f}, dry air) shows "
            f"{100 - loss:.1f} % net, without condensation."
        )
    if name in ("dew_point_k", "efficiency_gross_pct"):
        return f"Air humidity taken as {sample.around.air_rh_pct:g} %; the barometer follows the unit's altitude."
    if name == "excess_air_pct":
        return "CO counts in the carbon and the oxygen balance."
    return ""
