"""What every station of the drawing shows."""

from havrin_core.machine.unit import Station
from havrin_core.rules.model import NOT_YET, TELL, FlueView, Missing, ReadingView, Reason
from havrin_core.rules.proofs import Case
from havrin_core.rules.readings import station_of
from havrin_core.standing.model import StationView
from havrin_core.vocabulary.findings import finding, is_finding
from havrin_core.vocabulary.measurands import measurand

_CLOSED_BELOW_V, _SUPPLY_LEAST_V, _SUPPLY_MOST_V = 1.0, 21.0, 28.0  # 24 V nominal, running


def station_views(
    case: Case, readings: list[ReadingView], flue: list[FlueView], missing: list[Missing], reasons: list[Reason]
) -> list[StationView]:
    """Return one view per station of the unit, in drawing order."""
    by_station: dict[str, list[ReadingView]] = {}
    for view in readings:
        by_station.setdefault(station_of(measurand(view.quantity), view.stage), []).append(view)
    return [_view(case, s, by_station.get(s.key, []), missing, reasons) for s in case.unit.stations()]


def _view(
    case: Case, station: Station, shown: list[ReadingView], missing: list[Missing], reasons: list[Reason]
) -> StationView:
    volts = _volts(case, station)
    here = [*shown, *([volts] if volts else [])]
    looks = tuple(
        finding(look.finding).text + (f" ({look.place})" if look.place else "")
        for _, look in case.facts.looks()
        if is_finding(look.finding) and finding(look.finding).station == station.key
    )
    jumpered = any(jumper.device == station.key for jumper in case.facts.jumpers_in())
    lacking = tuple(
        m.text
        for m in missing
        if m.station in (station.key, station.key.split("_low")[0].split("_high")[0]) and _stage_fits(m, station)
    )
    return StationView(
        station.key, _state(station, here, looks, jumpered, lacking, reasons), tuple(here), looks, jumpered, lacking
    )


def _stage_fits(item: Missing, station: Station) -> bool:
    if station.stage not in ("low", "high") or not station.key.endswith(station.stage):
        return True
    return f"{station.stage} fire" in item.text


def _state(
    station: Station,
    here: list[ReadingView],
    looks: tuple[str, ...],
    jumpered: bool,
    lacking: tuple[str, ...],
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


def _volts(case: Case, station: Station) -> ReadingView | None:
    if station.between is None:
        return None
    rows = [
        f
        for f in case.facts.readings
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
