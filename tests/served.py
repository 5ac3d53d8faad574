"""The real server on a copy of the sample world, as ``./havrin start`` runs it."""

import os
import signal
import subprocess
import sys
import time
import urllib.request
from contextlib import contextmanager

from launcher.cluster import APPLICATION, free_port
from launcher.ground import ROOT
from launcher.serve import server_command
from tests.sample import clone, connected, move_today, place_today

# A busy machine is slow, not wrong: speeds belong to the bench.
START_S = 240.0


def as_application():
    """Return the environment of the serving role: what it may not do, the tests find out."""
    return {"HAVRIN_DB_USER": APPLICATION, "HAVRIN_DB_PASSWORD": os.environ["HAVRIN_APP_PASSWORD"]}


class Server:
    """Uvicorn as ``./havrin start`` runs it; can be killed and started again. ``more`` goes into its environment."""

    def __init__(self, more):
        self.more = more
        self.day = place_today()
        self.env = {**os.environ, **as_application(), **more}
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"

    def start(self):
        self.process = subprocess.Popen(server_command(self.port, python=sys.executable), env=self.env, cwd=ROOT)
        until = time.monotonic() + START_S
        while time.monotonic() < until and self.process.poll() is None:
            try:
                urllib.request.urlopen(f"{self.url}/api/health", timeout=10).close()
                return
            except OSError:
                time.sleep(0.1)
        self.kill()
        raise AssertionError(f"the server did not start: {self.process.returncode}")

    def follow_the_day(self):
        """Midnight may have passed since the world was copied."""
        today = place_today()
        if today != self.day:
            with connected(self.more["HAVRIN_DB_NAME"]) as connection:
                move_today(connection.execute, self.day, today)
            self.day = today

    def kill(self):
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


@contextmanager
def queue_beside(server):
    """Do long work beside ``server``, as ``./havrin start`` does."""
    queue = subprocess.Popen([sys.executable, "-m", "django", "do_work"], env=server.env, cwd=ROOT)
    try:
        yield
    finally:
        queue.terminate()
        queue.wait()


@contextmanager
def served(name):
    """Serve a copy of the prepared sample world; gone afterwards."""
    with clone(name) as world:
        server = Server(world)
        server.start()
        yield server
        server.kill()
