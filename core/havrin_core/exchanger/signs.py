"""The signs that speak for or against a breached exchanger, each with its weight as a likelihood ratio."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from statistics import NormalDist, fmean
from typing import Any

from havrin_core.exchanger.coverage import RENEWED, Coverage, coverages, found_by_now, since_renewed
from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.limits.table import bound, most
from havrin_core.machine.unit import Unit
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Condition
from havrin_core.vocabulary.catalogue import DANGER, verdict_of

# part, condition -> (how much likelier it is on a breached exchanger, group of signs with one common cause)
_SEEN = {
    ("flame", "disturbed_by_blower"): (12.0, "blower start"),
    ("exchanger", "sooted"): (2.5, "fouling"),
    ("burner", "rusted"): (1.8, "fouling"),
    ("exchanger", "rusted"): (1.8, "fouling"),
    ("exchanger", "scorched"): (3.0, "fouling"),
    ("flame", "rolled_out"): (3.0, "trips"),
    ("exchanger", "warped"): (2.5, "fouling"),
    ("exchanger", "thin"): (4.0, "look"),
    ("exchanger", "rusted_soft"): (4.0, "look"),
    ("rollout", "tripped"): (1.8, "trips"),
}
_DOUBTFUL_RATIO = 6.0  # a line that may be a crack
_UNSURE = {"": 1.0, "sure": 1.0, "likely": 0.7, "unsure": 0.4}  # share of the weight, as a power
_RESET_RATIO, _CORROSIVE_RATIO = 1.8, 2.0
_LEAST_SEEN = 0.02  # no look clears an exchanger altogether
_HEAT_DEVICES = ("", "limit", "rollout", "aux_limit", "high_limit")
_CORROSIVE = ("corrosive",)
_SLICES = 101  # equally likely ones of where a step's truth may lie


@dataclass(frozen=True, slots=True)
class Sign:
    """``ratio`` above 1 speaks for a breach, below 1 against it; ``entry_id`` "" for what no entry says."""

    key: str
    ratio: float
    group: str
    entry_id: str = ""
    facts: Mapping[str, Any] = field(default_factory=dict)


def is_breached(facts: Facts) -> bool:
    """Tell whether a breach was seen since the exchanger was last changed."""
    return any(_is_breach(look) for _, look in since_renewed(facts))


def _is_breach(look: Condition) -> bool:
    return look.part == "exchanger" and verdict_of(look.part, look.condition) == DANGER and look.sure != "unsure"


def signs_of(unit: Unit, facts: Facts) -> Iterator[Sign]:
    """Yield every sign, those for a breach and those against it."""
    if is_breached(facts):
        line = next(line for line, look in since_renewed(facts) if _is_breach(look))
        yield Sign("breach", float("inf"), "seen", line.entry.id)
    yield from _looks(facts)
    yield from _steps(facts)
    yield from _register(facts)
    yield from _resets(facts)
    if set(unit.surroundings) & set(_CORROSIVE):
        yield Sign("corrosive", _CORROSIVE_RATIO, "surroundings")
    rows = coverages(facts, unit.plate.exchanger_cells)
    if rows:
        yield seen_sign(rows)


def seen_sign(rows: list[Coverage]) -> Sign:
    """Return what it says that no breach was seen by these looks, all of them together; named after the best."""
    return Sign("seen", max(1 - found_by_now(rows), _LEAST_SEEN), "coverage", rows[0].entry_id, {"coverage": rows[0]})


def o2_step_sign(value_pct: float, entry_id: str = "", spread_pct: float = 0.0) -> Sign:
    """Return what an O2 step at blower start says, % points; ``spread_pct`` is its standard deviation where a trace gave it."""
    ratio = averaged(
        lambda pct: {"out": 8.0, "near": 3.0}.get(bound("o2_step.most").verdict(pct), 0.5), value_pct, spread_pct
    )
    return Sign("o2_step", ratio, "blower start", entry_id, {"value": abs(value_pct)})


def averaged(ratio: Callable[[float], float], value: float, spread: float) -> float:
    """Return a likelihood ratio averaged over where the truth may lie: normal about ``value``, standard deviation ``spread``.

    Of a step that may lie on either side of a bound it says less than of one that surely lies beyond it.
    """
    if spread <= 0:
        return ratio(value)
    truth = NormalDist(value, spread)
    return fmean(ratio(truth.inv_cdf((step + 0.5) / _SLICES)) for step in range(_SLICES))


def register_sign(over_room_ppm: float, entry_id: str = "") -> Sign:
    """Return what CO at a register says, ppm above the room."""
    sure, least = most("register_co.sure"), most("register_co.least")
    ratio = 15.0 if over_room_ppm > sure else 4.0 if over_room_ppm > least else 0.7
    return Sign("register_co", ratio, "register", entry_id, {"value": over_room_ppm})


def _looks(facts: Facts) -> Iterator[Sign]:
    """Yield each kind of finding once, as surely as it was ever seen: a doubtful second one takes nothing away."""
    surest: dict[tuple[str, str], tuple[Line, Condition]] = {}
    for line, look in since_renewed(facts):
        key = (look.part, look.condition)
        before = surest.get(key)
        if key in _SEEN and (before is None or _UNSURE[look.sure] >= _UNSURE[before[1].sure]):
            surest[key] = (line, look)
        elif look.part == "exchanger" and look.sure == "unsure" and verdict_of(*key) == DANGER:
            yield Sign("doubtful", _DOUBTFUL_RATIO ** _UNSURE[look.sure], "look", line.entry.id, {"look": look})
    for key, (line, look) in surest.items():
        ratio, group = _SEEN[key]
        yield Sign("look", ratio ** _UNSURE[look.sure], group, line.entry.id, {"look": look})


def _renewed_fact(facts: Facts, quantity: str) -> ReadingFact | None:
    changed = [line.moment.at for line, body in facts.actions("change") if body.part in RENEWED]
    return facts.newest(quantity, None, changed[-1] if changed else None)


def _steps(facts: Facts) -> Iterator[Sign]:
    oxygen = _renewed_fact(facts, "o2_step_pct")
    if oxygen is not None:
        yield o2_step_sign(oxygen.value, oxygen.entry_id, oxygen.spread)
    carbon = _renewed_fact(facts, "co_step_ppm")
    if carbon is not None:
        most_ppm = bound("co_step.most")
        ratio = averaged(lambda ppm: 4.0 if most_ppm.verdict(ppm) == "out" else 0.8, carbon.value, carbon.spread)
        yield Sign("co_step", ratio, "blower start", carbon.entry_id, {"value": carbon.value})


def _register(facts: Facts) -> Iterator[Sign]:
    register, room = _renewed_fact(facts, "supply_air_co_ppm"), facts.newest("room_co_ppm", None)
    if register is None:
        return
    yield register_sign(register.value - (room.value if room else 0.0), register.entry_id)


def _resets(facts: Facts) -> Iterator[Sign]:
    resets = [line for line, body in facts.actions("reset") if body.part in _HEAT_DEVICES]
    if resets:
        yield Sign("resets", _RESET_RATIO, "trips", resets[-1].entry.id)
