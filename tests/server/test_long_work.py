"""Long work: queued, done by a process of its own, seen as it goes on, stopped, and begun anew after a kill."""

import io
import json
import os
import signal
import subprocess
import sys
import time
import uuid
from datetime import timedelta

import pytest
from django.core.management import call_command
from django.utils.timezone import now

from havrin_server.errors import NotFound, NotWritable, TooMany
from havrin_server.people.models import Person
from havrin_server.work import doing
from havrin_server.work.models import LongWork, State
from havrin_server.work.services import MOST_AT_ONCE, ask_for, find_work, stop
from launcher.ground import ROOT
from tests.sample import clone, connected
from tests.served import as_application


@pytest.fixture
def counting(world, monkeypatch):
    """Work that counts; beside the test's own transaction nothing is seen, so that it tells in it."""
    monkeypatch.setattr(doing, "_BESIDE", "default")
    monkeypatch.setattr(doing, "SAYS_EVERY_S", 0.0)
    seen = []

    def count(work, progress):
        progress.of(work.given["to"])
        for number in range(work.given["to"]):
            seen.append(number)
            progress.step()
            if number == work.given.get("refuses_at"):
                raise NotWritable("No more of that.")
            if number == work.given.get("breaks_at"):
                raise RuntimeError("a fault")
        return {"counted": len(seen)}

    monkeypatch.setitem(doing._DOES, "count", count)
    return seen


@pytest.fixture
def asked(counting):
    def ask(person="tove", **given):
        work_id = uuid.uuid4()
        actor = Person.objects.get(username=person)
        return ask_for("count", {"to": 5, **given}, work_id=work_id, actor=actor, now=now()).pk

    return ask


def test_it_is_done_with_its_result(asked, tove):
    pk = asked()
    assert tove.get(f"work/{pk}").json()["state"] == "waiting"
    doing.do(pk)
    said = tove.get(f"work/{pk}").json()
    assert (said["state"], said["done"], said["steps"], said["said"]) == ("done", 5, 5, "")
    assert LongWork.objects.get(pk=pk).result == {"counted": 5}


def test_done_twice_it_is_done_once(asked, counting):
    pk = asked()
    doing.do(pk)
    doing.do(pk)
    assert len(counting) == 5


def test_stopped_before_it_begins_it_does_nothing(asked, counting, tove):
    pk = asked()
    assert tove.post(f"work/{pk}/stop").json()["stop_asked"]
    doing.do(pk)
    assert LongWork.objects.get(pk=pk).state == State.STOPPED
    assert counting == []


def test_stopped_on_the_way_it_goes_no_further(asked, counting, monkeypatch):
    pk = asked()
    counted = doing.Progress.step

    def step(progress, many=1):
        if progress.done == 2:
            LongWork.objects.filter(pk=pk).update(stop_asked=True)
        counted(progress, many)

    monkeypatch.setattr(doing.Progress, "step", step)
    # what was written meanwhile is undone with its transaction, and the asking with it: it is asked beside, as in life
    with pytest.raises(doing.Stopped):
        doing._DOES["count"](LongWork.objects.get(pk=pk), doing.Progress(pk))
    assert counting == [0, 1, 2]


def test_a_refusal_says_why_and_a_fault_says_no_more_than_that(asked, caplog):
    refused, broken = asked(refuses_at=1), asked(breaks_at=1)
    doing.do(refused)
    doing.do(broken)
    assert LongWork.objects.get(pk=refused).said == "No more of that."
    assert "a fault" not in LongWork.objects.get(pk=broken).said
    assert {LongWork.objects.get(pk=pk).state for pk in (refused, broken)} == {State.FAILED}


def test_nobody_looks_at_or_stops_anothers_work(asked):
    pk, wenna = asked(), Person.objects.get(username="wenna")
    for call in (find_work, stop):
        with pytest.raises(NotFound):
            call(pk, wenna)


def test_asked_twice_it_is_one_and_too_many_at_once_are_refused(asked):
    tove = Person.objects.get(username="tove")
    pk = asked()
    assert ask_for("count", {"to": 1}, work_id=pk, actor=tove, now=now()).pk == pk
    for _ in range(MOST_AT_ONCE - 1):
        asked()
    with pytest.raises(TooMany):
        asked()


def test_an_operator_is_told_of_work_that_nobody_takes(asked):
    pk = asked()
    assert _of_the_queue() == "ok"
    LongWork.objects.filter(pk=pk).update(asked_at=now() - timedelta(hours=2))
    assert _of_the_queue() == "bad"


def _of_the_queue():
    said = io.StringIO()
    call_command("look_over", stdout=said)
    return next(state for state, text in json.loads(said.getvalue()) if text.startswith("queue"))


QUEUE = "django", "do_work"
ASK = """
import django, sys, uuid; django.setup()
from django.utils.timezone import now
from havrin_server.people.models import Person
from havrin_server.work.services import ask_for
ask_for("wait_a_while", {}, work_id=uuid.UUID(sys.argv[1]), actor=Person.objects.get(username="tove"), now=now())
"""


def _state(database, pk):
    with connected(database) as connection:
        return connection.execute("SELECT state FROM work_longwork WHERE id = %s", [pk]).fetchone()[0]


def _until(database, pk, wanted):
    until = time.monotonic() + 120
    while (state := _state(database, pk)) not in wanted and time.monotonic() < until:
        time.sleep(0.2)
    return state


def test_the_queue_does_it_in_a_process_of_its_own_as_the_serving_role():
    pk = str(uuid.uuid4())
    with clone("queue") as made:
        env = {**os.environ, **as_application(), **made}
        subprocess.run([sys.executable, "-c", ASK, pk], env=env, cwd=ROOT, check=True)
        queue = subprocess.Popen([sys.executable, "-m", *QUEUE], env=env, cwd=ROOT)
        try:
            # Nothing does such work: it is taken, fails, and says so.
            assert _until(made["HAVRIN_DB_NAME"], pk, {"failed"}) == "failed"
        finally:
            queue.send_signal(signal.SIGTERM)
            assert queue.wait(60) == 0
