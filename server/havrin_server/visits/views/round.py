"""Whose visits are on which day: one's own day, and the board."""

from datetime import date
from typing import Annotated

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from havrin_server.incoming import Day
from havrin_server.overviews import overview
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.view_model import as_answer
from havrin_server.visits.pages.board import board_page
from havrin_server.visits.pages.round import round_page
from havrin_server.visits.schemas.round import Board, Round

BoardDays = Annotated[int, Field(ge=1, le=14)]
router = Router(tags=["round"])


@router.get("/round", response=Round)
def own_day(request: SignedIn, day: Day | None = None) -> Round:
    """Return one's own stops of ``day``, today by default."""
    require(request.user, "read")
    today = _today(request.user)
    return round_page(request.user, day or today, today)


@router.get("/board", response=Board)
@overview
def board(request: SignedIn, first: Day | None = None, days: BoardDays = 7) -> HttpResponse:
    """Return everybody's visits of some days, today's week by default."""
    require(request.user, "read")
    today = _today(request.user)
    return as_answer(board_page(request.user, first or today, days, today))


def _today(person: Person) -> date:
    return timezone.now().astimezone(person.own_firm.zoneinfo()).date()
