"""A 'why' of the core in the person's units."""

from havrin_core.limits.model import Band
from havrin_core.quantities.display import show
from havrin_core.quantities.formats import number
from havrin_core.quantities.why import Why
from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.names import quantity_name
from havrin_core.workings.whys import why_of
from havrin_server.figures.schemas import Explained, InputOut, Shown


def explained(
    why: Why, shown: Shown, *, key: str, name: str, system: str, half_width: str = "", state: str = "", aside: str = ""
) -> Explained:
    """Return a figure with its why for the page."""
    inputs = [InputOut.of(i, shown=shown_as(i.value, i.dimension, system)) for i in why.inputs]
    said = {"key": key, "name": name, "half_width": half_width, "state": state, "aside": aside}
    return Explained.of(why, shown=shown, inputs=inputs, **said)


def shown_as(value: float, dimension: str, system: str) -> Shown:
    """Return ``value`` (canonical) as number and unit."""
    if dimension == "ratio":
        return Shown(text=number(value, ".5f"), unit="")
    return Shown.of(show(value, dimension, system))


def shown_if(value: float | None, dimension: str, system: str) -> Shown | None:
    """Return ``value`` as number and unit; None where there is none."""
    return None if value is None else shown_as(value, dimension, system)


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
