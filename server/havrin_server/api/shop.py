"""The shop: circuits to look at, to copy and to change."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from havrin_server.api.present_shop import circuit_check, circuit_list
from havrin_server.api.schemas_shop import CircuitCheck, CircuitIn, CircuitList
from havrin_server.people.permissions import require
from havrin_server.shop import services

router = Router(tags=["shop"])


@router.get("/circuits", response=CircuitList)
def circuits(request: HttpRequest) -> CircuitList:
    """Return all circuits, shipped and own."""
    require(request.user, "read")
    return circuit_list(request.user)


@router.post("/circuits/check", response=CircuitCheck)
def check(request: HttpRequest, payload: CircuitIn) -> CircuitCheck:
    """Return the drawing and every state solved, or what is wrong with the document."""
    require(request.user, "read")
    return circuit_check(payload)


@router.get("/circuits/{key}", response=dict[str, Any])
def circuit(request: HttpRequest, key: str) -> Any:
    """Return one circuit's document."""
    require(request.user, "read")
    return services.circuit_document(key, request.user)


@router.put("/circuits", response=CircuitList)
def keep(request: HttpRequest, payload: CircuitIn) -> CircuitList:
    """Keep a circuit as the firm's own."""
    services.keep_circuit(payload.document, actor=request.user, now=timezone.now())
    return circuit_list(request.user)
