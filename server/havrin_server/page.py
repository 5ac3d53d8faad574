"""The page itself: the built index for every route of the page, under a strict content policy."""

from collections.abc import Callable

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseBase
from django.views.decorators.csrf import ensure_csrf_cookie

_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
    "font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'self'; frame-ancestors 'none'; form-action 'self'"
)
_FEATURES = "camera=(self), geolocation=(), microphone=(), payment=(), usb=()"  # photos are taken, nothing else
_NOTHING_KEPT = "no-store"


class ContentPolicy:
    """Middleware around every answer: for a known host alone, under the content security policy, found by no search engine.

    What a call answers is somebody's own: no browser and nothing between keeps it.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        request.get_host()  # raises DisallowedHost, whatever is asked for
        response = self.get_response(request)
        response["Content-Security-Policy"] = _POLICY
        response["Permissions-Policy"] = _FEATURES
        response["X-Robots-Tag"] = "noindex, nofollow"
        if request.path.startswith("/api/") and "Cache-Control" not in response:
            response["Cache-Control"] = _NOTHING_KEPT
        return response


@ensure_csrf_cookie
def index(request: HttpRequest) -> HttpResponseBase:
    """Answer any route of the page with its index file."""
    file = settings.WHITENOISE_ROOT / "index.html"
    if not file.is_file():
        return HttpResponse("The page is not built: run ./havrin start.", status=503, content_type="text/plain")
    return FileResponse(file.open("rb"), content_type="text/html; charset=utf-8")
