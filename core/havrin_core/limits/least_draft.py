"""The least draft of a vent that draws by itself, over the outdoor temperature: data/least_draft.toml."""

import tomllib
from bisect import bisect_right
from functools import cache
from importlib import resources


@cache
def _rows() -> tuple[tuple[float, float], ...]:
    text = (resources.files("havrin_core.limits") / "data" / "least_draft.toml").read_text(encoding="utf-8")
    return tuple((row["outdoor_k"], row["least_pa"]) for row in tomllib.loads(text)["row"])


def least_draft_pa(outdoor_k: float) -> float:
    """Return the least suction in the vent, Pa (a size, above zero), at ``outdoor_k``; straight between the rows.

    >>> round(least_draft_pa(273.15), 2)
    1.95
    """
    rows = _rows()
    above = bisect_right([temperature for temperature, _ in rows], outdoor_k)
    if above == 0:
        return rows[0][1]
    if above == len(rows):
        return rows[-1][1]
    (cold, most), (warm, least) = rows[above - 1], rows[above]
    return most + (outdoor_k - cold) / (warm - cold) * (least - most)
