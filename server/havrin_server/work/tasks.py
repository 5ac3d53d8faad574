"""The queue's one task; the queue itself is procrastinate's."""

from uuid import UUID

from django.db import close_old_connections
from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from havrin_server.work import doing


@app.task(name="long_work", retry=RetryStrategy(max_attempts=5, exponential_wait=2))
def long_work(*, work_id: str) -> None:
    """Do one piece of long work."""
    close_old_connections()  # the database may have been away since the last
    try:
        doing.do(UUID(work_id))
    finally:
        close_old_connections()
