"""Long work: how far it is, and stopping it."""

from uuid import UUID

from ninja import Router

from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.work.schemas import WorkOut
from havrin_server.work.services import find_work, stop

router = Router(tags=["long work"])


@router.get("/work/{uuid:work_id}", response=WorkOut)
def how_far(request: SignedIn, work_id: UUID) -> WorkOut:
    """Return how far a piece of one's own work is."""
    require(request.user, "read")
    return WorkOut.of(find_work(work_id, request.user))


@router.post("/work/{uuid:work_id}/stop", response=WorkOut)
def stop_it(request: SignedIn, work_id: UUID) -> WorkOut:
    """Ask a piece of one's own work to stop."""
    require(request.user, "read")
    return WorkOut.of(stop(work_id, request.user))
