"""Combustion air of a room: the volume that needs no opening, and the free area of openings where it is smaller."""

from dataclasses import dataclass

from havrin_core.phrases import phrase
from havrin_core.physics.states import require
from havrin_core.quantities.units import BTU_J, CUBIC_FOOT_M3, FOOT_M

_W_PER_1000_BTU_H = 1000 * BTU_J / 3600
_SQUARE_INCH_M2 = (FOOT_M / 12) ** 2
VOLUME_M3_W = 50 * CUBIC_FOOT_M3 / _W_PER_1000_BTU_H  # 50 ft3 per 1000 Btu/h: a room that is not unusually tight
INDOOR_M2_W = _SQUARE_INCH_M2 / _W_PER_1000_BTU_H  # each of two openings to other rooms: 1 in2 per 1000 Btu/h
INDOOR_LEAST_M2 = 100 * _SQUARE_INCH_M2
OUTDOOR_TWO_M2_W = INDOOR_M2_W / 4  # each of two openings outdoors, direct or by vertical ducts
OUTDOOR_ONE_M2_W = INDOOR_M2_W / 3  # a single one outdoors


@dataclass(frozen=True, slots=True)
class AirWanted:
    """What a room of appliances wants: volume, m3, or free areas of openings, m2."""

    volume_m3: float
    indoor_each_m2: float
    outdoor_each_m2: float
    outdoor_one_m2: float


def air_wanted(input_w: float) -> AirWanted:
    """Return what appliances of ``input_w`` together want, gross, 100 W to 10 MW. Raises OutOfDomain.

    >>> round(air_wanted(29307).volume_m3, 1)  # 100 000 Btu/h: 5000 ft3
    141.6
    """
    require("input_w", input_w, 100.0, 1e7, phrase("input_above_nothing"))
    return AirWanted(
        VOLUME_M3_W * input_w,
        max(INDOOR_M2_W * input_w, INDOOR_LEAST_M2),
        OUTDOOR_TWO_M2_W * input_w,
        OUTDOOR_ONE_M2_W * input_w,
    )
