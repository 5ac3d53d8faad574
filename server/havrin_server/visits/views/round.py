"""The day's round."""

from datetime import date

from django.utils import timezone
from ninja import Router

from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.visits.pages.round import round_stop
from havrin_server.visits.queries import round_of
from havrin_server.visits.schemas.round import Round

router = Router(tags=["round"])


@router.get("/round", response=Round)
def todays_round(request: SignedIn, day: date | None = None) -> Round:
    """Return the stops of ``day``, today by default."""
    require(request.user, "read")
    wanted = day or timezone.now().astimezone(request.user.own_firm.zoneinfo()).date()
    return Round(day=wanted, stops=[round_stop(visit, request.user) for visit in round_of(request.user, wanted)])
