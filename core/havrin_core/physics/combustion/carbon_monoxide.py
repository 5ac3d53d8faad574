"""CO related to the flue gas without its excess air."""

from havrin_core.physics.combustion.balance import Balance, check_sample
from havrin_core.physics.constants import O2_AMBIENT_PCT


def co_air_free_ppm(o2_dry_pct: float, co_ppm_dry: float, ambient_o2_pct: float = O2_AMBIENT_PCT) -> float:
    """Return CO in ppm of the dry flue gas with all excess air taken out.

    Args:
        o2_dry_pct: 0 <= x < 20.946.
        co_ppm_dry: 0 <= x <= 100 000.
        ambient_o2_pct: dry air's oxygen; codes and handhelds round it to 20.9, which moves
            the result by less than 0.2 % up to 9 % O2.

    Raises OutOfDomain. Source: dilution of the sample with air, docs/formulas.md section 4.

    >>> round(co_air_free_ppm(6.4, 46), 1)
    66.2
    """
    return co_at_reference_o2_ppm(o2_dry_pct, co_ppm_dry, 0.0, ambient_o2_pct)


def co_at_reference_o2_ppm(
    o2_dry_pct: float, co_ppm_dry: float, reference_o2_pct: float, ambient_o2_pct: float = O2_AMBIENT_PCT
) -> float:
    """Return CO in ppm as it would read at ``reference_o2_pct`` (3 % is the common one). Raises OutOfDomain."""
    check_sample(o2_dry_pct, co_ppm_dry)
    return co_ppm_dry * (ambient_o2_pct - reference_o2_pct) / (ambient_o2_pct - o2_dry_pct)


def co_co2_ratio(flue: Balance) -> float:
    """Return CO over CO2 in the flue gas, mol/mol, CO2 from the balance."""
    return flue.co / flue.co2


CO_KG_MOL, NORMAL_MOL_M3 = 0.028010, 101_325.0 / (8.31446261815324 * 273.15)  # at 0 °C and 101.325 kPa


def co_mg_m3(co_ppm_dry: float) -> float:
    """Return CO in mg per m3 of dry flue gas at 0 °C and 101.325 kPa.

    >>> round(co_mg_m3(100), 1)
    125.0
    """
    return co_ppm_dry * 1e-6 * NORMAL_MOL_M3 * CO_KG_MOL * 1e6


def co_mg_kwh(flue: Balance, heating_value_j_mol: float) -> float:
    """Return CO in mg per kWh of fuel input, by the heating value that is given: net or gross, J/mol."""
    return flue.co * CO_KG_MOL * 1e6 / (heating_value_j_mol / 3.6e6)
