"""How far a log is read, for the page that waits for it."""

import time
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import timedelta

from django.utils import timezone

from havrin_server.captures.models import ReadingShare

_BETWEEN_S = 0.3
_LEFT_BEHIND = timedelta(hours=1)  # of a server that was killed while it read


@contextmanager
def told(upload: uuid.UUID | None) -> Iterator[Callable[[float], None]]:
    """Give a function that hears the share read and keeps it for ``share_of``; it is gone when the work ends."""
    last = 0.0

    def hear(share: float) -> None:
        nonlocal last
        if upload is None or time.monotonic() - last < _BETWEEN_S:
            return
        last = time.monotonic()
        ReadingShare.objects.update_or_create(id=upload, defaults={"share": share, "at": timezone.now()})

    try:
        yield hear
    finally:
        ReadingShare.objects.filter(at__lt=timezone.now() - _LEFT_BEHIND).delete()
        if upload is not None:
            ReadingShare.objects.filter(id=upload).delete()


def share_of(upload: uuid.UUID) -> float | None:
    """Return how much of an upload is read, 0 to 1; None where none of it is read just now."""
    row = ReadingShare.objects.filter(id=upload).first()
    return row.share if row else None
