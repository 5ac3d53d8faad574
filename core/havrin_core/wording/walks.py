"""A walk's stops in words: what each asks, what was said there, and the lines that its answers write."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.quantities.display import sentence, show
from havrin_core.quantities.formats import day_words
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.model import SHUT_DOWN
from havrin_core.vocabulary.catalogue import LEVEL_OF_VERDICT, part, verdict_of
from havrin_core.vocabulary.measurands import measurand
from havrin_core.walks.before import NOTHING_BEFORE, Before
from havrin_core.walks.model import CHECKS, Stop
from havrin_core.walks.progress import Asked, StopState, station_of
from havrin_core.wording.choices import finding
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.names import condition_name, part_name, part_words, quantity_name, verb_name

_ABSENT = "absent"
_BETWEEN = " · "


@dataclass(frozen=True, slots=True)
class WalkAnswer:
    """One answer of a stop. ``line`` is whole and written at a touch, or begun where ``begins``: a number is typed behind it.

    ``level`` is the one that it opens, 0 for none. ``done``: it was said on this visit; ``said`` is then its value.
    ``asks``: it is read back before it is written, for it shuts the unit down.
    """

    label: str
    line: str
    level: int = 0
    begins: bool = False
    done: bool = False
    said: str = ""
    unit: str = ""
    stage: str = ""

    @property
    def asks(self) -> bool:
        """Whether it is read back first."""
        return self.level >= SHUT_DOWN


@dataclass(frozen=True, slots=True)
class StopWords:
    """One stop: its name, the limits that hold there, what was said there ``before``, its answers.

    ``reads``: it is for a reading. ``not_here`` writes that the part was never fitted; None where that cannot be said.
    """

    key: str
    name: str
    part: str
    station: str
    path: str
    limits: str
    before: str
    reads: bool
    answers: tuple[WalkAnswer, ...]
    not_here: WalkAnswer | None
    answered: bool

    @property
    def begins(self) -> str:
        """The line to begin at once: that of the first reading which the stop still waits for; "" for none."""
        waits = [answer.line for answer in self.answers if answer.begins and not answer.done]
        return waits[0] if waits and self.reads and not self.answered else ""


def stop_words(
    state: StopState, unit: Unit, rules: HouseRules, system: str, before: Before = NOTHING_BEFORE
) -> StopWords:
    """Return a stop in words, numbers in the units of ``system``; ``before`` is what earlier visits said there."""
    stop = state.stop
    here = _station(stop, unit)
    return StopWords(
        key=stop.key,
        name=stop_name(stop, unit),
        part=stop.part,
        station=here,
        path=_path(unit, here),
        limits=_limits(state, unit, rules, system),
        reads=bool(stop.read),
        before=_before(state, before, system),
        answers=(*_readings(state, system), *_shown(state), *_looks(state, unit), *_actions(state)),
        not_here=_not_here(stop),
        answered=state.answered,
    )


def arrival_name() -> str:
    """Return what the walk is for that every visit can begin with."""
    return text("Arrival, on every visit")


def stop_name(stop: Stop, unit: Unit | None = None) -> str:
    """Return what a stop is called: what is read there, else its part; a place of its own gives its own name."""
    if stop.check:
        return text(_CHECK_NAMES[stop.check])
    if not stop.read:
        return part_name(stop.part)
    own = next((s for s in unit.stations() if s.key == station_of(stop.read[0], unit)), None) if unit else None
    if own is not None and own.quantity == stop.read[0] and own.base != measurand(stop.read[0]).station:
        return own.name
    return _BETWEEN.join(_short(quantity) for quantity in stop.read)


_CHECK_NAMES: Mapping[str, str] = {
    "leak": "Leak check of every joint that was opened",
    "cycles": "A full cycle from its own thermostat, doors on",
}
_SHORT: Mapping[str, str] = {"o2_dry_pct": "Flue O₂", "co_ppm_dry": "CO", "flue_temp_k": "temperature"}


def _short(quantity: str) -> str:
    return text(_SHORT[quantity]) if quantity in _SHORT else quantity_name(quantity)


def _station(stop: Stop, unit: Unit) -> str:
    if stop.read:
        return station_of(stop.read[0], unit) or ""
    return unit.station_at(part(stop.part).station, unit.stage_keys[-1])


def _path(unit: Unit, station: str) -> str:
    return next((path.key for path in unit.paths if any(s.key == station for s in path.stations)), "")


def _limits(state: StopState, unit: Unit, rules: HouseRules, system: str) -> str:
    """Return the bounds of what is read here, once for each stage that has its own; what can only condemn is not said."""
    needed = [asked for asked in state.asked if asked.needed] or list(state.asked)
    said: dict[str, None] = {}
    for asked in needed:
        for quantity in asked.quantities:
            band = band_for(unit, rules, quantity, asked.stage)
            words = _band_words(quantity, band, system) if band is not None and band.acquits else ""
            if words:
                stage = text(STAGE_LABELS[asked.stage]) if asked.stage and len(unit.stage_keys) > 1 else ""
                name = _short(quantity) if len(asked.quantities) > 1 else ""
                said[" ".join(filter(None, (stage, name, words)))] = None
    return _BETWEEN.join(said)


def _before(state: StopState, before: Before, system: str) -> str:
    """Return what was read, else found, and done here on earlier visits, each with its day."""
    said = []
    for asked in state.asked:
        for quantity in asked.quantities:
            if (row := before.read.get((quantity, asked.stage))) is not None:
                value = sentence(row[0], measurand(quantity).dimension, system)
                said.append(text("{what} on {day}", what=value, day=day_words(row[1])))
    if not said and (found := before.found.get(state.stop.part)) is not None:
        said.append(text("{what} on {day}", what=condition_name(found[0]), day=day_words(found[1])))
    if state.stop.did and (did := before.did.get(state.stop.part)) is not None:
        said.append(text("{what} on {day}", what=lower_first(verb_name(did[0])), day=day_words(did[1])))
    return _BETWEEN.join(said)


def _band_words(quantity: str, band: Band, system: str) -> str:
    dimension = measurand(quantity).dimension
    if band.low is not None and band.high is not None:
        low, high = (show(end, dimension, system) for end in (band.low, band.high))
        return text("{low} to {high} {unit}", low=low.text, high=high.text, unit=high.unit)
    if band.low is not None:
        return text("at least {low}", low=sentence(band.low, dimension, system))
    return text("at most {high}", high=sentence(band.high, dimension, system)) if band.high is not None else ""


def _readings(state: StopState, system: str) -> list[WalkAnswer]:
    named = len([asked for asked in state.asked if not asked.needed]) > 1
    return [_reading(asked, system, named=named) for asked in state.asked] + _after_work(state, system)


def _reading(asked: Asked, system: str, *, named: bool = False, phase: str = "") -> WalkAnswer:
    lacking = asked.lacking or asked.quantities
    stage = asked.stage if asked.stage in ("low", "high") else ""
    words = [f"{phase} " if phase else "", f"{stage} " if stage else "", measurand(lacking[0]).words[0], " "]
    read = [
        sentence(fact.value, measurand(q).dimension, system)
        for q, fact in zip(asked.quantities, asked.read, strict=True)
        if fact is not None
    ]
    units = _BETWEEN.join(shown_unit(measurand(q).dimension, system).symbol for q in asked.quantities)
    label = lower_first(quantity_name(asked.quantities[0])) if named and not asked.needed else ""
    return WalkAnswer(
        label=label,
        line="".join(words),
        begins=True,
        done=not asked.lacking,
        said=_BETWEEN.join(read),
        unit=units,
        stage=text(STAGE_LABELS[asked.stage]) if asked.stage else "",
    )


def _after_work(state: StopState, system: str) -> list[WalkAnswer]:
    """After something was done here the same is read once more, as left."""
    if not state.did:
        return []
    again = [asked for asked in state.asked if asked.needed and not asked.lacking]
    again = [asked for asked in again if all(fact is not None and fact.phase == "found" for fact in asked.read)]
    rows = [Asked(asked.quantities, asked.stage, (None,) * len(asked.quantities), True) for asked in again]
    return [replace(_reading(row, system, phase="left"), label=text("after the work")) for row in rows]


def _shown(state: StopState) -> list[WalkAnswer]:
    stop = state.stop
    if stop.proved:
        return [WalkAnswer(text("seen to act"), f"proved {part_words(stop.part)}", done=state.shown)]
    return [WalkAnswer(text("done, passed"), CHECKS[stop.check], done=state.shown)] if stop.check else []


def _looks(state: StopState, unit: Unit) -> list[WalkAnswer]:
    return [_look(state, unit, like) for like in state.stop.found]


def _look(state: StopState, unit: Unit, like: str) -> WalkAnswer:
    found = finding(state.stop.part, like)
    cells = unit.plate.exchanger_cells
    whole = state.stop.part == "exchanger" and like == "ok" and cells > 1
    label = text("all {cells} in order", cells=cells) if whole else condition_name(like)
    line = f"{found.line} {cells}/{cells}" if whole else found.line
    return WalkAnswer(label, line, found.level, done=like in state.found)


def _actions(state: StopState) -> list[WalkAnswer]:
    return [
        WalkAnswer(
            lower_first(verb_name(verb)),
            f"did {verb.replace('_', ' ')} {part_words(state.stop.part)}",
            done=verb in state.did,
        )
        for verb in state.stop.did
    ]


def _not_here(stop: Stop) -> WalkAnswer | None:
    """Return the line that says the part was never fitted; None where the stop is not for a part."""
    if stop.read or stop.check or stop.proved or stop.part in ("unit", "people", "room"):
        return None
    found = finding(stop.part, _ABSENT)
    return WalkAnswer(text("not here"), found.line, LEVEL_OF_VERDICT[verdict_of(stop.part, _ABSENT)])
