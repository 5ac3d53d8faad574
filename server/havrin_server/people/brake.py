"""The brake on signing in: whoever guesses waits; and a form on a foreign page signs nobody in."""

from urllib.parse import urlsplit

from axes.handlers.proxy import AxesProxyHandler
from django.conf import settings
from django.http import HttpRequest

from havrin_server.errors import NotAllowed, TooMany


def must_be_free(request: HttpRequest, username: str) -> None:
    """Raise TooMany while a name has to wait at this address: after five wrong passwords in a row."""
    if not AxesProxyHandler.is_allowed(request, {"username": username}):
        minutes = round(settings.AXES_COOLOFF_TIME.total_seconds() / 60)
        raise TooMany(f"Too many wrong passwords for this name: wait {minutes} minutes.", code="sign_in_locked")


def must_be_own_page(request: HttpRequest) -> None:
    """Raise NotAllowed where the browser says that another site's page asks."""
    origin = request.headers.get("Origin", "")
    foreign = bool(origin) and urlsplit(origin).netloc != request.get_host()
    if foreign or request.headers.get("Sec-Fetch-Site") in ("cross-site", "same-site"):
        raise NotAllowed("Sign in on Havrin’s own page.", code="foreign_page")
