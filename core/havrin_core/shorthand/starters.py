"""Lines that a view of the workings can begin, beside those of its stations: what is read or chosen less often."""

from collections.abc import Mapping

from havrin_core.machine.unit import Unit

_GAS = ("turned 1/4 in", "orifice ", "meter pressure ", "heating value ", "pipe 3/4 in ", "tight ", "season cost ")
_PILOT = ("thermocouple open ", "thermocouple load ", "thermopile open ", "thermopile load ")
_TANK = ("outdoor ", "tank size ", "tank fill ")
_SWITCH = ("switch makes ", "switch breaks ")
_VENT = ("vent draft ", "overfire ", "collar ", "outdoor ", "vent height ", "ventrun ")
_ROOM = ("room input ", "room volume ", "upper opening ", "lower opening ", "outdoor opening ")
_AIR = ("rise ", "ra ", "sa ", "static ", "blower ", "motor pulley ", "limit opens at ", "cap ", "phases ", "clock ")
_WATER = ("ws ", "wr ", "wrise ", "wp ", "clock ", "glycol propylene ")
_SYSTEM = ("system height ", "system volume ", "vessel size ", "precharge ", "relief rated ")


def more_lines(unit: Unit) -> Mapping[str, tuple[str, ...]]:
    """Return the beginnings of lines by view: gas, draft, air, water; those of parts that the unit has not are left out."""
    traits = unit.traits
    pilot = _PILOT if "thermocouple" in traits else ()
    return {
        "gas": (*_GAS, *(_TANK if "lp" in traits else ()), *pilot),
        "draft": (*(_SWITCH if "induced" in traits else ()), *_VENT, *_ROOM),
        "air": _AIR if "air" in traits else (),
        "water": (*_WATER, *_SYSTEM) if "water" in traits else (),
    }
