"""The walk of a kind of unit: the firm's own where it made one, else the shipped one."""

from typing import Any

from havrin_core.walks.documents import WALKS, shipped_walk, walk_from_dict, walk_to_dict
from havrin_core.walks.model import Walk
from havrin_server.shop.models import ShopDocument, Sort


def own_key(kind: str, walk: str) -> str:
    """Return the key under which a firm keeps its walk: there is one for each kind and reason."""
    return f"{kind}_{walk}"


def walk_for(firm_id: int, kind: str, walk: str) -> Walk | None:
    """Return the walk ``walk`` for units of ``kind``; None where there is none."""
    own = ShopDocument.objects.filter(firm_id=firm_id, sort=Sort.WALK, key=own_key(kind, walk)).first()
    return walk_from_dict(own.document) if own is not None else shipped_walk(walk)


def shipped_walks() -> tuple[str, ...]:
    """Return what walks are shipped for."""
    return tuple(key for key in WALKS if shipped_walk(key) is not None)


def shipped_walk_document(key: str) -> dict[str, Any]:
    """Return a shipped walk as a document of any kind."""
    walk = shipped_walk(key)
    assert walk is not None, key
    return walk_to_dict(walk, key, "")
