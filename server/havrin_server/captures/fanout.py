"""From PostgreSQL's notices to every open page of this process: one listening connection, a queue per page."""

import asyncio
import contextlib
import json
import logging
from collections.abc import AsyncIterator
from typing import Any

import psycopg
from django.conf import settings

from havrin_server.captures.intake import CHANNEL

_QUEUE_MOST = 500  # notices; a page that sleeps longer is told to fetch the trace anew
_BEAT_S = 10.0
_RETRY_S = 1.0
_log = logging.getLogger(__name__)
_pages: dict[int, set["asyncio.Queue[str]"]] = {}
_listener: "asyncio.Task[None] | None" = None
LOST = json.dumps({"lost": True})


async def stream(visit_id: int) -> AsyncIterator[bytes]:
    """Yield server-sent events of a visit: a notice as it comes, a beat when nothing does."""
    queue: asyncio.Queue[str] = asyncio.Queue(_QUEUE_MOST)
    _pages.setdefault(visit_id, set()).add(queue)
    _listen()
    try:
        yield b"retry: 1500\n: listening\n\n"
        while True:
            try:
                text = await asyncio.wait_for(queue.get(), _BEAT_S)
                yield f"data: {text}\n\n".encode()
            except TimeoutError:
                yield b": beat\n\n"
    finally:
        _pages[visit_id].discard(queue)


def _listen() -> None:
    """Start the one listener of this process, on the loop that runs now."""
    global _listener  # one per process, whatever the number of pages
    if _listener is None or _listener.done():
        _listener = asyncio.get_running_loop().create_task(_forever())


async def _forever() -> None:
    while True:
        try:
            async with await psycopg.AsyncConnection.connect(**_connection(), autocommit=True) as connection:
                await connection.execute(f"LISTEN {CHANNEL}")
                async for notice in connection.notifies():
                    _spread(notice.payload)
        except psycopg.OperationalError as gone:
            _log.warning("The listening connection went away: %s", gone)
            _to_all(LOST)
            await asyncio.sleep(_RETRY_S)


def _spread(text: str) -> None:
    for queue in _pages.get(json.loads(text)["visit"], ()):
        _put(queue, text)


def _to_all(text: str) -> None:
    for queues in _pages.values():
        for queue in queues:
            _put(queue, text)


def _put(queue: "asyncio.Queue[str]", text: str) -> None:
    if queue.full():
        while not queue.empty():
            with contextlib.suppress(asyncio.QueueEmpty):
                queue.get_nowait()
        text = LOST  # too far behind: the page fetches the trace
    queue.put_nowait(text)


def _connection() -> dict[str, Any]:
    database = settings.DATABASES["default"]
    return {
        "host": database["HOST"],
        "port": database["PORT"],
        "dbname": database["NAME"],
        "user": database["USER"],
        "password": database["PASSWORD"],
    }
