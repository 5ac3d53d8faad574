"""The two-coefficient flue loss that handhelds display, fitted to our own losses per fuel."""

from dataclasses import dataclass
from functools import lru_cache

from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.constants import ICE_POINT_K, O2_AMBIENT_PCT, STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel

_FIT_AIR_K = ICE_POINT_K + 20
_FIT_FLUE_C = range(80, 301, 10)
_FIT_O2_HALVES = range(4, 25)  # 2 to 12 % in steps of 0.5


@dataclass(frozen=True, slots=True)
class Siegert:
    """loss in % net = (T_flue - T_air) * (a / (reference - O2) + b)."""

    a: float
    b: float
    o2_reference_pct: float

    def loss_pct_net(self, o2_dry_pct: float, flue_temp_k: float, air_temp_k: float) -> float:
        """Return dry and water-vapour loss, % of net input; within 0.15 points of the balance at 20 degC air."""
        return (flue_temp_k - air_temp_k) * (self.a / (self.o2_reference_pct - o2_dry_pct) + self.b)


@lru_cache(maxsize=64)
def siegert(fuel: Fuel, o2_reference_pct: float = O2_AMBIENT_PCT, air_rh_pct: float = 0.0) -> Siegert:
    """Return the coefficients for ``fuel`` by least squares over flue 80-300 degC, O2 2-12 %, air 20 degC."""
    around = Surroundings(_FIT_AIR_K, air_rh_pct, STANDARD_PRESSURE_PA)
    sxx = sxz = szz = sxy = szy = 0.0
    for half in _FIT_O2_HALVES:
        flue = balance(fuel, half / 2, 0.0)
        for celsius in _FIT_FLUE_C:
            found = losses(fuel, flue, ICE_POINT_K + celsius, around)
            y = found.dry_pct_net + found.water_sensible_pct_net
            z = float(celsius - 20)
            x = z / (o2_reference_pct - half / 2)
            sxx, sxz, szz, sxy, szy = sxx + x * x, sxz + x * z, szz + z * z, sxy + x * y, szy + z * y
    determinant = sxx * szz - sxz * sxz
    a = (sxy * szz - szy * sxz) / determinant
    return Siegert(a, (szy * sxx - sxy * sxz) / determinant, o2_reference_pct)
