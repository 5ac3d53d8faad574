"""From PostgreSQL's notices to every open page of this process: one listening connection, a queue per page."""

import asyncio
import contextlib
import json
import logging
import random
import time
from collections import Counter
from collections.abc import AsyncIterator, Awaitable, Callable
from typing import Any
from weakref import WeakKeyDictionary

import psycopg
from django.conf import settings

from havrin_server.captures.intake import CHANNEL
from havrin_server.errors import TooMany

MOST_OF_ONE, MOST_OF_ALL = 150, 1000  # open pages that listen: of one person, and of everybody in this process
_ASK_AGAIN_S = 60.0  # on the average: pages that were opened together do not ask together
_ASK_AT_ONCE = 2  # of the connections to the database most are for those who work
_QUEUE_MOST = 500  # notices; a page that sleeps longer is told to fetch the trace anew
_BEAT_S = 10.0
_RETRY_S = 1.0
_log = logging.getLogger(__name__)
_pages: dict[int, set["asyncio.Queue[str]"]] = {}
_listening: Counter[int] = Counter()  # open streams by person
_listener: "asyncio.Task[None] | None" = None
_turns: "WeakKeyDictionary[asyncio.AbstractEventLoop, asyncio.Semaphore]" = WeakKeyDictionary()
LOST = json.dumps({"lost": True})
MayRead = Callable[[], Awaitable[bool]]


def must_have_room(person_id: int) -> None:
    """Raise TooMany where this person, or everybody together, listens to as much as one process carries."""
    if _listening[person_id] >= MOST_OF_ONE:
        raise TooMany(f"{MOST_OF_ONE} of your pages listen already: close one.", code="streams_of_one")
    if _listening.total() >= MOST_OF_ALL:
        raise TooMany("Too many pages listen at this moment: the page asks again by itself.", code="streams_of_all")


async def stream(visit_id: int, person_id: int, may_read: MayRead) -> AsyncIterator[bytes]:
    """Yield server-sent events of a visit: a notice as it comes, a beat when nothing does.

    It waits without a connection to the database. ``may_read`` is asked again every minute: the stream ends with the
    session, or with the right, that it was opened by.
    """
    queue: asyncio.Queue[str] = asyncio.Queue(_QUEUE_MOST)
    _pages.setdefault(visit_id, set()).add(queue)
    _listening[person_id] += 1
    _listen()
    ask_at = _next_time()
    try:
        yield b"retry: 1500\n: listening\n\n"
        while True:
            try:
                text = await asyncio.wait_for(queue.get(), _BEAT_S)
                yield f"data: {text}\n\n".encode()
            except TimeoutError:
                yield b": beat\n\n"
            if time.monotonic() >= ask_at:
                async with _turn():
                    if not await may_read():
                        return
                ask_at = _next_time()
    finally:
        _leave(visit_id, person_id, queue)


def _next_time() -> float:
    return time.monotonic() + _ASK_AGAIN_S * random.uniform(0.5, 1.5)


def _turn() -> asyncio.Semaphore:
    """Return what lets a few ask at once, on the loop that runs now."""
    return _turns.setdefault(asyncio.get_running_loop(), asyncio.Semaphore(_ASK_AT_ONCE))


def _leave(visit_id: int, person_id: int, queue: "asyncio.Queue[str]") -> None:
    _pages[visit_id].discard(queue)
    if not _pages[visit_id]:
        del _pages[visit_id]
    _listening[person_id] -= 1
    if not _listening[person_id]:
        del _listening[person_id]


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
