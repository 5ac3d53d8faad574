"""Is there a process that takes long work from the queue?"""

from datetime import timedelta

from django.db import DatabaseError
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateWorker

SIGN_EVERY_S = 5.0
DEAD_AFTER_S = 30.0  # without a sign of life: what such a process had begun is begun anew


def queue_lives() -> bool:
    """Tell whether a process of the queue gave a sign of life lately."""
    since = timezone.now() - timedelta(seconds=DEAD_AFTER_S)
    try:
        return ProcrastinateWorker.objects.filter(last_heartbeat__gte=since).exists()
    except DatabaseError:
        return False
