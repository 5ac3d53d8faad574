"""The signs that speak for or against a breached exchanger, each with its weight as a likelihood ratio."""

from collections.abc import Iterator
from dataclasses import dataclass

from havrin_core.exchanger.coverage import coverages, since_renewed
from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.limits.limits import O2_STEP_DOUBT_PCT, O2_STEP_MOST_PCT
from havrin_core.machine.unit import Unit
from havrin_core.tape.entries import Entry, Look

# finding -> (how much likelier it is on a breached exchanger, group of signs with one common cause)
_SEEN = {
    "flame_disturbed": (12.0, "blower start"), "soot": (2.5, "fouling"), "rust_flakes": (1.8, "fouling"), "scorch": (3.0, "fouling"),
    "rollout": (3.0, "trips"), "exchanger_doubtful": (6.0, "look"), "exchanger_warped": (2.5, "fouling"),
}  # fmt: skip
_UNSURE = {"": 1.0, "sure": 1.0, "likely": 0.7, "unsure": 0.4}  # share of the weight, as a power
_RESET_RATIO, _CORROSIVE_RATIO = 1.8, 2.0
_REGISTER_SURE_PPM, _REGISTER_LEAST_PPM, _CO_STEP_PPM = 9.0, 5.0, 20.0
_CORROSIVE = ("corrosive",)


@dataclass(frozen=True, slots=True)
class Sign:
    """``ratio`` above 1 speaks for a breach, below 1 against it; ``entry_id`` "" for what no entry says."""

    key: str
    text: str
    ratio: float
    group: str
    entry_id: str = ""


def is_breached(facts: Facts) -> bool:
    """Tell whether a breach was seen since the exchanger was last changed."""
    return any(look.finding == "exchanger_breach" for _, look in since_renewed(facts))


def signs_of(unit: Unit, facts: Facts) -> Iterator[Sign]:
    """Yield every sign, those for a breach and those against it."""
    if is_breached(facts):
        entry = next(e for e, look in since_renewed(facts) if look.finding == "exchanger_breach")
        yield Sign("exchanger_breach", "A breach was seen: it decides", float("inf"), "seen", entry.id)
    yield from _looks(facts)
    yield from _steps(facts)
    yield from _register(facts)
    yield from _resets(facts)
    if set(unit.surroundings) & set(_CORROSIVE):
        yield Sign("corrosive", "Corrosive surroundings", _CORROSIVE_RATIO, "surroundings")
    for row in coverages(facts, unit.plate.exchanger_cells):
        text = f"No breach seen: {row.seen} of {row.of} parts by {row.method}"
        yield Sign(f"seen_{row.method.replace(' ', '_')}", text, max(1 - row.finds, 0.02), "look", row.entry_id)


def _looks(facts: Facts) -> Iterator[Sign]:
    """Yield each kind of finding once, as surely as it was ever seen: a doubtful second one takes nothing away."""
    surest: dict[str, tuple[Entry, Look]] = {}
    for entry, look in since_renewed(facts):
        before = surest.get(look.finding)
        if look.finding in _SEEN and (before is None or _UNSURE[look.sure] >= _UNSURE[before[1].sure]):
            surest[look.finding] = (entry, look)
    for key, (entry, look) in surest.items():
        ratio, group = _SEEN[key]
        sure = f", {look.sure}" if look.sure else ""
        yield Sign(key, _NAMES[key] + sure, ratio ** _UNSURE[look.sure], group, entry.id)


_NAMES = {
    "flame_disturbed": "Flame moves when the blower starts", "soot": "Soot", "rust_flakes": "Rust flakes in the burners",
    "scorch": "Scorching or a hot spot", "rollout": "Flame outside the burner box", "exchanger_doubtful": "A line that may be a crack",
    "exchanger_warped": "Warped or bulging wall",
}  # fmt: skip


def _renewed_fact(facts: Facts, quantity: str) -> ReadingFact | None:
    changed = [entry.at for entry, deed in facts.deeds() if deed.action == "change_exchanger"]
    return facts.newest(quantity, None, changed[-1] if changed else None)


def _steps(facts: Facts) -> Iterator[Sign]:
    oxygen = _renewed_fact(facts, "o2_step_pct")
    if oxygen is not None:
        size = abs(oxygen.value)
        ratio = 8.0 if size > O2_STEP_MOST_PCT else 3.0 if size > O2_STEP_DOUBT_PCT else 0.5
        yield Sign("o2_step", f"O₂ step of {size:.1f} % at blower start", ratio, "blower start", oxygen.entry_id)
    carbon = _renewed_fact(facts, "co_step_ppm")
    if carbon is not None:
        ratio = 4.0 if abs(carbon.value) > _CO_STEP_PPM else 0.8
        yield Sign(
            "co_step", f"CO step of {carbon.value:.0f} ppm at blower start", ratio, "blower start", carbon.entry_id
        )


def _register(facts: Facts) -> Iterator[Sign]:
    register, room = _renewed_fact(facts, "supply_air_co_ppm"), facts.newest("room_co_ppm", None)
    if register is None:
        return
    over = register.value - (room.value if room else 0.0)
    ratio = 15.0 if over > _REGISTER_SURE_PPM else 4.0 if over > _REGISTER_LEAST_PPM else 0.7
    yield Sign("register_co", f"CO at a register {over:.0f} ppm above the room", ratio, "register", register.entry_id)


def _resets(facts: Facts) -> Iterator[Sign]:
    resets = [entry for entry, deed in facts.deeds() if deed.action == "manual_reset"]
    if resets:
        yield Sign("resets", "A safety trip was reset on this visit", _RESET_RATIO, "trips", resets[-1].id)
