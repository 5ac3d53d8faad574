"""The day's round."""

from datetime import date

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from havrin_server.api.present import round_stop
from havrin_server.api.schemas import Round
from havrin_server.journal.queries import round_of
from havrin_server.people.permissions import require

router = Router(tags=["round"])


@router.get("", response=Round)
def todays_round(request: HttpRequest, day: date | None = None) -> Round:
    """Return the stops of ``day``, today by default."""
    require(request.user, "read")
    wanted = day or timezone.now().astimezone(request.user.firm.zoneinfo()).date()
    return Round(day=wanted, stops=[round_stop(visit, request.user) for visit in round_of(request.user, wanted)])
