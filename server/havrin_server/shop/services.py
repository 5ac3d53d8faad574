"""Use cases of the shop: find a circuit, keep one's own."""

import re
from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_core.errors import BadDocument
from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_document
from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.shop.models import FirmCircuit

_KEY = re.compile(r"[a-z][a-z0-9_]{2,79}")


def circuit_document(key: str, actor: Person) -> Any:
    """Return a circuit's document: the firm's own, else the shipped one. Raises NotFound."""
    own = FirmCircuit.objects.filter(firm_id=actor.firm_id, key=key).first()
    if own is not None:
        return own.document
    if key not in circuit_names():
        raise NotFound("There is no such circuit in your shop.")
    return shipped_document(key)


@transaction.atomic
def keep_circuit(document: Any, *, actor: Person, now: datetime) -> Circuit:
    """Keep ``document`` as the firm's own circuit, new or changed. Raises NotAllowed, NotWritable, BadDocument."""
    require(actor, "shop.write")
    circuit = circuit_from_dict(document)
    if circuit.key in circuit_names():
        message = f"“{circuit.key}” is a shipped circuit and stays as it is: keep yours under another key."
        raise NotWritable(message, code="shipped_circuit")
    if not _KEY.fullmatch(circuit.key):
        message = "A key has small letters, digits and underscores, and begins with a letter."
        raise BadDocument("circuit_key", message, value="key")
    FirmCircuit.objects.update_or_create(
        firm_id=actor.firm_id, key=circuit.key, defaults={"document": document, "changed_at": now, "changed_by": actor}
    )
    return circuit
