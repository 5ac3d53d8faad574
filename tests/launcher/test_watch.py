"""What was started is kept up: at once the first time, more slowly when it dies again and again, each for itself."""

import os
import signal
import subprocess
import sys
import time
from itertools import pairwise

import pytest

from launcher import watch
from launcher.cluster import Cluster
from launcher.ground import Refusal
from launcher.watch import FIRST_WAIT_S, LONGEST_WAIT_S, STEADY_S, Process, Turn, keep_up


class Fake:
    """Something that is up or down as the test says; ``refusals`` are starts that fail."""

    name = "It"

    def __init__(self, refusals=0):
        self.up, self.starts, self.refusals = True, 0, refusals

    def is_up(self):
        return self.up

    def start(self):
        self.starts += 1
        if self.refusals:
            self.refusals -= 1
            raise Refusal("not yet")
        self.up = True


def clock(monkeypatch, start=1000.0):
    now = {"s": start}
    monkeypatch.setattr(watch.time, "monotonic", lambda: now["s"])
    return now


def test_what_runs_is_left_alone(monkeypatch):
    now, it = clock(monkeypatch), Fake()
    turn = Turn(it)
    for _ in range(50):
        now["s"] += 1
        turn.look(now["s"])
    assert it.starts == 0


def test_what_died_is_started_again_after_a_moment(monkeypatch):
    now, it = clock(monkeypatch), Fake()
    turn = Turn(it)
    now["s"] += 2 * STEADY_S
    it.up = False
    turn.look(now["s"])
    assert it.starts == 0
    turn.look(now["s"] + FIRST_WAIT_S)
    assert it.starts == 1
    assert it.up


def test_what_dies_at_once_is_started_more_and_more_slowly(monkeypatch):
    now, it = clock(monkeypatch), Fake()
    turn, waits, died = Turn(it), [], 0.0
    while len(waits) < 12:
        if it.up:
            it.up, died, before = False, now["s"], it.starts
        now["s"] += 0.05
        turn.look(now["s"])
        if it.starts > before:
            waits.append(now["s"] - died)
    assert waits[0] == pytest.approx(FIRST_WAIT_S, abs=0.2)
    assert all(later >= earlier - 0.11 for earlier, later in pairwise(waits))
    assert waits[-1] == pytest.approx(LONGEST_WAIT_S, abs=0.2)


def test_what_ran_for_long_begins_with_the_short_wait_again(monkeypatch):
    now, it = clock(monkeypatch), Fake()
    turn = Turn(it, wait_s=LONGEST_WAIT_S)
    now["s"] += STEADY_S + 1
    it.up = False
    turn.look(now["s"])
    turn.look(now["s"] + FIRST_WAIT_S)
    assert it.starts == 1


def test_a_start_that_fails_is_tried_again(monkeypatch):
    now, it = clock(monkeypatch), Fake(refusals=3)
    turn = Turn(it)
    it.up = False
    for _ in range(2000):
        now["s"] += 0.05
        turn.look(now["s"])
    assert it.starts == 4
    assert it.up


def test_one_that_cannot_be_started_does_not_hold_up_the_others(monkeypatch):
    broken, other = Fake(refusals=1000), Fake()
    broken.up = other.up = False

    class Enough(Exception):
        pass

    rounds = []

    def sleep(seconds):
        rounds.append(seconds)
        if len(rounds) > 400:
            raise Enough

    now = clock(monkeypatch)
    monkeypatch.setattr(watch.time, "sleep", lambda s: (now.update(s=now["s"] + s), sleep(s))[1])
    with pytest.raises(Enough):
        keep_up([broken, other])
    assert other.starts == 1
    assert broken.starts > 3


def test_a_real_process_that_is_killed_comes_back():
    kept = Process("A sleeper", lambda: subprocess.Popen([sys.executable, "-c", "import time; time.sleep(600)"]))
    kept.start()
    turn, first = Turn(kept), kept.process.pid
    os.kill(first, signal.SIGKILL)
    until = time.monotonic() + 60
    while time.monotonic() < until and (not kept.is_up() or kept.process.pid == first):
        turn.look(time.monotonic())
        time.sleep(0.02)
    assert kept.is_up()
    kept.end()
    assert not kept.is_up()


def test_a_database_whose_server_was_killed_comes_back_on_its_port():
    cluster = Cluster("watch-test-db", throwaway=True)
    with cluster.running():
        turn, port, pid = Turn(cluster), cluster.port, cluster._own_pid()
        os.kill(pid, signal.SIGKILL)
        until = time.monotonic() + 120
        while time.monotonic() < until and cluster._own_pid() in (0, pid):
            turn.look(time.monotonic())
            time.sleep(0.05)
        assert cluster.is_up()
        assert cluster.port == port
        env = {**os.environ, "PGPASSWORD": cluster.environment()["HAVRIN_DB_PASSWORD"]}
        ask = ["psql", "-h", "127.0.0.1", "-p", str(port), "-U", "havrin", "havrin", "-tAc", "select 1"]
        assert subprocess.run(ask, env=env, capture_output=True, text=True).stdout.strip() == "1"
    assert cluster._processes_here() == []
