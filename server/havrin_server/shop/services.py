"""Use cases of the shop: find a document, check one, keep one's own."""

import re
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_core.errors import BadDocument, CoreError
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, shipped_document
from havrin_core.machine.kind_check import check_kind
from havrin_core.machine.kind_files import Library, build_of_model, build_unit, kind_document, kind_names
from havrin_core.machine.unit import Plate, Stage, Unit
from havrin_core.machine.unit_model import model_from_dict
from havrin_core.phrases import phrase
from havrin_core.rules.proofs import PROOFS
from havrin_core.standing.assess import assess
from havrin_core.tape.visit import VisitTape
from havrin_core.walks.documents import walk_from_dict
from havrin_core.walks.model import Walk
from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.shop.library import whole_library
from havrin_server.shop.models import ShopDocument, Sort
from havrin_server.shop.walks import own_key, shipped_walk_document, shipped_walks
from havrin_server.versions.services import keep_change

_KEY = re.compile(r"[a-z][a-z0-9_]{2,79}")
_STAGES = ((Stage("only"),), (Stage("low"), Stage("high")))
_SHIPPED: Mapping[str, tuple[Callable[[], tuple[str, ...]], Callable[[str], Any]]] = {
    Sort.CIRCUIT: (circuit_names, shipped_document),
    Sort.KIND: (kind_names, kind_document),
    Sort.MODEL: (lambda: (), lambda _: {}),  # no model is shipped: each firm enters what it meets
    Sort.WALK: (shipped_walks, shipped_walk_document),
}


def shipped_keys(sort: str) -> tuple[str, ...]:
    """Return the keys of the shipped documents of a sort."""
    return _SHIPPED[sort][0]()


def document_of(sort: str, key: str, actor: Person) -> Any:
    """Return a document: the firm's own, else the shipped one. Raises NotFound."""
    own = ShopDocument.objects.filter(firm_id=actor.own_firm_id, sort=sort, key=key).first()
    if own is not None:
        return own.document
    if key not in shipped_keys(sort):
        raise NotFound(f"There is no such {sort} in your shop.")
    return _SHIPPED[sort][1](key)


def check_document(sort: str, document: Any, actor: Person) -> None:
    """Raise BadDocument or UnknownName, naming the element, for what is no circuit, kind, walk or model."""
    with bad_document(sort):
        _check(sort, document, actor)


@contextmanager
def bad_document(sort: str) -> Iterator[None]:
    """Answer a document that is built otherwise than any of its sort as a bad one: a list where a text belongs, and the like."""
    try:
        yield
    except CoreError:
        raise
    except (TypeError, KeyError, AttributeError, ValueError, IndexError, OverflowError) as error:
        why = f"{type(error).__name__}: {error}"[:200]
        raise BadDocument("document_form", phrase("document_not_as", sort=sort, why=why)) from error


def _check(sort: str, document: Any, actor: Person) -> None:
    if sort == Sort.CIRCUIT:
        circuit_from_dict(document)
    elif sort == Sort.KIND:
        _judge(*kind_units(document, whole_library(actor.own_firm_id)))
    elif sort == Sort.WALK:
        walk_unit(document, whole_library(actor.own_firm_id))
    else:
        _judge(model_unit(document, whole_library(actor.own_firm_id)))


def _judge(*units: Unit) -> None:
    """Judge each unit as a visit begins: what no visit could be judged by is not kept."""
    for unit in units:
        assess(unit, HouseRules(), VisitTape("maintenance", ()))


def kind_units(document: Any, library: Library) -> tuple[Unit, ...]:
    """Return a unit of the kind with one stage and one with two. Raises BadDocument, UnknownName."""
    check_kind(document, PROOFS)
    mine = Library({**library.kinds, document["key"]: document}, library.circuits)
    units = tuple(build_unit("U", document["key"], Plate("NG_H", s), 0, library=mine) for s in _STAGES)
    for unit in units:
        _check_between(unit)
    return units


def walk_unit(document: Any, library: Library) -> tuple[Walk, Unit]:
    """Return a walk and a unit of its kind. Raises BadDocument, UnknownName; a shipped walk is shown on any kind."""
    walk = walk_from_dict(document)
    unit = build_unit("U", walk.kind or kind_names()[0], Plate("NG_H", _STAGES[0]), 0, library=library)
    if not walk.kind and document.get("key") not in shipped_walks():
        raise BadDocument("walk_kind", phrase("walk_kind"), value="kind")
    if walk.kind and document.get("key") != own_key(walk.kind, walk.key):
        raise BadDocument("walk_key", phrase("walk_key", key_=own_key(walk.kind, walk.key)), value="key")
    return walk, unit


def model_unit(document: Any, library: Library) -> Unit:
    """Return a unit of the model. Raises BadDocument, UnknownName."""
    model = model_from_dict(document)
    unit = build_of_model("U", model, {}, 0, library)
    states = {state.key for state in unit.circuit.control.states} if unit.circuit else set()
    for code in model.codes:
        if code.state and code.state not in states:
            known = ", ".join(sorted(states))
            said = phrase("code_of_no_state", code=code.pattern, state=code.state, known=known)
            raise BadDocument("code_state", said, value=code.pattern)
    return unit


@transaction.atomic
def keep_document(sort: str, document: Any, *, actor: Person, now: datetime, reason: str = "") -> None:
    """Keep ``document`` as the firm's own, new or changed, as its newest version. Raises NotAllowed, NotWritable, BadDocument, UnknownName."""
    require(actor, "shop.write")
    check_document(sort, document, actor)
    key = document["key"]
    if key in shipped_keys(sort):
        message = f"“{key}” is a shipped {sort} and stays as it is: keep yours under another key."
        raise NotWritable(message, code=f"shipped_{sort}")
    if not _KEY.fullmatch(key):
        raise BadDocument(f"{sort}_key", phrase("key_form"), value="key")
    own = ShopDocument.objects.filter(firm_id=actor.own_firm_id, sort=sort, key=key).first()
    before = own.document if own is not None else None
    keep_change(actor.own_firm_id, sort, key, before, document, now=now, author=actor, reason=reason)
    ShopDocument.objects.update_or_create(
        firm_id=actor.own_firm_id,
        sort=sort,
        key=key,
        defaults={"document": document, "changed_at": now, "changed_by": actor},
    )
    record("shop_written", actor, f"{sort} {key}: {reason}".removesuffix(": "))


def _check_between(unit: Unit) -> None:
    for station in unit.stations():
        for node in station.between or ():
            if unit.circuit is not None and node not in unit.circuit.nodes:
                said = phrase("station_of_no_node", station=station.key, circuit=unit.circuit.key, node=node)
                raise BadDocument("kind_node", said, value=station.key)
