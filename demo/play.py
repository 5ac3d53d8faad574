"""Play the sample world in, through the same services that the page uses."""

import json
import uuid
from datetime import datetime, time, timedelta
from pathlib import Path
from typing import Any

from django.db import transaction

from demo.history import every_visit
from havrin_server.instruments.models import Instrument
from havrin_server.instruments.services import take_in_hand
from havrin_server.people.models import Firm, Person
from havrin_server.shop.models import Part, ShopDocument, Sort
from havrin_server.shop.services import keep_document
from havrin_server.units.models import Contact, Site, Unit
from havrin_server.visits.models import Visit
from havrin_server.visits.services import CloseVisit, WriteLine, close_visit, open_visit_rules, write_line

_WORLD = Path(__file__).parent / "world.json"
_MINUTES_PER_LINE = 4


@transaction.atomic
def play_sample_world(now: datetime) -> None:
    """Create firm, people, sites, units, and the visits of the past and of today, as seen at ``now``."""
    world = json.loads(_WORLD.read_text(encoding="utf-8"))
    firm = Firm.objects.create(**world["firm"])
    now = now.astimezone(firm.zoneinfo())  # its days and hours are those of its valley
    people = {p["username"]: _person(firm, p, world["password"]) for p in world["people"]}
    for row in world["instruments"]:
        days, whose = row.pop("calibrated_in_days"), people.get(row.pop("whose", ""))
        until = now.date() + timedelta(days=days)
        Instrument.objects.create(firm=firm, calibrated_until=until, person=whose, **row)
    Part.objects.bulk_create(Part(firm=firm, **row) for row in world["parts"])
    supervisor = next(person for person in people.values() if person.role == "supervisor")
    models = {row["key"]: _model(firm, supervisor, row, now) for row in world["models"]}
    units = _units(firm, world["sites"], models)
    for row in sorted(every_visit(world, now), key=lambda row: -row["days_ago"]):
        _earlier(units[row["unit"]], people[row["technician"]], row, now)
    for row in world["today"]:
        _today(units[row["unit"]], people[row["technician"]], row, now)
    for row in world["to_come"]:
        _to_come(units[row["unit"]], people, row, now)


def _person(firm: Firm, row: dict[str, Any], password: str) -> Person:
    return Person.objects.create_user(password=password, firm=firm, **row)


def _model(firm: Firm, person: Person, document: dict[str, Any], now: datetime) -> ShopDocument:
    keep_document(Sort.MODEL, document, actor=person, now=now)
    return ShopDocument.objects.get(firm=firm, sort=Sort.MODEL, key=document["key"])


def _units(firm: Firm, sites: list[dict[str, Any]], models: dict[str, ShopDocument]) -> dict[str, Unit]:
    units = {}
    for row in sites:
        rows, people = row.pop("units"), row.pop("contacts")
        site = Site.objects.create(firm=firm, **row)
        Contact.objects.bulk_create(Contact(site=site, **one) for one in people)
        units |= {u["label"]: Unit.objects.create(site=site, **{**u, "model": models[u["model"]]}) for u in rows}
    return units


def _visit(unit: Unit, person: Person, row: dict[str, Any], day: datetime, turn: int) -> Visit:
    take_in_hand(_carried(), day.date(), actor=person)
    return Visit.objects.create(
        unit=unit,
        reason=row["reason"],
        day=day.date(),
        turn=turn,
        complaint=row["complaint"],
        technician=person,
        house_rules=open_visit_rules(person),
    )


def _carried() -> list[int]:
    """What everybody of the firm has in the van: the second analyzer stays at the shop."""
    return list(Instrument.objects.exclude(name="Analyzer 2").values_list("pk", flat=True))


def _earlier(unit: Unit, person: Person, row: dict[str, Any], now: datetime) -> None:
    clock = time.fromisoformat(row["at"])
    begun = datetime.combine((now - timedelta(days=row["days_ago"])).date(), clock, tzinfo=now.tzinfo)
    visit = _visit(unit, person, row, begun, 1)
    for index, line in enumerate(row["lines"]):
        phase, text = line.split(": ", 1) if line.startswith("left: ") else ("found", line)
        _write(visit, person, text, phase, begun + timedelta(minutes=_MINUTES_PER_LINE * index))
    ended = begun + timedelta(minutes=_MINUTES_PER_LINE * len(row["lines"]))
    visit.refresh_from_db()
    command = CloseVisit(
        visit_id=visit.pk,
        seen_version=visit.version,
        customer_words=row["words"],
        signed_by=row["signed"],
        signature=[],
    )
    close_visit(command, actor=person, now=ended)


def _today(unit: Unit, person: Person, row: dict[str, Any], now: datetime) -> None:
    visit = _visit(unit, person, row, now, row["turn"])
    begun = now - timedelta(minutes=row.get("minutes_ago", 0))
    for line in row["lines"]:
        head, text = line.split(": ", 1)
        minute, phase = head.split()
        _write(visit, person, text, phase, begun + timedelta(minutes=int(minute)))


def _to_come(unit: Unit, people: dict[str, Person], row: dict[str, Any], now: datetime) -> None:
    """Plan a visit: on somebody's day, or, without a technician, on nobody's yet."""
    who = people.get(row.get("technician", ""))
    day = now.date() + timedelta(days=row["in_days"])
    turn = Visit.objects.filter(technician=who, day=day).count() + 1 if who else 0
    told = {name: row[name] for name in ("complaint", "there", "since", "task", "parts") if name in row}
    start = time.fromisoformat(row["start"]) if "start" in row else None
    visit = Visit.objects.create(
        unit=unit,
        reason=row["reason"],
        day=day,
        turn=turn,
        start=start,
        technician=who,
        planned_by=people["odo"],
        house_rules=open_visit_rules(people["odo"]),
        **told,
    )
    visit.helpers.set(people[name] for name in row.get("with", ()))


def _write(visit: Visit, person: Person, text: str, phase: str, at: datetime) -> None:
    line_id = uuid.uuid5(uuid.NAMESPACE_URL, f"{visit.pk}/{at.isoformat()}/{text}")
    command = WriteLine(visit_id=visit.pk, line_id=line_id, text=text, stage=None, phase=phase, at=at)
    write_line(command, actor=person, now=at)
