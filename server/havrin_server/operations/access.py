"""Each call that is answered: counted for whoever watches over the service, and noted in the log."""

import logging
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from prometheus_client import Counter, Histogram

from havrin_server.operations.logs import without_secrets
from havrin_server.people.models import Person
from havrin_server.people.origin import address_of

_log = logging.getLogger("havrin.access")
ANSWERS = Counter("havrin_answers_total", "Calls answered", ["method", "call", "status"])
SECONDS = Histogram(
    "havrin_answer_seconds",
    "Time until a call is answered",
    ["method", "call"],
    buckets=(0.01, 0.025, 0.05, 0.1, 0.2, 0.3, 0.5, 1, 2, 5, 10),
)


class Access:
    """Middleware around every call of the interface."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request`` and note how that went."""
        begun = time.perf_counter()
        response = self.get_response(request)
        if request.path.startswith("/api/"):
            _note(request, response.status_code, time.perf_counter() - begun)
        return response


def _note(request: HttpRequest, status: int, seconds: float) -> None:
    found = request.resolver_match
    call = found.route if found is not None else "unknown"  # the pattern: numbers and tokens would make countless ones
    method = request.method or ""
    ANSWERS.labels(method, call, status).inc()
    SECONDS.labels(method, call).observe(seconds)
    user = getattr(request, "user", None)
    _log.info(
        "answered",
        extra={
            "method": method,
            "path": without_secrets(request.path),
            "status": status,
            "milliseconds": round(1000 * seconds),
            "person": user.pk if isinstance(user, Person) else None,
            "address": address_of(request),
        },
    )
