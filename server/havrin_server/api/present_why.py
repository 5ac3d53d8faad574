"""A 'why' of the core in the person's units."""

from havrin_core.limits.model import Band
from havrin_core.quantities.display import show
from havrin_core.quantities.why import Why
from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.names import quantity_name
from havrin_core.wording.phrases import words
from havrin_core.workings.whys import why_of
from havrin_server.api.schemas import Explained, InputOut, Shown


def explained(
    why: Why, shown: Shown, *, key: str, name: str, system: str, half_width: str = "", state: str = "", aside: str = ""
) -> Explained:
    """Return a figure with its why for the page."""
    return Explained(
        key=key,
        name=name,
        shown=shown,
        half_width=half_width,
        state=state,
        aside=aside,
        formula=words(why.formula),
        inputs=[InputOut(name=words(i.name), shown=shown_as(i.value, i.dimension, system)) for i in why.inputs],
        source=words(why.source),
        note=words(why.note),
    )


def shown_as(value: float, dimension: str, system: str) -> Shown:
    """Return ``value`` (canonical) as number and unit."""
    if dimension == "ratio":
        return Shown(text=f"{value:.5f}", unit="")
    shown = show(value, dimension, system)
    return Shown(text=shown.text, unit=shown.unit)


def reading_whys(view: ReadingView, system: str) -> list[Explained]:
    """Return the whys of a reading: of the number where it was computed, of its limit where that was."""
    name, dimension = quantity_name(view.quantity, view.stage), measurand(view.quantity).dimension
    key = f"{view.quantity} {view.stage or ''}"
    found = []
    if why := why_of(view):
        found.append(explained(why, shown_as(view.value, dimension, system), key=key, name=name, system=system))
    if view.band and view.band.why:
        shown = _bounds(view.band, dimension, system)
        found.append(explained(view.band.why, shown, key=f"{key} limit", name=f"{name}: limit", system=system))
    return found


def _bounds(band: Band, dimension: str, system: str) -> Shown:
    low, high = (show(bound, dimension, system) if bound is not None else None for bound in (band.low, band.high))
    if low and high:
        return Shown(text=f"{low.text} to {high.text}", unit=high.unit)
    one = low or high
    assert one is not None  # a band with a why has a bound
    return Shown(text=f"{'at least' if low else 'at most'} {one.text}", unit=one.unit)
