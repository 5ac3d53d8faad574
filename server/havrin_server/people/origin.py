"""From where a call comes, for whatever is noted of it on its way."""

from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponse

_address: ContextVar[str] = ContextVar("address", default="")


class Origin:
    """Middleware: remembers the address while a call is answered."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request``."""
        token = _address.set(address_of(request))
        try:
            return self.get_response(request)
        finally:
            _address.reset(token)


def address_of(request: HttpRequest) -> str:
    """Return the address that ``request`` comes from; behind a proxy that is trusted, the one that it names."""
    return str(request.META.get("REMOTE_ADDR") or "")[:45]


def present_address() -> str:
    """Return the address of the call that is answered now; empty where none is (a command, a job)."""
    return _address.get()
