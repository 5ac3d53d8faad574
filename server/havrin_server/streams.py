"""Answers that last for hours hold no connection to the database, whatever was asked of it on their way out."""

from collections.abc import Callable

from django.db import connection
from django.http import HttpRequest, HttpResponse

EVENTS = "text/event-stream"


class StreamsHoldNothing:
    """Middleware around all others: a session that is saved as its answer leaves would keep a connection until the page goes."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request``."""
        response = self.get_response(request)
        if response.get("Content-Type", "").startswith(EVENTS):
            connection.close()
        return response
