"""Where the marks of a reading lie on its scale, as shares of the scale's width."""

from dataclasses import dataclass

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.model import HOUSE, Band
from havrin_core.rules.model import FlueView
from havrin_core.rules.readings import judged_value

_BEYOND = 0.45  # of the band's width is drawn on either side of it
_MARGIN = 0.05  # and so much beyond a mark that lies outside


@dataclass(frozen=True, slots=True)
class Scale:
    """From where to where the band reaches, the newest value and the one as found; each 0 to 1 of the width."""

    band_from: float
    band_to: float
    value: float
    found: float | None


def scale_of(quantity: str, band: Band | None, value: float, found: float | None) -> Scale | None:
    """Return the marks for a reading (canonical); None where no band is known.

    >>> scale_of("manifold_pa", Band("manual", low=800.0, high=1000.0), 900.0, None)
    Scale(band_from=0.2368421052631579, band_to=0.7631578947368421, value=0.5, found=None)
    """
    if band is None or (band.low is None and band.high is None):
        return None
    low, high = _ends(band)
    marks = [judged_value(quantity, v) for v in (value, found) if v is not None]
    span = high - low or abs(high) or 1.0
    least = 0.0 if low == 0 else min([low - _BEYOND * span, *[m - _MARGIN * span for m in marks]])
    most = max([high + _BEYOND * span, *[m + _MARGIN * span for m in marks]])

    def share(number: float) -> float:
        return min(max((number - least) / (most - least), 0.0), 1.0)

    return Scale(
        band_from=0.0 if band.low is None else share(low),
        band_to=1.0 if band.high is None else share(high),
        value=share(judged_value(quantity, value)),
        found=None if found is None else share(judged_value(quantity, found)),
    )


def flue_scale(view: FlueView, rules: HouseRules) -> Scale | None:
    """Return the marks for a stage's CO air-free against the house's own limit; None where it is not computed."""
    if view.result is None:
        return None
    band = Band(HOUSE, high=rules.co_air_free_ask_ppm)
    return scale_of("co_air_free_ppm", band, view.result.values["co_air_free_ppm"], None)


def _ends(band: Band) -> tuple[float, float]:
    if band.low is None:
        assert band.high is not None
        return 0.0, band.high
    return band.low, band.high if band.high is not None else 2 * band.low
