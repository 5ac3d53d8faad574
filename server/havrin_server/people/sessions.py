"""Signing in and out, and what becomes of sessions: how long they last, which there are, how they end."""

import time
from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.signals import user_login_failed
from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from havrin_server.errors import NotAllowed
from havrin_server.people.audit import record
from havrin_server.people.brake import must_be_free
from havrin_server.people.codes import opens
from havrin_server.people.models import OpenSession, Person
from havrin_server.people.origin import address_of
from havrin_server.people.session_store import ADDRESS, BEGAN, DEVICE, USED

_NOTED_EVERY_S = 300.0  # so often at most a session's last use is written down


def sign_in(request: HttpRequest, username: str, password: str, code: str) -> Person:
    """Open a session for whoever gives name, password and, where codes are set up, a code.

    Raises NotAllowed (``wrong_password``, ``code_needed``, ``wrong_code``), TooMany (``sign_in_locked``).
    """
    must_be_free(request, username)
    person = authenticate(request, username=username, password=password)
    if not isinstance(person, Person):
        _refused(request, username, "wrong name or password")
        raise NotAllowed("Wrong name or password.", code="wrong_password")
    if person.code_secret and not code:
        raise NotAllowed("Enter the six digits that your app shows now.", code="code_needed")
    if person.code_secret and not opens(person, code):
        user_login_failed.send(__name__, credentials={"username": username}, request=request)
        _refused(request, username, "wrong code")
        raise NotAllowed("This code is wrong, or it was used already: wait for the next one.", code="wrong_code")
    open_session(request, person)
    record("sign_in", person)
    return person


def _refused(request: HttpRequest, username: str, why: str) -> None:
    known = Person.objects.filter(username=username).first()
    # A password is sometimes typed where the name belongs: of a name that nobody has, two letters are noted.
    record("sign_in_refused", known, why, name=f"{username[:2]}…")
    must_be_free(request, username)


def open_session(request: HttpRequest, person: Person) -> None:
    """Sign ``person`` in at this browser."""
    login(request, person, backend="havrin_server.people.backend.WithFirm")


def note_begin(request: HttpRequest, **_: object) -> None:
    """Note on a new session since when it is and from where: whoever signs in, in whatever way (apps.py)."""
    request.session[BEGAN] = request.session[USED] = time.time()
    request.session[ADDRESS] = address_of(request)
    request.session[DEVICE] = request.headers.get("User-Agent", "")[:200]


def sessions_of(person: Person) -> QuerySet[OpenSession]:
    """Return the sessions of ``person`` that last, the one used last first."""
    return OpenSession.objects.filter(person=person, expire_date__gt=timezone.now()).order_by("-used_at")


def end_sessions(person: Person, *, but: str = "", only: str = "") -> int:
    """End the sessions of ``person``: all, all but one, or one alone (by their keys); return how many there were."""
    rows = OpenSession.objects.filter(person=person).exclude(session_key=but)
    return (rows.filter(session_key=only) if only else rows).delete()[0]


class SessionLimits:
    """Middleware: a session ends when it was not used for long, and at the latest some weeks after signing in."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request``; of a session that is over, as of nobody."""
        session = request.session
        if session.session_key is not None and request.user.is_authenticated:
            now = time.time()
            if now - session.get(BEGAN, 0.0) > settings.SESSION_LONGEST_S:
                logout(request)
            elif now - session.get(USED, 0.0) > _NOTED_EVERY_S:
                session[USED] = now  # what is changed is saved, and lasts from now
        return self.get_response(request)
