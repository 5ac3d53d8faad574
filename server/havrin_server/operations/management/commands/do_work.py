"""``do_work``: take long work from the queue, one piece at a time, until told to stop."""

import asyncio

from django.core.management import BaseCommand
from procrastinate import App
from procrastinate.contrib.django import app as own_app
from procrastinate.contrib.django.django_connector import DjangoConnector

from havrin_server.work.queue import DEAD_AFTER_S, SIGN_EVERY_S

_LOOKS_EVERY_S = 10.0


class Command(BaseCommand):
    """Run the worker of the queue."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        assert isinstance(own_app.connector, DjangoConnector)
        with own_app.replace_connector(own_app.connector.get_worker_connector()) as app:
            asyncio.run(_work(app))


async def _work(app: App) -> None:
    async with app.open_async():
        looking = asyncio.create_task(_begin_anew(app))
        try:
            await app.run_worker_async(
                concurrency=1,
                delete_jobs="successful",
                fetch_job_polling_interval=2.0,
                shutdown_graceful_timeout=4.0,
                update_heartbeat_interval=SIGN_EVERY_S,
                stalled_worker_timeout=DEAD_AFTER_S,
            )
        finally:
            looking.cancel()


async def _begin_anew(app: App) -> None:
    """Give back to the queue what a process had begun that was killed."""
    while True:
        for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=DEAD_AFTER_S):
            await app.job_manager.retry_job(job)
        await asyncio.sleep(_LOOKS_EVERY_S)
