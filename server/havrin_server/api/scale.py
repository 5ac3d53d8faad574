"""Where the marks of a station's scale lie. Drawing only: the verdict is the core's."""

from havrin_core.limits.model import Band
from havrin_core.rules.readings import judged_value
from havrin_server.api.schemas import Scale


def scale_of(quantity: str, band: Band | None, value: float, found: float | None) -> Scale | None:
    """Return the marks for a reading, as fractions of the scale's width; None where no band is known."""
    if band is None or (band.low is None and band.high is None):
        return None
    low, high = _ends(band)
    marks = [judged_value(quantity, v) for v in (value, found) if v is not None]
    span = high - low or abs(high) or 1.0
    least = min([low - 0.45 * span, *[m - 0.05 * span for m in marks]])
    most = max([high + 0.45 * span, *[m + 0.05 * span for m in marks]])
    if low == 0:
        least = 0.0

    def at(number: float) -> float:
        return min(max((number - least) / (most - least), 0.0), 1.0)

    band_from = 0.0 if band.low is None else at(low)
    band_to = 1.0 if band.high is None else at(high)
    return Scale(
        band_from=band_from,
        band_to=band_to,
        value=at(judged_value(quantity, value)),
        found=None if found is None else at(judged_value(quantity, found)),
    )


def _ends(band: Band) -> tuple[float, float]:
    if band.low is None:
        assert band.high is not None
        return 0.0, band.high
    return band.low, band.high if band.high is not None else 2 * band.low
