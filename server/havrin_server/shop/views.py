"""The shop: circuits, kinds and models to look at, to copy and to change."""

from typing import Any

from django.utils import timezone
from ninja import Router

from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.shop import services
from havrin_server.shop.pages.documents import circuit_check, kind_check, shop_list
from havrin_server.shop.pages.model import model_check, model_document
from havrin_server.shop.pages.walk import walk_check
from havrin_server.shop.schemas import (
    CircuitCheck,
    CircuitIn,
    DocumentIn,
    KindCheck,
    ModelCheck,
    ModelIn,
    ShopList,
    SortName,
    WalkCheck,
)

router = Router(tags=["shop"])


@router.get("/shop/{sort}", response=ShopList)
def documents(request: SignedIn, sort: SortName) -> ShopList:
    """Return all documents of a sort, shipped and own."""
    require(request.user, "read")
    return shop_list(sort, request.user)


@router.post("/shop/circuit/check", response=CircuitCheck)
def check_circuit(request: SignedIn, payload: CircuitIn) -> CircuitCheck:
    """Return the drawing and every state solved, or what is wrong with the document."""
    require(request.user, "read")
    return circuit_check(payload)


@router.post("/shop/kind/check", response=KindCheck)
def check_kind(request: SignedIn, payload: DocumentIn) -> KindCheck:
    """Return the drawing of a kind, or what is wrong with the document."""
    require(request.user, "read")
    return kind_check(payload, request.user)


@router.post("/shop/model/check", response=ModelCheck)
def check_model(request: SignedIn, payload: ModelIn) -> ModelCheck:
    """Return a model's fields as they were understood, or what is wrong with each."""
    require(request.user, "read")
    return model_check(payload, request.user)


@router.post("/shop/walk/check", response=WalkCheck)
def check_walk(request: SignedIn, payload: DocumentIn) -> WalkCheck:
    """Return a walk's stops with what can be answered at each, or what is wrong with the document."""
    require(request.user, "read")
    return walk_check(payload, request.user)


@router.get("/shop/model/{key}/form", response=ModelCheck)
def model_form(request: SignedIn, key: str) -> ModelCheck:
    """Return a kept model as a form in the person's units."""
    require(request.user, "read")
    document = services.document_of("model", key, request.user)
    return model_check(ModelIn(document=document), request.user)


@router.put("/shop/model/form", response=ShopList)
def keep_model(request: SignedIn, payload: ModelIn) -> ShopList:
    """Keep a model that was edited as a form."""
    services.keep_document(
        "model", model_document(payload, request.user), actor=request.user, now=timezone.now(), reason=payload.reason
    )
    return shop_list("model", request.user)


@router.get("/shop/{sort}/{key}", response=dict[str, Any])
def document(request: SignedIn, sort: SortName, key: str) -> Any:
    """Return one document."""
    require(request.user, "read")
    return services.document_of(sort, key, request.user)


@router.put("/shop/{sort}", response=ShopList)
def keep(request: SignedIn, sort: SortName, payload: DocumentIn) -> ShopList:
    """Keep a document as the firm's own."""
    services.keep_document(sort, payload.document, actor=request.user, now=timezone.now(), reason=payload.reason)
    return shop_list(sort, request.user)
