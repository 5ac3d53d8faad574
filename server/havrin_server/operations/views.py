"""Is the server alive, and is it ready for work?"""

import os
import secrets
import shutil

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Status
from ninja.security import HttpBearer
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

from havrin_server.operations.schemas import Ready
from havrin_server.work.queue import queue_lives

router = Router(tags=["operations"])
LEAST_FREE_BYTES = 500 * 1024 * 1024


@router.get("/health", auth=None, response=dict[str, str])
def health(request: HttpRequest) -> dict[str, str]:
    """Tell that this process is alive, whatever is behind it."""
    return {"status": "ok", "time": timezone.now().isoformat()}


@router.get("/health/ready", auth=None, response={200: Ready, 503: Ready})
def ready(request: HttpRequest) -> Status[Ready]:
    """Tell whether what is needed for work is there: database, migrations, room on the disk; and whether the queue lives."""
    found = {"database": _database(), "migrations": _migrations(), "disk": _disk()}
    stands = Ready(ready=all(found.values()), queue=found["migrations"] and queue_lives(), **found)
    return Status(200 if stands.ready else 503, stands)


class MetricsKey(HttpBearer):
    """Whoever watches over the service shows the installation's own token for it (state/metrics-token)."""

    def authenticate(self, request: HttpRequest, token: str) -> str | None:
        """Return the token where it is the right one."""
        file = settings.STATE / "metrics-token"
        there = file.read_text().strip() if file.exists() else ""
        return token if there and secrets.compare_digest(token.encode(), there.encode()) else None


@router.get("/metrics", auth=MetricsKey(), response={200: None})
def metrics(request: HttpRequest) -> HttpResponse:
    """Return what is counted, as Prometheus reads it: of every serving process together."""
    counted = CollectorRegistry()
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        MultiProcessCollector(counted)  # type: ignore[no-untyped-call]
    else:
        counted = REGISTRY
    return HttpResponse(generate_latest(counted), content_type=CONTENT_TYPE_LATEST)


def _database() -> bool:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError:
        return False
    return True


def _migrations() -> bool:
    try:
        executor = MigrationExecutor(connection)
        return not executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return False


def _disk() -> bool:
    return shutil.disk_usage(settings.STATE).free >= LEAST_FREE_BYTES
