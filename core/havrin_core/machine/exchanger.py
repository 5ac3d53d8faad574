"""Heat exchangers: what they are made of, where on them something can be found, and how they are drawn."""

import re
from dataclasses import dataclass

from havrin_core.machine.unit import EXCHANGERS, Unit

Point = tuple[float, float]
HEIGHT = 220.0  # of every drawing, in its own units
SECONDARY = "secondary"


@dataclass(frozen=True, slots=True)
class Zone:
    """A place on a part; ``x`` and ``y`` are where a mark is drawn."""

    key: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Part:
    """One cell, tube, section … ``key`` is how it is written, ``outline`` how it is drawn, closed where ``closed``."""

    key: str
    zones: tuple[Zone, ...]
    outline: tuple[Point, ...]
    closed: bool

    def zone(self, key: str) -> Zone | None:
        """Return the zone called ``key``, or None."""
        return next((zone for zone in self.zones if zone.key == key), None)


@dataclass(frozen=True, slots=True)
class Exchanger:
    """One unit's exchanger; ``width`` is that of its drawing."""

    form: str
    name: str
    parts: tuple[Part, ...]
    width: float

    @property
    def primary(self) -> tuple[Part, ...]:
        """The parts that the fire passes: what coverage counts."""
        return tuple(part for part in self.parts if part.key != SECONDARY)


@dataclass(frozen=True, slots=True)
class _Shape:
    part: str
    wide: float
    outline: tuple[Point, ...]
    zones: tuple[tuple[str, float, float], ...]
    closed: bool = True


_SHAPES: dict[str, _Shape] = {
    "tubular": _Shape(
        "tube",
        74,
        ((16, 214), (16, 62), (22, 44), (37, 36), (52, 44), (58, 62), (58, 214)),
        (
            ("burner end", 16, 200),
            ("straight", 16, 130),
            ("first bend", 23, 44),
            ("second bend", 51, 44),
            ("collector end", 58, 200),
        ),
        closed=False,
    ),
    "clamshell": _Shape(
        "cell",
        74,
        (
            (10, 214),
            (10, 128),
            (20, 104),
            (20, 62),
            (10, 40),
            (10, 12),
            (64, 12),
            (64, 40),
            (54, 62),
            (54, 104),
            (64, 128),
            (64, 214),
        ),
        (
            ("burner opening", 37, 198),
            ("first bend", 37, 140),
            ("seam", 20, 84),
            ("neck", 44, 74),
            ("collector end", 37, 24),
        ),
    ),
    "drum": _Shape(
        "drum",
        150,
        ((12, 200), (12, 74), (30, 40), (75, 26), (120, 40), (138, 74), (138, 200)),
        (
            ("burner opening", 75, 190),
            ("front weld", 26, 120),
            ("crown", 75, 46),
            ("rear weld", 124, 120),
            ("collector", 122, 62),
        ),
    ),
    "sectional": _Shape(
        "section",
        62,
        (
            (6, 214),
            (6, 60),
            (22, 60),
            (22, 40),
            (6, 40),
            (6, 14),
            (56, 14),
            (56, 40),
            (40, 40),
            (40, 60),
            (56, 60),
            (56, 214),
        ),
        (
            ("burner side", 31, 200),
            ("flueway", 31, 150),
            ("waterway", 31, 96),
            ("push nipple", 31, 50),
            ("hood joint", 31, 24),
        ),
    ),
    "tube_bundle": _Shape(
        "bundle",
        170,
        ((14, 206), (14, 20), (156, 20), (156, 206)),
        (
            ("burner door seal", 85, 20),
            ("upper tube sheet", 85, 48),
            ("tubes", 85, 112),
            ("lower tube sheet", 85, 176),
            ("condensate outlet", 85, 204),
        ),
    ),
}
_COIL = _Shape(
    SECONDARY,
    110,
    ((8, 190), (8, 60), (102, 60), (102, 190)),
    (("face", 55, 84), ("header", 92, 124), ("tubes", 46, 124), ("drain pan", 55, 176)),
)


def exchanger_of(unit: Unit) -> Exchanger | None:
    """Return the exchanger of ``unit``: the plate's form before its kind's; None for a unit without one."""
    form = unit.plate.exchanger or unit.kind.exchanger
    if not form or all(station.key != "exchanger" for station in unit.stations()):
        return None
    shape = _SHAPES[form]
    count = max(unit.plate.exchanger_cells, 1)
    parts = [_part(shape, f"{shape.part} {i + 1}", shape.wide * i) for i in range(count)]
    width = shape.wide * count
    if unit.kind.condensing and any(path.key == "air" for path in unit.paths):
        parts.append(_part(_COIL, SECONDARY, width))
        width += _COIL.wide
    return Exchanger(form, EXCHANGERS[form], tuple(parts), width)


def _part(shape: _Shape, key: str, left: float) -> Part:
    zones = tuple(Zone(name, left + x, y) for name, x, y in shape.zones)
    return Part(key, zones, tuple((left + x, y) for x, y in shape.outline), shape.closed)


def place_on(exchanger: Exchanger, place: str) -> tuple[Part | None, Zone | None]:
    """Return the part and zone that ``place`` names ("cell 3, first bend"); None for what it does not name."""
    text = " ".join(re.findall(r"[\w]+", place.lower()))
    part = next((p for p in reversed(exchanger.parts) if f"{p.key} " in f"{text} "), None)
    if part is None and len(exchanger.primary) == 1:
        part = exchanger.parts[0]
    if part is None:
        return None, None
    return part, next((zone for zone in part.zones if zone.key in text), None)
