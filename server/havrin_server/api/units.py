"""Units: their record, and the links that customers get."""

import uuid

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from havrin_server.api.files import pdf_answer
from havrin_server.api.present_closing import link_out
from havrin_server.api.present_unit import shared_page, unit_record
from havrin_server.api.schemas_closing import LinkIn, LinkOut
from havrin_server.api.schemas_units import PlanIn, PlannedOut, SharedOut, UnitRecord
from havrin_server.errors import NotFound
from havrin_server.journal.planning import PlanVisit, plan_visit
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.reports import sharing
from havrin_server.reports.papers import customer_pdf
from havrin_server.sites.models import Unit

router = Router(tags=["units"])


def _unit(unit_id: int, person: Person) -> Unit:
    unit = Unit.objects.filter(pk=unit_id, site__firm_id=person.firm_id).select_related("site", "model").first()
    if unit is None:
        raise NotFound("There is no such unit in your firm.")
    return unit


@router.get("/units/{int:unit_id}", response=UnitRecord)
def record(request: HttpRequest, unit_id: int) -> UnitRecord:
    """Return every visit of the unit on one time line."""
    require(request.user, "read")
    return unit_record(_unit(unit_id, request.user), request.user)


@router.post("/units/{int:unit_id}/visits", response=PlannedOut)
def plan(request: HttpRequest, unit_id: int, payload: PlanIn) -> PlannedOut:
    """Put a visit of the unit on a round, today's or a later one."""
    command = PlanVisit(unit_id=unit_id, reason=payload.reason, day=payload.day, complaint=payload.complaint)
    visit = plan_visit(command, actor=request.user, now=timezone.now())
    return PlannedOut(id=visit.pk, day=visit.day, technician=visit.technician.full_name)


@router.post("/units/{int:unit_id}/links", response=LinkOut)
def share(request: HttpRequest, unit_id: int, payload: LinkIn) -> LinkOut:
    """Make a link for the customer."""
    unit = _unit(unit_id, request.user)
    return link_out(sharing.share(unit, payload.days, actor=request.user, now=timezone.now()))


@router.post("/links/{uuid:link_id}/revoke", response=LinkOut)
def revoke(request: HttpRequest, link_id: uuid.UUID) -> LinkOut:
    """Take a link back."""
    return link_out(sharing.revoke(link_id, actor=request.user, now=timezone.now()))


@router.get("/shared/{token}", response=SharedOut, auth=None)
def shared(request: HttpRequest, token: str) -> SharedOut:
    """Return what a customer's link opens."""
    return shared_page(sharing.opened(token, timezone.now()))


@router.get("/shared/{token}/{int:visit_id}.pdf", response={200: None}, auth=None)
def shared_report(request: HttpRequest, token: str, visit_id: int) -> HttpResponse:
    """Return one closed visit of that unit as the customer's paper."""
    link = sharing.opened(token, timezone.now())
    visit = sharing.shared_visits(link).filter(pk=visit_id).first()
    if visit is None:
        raise NotFound("This link does not show that visit.")
    return pdf_answer(customer_pdf(visit, link.made_by), f"{visit.unit.label}-{visit.day}.pdf")
