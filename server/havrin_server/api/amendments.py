"""What is said of a visit after it was closed."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from havrin_server.api.files import pdf_answer
from havrin_server.api.present import visit_page
from havrin_server.api.schemas import VisitPage
from havrin_server.api.schemas_closing import AmendIn
from havrin_server.errors import NotFound
from havrin_server.journal.amendments import Amend, AmendLine, amend
from havrin_server.journal.models import Amendment
from havrin_server.journal.queries import find_visit
from havrin_server.people.permissions import require
from havrin_server.reports.kept import amendment_paper

router = Router(tags=["amendments"])


@router.post("/visits/{int:visit_id}/amendments", response=VisitPage)
def write(request: HttpRequest, visit_id: int, payload: AmendIn) -> VisitPage:
    """Amend a closed visit, and print the amendment."""
    command = Amend(
        visit_id=visit_id,
        amendment_id=payload.id,
        lines=[AmendLine(line.text, line.as_note) for line in payload.lines],
        why=payload.why,
        at=payload.at,
    )
    amendment_paper(amend(command, actor=request.user, now=timezone.now()), timezone.now())
    return visit_page(find_visit(visit_id, request.user), request.user)


@router.get("/amendments/{uuid:amendment_id}.pdf", response={200: None})
def paper(request: HttpRequest, amendment_id: UUID) -> HttpResponse:
    """Return an amendment's paper."""
    require(request.user, "read")
    rows = Amendment.objects.filter(pk=amendment_id, visit__unit__site__firm_id=request.user.firm_id)
    found = rows.select_related("visit__unit__site__firm", "author").first()
    if found is None:
        raise NotFound("There is no such amendment in your firm.")
    name = f"{found.visit.unit.label}-{found.visit.day}-amendment.pdf"
    return pdf_answer(amendment_paper(found, timezone.now()), name)
