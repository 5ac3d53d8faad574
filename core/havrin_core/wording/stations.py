"""What a station's plate says, and the words that begin a line there."""

from collections.abc import Mapping

from havrin_core.limits.model import Band
from havrin_core.machine.unit import Station, Unit
from havrin_core.quantities.display import Shown, sentence, show
from havrin_core.quantities.formats import clock_words
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.model import ReadingView
from havrin_core.standing.model import Assessment, StationView
from havrin_core.tape.entries import Condition, Reading
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.entries import place_said
from havrin_core.wording.language import text
from havrin_core.wording.ledger import put_in
from havrin_core.wording.names import condition_name, part_name, source
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import limit_text, reading_against

_STARTERS: Mapping[str, str] = {"vent": "vent ok", "exchanger": "exchanger ok "}


def unit_line(unit: Unit, system: str) -> str:
    """Return the unit in one line: kind, stages, fuel, input, altitude."""
    rated = unit.plate.stages[-1].input_w
    stages = text(", two-stage") if len(unit.stage_keys) > 1 and not unit.kind.modulating else ""
    parts = [
        unit.kind.name + stages,
        unit.fuel.label,
        sentence(rated, "power", system) if rated else text("input not entered"),
        sentence(unit.altitude_m, "length", system),
    ]
    return " · ".join(parts)


def station_words(station: Station, view: StationView, found: Assessment) -> str:
    """Return what stands on the plate beside its number: what is jumpered, what was seen, what is not read yet."""
    if view.jumpered:
        first = next(still for still in found.abnormal if still.device == station.key)
        return text("{what} since {time}", what=put_in(first.how), time=clock_words(first.since))
    if view.looks:
        return _look(view.looks[-1])
    if not view.readings:
        return text("not looked at yet") if station.quantity is None else text("not read yet")
    return ""


def _look(look: Condition) -> str:
    place = place_said(look)
    like = condition_name(look.condition)
    said = f"{part_name(look.part)}: {text('not {like}', like=like) if look.absent else like}"
    return f"{said} ({place})" if place else said


def station_starter(station: Station) -> str:
    """Return the words that begin the line which this station waits for."""
    stage = f"{station.stage} " if station.stage in ("low", "high") and station.key != station.base else ""
    if station.quantity == "volts_across_v":
        return f"v {station.key.replace('_', ' ')} "
    if station.quantity:
        return f"{stage}{measurand(station.quantity).words[0]} "
    return f"{stage}o2 " if station.key == "flue" else _STARTERS.get(station.key, "found ")


def line_again(body: Reading) -> str:
    """Return a line that would write this reading again, to start a correction from."""
    where = f"{(body.station or '').replace('_', ' ')} " if body.quantity == "volts_across_v" else ""
    stage = f" {body.stage}" if body.stage in ("low", "high") else ""
    return f"{measurand(body.quantity).words[0]} {where}{body.typed:g} {body.unit}{stage}"


def reading_shown(view: ReadingView, system: str) -> Shown:
    """Return a reading as it stands beside its limit: out of it, with as many digits as show that."""
    dimension = measurand(view.quantity).dimension
    if view.verdict != "out" or view.band is None or not (view.band.low or view.band.high):
        return show(view.value, dimension, system)
    said = reading_against(view.quantity, view.band, view.value, system)[0]
    return Shown(view.value, said.rpartition(" ")[0], shown_unit(dimension, system).symbol)


def reading_limit(view: ReadingView, system: str) -> str:
    """Return the limit of a reading in words; "" where it has none."""
    if view.band is None or not (view.band.low or view.band.high):
        return ""
    return limit_text(view.quantity, view.band, view.value, system)


def band_source(band: Band | None) -> str:
    """Return whose limit a band is, with its note."""
    if band is None:
        return ""
    return source(band.source) + (f", {words(band.note)}" if band.note else "")
