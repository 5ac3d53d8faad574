"""Doing long work: what each sort does is registered by the subject it belongs to."""

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from havrin_server.errors import ServerError
from havrin_server.people.wall import tell
from havrin_server.work.models import LongWork, State

log = logging.getLogger(__name__)
SAYS_EVERY_S = 0.4
_BESIDE = "beside"  # a second connection: what it says is seen while the work itself is not yet


class Stopped(Exception):
    """Somebody asked for it to stop: what it did in its transaction is undone."""


@dataclass
class Progress:
    """What a piece of work tells of itself while it goes on, seen at once by whoever waits."""

    work_id: UUID
    done: int = 0
    steps: int = 0
    _said_at: float = field(default_factory=time.monotonic)

    def of(self, steps: int) -> None:
        """Say how many steps there are."""
        self.done, self.steps = 0, steps
        self._say()

    def step(self, many: int = 1) -> None:
        """Say that ``many`` more are done. Raises Stopped where somebody asked for that."""
        self.done += many
        if time.monotonic() - self._said_at >= SAYS_EVERY_S or self.done >= self.steps:
            self._say()

    def _say(self) -> None:
        self._said_at = time.monotonic()
        rows = LongWork.objects.using(_BESIDE).filter(pk=self.work_id)
        rows.update(done=self.done, steps=self.steps)
        if rows.filter(stop_asked=True).exists():
            raise Stopped


Does = Callable[[LongWork, Progress], Any]
_DOES: dict[str, Does] = {}


def does(sort: str) -> Callable[[Does], Does]:
    """Register a function as what work of ``sort`` does; it returns the result, plain enough for JSON."""

    def register(function: Does) -> Does:
        _DOES[sort] = function
        return function

    return register


def do(work_id: UUID) -> None:
    """Do one piece of work, in one transaction, seeing its own firm alone; it ends with what it says of itself.

    Done twice (the process was killed in between) it begins anew: nothing of the first time was kept.
    """
    work = LongWork.objects.select_related("person__firm", "firm").filter(pk=work_id).first()
    if work is None or work.state not in (State.WAITING, State.RUNNING):
        return
    LongWork.objects.filter(pk=work_id).update(state=State.RUNNING)
    tell(work.firm_id)
    try:
        _end(work, State.DONE, result=_done_whole(work))
    except Stopped:
        _end(work, State.STOPPED)
    except ServerError as refusal:
        _end(work, State.FAILED, said=refusal.message)
    except Exception:
        log.exception("long work %s of the sort %s failed", work_id, work.sort)
        _end(work, State.FAILED, said="Something went wrong in the server. It is noted there; nothing was kept.")
    finally:
        tell(None)


def _done_whole(work: LongWork) -> Any:
    with transaction.atomic():
        if work.stop_asked:
            raise Stopped
        return _DOES[work.sort](work, Progress(work.pk))


def _end(work: LongWork, state: State, *, said: str = "", result: Any = None) -> None:
    LongWork.objects.filter(pk=work.pk).update(state=state, said=said, result=result, ended_at=timezone.now())
