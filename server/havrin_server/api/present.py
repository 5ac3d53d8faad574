"""A visit as the page draws it: the core's assessment in the person's units. No rule of the job here."""

from functools import lru_cache

from django.utils import timezone

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import SOURCES, Band
from havrin_core.machine.exchanger import exchanger_of
from havrin_core.machine.unit import STAGE_LABELS, Station, Unit
from havrin_core.physics.constants import O2_AMBIENT_PCT
from havrin_core.physics.fuels import Fuel, shipped_fuel
from havrin_core.quantities.display import sentence, show
from havrin_core.rules.model import ReadingView
from havrin_core.rules.readings import limit_text
from havrin_core.standing.model import TITLES, Assessment, NextStep, StationView
from havrin_core.standing.next_step import starter_for
from havrin_core.standing.searching import next_step_of, searching
from havrin_core.tape.entries import Correction, Decision, Entry, Reading, struck
from havrin_core.tape.visit import REASONS_FOR_VISIT
from havrin_core.vocabulary.abnormal import abnormal, device_name, still_open
from havrin_core.vocabulary.measurands import MEASURANDS, measurand
from havrin_core.wording.describe import describe
from havrin_server.api import schemas as out
from havrin_server.api.present_flue import flue_out
from havrin_server.api.present_why import reading_whys
from havrin_server.api.scale import scale_of
from havrin_server.captures.models import Photo
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import assess_visit, earlier_visits, suspects_of, tape_of, unit_of
from havrin_server.journal.services import closing_obstacles
from havrin_server.people.models import Person
from havrin_server.toolbox.models import Instrument

assert O2_AMBIENT_PCT == 20.946  # the page draws its fuel lines to this point


def visit_page(visit: Visit, person: Person) -> out.VisitPage:
    """Return all that the page of ``visit`` shows to ``person``."""
    system, tape = person.unit_system, tape_of(visit)
    unit = unit_of(visit, tape)
    found = assess_visit(visit, system, tape)
    flue = [flue_out(unit, visit.rules(), view, found, system) for view in found.flue]
    return out.VisitPage(
        id=visit.pk, version=visit.version, unit_name=visit.unit.name, unit_line=unit_line(visit, unit, system),
        site=visit.unit.site.name, site_id=visit.unit.site_id, unit_id=visit.unit_id, reason=REASONS_FOR_VISIT[visit.reason], complaint=visit.complaint,
        rules=visit.rules().name, has_string=unit.circuit is not None, has_exchanger=exchanger_of(unit) is not None, writable=visit.closed_at is None and person.role != "office",
        room_co=_room_co(tape), stages=[out.StageOut(key=k, label=STAGE_LABELS[k]) for k in unit.stage_keys],
        paths=_paths(unit, visit.rules(), found, flue, system), ties=[out.TieOut(device=device, feels=feels) for device, feels in unit.kind.ties], standing=standing_out(found, _next_step(visit, unit, found, tape)),
        tape=_tape(tape, system),
        jumpers=[out.JumperOut(device=j.device, how=j.how, text=still_open(j.how, j.device), put_back=f"{abnormal(j.how).verb_out} {device_name(j.device)}", since=j.since, found=j.found) for j in found.jumpers],
        flue=flue, fuel_line=_fuel_line(unit.fuel), other_fuel_line=_fuel_line(_other_fuel(unit)),
        o2_doubt_pct=out.RangeOut(low=unit.kind.o2_doubt_pct[0], high=unit.kind.o2_doubt_pct[1]), earlier=[earlier_out(pk, system) for pk in earlier_visits(visit).values_list("pk", flat=True)],
        instruments=[instrument_out(i) for i in Instrument.objects.filter(firm_id=person.firm_id).order_by("name")],
        logs=[out.LogOut(id=log.pk, name=log.name) for log in visit.logs.order_by("uploaded_at")],
        photos=[photo_out(p) for p in visit.photos.order_by("taken_at")],
        close=_close(visit, found),
    )  # fmt: skip


def unit_line(visit: Visit, unit: Unit, system: str) -> str:
    """Return the unit in one line: kind, stages, fuel, input, altitude."""
    rated = unit.plate.stages[-1].input_w
    parts = [
        unit.kind.name + (", two-stage" if len(unit.stage_keys) > 1 and not unit.kind.modulating else ""), unit.fuel.label,
        sentence(rated, "power", system) if rated else "input not entered",
        sentence(unit.altitude_m, "length", system),
    ]  # fmt: skip
    return " · ".join(parts)


def _next_step(visit: Visit, unit: Unit, found: Assessment, tape: tuple[Entry, ...]) -> NextStep | None:
    if visit.closed_at is not None or not searching(visit.reason, tape, found):
        return found.next_step
    return next_step_of(found, suspects_of(visit, unit, tape, others=0))


def standing_out(found: Assessment, step: NextStep | None) -> out.StandingOut:
    """Return the standing for the page, with the one next step."""
    return out.StandingOut(
        level=found.level, title=found.title, settled=found.settled,
        reasons=[
            out.ReasonOut(level=r.level, code=r.code, text=r.text, lifts=r.lifts, station=r.station, reading=r.reading, limit=r.limit, source=r.source)
            for r in found.reasons
        ],
        missing=[
            out.MissingOut(text=m.text, station=m.station, how=m.how, minutes=m.minutes, after_work=m.after_work, starter=starter_for(m))
            for m in found.missing
        ],
        next_step=out.NextOut(title=step.title, why=step.why, minutes=step.minutes, station=step.station, starter=step.starter) if step else None,
        not_judged=list(found.not_judged),
    )  # fmt: skip


def instrument_out(instrument: Instrument) -> out.InstrumentOut:
    """Return an instrument with whether its calibration is in date."""
    until = instrument.calibrated_until
    return out.InstrumentOut(
        id=instrument.pk, name=instrument.name, kind=instrument.kind, calibrated_until=until,
        in_date=until is not None and until >= timezone.localdate(),
    )  # fmt: skip


def photo_out(photo: Photo) -> out.PhotoOut:
    """Return a photo with the address it is fetched from."""
    url = f"/api/photos/{photo.pk}"
    marks = [out.MarkIn(**mark) for mark in photo.marks]
    return out.PhotoOut(
        id=photo.pk, caption=photo.caption, station=photo.station, url=url, small=f"{url}?small=true", marks=marks
    )


def _fuel_line(fuel: Fuel) -> out.FuelLine:
    return out.FuelLine(name=fuel.label, co2_max_dry_pct=fuel.co2_max_dry_pct)


def _other_fuel(unit: Unit) -> Fuel:
    return shipped_fuel("NG_H" if unit.fuel.co2_max_dry_pct > 13 else "C3H8")


def _room_co(tape: tuple[Entry, ...]) -> out.Shown | None:
    newest = Facts(tape).newest("room_co_ppm", None)
    return out.Shown(text=f"{newest.value:.0f}", unit="ppm") if newest else None


def _paths(unit: Unit, rules: HouseRules, found: Assessment, flue: list[out.FlueOut], system: str) -> list[out.PathOut]:
    views = {view.key: view for view in found.stations}
    return [
        out.PathOut(
            key=path.key, name=path.name, direction=path.direction, hint=path.hint,
            stations=[_station(rules, s, views[s.key], found, flue, system) for s in path.stations],
        )
        for path in unit.paths
    ]  # fmt: skip


def _station(
    rules: HouseRules, station: Station, view: StationView, found: Assessment, flue: list[out.FlueOut], system: str
) -> out.StationOut:
    readings = [_reading(r, system) for r in view.readings]
    main = next(
        (
            r
            for r in readings
            if r.quantity == station.quantity and r.stage == (station.stage if _staged(station) else None)
        ),
        None,
    )
    base = out.StationOut(
        key=station.key, name=station.name, state=view.state, value=main.shown if main else None, side="", words=_words(station, view, found),
        scale=main.scale if main else None, readings=readings, jumpered=view.jumpered, missing=list(view.missing), starter=_starter(station),
        caution=station.caution, why=[figure for r in view.readings for figure in reading_whys(r, system)],
    )  # fmt: skip
    if station.key == "flue":
        return _flue_station(base, station, rules, flue)
    if main and main.found and main.found.text != main.shown.text:
        base.side = f"was {main.found.text}"
    elif main:
        base.side = main.limit.removesuffix(main.shown.unit).strip()
    return base


def _staged(station: Station) -> bool:
    return bool(station.quantity) and measurand(station.quantity or "").staged


def _flue_station(base: out.StationOut, station: Station, rules: HouseRules, flue: list[out.FlueOut]) -> out.StationOut:
    shown = next((f for f in flue if f.stage == station.stage), None)
    others = [f"{f.label} fire: {f.figures[0].shown.text} ppm" for f in flue if f.figures and f.stage != station.stage]
    if shown and shown.figures:
        air_free = shown.figures[0]
        base.value = out.Shown(text=air_free.shown.text, unit="ppm CO air-free")
        others = [f"O₂ {shown.o2_dry_pct:.1f} %", *others]
        base.scale = scale_of(
            "co_air_free_ppm", Band("house", high=rules.co_air_free_ask_ppm), float(air_free.shown.text), None
        )
        base.why = shown.figures
    if others:
        base.words = " · ".join(others)
    return base


def _words(station: Station, view: StationView, found: Assessment) -> str:
    if view.jumpered:
        first = next(j for j in found.jumpers if j.device == station.key)
        return f"{abnormal(first.how).said_in} since {first.since:%H:%M}"
    if view.looks:
        return view.looks[-1]
    if not view.readings:
        return "not looked at yet" if station.quantity is None else "not read yet"
    return ""


def _starter(station: Station) -> str:
    stage = f"{station.stage} " if station.stage in ("low", "high") and station.key.endswith(station.stage) else ""
    if station.quantity == "volts_across_v":
        return f"v {station.key.replace('_', ' ')} "
    if station.quantity:
        return f"{stage}{measurand(station.quantity).words[0]} "
    return {"vent": "vent ok", "exchanger": "exchanger ok ", "flue": f"{stage}o2 "}.get(station.key, "found ")


def _reading(view: ReadingView, system: str) -> out.ReadingOut:
    what = measurand(view.quantity)
    shown = show(view.value, what.dimension, system)
    found = show(view.found, what.dimension, system) if view.found is not None else None
    limit = (
        limit_text(view.quantity, view.band, view.value, system)
        if view.band and (view.band.low or view.band.high)
        else ""
    )
    return out.ReadingOut(
        quantity=view.quantity, name=what.name, stage=view.stage, shown=out.Shown(text=shown.text, unit=shown.unit), verdict=view.verdict,
        phase=view.phase, found=out.Shown(text=found.text, unit=found.unit) if found else None,
        limit=limit,
        source=SOURCES[view.band.source] + (f", {view.band.note}" if view.band.note else "") if view.band else "",
        scale=scale_of(view.quantity, view.band, view.value, view.found),
    )  # fmt: skip


def _tape(tape: tuple[Entry, ...], system: str) -> list[out.EntryOut]:
    corrected = struck(tape)
    return [_entry(entry, corrected, system) for entry in reversed(tape)]


def _entry(entry: Entry, corrected: dict[str, str], system: str) -> out.EntryOut:
    said = describe(entry.body, system)
    body = entry.body
    return out.EntryOut(
        id=entry.id, group=entry.group, at=entry.at, zone=entry.at.isoformat()[-6:], author=entry.author, kind=entry.kind, text=said.text, value=said.value,
        tone=said.tone, phase=entry.phase, stage=getattr(body, "stage", None), corrected_by=corrected.get(entry.id),
        corrects=body.corrects if isinstance(body, Correction) else None, typed=_retype(body),
    )  # fmt: skip


def _retype(body: object) -> str:
    """Return a line that would write this entry again, to start a correction from."""
    if isinstance(body, Reading):
        word = next(m.words[0] for m in MEASURANDS if m.key == body.quantity)
        where = f"{(body.station or '').replace('_', ' ')} " if body.quantity == "volts_across_v" else ""
        return f"{word} {where}{body.typed:g} {body.unit}" + (f" {body.stage}" if body.stage in ("low", "high") else "")
    return ""


def earlier_words(visit: Visit) -> list[str]:
    """Return the advice given on a visit."""
    bodies = [e.body for e in tape_of(visit)]
    labels = {"advise": "Advised", "refused": "Refused"}
    return [f"{labels[b.decision]}: {b.text}" for b in bodies if isinstance(b, Decision) and b.decision in labels]


@lru_cache(maxsize=4096)
def earlier_out(visit_id: int, system: str) -> out.EarlierVisit:
    """Return a closed visit as later ones look back on it."""
    # A closed visit never changes: what it says is worked out once per process.
    visit = Visit.objects.select_related("unit__site", "unit__model", "technician").get(pk=visit_id)
    found = assess_visit(visit, system)
    lines = []
    for view in found.stations:
        for reading in view.readings:
            what = measurand(reading.quantity)
            stage = f", {reading.stage}" if reading.stage in ("low", "high") else ""
            lines.append(f"{what.name}{stage} {sentence(reading.value, what.dimension, system)}")
    level = visit.closed_level or found.level
    return out.EarlierVisit(
        id=visit.pk, day=visit.day, reason=REASONS_FOR_VISIT[visit.reason], technician=visit.technician.full_name,
        level=level, title=TITLES[level], words=visit.customer_words, advice=earlier_words(visit), readings=lines,
    )  # fmt: skip


def _close(visit: Visit, found: Assessment) -> out.CloseOut:
    return out.CloseOut(
        obstacles=[] if visit.closed_at else closing_obstacles(found, "signed"), put_backs=list(found.put_backs),
        cycles_shown=found.cycles_shown, changes=list(found.changes), closed_at=visit.closed_at,
        closed_by=visit.closed_by.full_name if visit.closed_by else "", customer_words=visit.customer_words, signed_by=visit.signed_by,
    )  # fmt: skip


def round_stop(visit: Visit, person: Person) -> out.RoundVisit:
    """Return one stop of the round with what was last found there."""
    system, unit = person.unit_system, visit.unit.described()
    found = assess_visit(visit, system)
    last = earlier_visits(visit, 1).first()
    return out.RoundVisit(
        id=visit.pk, turn=visit.turn, site=visit.unit.site.name, access=visit.unit.site.access, unit_name=visit.unit.name,
        unit_line=unit_line(visit, unit, system), reason=REASONS_FOR_VISIT[visit.reason], complaint=visit.complaint,
        level=found.level, title=found.title, settled=found.settled, closed=visit.closed_at is not None, entries=visit.version,
        last_day=last.day if last else None, last_title=TITLES[last.closed_level] if last and last.closed_level else "",
        last_level=last.closed_level if last else None, last_words=last.customer_words if last else "",
        advice=earlier_words(last) if last else [],
    )  # fmt: skip
