"""The circuit of one very unit, put right on the spot: kept for the unit, offered for its model by who decides."""

import uuid
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_core.machine.circuit.edit import Change, changed
from havrin_core.tape.entries import Note
from havrin_core.wording.circuit_changes import change_words, chosen_words
from havrin_server.errors import NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.shop.library import circuit_document
from havrin_server.shop.models import Sort as ShopSort
from havrin_server.shop.services import keep_document
from havrin_server.units.models import Unit
from havrin_server.versions.models import Sort
from havrin_server.versions.services import keep_change
from havrin_server.visits.models import Visit
from havrin_server.visits.pins import pinned_document
from havrin_server.visits.services import append, locked_visit, must_be_open


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeCircuit:
    """``change`` of the circuit of the visit's unit; None takes back all that was changed on the spot.

    ``chosen`` is the key of another circuit, shipped or of the firm, that fits this unit better than its model's.
    """

    visit_id: int
    change: Change | None = None
    chosen: str = ""


@transaction.atomic
def change_circuit(command: ChangeCircuit, *, actor: Person, now: datetime) -> Visit:
    """Change the circuit of the visit's unit; this visit is judged by it from here on, and its tape says so.

    Raises NotAllowed, NotFound, VisitClosed, NotWritable (no circuit is known), UnknownName, BadDocument (no circuit would be left).
    """
    require(actor, "visit.write")
    visit = locked_visit(command.visit_id, actor)
    must_be_open(visit)
    unit = Unit.objects.select_for_update(of=("self",)).select_related("site", "model").get(pk=visit.unit_id)
    before: Any = None if command.chosen else _document(unit)
    if command.chosen:
        chosen = circuit_document(unit.site.firm_id, command.chosen)
        words, unit.circuit = chosen_words(chosen), _of_this_unit(unit, chosen)
    else:
        words = change_words(before, command.change)
        unit.circuit = None if command.change is None else _of_this_unit(unit, changed(before, command.change))
    unit.save(update_fields=["circuit"])
    if unit.circuit is not None:
        key, firm_id = unit.circuit["key"], unit.site.firm_id
        keep_change(firm_id, Sort.CIRCUIT, key, before, unit.circuit, now=now, author=actor, reason=words)
    visit.unit = unit
    if visit.pinned is not None:
        visit.pinned = None
        visit.pinned = pinned_document(visit, now)
        visit.save(update_fields=["pinned"])
    append(visit, [Note(words)], group=uuid.uuid4(), phase="found", at=now, actor=actor, now=now)
    return visit


@transaction.atomic
def keep_for_model(visit_id: int, *, actor: Person, now: datetime) -> Visit:
    """Keep the circuit of the visit's unit in the shop, for all units of its model. Raises NotAllowed, NotFound, NotWritable."""
    require(actor, "shop.write")
    visit = locked_visit(visit_id, actor)
    unit, model = visit.unit, visit.unit.model
    if unit.circuit is None:
        raise NotWritable(
            "Nothing was changed on this unit: its model has this circuit already.", code="circuit_not_own"
        )
    kept = {**unit.circuit, "key": f"of_{model.key}"[:60]}
    reason = f"As it was put right on {unit.label}"
    keep_document(ShopSort.CIRCUIT, kept, actor=actor, now=now, reason=reason)
    keep_document(ShopSort.MODEL, {**model.document, "circuit": kept["key"]}, actor=actor, now=now, reason=reason)
    return visit


def _document(unit: Unit) -> Any:
    circuit = unit.described().circuit
    if circuit is None:
        raise NotWritable("No circuit is known for this unit: its model has to name one first.", code="circuit_none")
    return unit.circuit or circuit_document(unit.site.firm_id, circuit.key)


def _of_this_unit(unit: Unit, document: dict[str, Any]) -> dict[str, Any]:
    name = document["name"].removesuffix(f", as on {unit.label}")
    return {**document, "key": f"unit_{unit.pk}", "name": f"{name}, as on {unit.label}"}
