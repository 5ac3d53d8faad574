"""Checking papers (open to whoever holds one) and bundles."""

import json

from django.http import HttpRequest
from ninja import File, Router, UploadedFile

from havrin_core.quantities.formats import writing
from havrin_core.wording.names import title
from havrin_core.wording.phrases import words
from havrin_server.errors import NotWritable
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.reports import checking
from havrin_server.reports.schemas.checks import CheckedOut, SealedOut
from havrin_server.visits import seal

router = Router(tags=["checks"])


@router.get("/check/{head}", response=SealedOut, auth=None)
def paper(request: HttpRequest, head: str) -> SealedOut:
    """Return what was sealed under the digits that a paper bears: whoever holds the paper may compare."""
    visit = checking.sealed_visit(head.strip().lower())
    assert visit.closed_at is not None  # none is sealed before
    with writing(visit.unit.site.firm.formats()):
        return SealedOut(
            stands=checking.stands(visit),
            firm=visit.unit.site.firm.name,
            unit=visit.unit.name,
            day=visit.day,
            level=visit.closed_level or 0,
            title=title(visit.closed_level or 0),
            signed_by=visit.signed_by,
            closed_at=visit.closed_at,
            zone=visit.unit.site.zoneinfo().key,
            entries=visit.version,
            amendments=visit.amendments.count(),
            head=visit.head,
            key=seal.short(visit.seal["key"]),
        )


@router.post("/check", response=CheckedOut)
def bundle(request: SignedIn, file: File[UploadedFile]) -> CheckedOut:
    """Say whether a bundle proves itself: nothing in it was changed, put in or left out."""
    require(request.user, "read")
    try:
        data = json.loads(file.read().decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError) as error:
        raise NotWritable("This file is not JSON, as a visit bundle is.", code="bundle_not_json") from error
    verdict = checking.checked(data)
    ours = verdict.sealed and verdict.holds and data["proof"]["seal"]["key"] == seal.own_key()
    flaws = [words(flaw) for flaw in verdict.flaws]
    return CheckedOut(holds=verdict.holds, flaws=flaws, entries=verdict.entries, sealed=verdict.sealed, ours=ours)
