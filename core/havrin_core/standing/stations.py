"""What every station of the drawing shows."""

from havrin_core.machine.unit import Station
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, TELL, Missing, ReadingView, Reason
from havrin_core.standing.model import StationView
from havrin_core.tape.entries import Condition
from havrin_core.vocabulary.catalogue import part
from havrin_core.vocabulary.measurands import measurand

_CLOSED_BELOW_V, _SUPPLY_LEAST_V, _SUPPLY_MOST_V = 1.0, 21.0, 28.0  # 24 V nominal, running


def station_views(
    context: Context, readings: list[ReadingView], missing: list[Missing], reasons: list[Reason]
) -> list[StationView]:
    """Return one view per station of the unit, in drawing order."""
    by_station: dict[str, list[ReadingView]] = {}
    for view in readings:
        by_station.setdefault(context.unit.station_at(measurand(view.quantity).station, view.stage), []).append(view)
    looks: dict[str, list[Condition]] = {}
    for _, look in context.facts.conditions():
        looks.setdefault(part(look.part).station, []).append(look)
    abnormal = {still.device for still in context.facts.still_abnormal()}
    return [
        _view(context, s, by_station.get(s.key, []), tuple(looks.get(s.key, ())), s.key in abnormal, missing, reasons)
        for s in context.unit.stations()
    ]


def _view(
    context: Context,
    station: Station,
    shown: list[ReadingView],
    looks: tuple[Condition, ...],
    jumpered: bool,
    missing: list[Missing],
    reasons: list[Reason],
) -> StationView:
    volts = _volts(context, station)
    here = [*shown, *([volts] if volts else [])]
    lacking = tuple(m for m in missing if m.station in (station.key, station.base) and _stage_fits(m, station))
    state = _state(station, here, looks, jumpered, lacking, reasons)
    return StationView(station.key, state, tuple(here), looks, jumpered, lacking)


def _stage_fits(item: Missing, station: Station) -> bool:
    own_stage = station.key != station.base
    return not own_stage or item.stage in (None, station.stage)


def _state(
    station: Station,
    here: list[ReadingView],
    looks: tuple[Condition, ...],
    jumpered: bool,
    lacking: tuple[Missing, ...],
    reasons: list[Reason],
) -> str:
    worst = max((reason.level for reason in reasons if reason.station == station.key), default=0)
    verdicts = {view.verdict for view in here}
    if jumpered or worst >= NOT_YET or "out" in verdicts:
        return "out"
    if worst == TELL or "near" in verdicts:
        return "near"
    if lacking or not (here or looks):
        return "none"
    return "in" if "in" in verdicts or looks or station.key == "flue" else "noted"


def _volts(context: Context, station: Station) -> ReadingView | None:
    if station.between is None:
        return None
    rows = [
        f
        for f in context.facts.readings
        if f.quantity == "volts_across_v" and f.station == station.key and f.phase != "trial"
    ]
    if not rows:
        return None
    fact = rows[-1]
    across_switch = "C" not in station.between
    sound = abs(fact.value) < _CLOSED_BELOW_V if across_switch else _SUPPLY_LEAST_V <= fact.value <= _SUPPLY_MOST_V
    # Volts depend on the unit's state at that moment: a switch that reads open is shown, not condemned.
    verdict = "in" if sound else "near"
    return ReadingView("volts_across_v", None, fact.value, verdict, None, fact.phase, fact.at, fact.entry_id, None)
