"""Asking for long work, looking at it, stopping it."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction

from havrin_server.errors import NotFound, TooMany
from havrin_server.people.models import Person
from havrin_server.work.models import LongWork, State
from havrin_server.work.tasks import long_work

MOST_AT_ONCE = 4  # of a person
_GOING = (State.WAITING, State.RUNNING)


@transaction.atomic
def ask_for(sort: str, given: Any, *, work_id: UUID, actor: Person, now: datetime) -> LongWork:
    """Put work of ``sort`` into the queue; asked twice under one id it is one. Raises TooMany, NotFound (another firm's id)."""
    found = LongWork.objects.filter(pk=work_id).first()
    if found is not None:
        return find_work(work_id, actor)
    if LongWork.objects.filter(person=actor, state__in=_GOING).count() >= MOST_AT_ONCE:
        raise TooMany(
            f"{MOST_AT_ONCE} of your longer jobs are still going: wait for one, or stop it.", code="work_many"
        )
    work = LongWork.objects.create(
        pk=work_id, firm_id=actor.own_firm_id, person=actor, sort=sort, given=given, asked_at=now
    )
    long_work.defer(work_id=str(work_id))
    return work


def find_work(work_id: UUID, actor: Person) -> LongWork:
    """Return a piece of the person's own work. Raises NotFound, also for somebody else's."""
    found = LongWork.objects.filter(pk=work_id, person=actor, firm_id=actor.own_firm_id).first()
    if found is None:
        raise NotFound("There is no such work of yours.")
    return found


def stop(work_id: UUID, actor: Person) -> LongWork:
    """Ask a piece of work to stop; what has ended stays as it is. Raises NotFound."""
    find_work(work_id, actor)
    LongWork.objects.filter(pk=work_id, state__in=_GOING).update(stop_asked=True)
    return find_work(work_id, actor)
