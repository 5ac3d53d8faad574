"""Units: their record, and the links that customers get."""

import uuid

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router

from havrin_core.quantities.formats import writing
from havrin_server.errors import NotFound
from havrin_server.files import pdf_answer
from havrin_server.overviews import overview
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.reports import sharing
from havrin_server.reports.kept import paper_of
from havrin_server.reports.models import PaperKind
from havrin_server.reports.pages.links import link_out
from havrin_server.reports.pages.record import shared_page, unit_record
from havrin_server.reports.schemas.links import LinkIn, LinkOut
from havrin_server.reports.schemas.record import SharedOut, UnitRecord
from havrin_server.units.queries import find_unit
from havrin_server.view_model import as_answer
from havrin_server.visits.views.addresses import record_address

router = Router(tags=["units"])


@router.get("/units/{int:unit_id}", response=UnitRecord)
@overview
def record(request: SignedIn, unit_id: int) -> HttpResponse:
    """Return every visit of the unit on one time line."""
    require(request.user, "read")
    return as_answer(unit_record(find_unit(unit_id, request.user), request.user))


@router.post("/units/{int:unit_id}/links", response=LinkOut)
def share(request: SignedIn, unit_id: int, payload: LinkIn) -> LinkOut:
    """Make a link for the customer."""
    unit = find_unit(unit_id, request.user)
    return link_out(sharing.share(unit, payload.days, actor=request.user, now=timezone.now()))


@router.post("/links/{uuid:link_id}/revoke", response=LinkOut)
def revoke(request: SignedIn, link_id: uuid.UUID) -> LinkOut:
    """Take a link back."""
    return link_out(sharing.revoke(link_id, actor=request.user, now=timezone.now()))


@router.get("/shared/{token}", response=SharedOut, auth=None)
def shared(request: SignedIn, token: str) -> SharedOut:
    """Return what a customer's link opens."""
    link = sharing.opened(token, timezone.now())
    with writing(link.unit.site.firm.formats()):
        return shared_page(link)


@router.get("/shared/{token}/{int:visit_id}.pdf", response={200: None}, auth=None)
def shared_report(request: SignedIn, token: str, visit_id: int) -> HttpResponse:
    """Return one closed visit of that unit as the customer's paper."""
    link = sharing.opened(token, timezone.now())
    visit = sharing.shared_visits(link).filter(pk=visit_id).first()
    if visit is None:
        raise NotFound("This link does not show that visit.")
    address = record_address(request, visit.unit_id)
    content = paper_of(visit, PaperKind.CUSTOMER, person=link.made_by, address=address, now=timezone.now())
    return pdf_answer(content, f"{visit.unit.label}-{visit.day}.pdf")
