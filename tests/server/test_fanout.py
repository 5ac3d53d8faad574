"""From a notice to the pages of this process: only those of the visit, a beat in quiet, lost ones said."""

import asyncio
import json
from concurrent.futures import ThreadPoolExecutor

import pytest

from havrin_server.captures import fanout
from havrin_server.errors import TooMany


async def no_listener():
    await asyncio.sleep(3600)


def run(work):
    """Run ``work`` on a loop of its own, with a listener that brings nothing by itself."""

    async def whole():
        fanout._listener = asyncio.get_running_loop().create_task(no_listener())
        try:
            return await work()
        finally:
            fanout._listener.cancel()
            fanout._listener = None
            fanout._pages.clear()
            fanout._listening.clear()

    # In a thread of its own: the browser's tests leave a loop running in this one.
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(lambda: asyncio.run(whole())).result()


async def always():
    return True


def listening(visit, person=1, may_read=always):
    return fanout.stream(visit, person, may_read)


def notice(visit, **more):
    return json.dumps({"visit": visit, "capture": "c", **more})


def test_a_notice_goes_to_the_pages_of_its_visit():
    async def work():
        one, other = listening(7), listening(8)
        assert b"listening" in await anext(one)
        assert b"listening" in await anext(other)
        fanout._spread(notice(7, sequence=3))
        fanout._spread(notice(8, sequence=4))
        return await anext(one), await anext(other)

    first, second = run(work)
    assert json.loads(first.removeprefix(b"data: "))["sequence"] == 3
    assert json.loads(second.removeprefix(b"data: "))["sequence"] == 4


def test_quiet_is_broken_by_a_beat(monkeypatch):
    monkeypatch.setattr(fanout, "_BEAT_S", 0.01)

    async def work():
        page = listening(7)
        await anext(page)
        return await anext(page)

    assert run(work) == b": beat\n\n"


def test_a_page_that_sleeps_too_long_is_told_to_fetch_the_trace():
    async def work():
        page = listening(7)
        await anext(page)
        for number in range(fanout._QUEUE_MOST + 5):
            fanout._spread(notice(7, sequence=number))
        told = [await anext(page) for _ in range(5)]
        return [json.loads(text.removeprefix(b"data: ")) for text in told]

    told = run(work)
    assert told[0] == {"lost": True}
    assert [row["sequence"] for row in told[1:]] == [fanout._QUEUE_MOST + n for n in range(1, 5)]


def test_a_page_that_goes_away_is_forgotten():
    async def work():
        page = listening(7)
        await anext(page)
        assert len(fanout._pages[7]) == 1
        assert fanout._listening[1] == 1
        await page.aclose()
        return dict(fanout._pages), dict(fanout._listening)

    assert run(work) == ({}, {})


def test_a_page_whose_session_ended_hears_no_more(monkeypatch):
    monkeypatch.setattr(fanout, "_ASK_AGAIN_S", 0.0)
    answers = iter((True, False))

    async def may_read():
        return next(answers)

    async def work():
        page = listening(7, may_read=may_read)
        await anext(page)
        for number in range(5):
            fanout._spread(notice(7, sequence=number))
        return [json.loads(text.removeprefix(b"data: "))["sequence"] async for text in page]

    assert run(work) == [0, 1]


def test_one_person_listens_to_so_much_and_no_more(monkeypatch):
    monkeypatch.setattr(fanout, "MOST_OF_ONE", 2)

    async def work():
        pages = [listening(7), listening(8)]
        for page in pages:
            await anext(page)
        fanout.must_have_room(2)
        with pytest.raises(TooMany) as refused:
            fanout.must_have_room(1)
        await pages[0].aclose()
        fanout.must_have_room(1)
        return refused.value.code

    assert run(work) == "streams_of_one"


def test_everybody_together_listens_to_so_much_and_no_more(monkeypatch):
    monkeypatch.setattr(fanout, "MOST_OF_ALL", 1)

    async def work():
        page = listening(7)
        await anext(page)
        with pytest.raises(TooMany) as refused:
            fanout.must_have_room(2)
        return refused.value.code

    assert run(work) == "streams_of_all"


def test_when_the_line_to_the_database_breaks_every_page_is_told():
    async def work():
        one, other = listening(7), listening(8)
        for page in (one, other):
            await anext(page)
        fanout._to_all(fanout.LOST)
        return await anext(one), await anext(other)

    assert all(json.loads(text.removeprefix(b"data: ")) == {"lost": True} for text in run(work))
