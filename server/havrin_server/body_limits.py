"""How much of a body is taken in: asked before a byte of it is kept, let alone read."""

import json
import re
from collections.abc import Awaitable, Callable, Mapping
from typing import Any

Scope = dict[str, Any]
Message = Mapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
Application = Callable[[Scope, Receive, Send], Awaitable[None]]

MB = 1024 * 1024
USUAL_BYTES = 2 * MB
STRANGERS_BYTES = 64 * 1024  # of somebody who shows neither a session nor a key: name and password
# What is sent as a file, by its path. A log is read a piece at a time, so that its size costs disk alone.
_FILES = (
    (re.compile(r"^/api/visits/\d+/photos$"), 21 * MB),
    (re.compile(r"^/api/visits/\d+/bundle$"), 8 * MB),
    (re.compile(r"^/api/check$"), 8 * MB),
    (re.compile(r"^/api/visits/\d+/captures/csv$"), 61 * MB),
    (re.compile(r"^/api/visits/\d+/logs$"), 201 * MB),
)


class BodyTooLarge(Exception):
    """More came than was announced, or more than is taken."""


class BodyLimits:
    """Around the application: answers 413 where a body is larger than its call takes."""

    def __init__(self, application: Application) -> None:
        self.application = application

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on with its body counted."""
        if scope["type"] != "http":
            await self.application(scope, receive, send)
            return
        headers = dict(scope["headers"])
        most = most_bytes(scope["path"], known=b"cookie" in headers or b"authorization" in headers)
        announced = headers.get(b"content-length", b"0")
        if announced.isdigit() and int(announced) > most:
            await _refuse(send, most)
            return
        answered = False

        async def sent(message: Message) -> None:
            nonlocal answered
            answered = True
            await send(message)

        try:
            await self.application(scope, _counted(receive, most), sent)
        except BodyTooLarge:
            if not answered:
                await _refuse(send, most)


def most_bytes(path: str, *, known: bool) -> int:
    """Return how many bytes the call at ``path`` takes; ``known``: the caller shows a session or a key."""
    if not known:
        return STRANGERS_BYTES
    return next((most for pattern, most in _FILES if pattern.match(path)), USUAL_BYTES)


def _counted(receive: Receive, most: int) -> Receive:
    """Return ``receive`` that stops a body without an announced length where it becomes too large."""
    so_far = 0

    async def counted() -> Message:
        nonlocal so_far
        message = await receive()
        so_far += len(message.get("body", b""))
        if so_far > most:
            raise BodyTooLarge
        return message

    return counted


async def _refuse(send: Send, most: int) -> None:
    size = f"{most // MB} MB" if most >= MB else f"{most // 1024} kB"
    title = f"This is larger than the {size} that are taken here."
    body = {"type": "/problems/body_large", "title": title, "status": 413, "code": "body_large", "details": []}
    headers = [(b"content-type", b"application/problem+json"), (b"connection", b"close")]
    await send({"type": "http.response.start", "status": 413, "headers": headers})
    await send({"type": "http.response.body", "body": json.dumps(body).encode()})
