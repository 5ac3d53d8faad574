"""How much is taken in: counted before it is kept, by what is sent where, and by whom."""

import asyncio
import json

import pytest

from havrin_server.body_limits import MB, STRANGERS_BYTES, USUAL_BYTES, BodyLimits, most_bytes

KNOWN = [(b"cookie", b"sessionid=x")]


def sent_through(chunks, *, path="/api/visits/1/lines", headers=(), announced=None):
    """Send a body in chunks; return (status, problem, bytes that the application saw)."""
    seen, answers = [], []

    async def application(scope, receive, send):
        while (message := await receive()).get("more_body"):
            seen.append(len(message["body"]))
        seen.append(len(message["body"]))
        await send({"type": "http.response.start", "status": 200, "headers": []})
        await send({"type": "http.response.body", "body": b"{}"})

    waiting = [
        {"type": "http.request", "body": chunk, "more_body": n < len(chunks) - 1} for n, chunk in enumerate(chunks)
    ]

    async def receive():
        return waiting.pop(0)

    async def send(message):
        answers.append(message)

    length = [(b"content-length", str(announced).encode())] if announced is not None else []
    scope = {"type": "http", "path": path, "headers": [*headers, *length]}
    asyncio.run(BodyLimits(application)(scope, receive, send))
    return answers[0]["status"], json.loads(answers[1]["body"]), sum(seen)


def test_what_fits_goes_through_whole():
    assert sent_through([b"a" * 1000] * 5, headers=KNOWN) == (200, {}, 5000)


def test_what_is_announced_too_large_is_refused_before_a_byte_is_read():
    status, problem, seen = sent_through([b"a"], headers=KNOWN, announced=USUAL_BYTES + 1)
    assert (status, problem["code"], seen) == (413, "body_large", 0)
    assert "2 MB" in problem["title"]


def test_what_was_not_announced_is_stopped_where_it_becomes_too_large():
    status, problem, seen = sent_through([b"a" * MB] * 40, headers=KNOWN)
    assert (status, problem["code"]) == (413, "body_large")
    assert seen <= USUAL_BYTES


def test_a_length_that_lies_is_counted_all_the_same():
    status, _, seen = sent_through([b"a" * MB] * 40, headers=KNOWN, announced=10)
    assert status == 413
    assert seen <= USUAL_BYTES


def test_a_stranger_sends_a_name_and_a_password_and_no_more():
    assert sent_through([b"a" * STRANGERS_BYTES])[0] == 200
    status, problem, _ = sent_through([b"a" * (STRANGERS_BYTES + 1)], path="/api/visits/1/logs")
    assert (status, problem["code"]) == (413, "body_large")
    assert "64 kB" in problem["title"]


@pytest.mark.parametrize(
    ("path", "most"),
    [
        ("/api/visits/7/photos", 21 * MB),
        ("/api/visits/7/bundle", 8 * MB),
        ("/api/visits/7/captures/csv", 61 * MB),
        ("/api/visits/7/logs", 201 * MB),
        ("/api/visits/7/logs/x", USUAL_BYTES),
        ("/api/capture/batches", USUAL_BYTES),
        ("/visits/7/logs", USUAL_BYTES),
    ],
)
def test_files_are_larger_than_words(path, most):
    assert most_bytes(path, known=True) == most
    assert most_bytes(path, known=False) == STRANGERS_BYTES


def test_what_is_no_request_is_left_alone():
    heard = []

    async def application(scope, receive, send):
        heard.append(scope["type"])

    asyncio.run(BodyLimits(application)({"type": "lifespan"}, None, None))
    assert heard == ["lifespan"]
