"""What is said of a visit after it was closed."""

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router

from havrin_server.people.requests import SignedIn
from havrin_server.visits.amendments import Amend, AmendLine, amend
from havrin_server.visits.models import Amendment
from havrin_server.visits.pages.visit import visit_answer
from havrin_server.visits.queries import find_visit
from havrin_server.visits.schemas.closing import AmendIn
from havrin_server.visits.schemas.visit import VisitPage
from havrin_server.visits.signals import visit_amended
from havrin_server.visits.whole import whole_or_nothing

router = Router(tags=["amendments"])


@router.post("/visits/{int:visit_id}/amendments", response=VisitPage)
@whole_or_nothing()
def write(request: SignedIn, visit_id: int, payload: AmendIn) -> HttpResponse:
    """Amend a closed visit, and print the amendment."""
    command = Amend(
        visit_id=visit_id,
        amendment_id=payload.id,
        lines=[AmendLine(line.text, line.as_note) for line in payload.lines],
        why=payload.why,
        at=payload.at,
    )
    amendment = amend(command, actor=request.user, now=timezone.now())
    visit_amended.send(sender=Amendment, amendment=amendment)
    return visit_answer(find_visit(visit_id, request.user), request.user)
