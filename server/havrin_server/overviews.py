"""Overviews are read from a replica of the database, where the settings name one, and are never older than the question.

A replica follows the database by itself (PostgreSQL's streaming replication). An overview asks the database how far it has
written, and is read from the replica once that is as far; where it takes too long, or the replica does not answer, the
database answers as if there were none. So nobody misses on the board what he has just moved there.
"""

import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from contextvars import ContextVar
from functools import wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

from django.conf import settings
from django.db import DEFAULT_DB_ALIAS, DatabaseError, connections
from django.db.models import Model

from havrin_server.people import wall
from havrin_server.people.requests import SignedIn

REPLICA = "replica"
_PATIENCE_S, _LOOKS = 0.05, 5
_REST_S = 30.0  # a replica that did not answer is left alone: everybody would wait for it
# Where a commit does not wait for the disk, what was acknowledged may still be on its way there.
_WRITTEN = """
SELECT (CASE WHEN current_setting('synchronous_commit') = 'off' THEN pg_current_wal_insert_lsn()
ELSE pg_current_wal_flush_lsn() END)::text
"""
_P = ParamSpec("_P")
_T = TypeVar("_T")
_read_from: ContextVar[str | None] = ContextVar("overviews_read_from", default=None)
_rests_until = 0.0


class Router:
    """Which database a query of Django's goes to."""

    def db_for_read(self, model: type[Model], **hints: Any) -> str | None:
        """Return the replica while an overview is read from it."""
        return _read_from.get()

    def db_for_write(self, model: type[Model], **hints: Any) -> str | None:
        """Return the database for what was read from the replica: it takes no change."""
        return DEFAULT_DB_ALIAS if _read_from.get() else None

    def allow_migrate(self, db: str, app_label: str, **hints: Any) -> bool | None:
        """Tables are made in the database alone: the replica has them from there."""
        return None if db == DEFAULT_DB_ALIAS else False


def read_from() -> str:
    """Return the database that an overview's own SQL goes to."""
    return _read_from.get() or DEFAULT_DB_ALIAS


def overview(call: Callable[Concatenate[SignedIn, _P], _T]) -> Callable[Concatenate[SignedIn, _P], _T]:
    """Read ``call``, which changes nothing, from the replica where that is up to date."""

    @wraps(call)
    def answer(request: SignedIn, /, *given: _P.args, **named: _P.kwargs) -> _T:
        if has_replica() and time.monotonic() >= _rests_until:
            try:
                if _has_caught_up():
                    with _behind_the_wall(request.user.own_firm_id):
                        return call(request, *given, **named)
            except DatabaseError:  # it went away meanwhile; should it be the call's own fault, the database says so
                _rest()
        return call(request, *given, **named)

    return answer


def has_replica() -> bool:
    """Tell whether the settings name one."""
    return REPLICA in settings.DATABASES


def lag_s() -> float | None:
    """Return how long ago the last change was made that the replica has, s: 0 where it has all; None where it is no replica.

    Raises DatabaseError where it does not answer.
    """
    with connections[REPLICA].cursor() as cursor:
        cursor.execute(
            """SELECT pg_is_in_recovery(), CASE WHEN pg_last_wal_receive_lsn() = pg_last_wal_replay_lsn() THEN 0
            ELSE extract(epoch FROM now() - pg_last_xact_replay_timestamp()) END"""
        )
        follows, seconds = cursor.fetchone()
    return float(seconds or 0) if follows else None


def _has_caught_up() -> bool:
    """Wait a moment for the replica to have all that the database has said to be written. Raises DatabaseError."""
    with connections[DEFAULT_DB_ALIAS].cursor() as cursor:
        cursor.execute(_WRITTEN)
        (written,) = cursor.fetchone()
    with connections[REPLICA].cursor() as cursor:
        for _ in range(_LOOKS):
            cursor.execute("SELECT pg_is_in_recovery() AND pg_last_wal_replay_lsn() >= %s::pg_lsn", [written])
            if cursor.fetchone()[0]:
                return True
            time.sleep(_PATIENCE_S / _LOOKS)
    return False


@contextmanager
def _behind_the_wall(firm_id: int) -> Iterator[None]:
    wall.tell(firm_id, REPLICA)
    token = _read_from.set(REPLICA)
    try:
        yield
    finally:
        _read_from.reset(token)
        wall.take_away(REPLICA)


def _rest() -> None:
    global _rests_until
    _rests_until = time.monotonic() + _REST_S
    with suppress(DatabaseError):
        connections[REPLICA].close()
