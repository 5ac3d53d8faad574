"""Uncertainty from the instruments' own specification, carried through any calculation."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from havrin_core.errors import OutOfDomain


@dataclass(frozen=True, slots=True)
class Accuracy:
    """An instrument's stated accuracy for one quantity, in the quantity's canonical unit.

    ``absolute`` and ``relative`` (fraction of reading) either add ("±1 K ±0.3 %") or the
    greater of both holds ("±5 ppm or ±5 %").
    """

    absolute: float
    relative: float = 0.0
    adds: bool = False

    def at(self, reading: float) -> float:
        """Return the half-width of the stated accuracy at ``reading``."""
        share = abs(reading) * self.relative
        return self.absolute + share if self.adds else max(self.absolute, share)


def propagate(
    function: Callable[[Mapping[str, float]], Mapping[str, float]],
    values: Mapping[str, float],
    half_widths: Mapping[str, float],
) -> dict[str, float]:
    """Return the half-width of each output of ``function`` at ``values``.

    Central differences over the stated half-width of each input, combined as the root of
    the sum of squares: the result has the coverage that the instruments' figures have.
    Where one side lies outside the function's domain the one-sided difference is used;
    an input whose both sides fail adds nothing.
    Source: GUM (JCGM 100:2008) section 5.1, numerical form of 5.1.3 note 2.
    """
    centre = function(values)
    squares = dict.fromkeys(centre, 0.0)
    for name, width in half_widths.items():
        if width <= 0 or name not in values:
            continue
        up = _try(function, values, name, width)
        down = _try(function, values, name, -width)
        for key in squares:
            squares[key] += _swing(key, up, down, centre) ** 2
    return {key: math.sqrt(total) for key, total in squares.items()}


def _try(
    function: Callable[[Mapping[str, float]], Mapping[str, float]],
    values: Mapping[str, float],
    name: str,
    step: float,
) -> Mapping[str, float] | None:
    try:
        return function({**values, name: values[name] + step})
    except OutOfDomain:
        return None


def _swing(
    key: str, up: Mapping[str, float] | None, down: Mapping[str, float] | None, centre: Mapping[str, float]
) -> float:
    if up is not None and down is not None:
        return (up[key] - down[key]) / 2
    one_sided = up or down
    return one_sided[key] - centre[key] if one_sided else 0.0
