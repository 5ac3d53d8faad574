"""A visit as the page draws it: the core's assessment in the person's units. No rule of the job here."""

from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from django.utils import timezone

from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.model import HOUSE, Band
from havrin_core.machine.exchanger import exchanger_of
from havrin_core.machine.unit import STAGE_LABELS, Station, Unit
from havrin_core.physics.constants import O2_AMBIENT_PCT
from havrin_core.physics.fuels import Fuel, shipped_fuel
from havrin_core.quantities.display import sentence, show
from havrin_core.rules.families import must_be_named, open_causes
from havrin_core.rules.model import NOT_YET, ReadingView, Reason
from havrin_core.search.visit_search import is_searching
from havrin_core.standing.model import Assessment, NextStep, StationView
from havrin_core.standing.next_step import next_step_of
from havrin_core.tape.corrections import effective, struck
from havrin_core.tape.entries import WAYS_LEFT, Condition, Correction, Entry, Note, Reading, Said
from havrin_core.vocabulary.measurands import MEASURANDS, measurand
from havrin_core.wording.closing import change_words, not_judged_words, standing_title
from havrin_core.wording.entries import describe, echo, place_said
from havrin_core.wording.ledger import put_back_line, put_in, still_open, to_put_back
from havrin_core.wording.missing import because_text, missing_how, missing_starter, missing_text
from havrin_core.wording.names import condition_name, part_name, source, title, visit_reason, way_left
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import limit_text, reason_words
from havrin_core.wording.steps import step_words
from havrin_server.api import schemas as out
from havrin_server.api.present_flue import flue_out
from havrin_server.api.present_why import reading_whys
from havrin_server.api.scale import scale_of
from havrin_server.api.schemas_closing import AmendmentOut, KeptPaper
from havrin_server.captures.models import Photo
from havrin_server.journal.amendments import entries_of, written_at
from havrin_server.journal.models import Amendment, Visit
from havrin_server.journal.pins import moved_on, moved_words
from havrin_server.journal.queries import assess_visit, earlier_visits, suspects_of, tape_of, unit_of
from havrin_server.journal.services import closing_obstacles
from havrin_server.people.models import Person
from havrin_server.toolbox.models import Instrument

assert O2_AMBIENT_PCT == 20.946  # the page draws its fuel lines to this point


def visit_page(visit: Visit, person: Person) -> out.VisitPage:
    """Return all that the page of ``visit`` shows to ``person``."""
    system, tape = person.unit_system, tape_of(visit)
    unit = unit_of(visit, tape)
    found = assess_visit(visit, tape)
    flue = [flue_out(unit, visit.rules(), view, found, system) for view in found.flue]
    return out.VisitPage(
        id=visit.pk,
        version=visit.version,
        unit_name=visit.unit.name,
        unit_line=unit_line(visit, unit, system),
        site=visit.unit.site.name,
        zone=visit.unit.site.zoneinfo().key,
        site_id=visit.unit.site_id,
        unit_id=visit.unit_id,
        reason=visit_reason(visit.reason),
        complaint=visit.complaint,
        rules=visit.rules().name,
        has_string=unit.circuit is not None,
        has_exchanger=exchanger_of(unit) is not None,
        writable=visit.closed_at is None and person.role != "office",
        room_co=_room_co(tape),
        stages=[out.StageOut(key=k, label=STAGE_LABELS[k]) for k in unit.stage_keys],
        paths=_paths(unit, visit.rules(), found, flue, system),
        ties=[out.TieOut(device=device, feels=feels) for device, feels in unit.kind.ties],
        standing=standing_out(visit, found, _next_step(visit, unit, found, tape), unit, system),
        tape=_tape(tape, unit, system),
        jumpers=[
            out.JumperOut(
                device=j.device,
                how=j.how,
                text=still_open(j.how, j.device),
                put_back=put_back_line(j.how, j.device),
                since=j.since,
                found=j.found,
            )
            for j in found.abnormal
        ],
        flue=flue,
        fuel_line=_fuel_line(unit.fuel),
        other_fuel_line=_fuel_line(_other_fuel(unit)),
        o2_doubt_pct=out.RangeOut(low=unit.kind.o2_doubt_pct[0], high=unit.kind.o2_doubt_pct[1]),
        earlier=[earlier_out(pk, system) for pk in earlier_visits(visit).values_list("pk", flat=True)],
        instruments=[
            instrument_out(i)
            for i in Instrument.objects.filter(firm_id=person.firm_id).select_related("firm").order_by("name")
        ],
        logs=[out.LogOut(id=log.pk, name=log.name) for log in visit.logs.order_by("uploaded_at")],
        photos=[photo_out(p) for p in visit.photos.order_by("taken_at")],
        moved_on=[moved_words(version) for version in moved_on(visit)],
        close=_close(visit, found, system),
    )


def unit_line(visit: Visit, unit: Unit, system: str) -> str:
    """Return the unit in one line: kind, stages, fuel, input, altitude."""
    rated = unit.plate.stages[-1].input_w
    parts = [
        unit.kind.name + (", two-stage" if len(unit.stage_keys) > 1 and not unit.kind.modulating else ""),
        unit.fuel.label,
        sentence(rated, "power", system) if rated else "input not entered",
        sentence(unit.altitude_m, "length", system),
    ]
    return " · ".join(parts)


def _next_step(visit: Visit, unit: Unit, found: Assessment, tape: tuple[Entry, ...]) -> NextStep | None:
    well = found.settled and found.level < NOT_YET and not found.missing
    if visit.closed_at is not None or not is_searching(visit.reason, tape, well=well):
        return found.next_step
    return next_step_of(found, suspects_of(visit, unit, tape, others=0))


def standing_out(visit: Visit, found: Assessment, step: NextStep | None, unit: Unit, system: str) -> out.StandingOut:
    """Return the standing for the page, with the one next step; of a closed visit as it stood at its close."""
    if visit.frozen is not None:
        return _frozen_standing(visit.frozen[system])
    words = step_words(step, unit, system) if step else None
    return out.StandingOut(
        level=found.level,
        title=standing_title(found),
        settled=found.settled,
        leaving=found.leaving,
        reasons=[_reason(reason, system) for reason in found.reasons],
        missing=[
            out.MissingOut(
                text=missing_text(m),
                station=m.station,
                how=missing_how(m),
                minutes=m.minutes,
                after_work=because_text(m),
                starter=missing_starter(m, unit),
            )
            for m in found.missing
        ],
        next_step=out.NextOut(
            title=words.title, why=words.why, minutes=step.minutes, station=step.station, starter=words.starter
        )
        if step and words
        else None,
        not_judged=[not_judged_words(quantity, stage) for quantity, stage in found.not_judged],
        several_causes=must_be_named(open_causes(found.reasons)),
    )


def _reason(reason: Reason, system: str) -> out.ReasonOut:
    said = reason_words(reason, system)
    return out.ReasonOut(
        level=reason.level,
        code=reason.code,
        text=said.text,
        lifts=said.lifts,
        station=reason.station,
        reading=said.reading,
        limit=said.limit,
        source=said.source,
    )


def _frozen_standing(frozen: Mapping[str, Any]) -> out.StandingOut:
    """Return the standing as it was stored at the close: today's rules and models change nothing of it."""
    return out.StandingOut(
        level=frozen["level"],
        title=frozen["title"],
        settled=frozen["settled"],
        leaving=frozen["leaving"],
        reasons=[
            out.ReasonOut(
                level=r["level"],
                code=r["code"],
                text=r["text"],
                lifts=r["lifts_text"],
                station=r["station"],
                reading=r["reading"],
                limit=r["limit"],
                source=r["source"],
            )
            for r in frozen["reasons"]
        ],
        missing=[
            out.MissingOut(
                text=m["text"],
                station=m["station"],
                how=m["how"],
                minutes=m["minutes"],
                after_work=m["because"],
                starter=m["line"].partition("…")[0],
            )
            for m in frozen["missing"]
        ],
        next_step=None,
        not_judged=list(frozen["not_judged"]),
        several_causes=False,
    )


def instrument_out(instrument: Instrument) -> out.InstrumentOut:
    """Return an instrument with whether its calibration is in date."""
    until = instrument.calibrated_until
    return out.InstrumentOut(
        id=instrument.pk,
        name=instrument.name,
        kind=instrument.kind,
        calibrated_until=until,
        in_date=until is not None and until >= timezone.now().astimezone(instrument.firm.zoneinfo()).date(),
    )


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
            key=path.key,
            name=path.name,
            direction=path.direction,
            hint=path.hint,
            stations=[_station(rules, s, views[s.key], found, flue, system) for s in path.stations],
        )
        for path in unit.paths
    ]


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
        key=station.key,
        name=station.name,
        state=view.state,
        value=main.shown if main else None,
        side="",
        words=_words(station, view, found),
        scale=main.scale if main else None,
        readings=readings,
        jumpered=view.jumpered,
        missing=[missing_text(item) for item in view.missing],
        starter=_starter(station),
        caution=station.caution,
        why=[figure for r in view.readings for figure in reading_whys(r, system)],
    )
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
            "co_air_free_ppm", Band(HOUSE, high=rules.co_air_free_ask_ppm), float(air_free.shown.text), None
        )
        base.why = shown.figures
    if others:
        base.words = " · ".join(others)
    return base


def _words(station: Station, view: StationView, found: Assessment) -> str:
    if view.jumpered:
        first = next(j for j in found.abnormal if j.device == station.key)
        return f"{put_in(first.how)} since {first.since:%H:%M}"
    if view.looks:
        return _look(view.looks[-1])
    if not view.readings:
        return "not looked at yet" if station.quantity is None else "not read yet"
    return ""


def _look(look: Condition) -> str:
    place = place_said(look)
    said = f"{part_name(look.part)}: {'not ' if look.absent else ''}{condition_name(look.condition)}"
    return f"{said} ({place})" if place else said


def _starter(station: Station) -> str:
    stage = f"{station.stage} " if station.stage in ("low", "high") and station.key != station.base else ""
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
        quantity=view.quantity,
        name=what.name,
        stage=view.stage,
        shown=out.Shown(text=shown.text, unit=shown.unit),
        verdict=view.verdict,
        phase=view.phase,
        found=out.Shown(text=found.text, unit=found.unit) if found else None,
        limit=limit,
        source=source(view.band.source) + (f", {words(view.band.note)}" if view.band.note else "") if view.band else "",
        scale=scale_of(view.quantity, view.band, view.value, view.found),
    )


def _tape(tape: tuple[Entry, ...], unit: Unit, system: str) -> list[out.EntryOut]:
    corrected = struck(tape)
    return [
        _entry(entry, corrected, unit, system) for entry in sorted(tape, key=lambda e: (e.true_at, e.id), reverse=True)
    ]


def _entry(entry: Entry, corrected: dict[str, str], unit: Unit, system: str) -> out.EntryOut:
    said = describe(entry.body, system, unit.circuit)
    body = entry.body
    return out.EntryOut(
        id=entry.id,
        group=entry.group,
        at=entry.at,
        zone=entry.at.isoformat()[-6:],
        author=entry.author,
        kind=entry.kind,
        text=said.text,
        value=said.value,
        tone=said.tone,
        phase=entry.phase,
        stage=getattr(body, "stage", None),
        corrected_by=corrected.get(entry.id),
        corrects=body.corrects if isinstance(body, Correction) else None,
        typed=_retype(body),
    )


def _retype(body: object) -> str:
    """Return a line that would write this entry again, to start a correction from."""
    if isinstance(body, Reading):
        word = next(m.words[0] for m in MEASURANDS if m.key == body.quantity)
        where = f"{(body.station or '').replace('_', ' ')} " if body.quantity == "volts_across_v" else ""
        return f"{word} {where}{body.typed:g} {body.unit}" + (f" {body.stage}" if body.stage in ("low", "high") else "")
    return ""


_ADVICE = {"advise": "Advised", "refuse": "Refused"}


def earlier_words(visit: Visit) -> list[str]:
    """Return the advice given on a visit, and what was written down for the owner."""
    bodies = [line.body for line in effective(tape_of(visit))]
    said = [f"{_ADVICE[b.what]}: {b.text}" for b in bodies if isinstance(b, Said) and b.what in _ADVICE]
    return said + [b.text for b in bodies if isinstance(b, Note) and b.for_owner]


@lru_cache(maxsize=4096)
def earlier_out(visit_id: int, system: str) -> out.EarlierVisit:
    """Return a closed visit as later ones look back on it."""
    # A closed visit never changes: what it says is worked out once per process.
    visit = Visit.objects.select_related("unit__site", "unit__model", "technician").get(pk=visit_id)
    found = assess_visit(visit)
    lines = []
    for reading in found.readings:
        what = measurand(reading.quantity)
        stage = f", {reading.stage}" if reading.stage in ("low", "high") else ""
        lines.append(f"{what.name}{stage} {sentence(reading.value, what.dimension, system)}")
    level = visit.closed_level or found.level
    return out.EarlierVisit(
        id=visit.pk,
        day=visit.day,
        reason=visit_reason(visit.reason),
        technician=visit.technician.full_name,
        level=level,
        title=closed_title(visit),
        words=visit.customer_words,
        advice=earlier_words(visit),
        readings=lines,
    )


def closed_title(visit: Visit) -> str:
    """Return how a closed visit left the unit, as it was stored; its level's name where it closed before that was stored."""
    if visit.frozen is not None:
        return str(visit.frozen["us"]["title"])
    return title(visit.closed_level) if visit.closed_level else ""


def _close(visit: Visit, found: Assessment, system: str) -> out.CloseOut:
    return out.CloseOut(
        obstacles=[] if visit.closed_at else closing_obstacles(found, "signed"),
        put_backs=[to_put_back(leaves) for leaves in found.put_backs],
        cycles_shown=found.cycles_shown,
        changes=[change_words(change, system) for change in found.changes],
        closed_at=visit.closed_at,
        closed_by=visit.closed_by.full_name if visit.closed_by else "",
        customer_words=visit.customer_words,
        signed_by=visit.signed_by,
        ways=[out.WayOut(key=key, name=way_left(key)) for key in WAYS_LEFT],
        papers=[
            KeptPaper(file=f"{paper.kind}.pdf", sha256=paper.sha256, made_at=paper.made_at)
            for paper in visit.papers.filter(amendment=None).defer("content").order_by("pk")
        ],
        amendments=[_amendment(row, system) for row in visit.amendments.select_related("author").order_by("at")],
    )


def _amendment(row: Amendment, system: str) -> AmendmentOut:
    return AmendmentOut(
        id=row.pk,
        author=row.author.full_name,
        at=written_at(row),
        why=row.why,
        lines=[echo(entry.body, system) for entry in entries_of(row)],
        adds=bool(row.left_open["entries"]),
    )


def round_stop(visit: Visit, person: Person) -> out.RoundVisit:
    """Return one stop of the round with what was last found there."""
    system, unit = person.unit_system, visit.described()
    found = assess_visit(visit)
    last = earlier_visits(visit, 1).first()
    return out.RoundVisit(
        id=visit.pk,
        turn=visit.turn,
        site=visit.unit.site.name,
        access=visit.unit.site.access,
        unit_name=visit.unit.name,
        unit_line=unit_line(visit, unit, system),
        reason=visit_reason(visit.reason),
        complaint=visit.complaint,
        level=found.level,
        title=standing_title(found),
        settled=found.settled,
        closed=visit.closed_at is not None,
        entries=visit.version,
        last_day=last.day if last else None,
        last_title=closed_title(last) if last else "",
        last_level=last.closed_level if last else None,
        last_words=last.customer_words if last else "",
        advice=earlier_words(last) if last else [],
    )
