"""Carbon and oxygen balance of a dry flue sample.

Derived in docs/formulas.md section 3: y = O2 and c = CO as dry fractions; A dry air and
D dry flue, mol per mol fuel. Unburnt gas is CO alone.
"""

from dataclasses import dataclass

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.constants import AIR_AR, AIR_INERT, AIR_N2, AIR_O2, O2_AMBIENT_PCT
from havrin_core.physics.fuels import Fuel

CO_MOST_PPM = 100_000.0  # beyond any flame: an entry in another unit


@dataclass(frozen=True, slots=True)
class Balance:
    """What one mole of fuel became; amounts in mol per mol fuel."""

    dry_air: float
    dry_flue: float
    co2: float
    co: float
    o2: float
    n2: float
    ar: float
    excess_air_ratio: float  # lambda, on the air for complete combustion

    @property
    def excess_air_pct(self) -> float:
        """Excess air, % of the stoichiometric air."""
        return 100 * (self.excess_air_ratio - 1)

    @property
    def co2_dry_pct(self) -> float:
        """CO2, % by volume of the dry flue gas."""
        return 100 * self.co2 / self.dry_flue

    def dry_amounts(self) -> dict[str, float]:
        """Return mol per mol fuel of each dry flue gas, keyed as in species.py."""
        return {"CO2": self.co2, "CO": self.co, "O2": self.o2, "N2": self.n2, "AR": self.ar}


def balance(fuel: Fuel, o2_dry_pct: float, co_ppm_dry: float) -> Balance:
    """Return the molar balance of a dry flue sample.

    Args:
        o2_dry_pct: 0 <= x < 20.946.
        co_ppm_dry: 0 <= x <= 100 000.

    Raises OutOfDomain: a value that no flue gas has, or a pair that no air supply explains.

    >>> from havrin_core.physics.fuels import shipped_fuel
    >>> round(balance(shipped_fuel("NG_H"), 5.0, 0.0).excess_air_pct, 2)
    28.2
    """
    check_sample(o2_dry_pct, co_ppm_dry)
    y = o2_dry_pct / 100
    c = co_ppm_dry * 1e-6
    p = fuel.carbon + fuel.nitrogen
    q = fuel.oxygen - 2 * fuel.carbon - fuel.hydrogen / 2
    slope = 2 * y - c
    determinant = -2 * AIR_O2 * (1 - y) + AIR_INERT * slope
    flue = (-2 * AIR_O2 * p + AIR_INERT * q) / determinant
    air = ((1 - y) * q - slope * p) / determinant
    co = c * flue
    if not (flue > 0 and air > 0 and co <= fuel.carbon):
        message = phrase("no_flame_gives_o_together", fuel=fuel.label, o2_dry_pct=o2_dry_pct, co_ppm_dry=co_ppm_dry)
        raise OutOfDomain("sample_impossible", message, quantity="co_ppm_dry", value=co_ppm_dry)
    return Balance(
        dry_air=air,
        dry_flue=flue,
        co2=fuel.carbon - co,
        co=co,
        o2=y * flue,
        n2=fuel.nitrogen + AIR_N2 * air,
        ar=AIR_AR * air,
        excess_air_ratio=air / fuel.stoich_air,
    )


def check_sample(o2_dry_pct: float, co_ppm_dry: float) -> None:
    """Refuse a flue sample that cannot be, with OutOfDomain; NaN is refused too."""
    if not o2_dry_pct >= 0:
        message = phrase("o_below_nothing_zero_cell", o2_dry_pct=o2_dry_pct)
        raise OutOfDomain("o2_range", message, quantity="o2_dry_pct", value=o2_dry_pct)
    if not o2_dry_pct < O2_AMBIENT_PCT:
        message = phrase("o_not_flue_gas_fresh", o2_dry_pct=o2_dry_pct, o2_ambient_pct=O2_AMBIENT_PCT)
        raise OutOfDomain("o2_range", message, quantity="o2_dry_pct", value=o2_dry_pct)
    if not 0 <= co_ppm_dry <= CO_MOST_PPM:
        message = phrase("co_ppm_cannot_0_ppm", co_ppm_dry=co_ppm_dry, co_most_ppm=CO_MOST_PPM)
        raise OutOfDomain("co_range", message, quantity="co_ppm_dry", value=co_ppm_dry)
