"""The page itself: the built index for every route of the page, under a strict content policy."""

from collections.abc import Callable

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseBase
from django.views.decorators.csrf import ensure_csrf_cookie

_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
    "font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'self'; frame-ancestors 'none'"
)


class ContentPolicy:
    """Middleware that puts the content security policy on every answer."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response["Content-Security-Policy"] = _POLICY
        return response


@ensure_csrf_cookie
def index(request: HttpRequest) -> HttpResponseBase:
    """Answer any route of the page with its index file."""
    file = settings.WHITENOISE_ROOT / "index.html"
    if not file.is_file():
        return HttpResponse("The page is not built: run ./havrin start.", status=503, content_type="text/plain")
    return FileResponse(file.open("rb"), content_type="text/html; charset=utf-8")
