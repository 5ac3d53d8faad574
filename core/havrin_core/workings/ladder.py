"""The gas pressures from the supply down to the burner, and the pressure switches, on scales of their own."""

from dataclasses import dataclass

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band
from havrin_core.machine.unit import Unit
from havrin_core.rules.beside import beside_of
from havrin_core.vocabulary.measurands import measurand

_HEADROOM = 1.12  # the scale ends above the highest mark
_USUAL_TOP_PA = 1000.0  # where nothing is known yet
_SCALE_STAMPS = 2.0  # the scale of a switch ends at so many times its stamp


@dataclass(frozen=True, slots=True)
class Rung:
    """One pressure of the ladder; ``value``, ``found``, ``low``, ``high`` are shares of its height, ``at_pa`` the reading."""

    quantity: str
    stage: str | None
    station: str
    band: Band | None
    at_pa: float | None
    state: str  # in, near, out, none
    value: float | None
    found: float | None
    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class SwitchScale:
    """A pressure switch: its stamp and the suction at it, Pa, and both as shares of a scale of twice the stamp."""

    stage: str
    point_pa: float
    read_pa: float | None
    found_pa: float | None
    wanted_share: float  # the stamp with the margin of the house
    read_share: float | None
    state: str


def ladder_of(unit: Unit, rules: HouseRules, facts: Facts) -> list[Rung]:
    """Return a rung for the standing and the running supply and for the manifold of each stage, the highest first."""
    rows: list[tuple[str, str | None]] = [("supply_standing_pa", None), ("supply_running_pa", None)]
    rows += [("manifold_pa", stage) for stage in reversed(unit.stage_keys)]
    beside = beside_of(facts)
    bands = [band_for(unit, rules, q, stage, beside) for q, stage in rows]
    reads = [facts.newest(q, stage) for q, stage in rows]
    tops = [b.high for b in bands if b and b.high] + [r.value for r in reads if r]
    top = _HEADROOM * max(tops, default=_USUAL_TOP_PA)
    return [_rung(unit, facts, row, band, read, top) for row, band, read in zip(rows, bands, reads, strict=True)]


def _rung(
    unit: Unit, facts: Facts, row: tuple[str, str | None], band: Band | None, read: ReadingFact | None, top: float
) -> Rung:
    quantity, stage = row
    low, high = (band.low, band.high) if band else (None, None)
    found = as_found_apart(facts, quantity, stage)
    return Rung(
        quantity,
        stage,
        unit.station_at(measurand(quantity).station, stage),
        band,
        read.value if read else None,
        band.verdict(read.value) if band and read else "none",
        read.value / top if read else None,
        found.value / top if found else None,
        low / top if low is not None else None,
        high / top if high is not None else None,
    )


def as_found_apart(facts: Facts, quantity: str, stage: str | None) -> ReadingFact | None:
    """Return the reading as found where a later one followed it, else None."""
    read, found = facts.newest(quantity, stage), facts.as_found(quantity, stage)
    return found if found and read and found.entry_id != read.entry_id else None


def switch_of(unit: Unit, rules: HouseRules, facts: Facts, stage: str) -> SwitchScale | None:
    """Return the pressure switch of a stage against its suction; None where its stamp is not known."""
    point = unit.stage(stage).switch_makes_pa
    if point is None:
        return None
    read, found = facts.newest("draft_pa", stage), as_found_apart(facts, "draft_pa", stage)
    band = band_for(unit, rules, "draft_pa", stage)
    return SwitchScale(
        stage,
        point,
        abs(read.value) if read else None,
        abs(found.value) if found else None,
        (1 + rules.draft_margin_share) / _SCALE_STAMPS,
        min(abs(read.value) / (_SCALE_STAMPS * point), 1.0) if read else None,
        band.verdict(abs(read.value)) if band and read else "none",
    )
