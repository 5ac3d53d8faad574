"""What a reading is likely to be on this unit: it tells words apart that may mean two quantities, and gives rise to doubts."""

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources

from havrin_core.machine.unit import Plate, Unit

Range = tuple[float, float]
# how far beyond its plate a reading may lie before it is unlikely: a unit that is out of order is still read right
_MANIFOLD = (0.35, 1.35)
_SUPPLY = (0.85, 1.6)
_BLOWER = (0.2, 1.6)


def likely_of(unit: Unit) -> Mapping[str, Range]:
    """Return the likely range of each quantity that has one, canonical units, narrowed by the unit's plate."""
    return {**_usual(), **_by_plate(unit.plate)}


@cache
def _usual() -> Mapping[str, Range]:
    file = resources.files("havrin_core.shorthand") / "data" / "readings.toml"
    rows = tomllib.loads(file.read_text(encoding="utf-8"))["likely"]
    return {quantity: (float(least), float(most)) for quantity, (least, most) in rows.items()}


def _by_plate(plate: Plate) -> Mapping[str, Range]:
    found: dict[str, Range] = {}
    manifolds = [stage.manifold_pa for stage in plate.stages if stage.manifold_pa]
    if manifolds:
        found["manifold_pa"] = (_MANIFOLD[0] * min(manifolds), _MANIFOLD[1] * max(manifolds))
    if plate.supply_min_pa:
        most = plate.supply_max_pa or plate.supply_min_pa
        found["supply_running_pa"] = (
            _SUPPLY[0] * plate.supply_min_pa,
            max(_SUPPLY[1] * most, _usual()["supply_running_pa"][1]),
        )
    if plate.blower_full_load_a:
        found["blower_current_a"] = (_BLOWER[0] * plate.blower_full_load_a, _BLOWER[1] * plate.blower_full_load_a)
    return found
