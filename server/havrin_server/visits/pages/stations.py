"""The drawing as data for the page: paths, stations, readings."""

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Station, Unit
from havrin_core.quantities.formats import number
from havrin_core.rules.model import ReadingView
from havrin_core.rules.scale import flue_scale, scale_of
from havrin_core.standing.model import Assessment, StationView
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.missing import missing_text
from havrin_core.wording.stations import band_source, reading_limit, reading_shown, station_starter, station_words
from havrin_server.figures.explained import reading_whys, shown_if
from havrin_server.figures.schemas import Shown
from havrin_server.visits.schemas.flue import FlueOut
from havrin_server.visits.schemas.visit import PathOut, ReadingOut, ScaleOut, StationOut


def paths_out(unit: Unit, rules: HouseRules, found: Assessment, flue: list[FlueOut], system: str) -> list[PathOut]:
    """Return the columns of the drawing with what their stations show."""
    views = {view.key: view for view in found.stations}
    return [
        PathOut.of(path, stations=[_station(rules, s, views[s.key], found, flue, system) for s in path.stations])
        for path in unit.paths
    ]


def _station(
    rules: HouseRules, station: Station, view: StationView, found: Assessment, flue: list[FlueOut], system: str
) -> StationOut:
    readings = [_reading(r, system) for r in view.readings]
    main = next((r for r in readings if _is_main(r, station)), None)
    base = StationOut.of(
        view,
        name=station.name,
        value=main.shown if main else None,
        side=_side(main),
        words=station_words(station, view, found),
        scale=main.scale if main else None,
        readings=readings,
        missing=[missing_text(item) for item in view.missing],
        starter=station_starter(station),
        caution=station.caution,
        why=[figure for r in view.readings for figure in reading_whys(r, system)],
    )
    return _with_flue(base, station, rules, found, flue) if station.key == "flue" else base


def _is_main(reading: ReadingOut, station: Station) -> bool:
    staged = station.quantity is not None and measurand(station.quantity).staged
    return reading.quantity == station.quantity and reading.stage == (station.stage if staged else None)


def _side(main: ReadingOut | None) -> str:
    """Return what stands beside the number: what it was as found, else its limit without the unit that stands there."""
    if main is None:
        return ""
    if main.found and main.found.text != main.shown.text:
        return f"was {main.found.text}"
    return main.limit.removesuffix(main.shown.unit).strip()


def _with_flue(
    base: StationOut, station: Station, rules: HouseRules, found: Assessment, flue: list[FlueOut]
) -> StationOut:
    shown = next((f for f in flue if f.stage == station.stage), None)
    others = [f"{f.label} fire: {f.figures[0].shown.text} ppm" for f in flue if f.figures and f.stage != station.stage]
    more: dict[str, object] = {}
    if shown and shown.figures and shown.o2_dry_pct is not None:
        others = [f"O₂ {number(shown.o2_dry_pct, '.1f')} %", *others]
        view = next(v for v in found.flue if v.stage == station.stage)
        marks = flue_scale(view, rules)
        more = {
            "value": Shown(text=shown.figures[0].shown.text, unit="ppm CO air-free"),
            "scale": ScaleOut.of(marks) if marks else None,
            "why": shown.figures,
        }
    if others:
        more["words"] = " · ".join(others)
    return base.model_copy(update=more)


def _reading(view: ReadingView, system: str) -> ReadingOut:
    what = measurand(view.quantity)
    return ReadingOut.of(
        view,
        name=what.name,
        shown=Shown.of(reading_shown(view, system)),
        found=shown_if(view.found, what.dimension, system),
        limit=reading_limit(view, system),
        source=band_source(view.band),
        scale=scale_of(view.quantity, view.band, view.value, view.found),
    )
