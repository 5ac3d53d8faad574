"""Checking a paper or a bundle against what is stored: by the head that is printed, or by the file."""

from typing import Any

from havrin_core.tape.proof import Verdict, check, signed_form
from havrin_server.errors import NotFound
from havrin_server.visits import seal
from havrin_server.visits.chain import amendments_hold, broken_at, chained
from havrin_server.visits.models import Visit

CHECKS = "/check/"


def sealed_visit(head: str) -> Visit:
    """Return the closed visit whose tape ends in ``head``. Raises NotFound."""
    rows = Visit.objects.filter(head=head, seal__isnull=False).select_related("unit__site__firm")
    visit = rows.first() if head else None
    if visit is None:
        raise NotFound("No visit was sealed here under these digits. Are they all there, as on the paper?")
    return visit


def stands(visit: Visit) -> bool:
    """Tell whether what is stored of a closed visit is what was sealed: chain, head, signature, and this installation's key."""
    assert visit.seal is not None
    statement = visit.seal["statement"]
    return (
        broken_at(visit, chained(visit)) is None
        and amendments_hold(visit)
        and statement["head"] == visit.head
        and statement["level"] == visit.closed_level
        and statement["left"] == visit.left
        and statement["signed_by"] == visit.signed_by
        and visit.seal["key"] == seal.own_key()
        and seal.holds(signed_form(statement), visit.seal)
    )


def checked(bundle: Any) -> Verdict:
    """Return what the proof of a bundle is worth."""
    return check(bundle, seal.holds)


def check_address(record_address: str, visit: Visit) -> str:
    """Return where a paper of a closed visit is checked; "" of an open one. ``record_address``: that of the unit's record."""
    return record_address.rpartition("/units/")[0] + CHECKS + visit.head if visit.seal else ""
