"""The interface's root: signing in is needed for everything but health and the sign-in itself."""

import logging
import sys
from collections.abc import Mapping

from django.core.exceptions import RequestDataTooBig
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.http.request import UnreadablePostError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError

from havrin_core.errors import BadDocument, CoreError, NotUnderstood, OutOfDomain, UnknownName, WrongDimension
from havrin_core.wording.phrases import words
from havrin_server.captures.views import live, logs, photos
from havrin_server.cards import door_views, import_views
from havrin_server.cards import views as cards
from havrin_server.errors import FilesAway, NotAllowed, ServerError
from havrin_server.house import views as house
from havrin_server.incoming import StrictParser
from havrin_server.operations import views as operations
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.rates import CallRate
from havrin_server.people.views import members, own, session
from havrin_server.people.wall import OwnFirmAlone
from havrin_server.reports.views import checks, papers, records, sites
from havrin_server.shop import views as shop
from havrin_server.visits.views import amendments, planning, round, visit
from havrin_server.work import views as work

log = logging.getLogger(__name__)
api = NinjaAPI(
    title="Havrin",
    version="1",
    auth=OwnFirmAlone(),
    docs_url=None,
    openapi_url=None,
    urls_namespace="havrin",
    parser=StrictParser(),
    throttle=[CallRate()],
)
_SUBJECTS = (
    operations,
    session,
    own,
    members,
    round,
    visit,
    amendments,
    planning,
    live,
    logs,
    photos,
    shop,
    house,
    sites,
    records,
    papers,
    checks,
    work,
    cards,
    door_views,
    import_views,
)
for subject in _SUBJECTS:
    api.add_router("", subject.router)

# The one table from the core's errors to HTTP; the server's own carry their status.
CORE_STATUS: dict[type[CoreError], int] = {
    NotUnderstood: 422,
    WrongDimension: 422,
    OutOfDomain: 422,
    UnknownName: 422,
    BadDocument: 422,
}


def _problem(
    request: HttpRequest,
    status: int,
    code: str,
    title: str,
    details: list[str] | None = None,
    fields: Mapping[str, str] | None = None,
) -> HttpResponse:
    body = {
        "type": f"/problems/{code}",
        "title": title,
        "status": status,
        "code": code,
        "details": details or [],
        "fields": dict(fields or {}),  # what is wrong with which field, to be shown there
    }
    response = api.create_response(request, body, status=status)
    response["Content-Type"] = "application/problem+json"
    return response


@api.exception_handler(ServerError)
def _server_error(request: HttpRequest, error: ServerError) -> HttpResponse:
    if isinstance(error, FilesAway):
        log.error("%s", error.args[0])
    if isinstance(error, NotAllowed) and isinstance(request.user, Person):
        record("refused", request.user, f"{request.method} {request.path}: {error.code}")
    return _problem(request, error.status, error.code, error.message, error.details, error.fields)


@api.exception_handler(CoreError)
def _core_error(request: HttpRequest, error: CoreError) -> HttpResponse:
    return _problem(request, CORE_STATUS[type(error)], error.code, words(error.said))


@api.exception_handler(AuthenticationError)
def _not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return _problem(request, 401, "not_signed_in", "Sign in first.")


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    details = [
        f"{'.'.join(str(p) for p in e['loc'] if p not in ('body', 'payload'))}: {e['msg']}" for e in error.errors
    ]
    return _problem(request, 422, "invalid_request", "The request has fields that cannot be read.", details)


@api.exception_handler(OperationalError)
@api.exception_handler(InterfaceError)
def _database_away(request: HttpRequest, error: OperationalError | InterfaceError) -> HttpResponse:
    log.error("The database does not answer: %s", error)
    title = "The database does not answer. What you entered is kept on your tablet; it is sent when it does."
    return _problem(request, 503, "database_away", title)


@api.exception_handler(RequestDataTooBig)
def _too_large(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
    return _problem(request, 413, "body_large", "This is larger than what is taken here.")


def broken(request: HttpRequest) -> HttpResponse:
    """Answer what ended in an error that nobody foresaw, or that came before any call: the session's database was away."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError):
        return _database_away(request, error)
    return _problem(request, 500, "server_error", "Something went wrong in the server. It is noted there; try again.")


def unknown_call(request: HttpRequest) -> HttpResponse:
    """Answer a path under /api/ that no call has."""
    return _problem(request, 404, "no_such_call", "There is no such call.")


@api.exception_handler(Throttled)
def _too_often(request: HttpRequest, error: Throttled) -> HttpResponse:
    return _problem(request, 429, "too_often", "That is more calls at once than one page needs: try again in a moment.")


@api.exception_handler(HttpError)
def _plain_error(request: HttpRequest, error: HttpError) -> HttpResponse:
    return _problem(request, error.status_code, "invalid_request", str(error))


@api.exception_handler(UnreadablePostError)
def _cut_off(request: HttpRequest, error: UnreadablePostError) -> HttpResponse:
    return _problem(request, 400, "upload_cut_off", "The upload broke off: send it again.")
