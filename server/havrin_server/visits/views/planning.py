"""Visits to come."""

from django.utils import timezone
from ninja import Router

from havrin_server.people.requests import SignedIn
from havrin_server.visits.planning import PlanVisit, plan_visit
from havrin_server.visits.schemas.planning import PlanIn, PlannedOut

router = Router(tags=["planning"])


@router.post("/units/{int:unit_id}/visits", response=PlannedOut)
def plan(request: SignedIn, unit_id: int, payload: PlanIn) -> PlannedOut:
    """Put a visit of the unit on a round, today's or a later one."""
    command = PlanVisit(unit_id=unit_id, reason=payload.reason, day=payload.day, complaint=payload.complaint)
    visit = plan_visit(command, actor=request.user, now=timezone.now())
    return PlannedOut(id=visit.pk, day=visit.day, technician=visit.technician.full_name)
