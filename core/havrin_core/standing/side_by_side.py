"""A site's units beside each other at the same station: what several share points away from the single unit."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from havrin_core.phrases import Saying, phrase
from havrin_core.rules.model import ReadingView
from havrin_core.vocabulary.measurands import measurand

LOW, HIGH = "low", "high"
_LEAST_UNITS = 2
_CLEARLY = 0.15  # less than the rest by this share
_LEAST_SHARE = 0.5  # of the units that were read at this station
# (quantity, side) -> what to look at before any single unit
_SHARED: Mapping[tuple[str, str], Saying] = {
    ("supply_running_pa", LOW): phrase("line_its_regulator_meter_all"),
    ("supply_running_pa", HIGH): phrase("lines_regulator"),
    ("supply_standing_pa", HIGH): phrase("lines_regulator_does_not_lock"),
    ("manifold_pa", LOW): phrase("supply_under_flow_before_any"),
    ("draft_pa", LOW): phrase("what_they_share_common_vent"),
    ("vent_draft_pa", LOW): phrase("common_vent_room_under_suction"),
    ("room_co_ppm", HIGH): phrase("room_find_source_before_any"),
    ("o2_dry_pct", HIGH): phrase("analyzer_first_zero_probe_trap"),
    ("o2_dry_pct", LOW): phrase("analyzer_first_then_air_they"),
    ("water_pressure_pa", LOW): phrase("systems_water_filling_expansion_vessel"),
    ("water_return_temp_k", HIGH): phrase("heating_circuit_nothing_takes_heat"),
    ("water_rise_k", HIGH): phrase("pump_systems_flow"),
    ("external_static_pa", HIGH): phrase("duct_filters_they_share"),
    ("input_w", LOW): phrase("supply_line_gas_itself"),
    ("input_w", HIGH): phrase("supply_line_gas_itself"),
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
    text: Saying


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
            text = phrase("supply_all_running_lies_more", line=line, here=", ".join(here), share=share)
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


def _text(row: Row, side: str, off: Sequence[Beside], read: int, look_at: Saying) -> Saying:
    lines = {unit.gas_line for unit in off}
    branch = f" on {next(iter(lines))}" if len(lines) == 1 and "" not in lines else ""
    name = measurand(row.quantity).name
    return phrase(
        "units_look_first",
        name=name,
        side=side,
        off=len(off),
        read=read,
        branch=branch,
        u=", ".join(u.name for u in off),
        look_at=look_at,
    )
