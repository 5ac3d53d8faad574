"""Reading tapes: visits of a firm, their assessment, the situation in which a line is read."""

from dataclasses import asdict
from datetime import date
from functools import lru_cache

from django.db.models import Q, QuerySet

from havrin_core.facts.facts import Facts
from havrin_core.facts.plate_values import plated
from havrin_core.machine.circuit.read import circuit_names
from havrin_core.machine.kind_files import kind_names
from havrin_core.machine.unit import Unit
from havrin_core.machine.unit_model import merged_plate
from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.quantities.units import INWC_PA
from havrin_core.search.model import Outlook
from havrin_core.search.odds import past_of
from havrin_core.shorthand.model import GasLine, Situation
from havrin_core.standing.assess import assess
from havrin_core.standing.carry_over import left_open
from havrin_core.standing.model import Assessment
from havrin_core.standing.searching import outlook_of
from havrin_core.tape.background import Background, Past
from havrin_core.tape.bundle import FORMAT, VERSION, body_from_dict, entry_to_dict
from havrin_core.tape.entries import Entry
from havrin_core.tape.visit import VisitTape
from havrin_server.errors import NotFound
from havrin_server.journal.models import TapeEntry, Visit
from havrin_server.journal.zones import in_zone
from havrin_server.people.models import Person
from havrin_server.shop.library import circuit_document, library_for
from havrin_server.sites.models import Unit as SiteUnit
from havrin_server.toolbox.models import Instrument


def visits_of(person: Person) -> QuerySet[Visit]:
    """Return the visits of the person's firm."""
    related = ("unit__site", "unit__model", "technician", "closed_by")
    return Visit.objects.filter(unit__site__firm_id=person.firm_id, unit__site__firm__isnull=False).select_related(
        *related
    )


def find_visit(visit_id: int, person: Person) -> Visit:
    """Return one visit. Raises NotFound, also for another firm's."""
    visit = visits_of(person).filter(pk=visit_id).first()
    if visit is None:
        raise NotFound("There is no such visit in your firm.")
    return visit


_ENTRY_COLUMNS = (
    "id",
    "at",
    "zone",
    "phase",
    "kind",
    "data",
    "group",
    "instrument__name",
    "author__first_name",
    "author__last_name",
)


def tape_of(visit: Visit) -> tuple[Entry, ...]:
    """Return the visit's entries as the core reads them, each at its writer's own time zone."""
    # Plain rows: a tape is read on every line, and model instances would cost more than judging it.
    rows = visit.entries.order_by("at", "id").values_list(*_ENTRY_COLUMNS)
    return tuple(
        Entry(
            str(pk),
            in_zone(at, zone),
            f"{first} {last}".strip(),
            phase,
            body_from_dict(kind, data),
            str(group),
            name or "",
        )
        for pk, at, zone, phase, kind, data, group, name, first, last in rows
    )


def unit_of(visit: Visit, tape: tuple[Entry, ...]) -> Unit:
    """Return the visit's unit, with what the tape read off its plate."""
    return plated(visit.unit.described(), tape)


def suspects_of(visit: Visit, unit: Unit, tape: tuple[Entry, ...], others: int = 4) -> Outlook | None:
    """Return who is under suspicion, with what was known of the unit beforehand."""
    return outlook_of(unit, visit.rules(), tape, background_of(visit), others)


def background_of(visit: Visit) -> Background:
    """Return what is known of the visit's unit before anything is read."""
    unit = visit.unit
    age = visit.day.year - unit.installed_year if unit.installed_year else None
    rows = unit.visit_set.filter(closed_at__isnull=False, day__lte=visit.day).exclude(pk=visit.pk)
    past = tuple(item for pk, day in rows.values_list("pk", "day") for item in _past(pk, (visit.day - day).days))
    return Background(visit.day.month, age, tuple(unit.surroundings), past)


@lru_cache(maxsize=4096)
def _past(visit_id: int, days_ago: int) -> tuple[Past, ...]:
    # A closed visit never changes: what it did is read once per process and day.
    return past_of(tape_of(Visit.objects.get(pk=visit_id)), days_ago)


def judged_tape(visit: Visit, tape: tuple[Entry, ...] | None = None) -> VisitTape:
    """Return the visit as the core judges it, with what the unit's earlier visits left open."""
    entries = tape_of(visit) if tape is None else tape
    return VisitTape(visit.reason, entries, accuracies_of(visit), open_before(visit))


def assess_visit(visit: Visit, system: str, tape: tuple[Entry, ...] | None = None) -> Assessment:
    """Return the standing of the visit's unit by the visit's own rules."""
    return assess(visit.unit.described(), visit.rules(), judged_tape(visit, tape), system)


def open_before(visit: Visit) -> tuple[Entry, ...]:
    """Return the entries of the unit's earlier visits whose danger nothing cleared."""
    same_day = Q(day=visit.day, pk__lt=visit.pk)
    rows = Visit.objects.filter(Q(day__lt=visit.day) | same_day, unit_id=visit.unit_id, version__gt=0)
    return _left_open(tuple(rows.order_by("day", "pk").values_list("pk", "version")))


@lru_cache(maxsize=4096)
def _left_open(visits: tuple[tuple[int, int], ...]) -> tuple[Entry, ...]:
    # A tape only grows: (visit, version) of every visit so far names one answer, worked out once per process.
    if not visits:
        return ()
    visit = Visit.objects.select_related("unit__site", "unit__model").get(pk=visits[-1][0])
    judged = VisitTape(visit.reason, tape_of(visit), accuracies_of(visit), _left_open(visits[:-1]))
    return left_open(visit.unit.described(), visit.rules(), judged)


def accuracies_of(visit: Visit) -> dict[str, dict[str, Accuracy]]:
    """Return the stated accuracies of the instruments that wrote on the visit's tape."""
    used = visit.entries.filter(instrument__isnull=False).values("instrument")
    return {instrument.name: instrument.accuracies() for instrument in Instrument.objects.filter(pk__in=used)}


def earlier_visits(visit: Visit, most: int = 6) -> QuerySet[Visit]:
    """Return the unit's closed visits before this one, newest first."""
    return (
        Visit.objects.filter(unit_id=visit.unit_id, closed_at__isnull=False)
        .exclude(pk=visit.pk)
        .select_related("unit__site", "unit__model", "technician")
        .order_by("-day")[:most]
    )


def newest_visits(unit: SiteUnit, most: int = 2) -> list[Visit]:
    """Return the unit's newest visits on which something was written, newest first."""
    written = Visit.objects.filter(unit=unit, version__gt=0).select_related("unit__site", "unit__model", "technician")
    return list(written.order_by("-day", "-pk")[:most])


def neighbours_supply(visit: Visit) -> list[tuple[SiteUnit, TapeEntry | None]]:
    """Return the other units on the same branch of the gas line, each with its newest reading of running supply."""
    unit = visit.unit
    if not unit.gas_line:
        return []
    others = SiteUnit.objects.filter(site_id=unit.site_id, gas_line=unit.gas_line).exclude(pk=unit.pk).order_by("label")
    rows = TapeEntry.objects.filter(kind="reading", quantity="supply_running_pa", at__date__lte=visit.day)
    return [(other, rows.filter(unit=other).order_by("-at").first()) for other in others]


def round_of(person: Person, day: date) -> QuerySet[Visit]:
    """Return the firm's visits of ``day`` in the order to drive; a technician sees the own ones."""
    visits = visits_of(person).filter(day=day)
    if person.role == "technician":
        visits = visits.filter(technician=person)
    return visits.order_by("turn")


def situation(visit: Visit, stage: str | None, phase: str, system: str) -> Situation:
    """Return what is taken for granted when a line is typed on this visit."""
    unit = visit.unit.described()
    chosen = stage if stage in unit.stage_keys else unit.stage_keys[-1]
    nodes = tuple((s.key, *s.between) for s in unit.stations() if s.between)
    return Situation(
        unit.stage_keys,
        chosen,
        phase,
        system,
        nodes,
        unit.circuit,
        unit.codes,
        _gas_line(visit, unit),
        _air_temps(visit, chosen),
    )


def bundle_of(visit: Visit, system: str) -> dict[str, object]:
    """Return the visit as a bundle document."""
    return {
        "format": FORMAT, "version": VERSION, "unit_system": system, "unit": _unit_document(visit),
        "house_rules": visit.house_rules, "background": asdict(background_of(visit)),
        "visit": {"reason": visit.reason, "day": visit.day.isoformat(), "entries": [entry_to_dict(e) for e in tape_of(visit)],
            "open_before": [entry_to_dict(e) for e in open_before(visit)],
            "instruments": {name: {q: asdict(a) for q, a in stated.items()} for name, stated in accuracies_of(visit).items()},
        },
    }  # fmt: skip


def _unit_document(visit: Visit) -> dict[str, object]:
    """Return the unit whole: what comes from the firm's own shop goes along."""
    unit, model = visit.unit, visit.unit.of_model()
    library = library_for(unit.site.firm_id, model)
    document: dict[str, object] = {
        "name": unit.name, "kind": model.kind, "altitude_m": unit.site.altitude_m, "installed_year": unit.installed_year,
        "plate": merged_plate(model.plate, unit.plate), "manual": [asdict(row) for row in model.manual],
        "codes": [asdict(row) for row in model.codes],
    }  # fmt: skip
    if model.kind not in kind_names():
        document["kind_document"] = library.kinds[model.kind]
    circuit = unit.described().circuit
    if circuit is not None and (model.circuit or circuit.key not in circuit_names()):
        document["circuit_document"] = circuit_document(unit.site.firm_id, circuit.key)
    return document


_USUAL_METER_PA = 7 * INWC_PA  # where the supply was not read yet


def _gas_line(visit: Visit, unit: Unit) -> GasLine:
    """Return the gas at the meter: its pressure as the running supply was last read, else as is usual."""
    read = visit.entries.filter(quantity="supply_running_pa").order_by("-at").values_list("value_si", flat=True).first()
    return GasLine(unit.fuel, unit.baro_pa, read or _USUAL_METER_PA)


def _air_temps(visit: Visit, stage: str) -> tuple[float, float] | None:
    rows = visit.entries.filter(kind__in=["reading", "correction"], data__isnull=False)
    if not rows.filter(quantity__in=["return_air_temp_k", "supply_air_temp_k"]).exists():
        return None
    facts = Facts(tape_of(visit))
    cold, hot = facts.newest("return_air_temp_k", None), facts.newest("supply_air_temp_k", stage)
    return (cold.value, hot.value) if cold and hot else None
