"""Visits to come."""

from django.utils import timezone
from ninja import Router

from havrin_server.errors import NotWritable
from havrin_server.people.requests import SignedIn
from havrin_server.visits import planning
from havrin_server.visits.models import Visit
from havrin_server.visits.pages.board import board_visit
from havrin_server.visits.schemas.planning import CancelIn, PlanChangeIn, PlanIn, PlannedOut
from havrin_server.visits.schemas.round import BoardVisit

router = Router(tags=["planning"])


@router.post("/units/{int:unit_id}/visits", response=PlannedOut)
def plan(request: SignedIn, unit_id: int, payload: PlanIn) -> PlannedOut:
    """Put a visit of the unit on a round, today's or a later one, or on nobody's."""
    command = planning.PlanVisit(
        unit_id=unit_id, technician=_whose(payload), **payload.model_dump(exclude={"whose", "technician"})
    )
    visit = planning.plan_visit(command, actor=request.user, now=timezone.now())
    return PlannedOut(id=visit.pk, day=visit.day, technician=visit.technician_name)


@router.put("/visits/{int:visit_id}/plan", response=BoardVisit)
def change(request: SignedIn, visit_id: int, payload: PlanChangeIn) -> BoardVisit:
    """Move a visit to another day, person, time or place in the row."""
    command = planning.ChangePlan(visit_id=visit_id, **payload.model_dump())
    return _shown(planning.change_plan(command, actor=request.user, now=timezone.now()))


@router.post("/visits/{int:visit_id}/cancel", response=BoardVisit)
def cancel(request: SignedIn, visit_id: int, payload: CancelIn) -> BoardVisit:
    """Cancel a visit on which nothing is written, with a reason."""
    return _shown(planning.cancel_visit(visit_id, payload.why, actor=request.user, now=timezone.now()))


def _whose(payload: PlanIn) -> int | str | None:
    if payload.whose == "person" and payload.technician is None:
        raise NotWritable("On whose day?", code="whose")
    return {"last there": planning.LAST_THERE, "nobody": None, "person": payload.technician}[payload.whose]


def _shown(visit: Visit) -> BoardVisit:
    return board_visit(visit, visit.unit.site.today(timezone.now()))
