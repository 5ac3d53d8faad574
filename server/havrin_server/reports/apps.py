"""The reports app: it listens to visits and prints what they leave behind."""

from typing import Any

from django.apps import AppConfig
from django.utils import timezone


class ReportsConfig(AppConfig):
    """Connects printing to the end of a visit."""

    name = "havrin_server.reports"

    def ready(self) -> None:
        """Listen to closes and amendments."""
        from havrin_server.reports.kept import amendment_paper, print_soon
        from havrin_server.visits.signals import visit_amended, visit_closed

        def print_papers(visit: Any, address: str, **_: object) -> None:
            print_soon(visit, address)

        def print_amendment(amendment: Any, **_: object) -> None:
            amendment_paper(amendment, timezone.now())

        visit_closed.connect(print_papers, weak=False, dispatch_uid="print_papers")
        visit_amended.connect(print_amendment, weak=False, dispatch_uid="print_amendment")
