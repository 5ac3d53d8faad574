"""The second wall between firms: what a call may see at all, told to the database, whatever its queries ask for.

The policies that the database keeps to are in operations/walls.py. Where nobody is signed in (a customer's link, an
instrument's key, signing in itself) there is no firm to tell, and each query finds by a secret or a name.
"""

import asyncio
import contextlib
from collections.abc import Callable
from typing import Any

from django.db import DEFAULT_DB_ALIAS, DatabaseError, connections
from django.http import HttpRequest, HttpResponse
from ninja.security import SessionAuth

from havrin_server.people.models import Person

_TELL = "SELECT set_config('havrin.firm', %s, false)"
_RAISED = "wall_is_up"


class OwnFirmAlone(SessionAuth):
    """Signing in as every call but the open ones needs it; from there on the database shows the person's firm alone."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any | None:
        """Return the person; None for nobody."""
        person = super().authenticate(request, key)
        if isinstance(person, Person) and not _on_the_loop():
            tell(person.own_firm_id)
            setattr(request, _RAISED, True)
        return person


def tell(firm_id: int | None, using: str = DEFAULT_DB_ALIAS) -> None:
    """Tell a database which firm's rows this connection sees: those of firm 0 are none, None takes the wall away."""
    with connections[using].cursor() as cursor:
        cursor.execute(_TELL, ["" if firm_id is None else str(firm_id)])


def take_away(using: str = DEFAULT_DB_ALIAS) -> None:
    """Take the wall away; a connection that cannot be told so any more is closed: nobody gets it after us."""
    if connections[using].connection is None:
        return
    try:
        tell(None, using)
    except DatabaseError:
        with contextlib.suppress(DatabaseError):
            connections[using].close()


class WallComesDown:
    """Middleware: the connection goes back without the wall; another firm's call may get it next."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request``."""
        try:
            return self.get_response(request)
        finally:
            if getattr(request, _RAISED, False):
                take_away()


def _on_the_loop() -> bool:
    """Tell whether this runs on the event loop, where the database is not asked: pages that listen check by themselves."""
    try:
        asyncio.get_running_loop()
    except RuntimeError:
        return False
    return True
