"""The captures app: what records on a visit ends with it."""

from typing import Any

from django.apps import AppConfig


class CapturesConfig(AppConfig):
    """Connects the end of recording to the end of a visit."""

    name = "havrin_server.captures"

    def ready(self) -> None:
        """Listen to closes."""
        from havrin_server.captures.models import Capture
        from havrin_server.visits.signals import visit_closed

        def end_captures(visit: Any, **_: object) -> None:
            Capture.objects.filter(visit=visit, ended_at=None).update(ended_at=visit.closed_at)

        visit_closed.connect(end_captures, weak=False, dispatch_uid="end_captures")
