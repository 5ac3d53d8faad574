"""The firm's own kinds and circuits as the core takes them; what is shipped costs no query."""

from collections.abc import Collection
from datetime import datetime
from functools import lru_cache
from typing import Any

from django.db.models.fields.json import KT

from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_circuit, shipped_document
from havrin_core.machine.kind_files import Library, kind_document, kind_names
from havrin_core.machine.unit_model import UnitModel
from havrin_server.shop.models import ShopDocument, Sort


def library_for(firm_id: int, model: UnitModel) -> Library:
    """Return the firm's documents that a unit of ``model`` needs."""
    kinds = {row.key: row.document for row in _own(firm_id, Sort.KIND, {model.kind} - set(kind_names()))}
    kind = kinds.get(model.kind) or kind_document(model.kind)
    wanted = {model.circuit, *kind.get("circuits", {}).values()} - {""} - set(circuit_names())
    circuits = {row.key: _circuit(row.pk, row.changed_at) for row in _own(firm_id, Sort.CIRCUIT, wanted)}
    return Library(kinds, circuits)


def whole_library(firm_id: int) -> Library:
    """Return all of the firm's own kinds and circuits."""
    kinds = {row.key: row.document for row in _own(firm_id, Sort.KIND)}
    circuits = {row.key: _circuit(row.pk, row.changed_at) for row in _own(firm_id, Sort.CIRCUIT)}
    return Library(kinds, circuits)


def circuit_titles(firm_id: int) -> list[tuple[str, str]]:
    """Return key and name of every circuit that a unit of the firm may have: its own first, then the shipped ones."""
    own = ShopDocument.objects.filter(firm_id=firm_id, sort=Sort.CIRCUIT).order_by("key")
    named = own.annotate(title=KT("document__name")).values_list("key", "title")
    return [*named, *((key, shipped_circuit(key).name) for key in circuit_names())]


def circuit_document(firm_id: int, key: str) -> Any:
    """Return a circuit's document, the firm's own or the shipped one. Raises UnknownName."""
    own = _own(firm_id, Sort.CIRCUIT, {key})
    return own[0].document if own else shipped_document(key)


def _own(firm_id: int, sort: Sort, keys: Collection[str] | None = None) -> list[ShopDocument]:
    if keys is not None and not keys:
        return []
    rows = ShopDocument.objects.filter(firm_id=firm_id, sort=sort)
    return list(rows if keys is None else rows.filter(key__in=keys))


@lru_cache(maxsize=64)
def _circuit(pk: int, changed_at: datetime) -> Circuit:
    # One object per version, so that what the core works out for a circuit is kept.
    document: Any = ShopDocument.objects.get(pk=pk).document
    return circuit_from_dict(document)
