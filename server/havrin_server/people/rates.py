"""How often one person, one instrument, or one address without either may call: a page that runs wild stops itself alone."""

from django.conf import settings
from django.http import HttpRequest
from ninja.throttling import AuthRateThrottle


class CallRate(AuthRateThrottle):
    """At most so many calls in so long (``settings.CALL_RATE``), each serving process for itself; None: no limit."""

    def __init__(self) -> None:
        super().__init__(settings.CALL_RATE)

    def allow_request(self, request: HttpRequest) -> bool:
        """Tell whether one more is taken."""
        self.num_requests, self.duration = self.parse_rate(settings.CALL_RATE)
        return self.num_requests is None or super().allow_request(request)
