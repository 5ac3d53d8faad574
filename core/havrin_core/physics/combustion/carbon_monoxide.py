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
