"""A site's units beside each other at the same station: what several share points away from the single unit."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand

LOW, HIGH = "low", "high"
_LEAST_UNITS = 2
_CLEARLY = 0.15  # less than the rest by this share
_LEAST_SHARE = 0.5  # of the units that were read at this station
# (quantity, side) -> what to look at before any single unit
_SHARED: Mapping[tuple[str, str], str] = {
    ("supply_running_pa", LOW): "the line, its regulator and the meter, with all of them running at once",
    ("supply_running_pa", HIGH): "the line’s regulator",
    ("supply_standing_pa", HIGH): "the line’s regulator: it does not lock up",
    ("manifold_pa", LOW): "the supply under flow before any screw is turned",
    ("draft_pa", LOW): "what they share: common vent, room under suction, wind on the terminals",
    ("vent_draft_pa", LOW): "the common vent, and the room under suction",
    ("room_co_ppm", HIGH): "the room: find the source before any of them runs on",
    ("o2_dry_pct", HIGH): "the analyzer first (zero, probe, trap), then the gas pressure of the line",
    ("o2_dry_pct", LOW): "the analyzer first, then the air that they share",
    ("water_pressure_pa", LOW): "the system’s water: filling, expansion vessel, a leak",
    ("water_return_temp_k", HIGH): "the heating circuit: nothing takes the heat",
    ("water_rise_k", HIGH): "the pump and the system’s flow",
    ("external_static_pa", HIGH): "the duct and filters that they share",
    ("input_w", LOW): "the supply of the line and the gas itself",
    ("input_w", HIGH): "the supply of the line and the gas itself",
}


@dataclass(frozen=True, slots=True)
class Beside:
    """One unit of the site: its name, the branch of gas line that it hangs on ("" unknown), its newest readings."""

    name: str
    gas_line: str
    readings: tuple[ReadingView, ...]


@dataclass(frozen=True, slots=True)
class Row:
    """One station across the site: a cell for each unit, None where it was not read."""

    quantity: str
    stage: str | None
    cells: tuple[ReadingView | None, ...]


@dataclass(frozen=True, slots=True)
class Shared:
    """What several units have in common."""

    quantity: str
    units: tuple[str, ...]
    text: str


def rows_of(units: Sequence[Beside]) -> tuple[Row, ...]:
    """Return a row for every quantity and stage that at least two of ``units`` were read at, in the order of first reading."""
    keys: dict[tuple[str, str | None], None] = {}
    for unit in units:
        keys.update(dict.fromkeys((view.quantity, view.stage) for view in unit.readings))
    rows = [Row(quantity, stage, tuple(_cell(unit, quantity, stage) for unit in units)) for quantity, stage in keys]
    return tuple(row for row in rows if sum(cell is not None for cell in row.cells) >= _LEAST_UNITS)


def shared_of(units: Sequence[Beside]) -> tuple[Shared, ...]:
    """Return what at least two units, and half of those read, have beyond or near the same side of their limits."""
    found: dict[tuple[str, str], Shared] = {}
    for row in rows_of(units):
        for (quantity, side), look_at in _SHARED.items():
            if quantity != row.quantity:
                continue
            off = [
                unit for unit, cell in zip(units, row.cells, strict=True) if cell is not None and side_of(cell) == side
            ]
            read = sum(cell is not None for cell in row.cells)
            if len(off) >= _LEAST_UNITS and len(off) >= _LEAST_SHARE * read:
                found.setdefault(
                    (quantity, side), Shared(quantity, tuple(u.name for u in off), _text(row, side, off, read, look_at))
                )
    return (*found.values(), *_starved_branches(units))


def _starved_branches(units: Sequence[Beside]) -> list[Shared]:
    """A branch all of whose units read clearly less running supply than all others of the site, whatever their limits say."""
    supply = {unit.name: cell.value for unit in units if (cell := _cell(unit, "supply_running_pa", None)) is not None}
    found = []
    for line in sorted({unit.gas_line for unit in units if unit.gas_line}):
        here = [unit.name for unit in units if unit.gas_line == line and unit.name in supply]
        others = [name for name in supply if name not in here]
        if len(here) < _LEAST_UNITS or not others:
            continue
        most, least = max(supply[name] for name in here), min(supply[name] for name in others)
        if most < (1 - _CLEARLY) * least:
            share = 100 * (1 - most / least)
            text = (
                f"Supply, all running, on {line} ({', '.join(here)}) lies {share:.0f} % or more under the rest of the site. "
                "Look first at that branch: its size, its length, what burns on it at once."
            )
            found.append(Shared("supply_running_pa", tuple(here), text))
    return found


def side_of(view: ReadingView) -> str:
    """Return on which side of its limits a reading lies: "low", "high", or "" inside or unjudged."""
    band = view.band
    if band is None or view.verdict not in ("near", "out"):
        return ""
    value = abs(view.value) if view.quantity == "draft_pa" else view.value
    for low, high in ((band.low, band.high), (band.near_low, band.near_high)):
        if low is not None and value < low:
            return LOW
        if high is not None and value > high:
            return HIGH
    return ""


def _cell(unit: Beside, quantity: str, stage: str | None) -> ReadingView | None:
    return next((view for view in unit.readings if (view.quantity, view.stage) == (quantity, stage)), None)


def _text(row: Row, side: str, off: Sequence[Beside], read: int, look_at: str) -> str:
    lines = {unit.gas_line for unit in off}
    branch = f" on {next(iter(lines))}" if len(lines) == 1 and "" not in lines else ""
    name = measurand(row.quantity).name
    return f"{name} {side} on {len(off)} of {read} units{branch} ({', '.join(u.name for u in off)}). Look first at {look_at}."
