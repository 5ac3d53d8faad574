"""Reading tapes: visits of a firm, their assessment, the situation in which a line is read."""

from collections.abc import Iterable, Mapping
from dataclasses import asdict, replace
from datetime import timedelta
from typing import Any

from django.db.models import CharField, Exists, OuterRef, QuerySet
from django.db.models.fields.json import KT
from django.db.models.functions import Cast
from django.utils import timezone

from havrin_core.facts.facts import Facts
from havrin_core.facts.plate_values import plated
from havrin_core.machine.circuit.read import circuit_names
from havrin_core.machine.kind_files import kind_names
from havrin_core.machine.unit import Unit
from havrin_core.machine.unit_model import merged_plate
from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.rules.causes import CALL
from havrin_core.rules.families import family_of_code, open_causes
from havrin_core.search.model import Outlook, Step
from havrin_core.search.odds import LOOKS_BACK_DAYS, past_of
from havrin_core.search.visit_search import history_of, outlook_of
from havrin_core.shorthand.model import Situation, situation_of
from havrin_core.standing.assess import assess
from havrin_core.standing.carry_over import left_open
from havrin_core.standing.model import Assessment
from havrin_core.tape.background import Background, Past
from havrin_core.tape.bundle import FORMAT, VERSION
from havrin_core.tape.documents import entry_from_dict, entry_to_dict
from havrin_core.tape.entries import Entry
from havrin_core.tape.visit import NOTHING_OPEN, LeftOpen, VisitTape
from havrin_server.errors import NotFound
from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Person
from havrin_server.shop.library import circuit_document, library_for
from havrin_server.units.models import Unit as SiteUnit
from havrin_server.units.queries import same_appliance
from havrin_server.visits.bodies import bodies_of
from havrin_server.visits.causes import what_was_learned
from havrin_server.visits.chain import proof_of
from havrin_server.visits.models import Amendment, TapeEntry, Visit
from havrin_server.visits.zones import in_zone


def visits_of(person: Person) -> QuerySet[Visit]:
    """Return the visits of the person's firm."""
    related = ("unit__site__firm", "unit__model", "technician", "closed_by")
    return Visit.objects.filter(unit__site__firm_id=person.own_firm_id, unit__site__firm__isnull=False).select_related(
        *related
    )


def find_visit(visit_id: int, person: Person) -> Visit:
    """Return one visit. Raises NotFound, also for another firm's."""
    visit = visits_of(person).filter(pk=visit_id).first()
    if visit is None:
        raise NotFound("There is no such visit in your firm.")
    return visit


def version_of(visit_id: int, person: Person) -> int:
    """Return how many entries a visit's tape has, at the least cost: every open page asks every few seconds. Raises NotFound."""
    rows = Visit.objects.filter(pk=visit_id, unit__site__firm_id=person.own_firm_id).values_list("version", flat=True)
    found = next(iter(rows), None)
    if found is None:
        raise NotFound("There is no such visit in your firm.")
    return found


_ENTRY_COLUMNS = (
    "id",
    "at",
    "zone",
    "phase",
    "group",
    "instrument__name",
    "out_of_calibration",
    "author__first_name",
    "author__last_name",
    "device",
    "sent_at",
    "recorded_at",
)


def tape_of(visit: Visit) -> tuple[Entry, ...]:
    """Return the visit's entries as the core reads them, each at its writer's own time zone."""
    return tapes_of([visit.pk])[visit.pk]


def tapes_of(visit_ids: Iterable[int]) -> dict[int, tuple[Entry, ...]]:
    """Return the tapes of several visits, with as many queries as for one."""
    tapes: dict[int, list[Entry]] = {pk: [] for pk in visit_ids}
    # Plain rows: a tape is read on every line, and model instances would cost more than judging it.
    found = TapeEntry.objects.filter(visit__in=tapes).order_by("recorded_at", "at", "id")
    rows = list(found.values_list(*_ENTRY_COLUMNS, "visit_id"))
    bodies = bodies_of((row[0], row[-2]) for row in rows)
    for pk, at, zone, phase, group, name, out, first, last, device, sent, received, visit_id in rows:
        entry = Entry(
            str(pk),
            in_zone(at, zone),
            f"{first} {last}".strip(),
            phase,
            bodies[pk, received],
            str(group),
            name or "",
            device,
            sent,
            received,
            out,
        )
        tapes[visit_id].append(entry)
    return {visit_id: tuple(entries) for visit_id, entries in tapes.items()}


def unit_of(visit: Visit, tape: tuple[Entry, ...]) -> Unit:
    """Return the visit's unit, with what the tape read off its plate."""
    return plated(visit.described(), tape)


def suspects_of(visit: Visit, unit: Unit, tape: tuple[Entry, ...], others: int = 4) -> Outlook | None:
    """Return who is under suspicion, with what was known of the unit beforehand."""
    return outlook_of(unit, visit.rules(), tape, background_of(visit), others)


def search_of(visit: Visit) -> tuple[Step, ...]:
    """Return how the search went, an entry a step."""
    tape = tape_of(visit)
    return history_of(unit_of(visit, tape), visit.rules(), tape, background_of(visit))


def background_of(visit: Visit) -> Background:
    """Return what is known of the visit's unit before anything is read."""
    unit = visit.unit
    age = visit.day.year - unit.installed_year if unit.installed_year else None
    since = visit.day - timedelta(days=LOOKS_BACK_DAYS)
    kept = Visit.objects.filter(unit__in=same_appliance(unit.pk), past__isnull=False)
    rows = kept.filter(day__lte=visit.day, day__gt=since).exclude(pk=visit.pk)
    past = tuple(
        Past((visit.day - day).days, row.get("action", row.get("deed", "")), row.get("part", ""))
        for day, found in rows.exclude(past=[]).values_list("day", "past")
        for row in found or ()
    )
    return Background(visit.day.month, age, tuple(unit.surroundings), past, *what_was_learned(visit))


def past_document(tape: tuple[Entry, ...]) -> list[dict[str, str]]:
    """Return what a tape did and found, as it is kept with its closed visit."""
    return [{"action": item.action, "part": item.part} for item in past_of(tape, 0)]


def judged_tape(visit: Visit, tape: tuple[Entry, ...] | None = None) -> VisitTape:
    """Return the visit as the core judges it, with what the unit's last visit left open."""
    entries = tape_of(visit) if tape is None else tape
    return VisitTape(visit.reason, entries, accuracies_of(visit), open_before(visit))


def assess_visit(visit: Visit, tape: tuple[Entry, ...] | None = None) -> Assessment:
    """Return the standing of the visit's unit by the visit's own rules."""
    return assess(visit.described(), visit.rules(), judged_tape(visit, tape), visit.left or None)


def open_before(visit: Visit) -> LeftOpen:
    """Return what is open on the unit beside this visit: pinned once this visit is closed itself.

    That is what its last closed visit left open, and what stands open on another open visit of the same unit.
    """
    if visit.opened_with is not None:
        return left_open_from(visit.opened_with)
    last = _last_left(visit)
    same = same_appliance(visit.unit_id)
    others = Visit.objects.filter(unit__in=same, closed_at__isnull=True, version__gt=0).exclude(pk=visit.pk)
    for other in others.select_related("unit__site", "unit__model"):
        found = _open_on(other, last)
        last = last.joined(LeftOpen(found.entries))  # what it still has to show is its own business
    return last


def _last_left(visit: Visit) -> LeftOpen:
    same = same_appliance(visit.unit_id)
    rows = Visit.objects.filter(unit__in=same, closed_at__isnull=False).exclude(pk=visit.pk)
    newest = rows.order_by("-closed_at", "-pk").values("pk", "closed_at", "left_open").first()
    if newest is None or newest["left_open"] is None:
        return NOTHING_OPEN
    left = left_open_from(newest["left_open"])
    said_since = Amendment.objects.filter(visit__unit__in=same, at__gte=newest["closed_at"]).order_by("at")
    for document in said_since.exclude(visit=visit).values_list("left_open", flat=True):
        left = left.joined(left_open_from(document))
    return left


def _open_on(other: Visit, last: LeftOpen) -> LeftOpen:
    tape = VisitTape(other.reason, tape_of(other), accuracies_of(other), last)
    return left_open(other.described(), other.rules(), tape)


def left_open_from(document: Mapping[str, Any]) -> LeftOpen:
    """Return what a close stored."""
    entries = tuple(entry_from_dict(row, "left_open") for row in document["entries"])
    return LeftOpen(entries, tuple(document["owed"]))


def left_open_document(left: LeftOpen) -> dict[str, Any]:
    """Return what a close stores."""
    return {"entries": [entry_to_dict(entry) for entry in left.entries], "owed": list(left.owed)}


def accuracies_of(visit: Visit) -> dict[str, dict[str, Accuracy]]:
    """Return the stated accuracies of the firm's instruments, as pinned once the visit has begun."""
    if visit.pinned is not None:
        stated = visit.pinned["instruments"].items()
        return {name: {q: Accuracy(**figures) for q, figures in rows.items()} for name, rows in stated}
    rows = Instrument.objects.filter(firm_id=visit.unit.site.firm_id)
    return {instrument.name: instrument.accuracies() for instrument in rows}


def earlier_visits(visit: Visit, most: int = 6) -> QuerySet[Visit]:
    """Return the unit's closed visits before this one, newest first."""
    return (
        Visit.objects.filter(unit__in=same_appliance(visit.unit_id), closed_at__isnull=False)
        .exclude(pk=visit.pk)
        .select_related("unit__site", "unit__model", "technician")
        .order_by("-day")[:most]
    )


def newest_visits(unit: SiteUnit, most: int = 2) -> list[Visit]:
    """Return the unit's newest visits on which something was written, newest first."""
    written = Visit.objects.filter(unit__in=same_appliance(unit.pk), version__gt=0).select_related(
        "unit__site", "unit__model", "technician"
    )
    return list(written.order_by("-day", "-pk")[:most])


def neighbours_supply(visit: Visit) -> list[tuple[SiteUnit, TapeEntry | None]]:
    """Return the other units on the same branch of the gas line, each with its newest reading of running supply."""
    unit = visit.unit
    if not unit.gas_line:
        return []
    others = SiteUnit.objects.filter(site_id=unit.site_id, gas_line=unit.gas_line).exclude(pk=unit.pk).order_by("label")
    rows = TapeEntry.objects.filter(kind="reading", quantity="supply_running_pa", at__date__lte=visit.day)
    return [(other, rows.filter(unit=other).order_by("-at").first()) for other in others]


def situation(visit: Visit, stage: str | None, phase: str, system: str) -> Situation:
    """Return what is taken for granted when a line is typed on this visit; a cause is set against what is open."""
    plain = situation_of(
        visit.described(),
        stage=stage,
        phase=phase,
        system=system,
        meter_gauge_pa=lambda: _of_the_line(visit, "meter_gauge_pa"),
        gross_j_m3=lambda: _of_the_line(visit, "line_gross_j_m3"),
        open=lambda: _open_causes(visit),
        today=visit.unit.site.today(timezone.now()),
        line_hz=visit.rules().line_hz,
    )
    return replace(plain, air_temps_k=lambda: _air_temps(visit, plain.stage))


def _open_causes(visit: Visit) -> tuple[tuple[str, str], ...]:
    call = ((CALL, family_of_code(CALL)),) if visit.reason == "no_heat" else ()
    return (*open_causes(assess_visit(visit).reasons), *call)


def bundle_of(visit: Visit, system: str) -> dict[str, object]:
    """Return the visit as a bundle document."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "unit_system": system,
        "unit": unit_document(visit),
        "house_rules": visit.house_rules,
        "background": asdict(background_of(visit)),
        "visit": {
            "reason": visit.reason,
            "day": visit.day.isoformat(),
            "entries": [entry_to_dict(e) for e in tape_of(visit)],  # what each says; as it is stored: the proof
            **_before_document(visit),
            "instruments": {
                name: {q: asdict(a) for q, a in stated.items()} for name, stated in accuracies_of(visit).items()
            },
        },
        "proof": proof_of(visit),
    }


def _before_document(visit: Visit) -> dict[str, object]:
    left = left_open_document(open_before(visit))
    return {"open_before": left["entries"], "owed": left["owed"]}


def unit_document(visit: Visit) -> dict[str, object]:
    """Return the unit whole: what comes from the firm's own shop goes along."""
    if visit.pinned is not None:
        return dict(visit.pinned["unit"])
    unit, model = visit.unit, visit.unit.of_model()
    library = library_for(unit.site.firm_id, model)
    document: dict[str, object] = {
        "name": unit.name,
        "kind": model.kind,
        "altitude_m": unit.site.altitude_m,
        "installed_year": unit.installed_year,
        "plate": merged_plate(model.plate, unit.plate),
        "manual": [asdict(row) for row in model.manual],
        "codes": [asdict(row) for row in model.codes],
    }
    if model.kind not in kind_names():
        document["kind_document"] = library.kinds[model.kind]
    circuit = unit.described().circuit
    if unit.circuit is not None:
        document["circuit_document"] = unit.circuit
    elif circuit is not None and (model.circuit or circuit.key not in circuit_names()):
        document["circuit_document"] = circuit_document(unit.site.firm_id, circuit.key)
    return document


def _of_the_line(visit: Visit, quantity: str) -> float | None:
    """Return what was last entered of the site's gas line: what one visit read at its meter holds for every unit there."""
    rows = TapeEntry.objects.filter(unit__site_id=visit.unit.site_id, kind="reading", quantity=quantity)
    corrections = TapeEntry.objects.filter(kind="correction").annotate(corrects=KT("data__corrects"))
    struck = corrections.filter(corrects=Cast(OuterRef("pk"), CharField()))
    return rows.exclude(Exists(struck)).order_by("-at").values_list("value_si", flat=True).first()


def _air_temps(visit: Visit, stage: str) -> tuple[float, float] | None:
    rows = visit.entries.filter(kind__in=["reading", "correction"], data__isnull=False)
    if not rows.filter(quantity__in=["return_air_temp_k", "supply_air_temp_k"]).exists():
        return None
    facts = Facts(tape_of(visit))
    cold, hot = facts.newest("return_air_temp_k", None), facts.newest("supply_air_temp_k", stage)
    return (cold.value, hot.value) if cold and hot else None
