"""``./havrin start``: everything up, address printed, everything down again on Ctrl-C."""

import contextlib
import ctypes
import fcntl
import json
import os
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from types import FrameType

from launcher import debian, environment
from launcher.cluster import Cluster, free_port
from launcher.ground import PYTHON, ROOT, STATE, Refusal, run, say

USUAL_PORT = 8640
_PR_SET_PDEATHSIG = 1


class _Stop(Exception):
    """Ctrl-C or a request to end."""


def start(*, fresh: bool = False, port: int | None = None) -> None:
    """Set up what is missing, serve until stopped. Raises Refusal with one clear line."""
    with _only_one():
        for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(number, _stop)
        with contextlib.suppress(_Stop):
            set_up()
            with Cluster("db").running() as cluster:
                _serve(cluster, fresh, port)
        say("Stopped.")


def set_up() -> None:
    """Install and build what serving needs."""
    debian.ensure(debian.SERVE)
    debian.need_node()
    environment.ensure_python("serve")
    environment.ensure_page()


def _stop(signum: int, frame: FrameType | None) -> None:
    raise _Stop


@contextlib.contextmanager
def _only_one() -> Iterator[None]:
    STATE.mkdir(parents=True, exist_ok=True)
    with (STATE / "start.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)  # freed by the system when a start is killed
        except OSError:
            lock.seek(0)
            raise Refusal(
                f"Havrin is already running from this folder: {lock.read().strip() or 'still starting'}"
            ) from None
        lock.truncate(0)
        yield


def _serve(cluster: Cluster, fresh: bool, port: int | None) -> None:
    env = environment.python_env(**cluster.environment(), HAVRIN_STATE=str(STATE))
    if fresh:
        say("Rebuilding the sample world …")
    run([PYTHON, "-m", "django", "prepare", *(["--fresh"] if fresh else [])], "Preparing the database", env=env)
    number = _port(port)
    address = f"http://127.0.0.1:{number}"
    helpers: list[subprocess.Popen[bytes]] = []
    process = subprocess.Popen(
        server_command(number), env=env, cwd=ROOT, start_new_session=True, preexec_fn=_die_with_parent
    )
    try:
        _await(process, address)
        (STATE / "start.lock").write_text(address)
        helpers += _instruments(address, env)
        say(
            f"\nHavrin serves {address}\nSign in as tove (technician), wenna (supervisor) or odo (office); password: valley-heat\nCtrl-C stops it."
        )
        if process.wait() != 0:
            raise Refusal(f"The server ended by itself (exit {process.returncode}); its words are above.")
    finally:
        for each in (*helpers, process):
            _end(each)


def server_command(port: int, python: str = str(PYTHON)) -> list[str]:
    """Return the command that serves on ``port``; open pages listen for ever, so it does not wait for them to go."""
    return [
        python,
        "-m",
        "uvicorn",
        "havrin_server.asgi:application",
        "--host",
        "127.0.0.1",
        "--port",
        str(port),
        "--log-level",
        "warning",
        "--timeout-graceful-shutdown",
        "3",
    ]


def _instruments(address: str, env: dict[str, str]) -> list[subprocess.Popen[bytes]]:
    """Bring up one stand-in of each kind for the sample world; they record once a visit asks them to."""
    file = STATE / "instruments.json"
    if not file.exists():
        return []
    first = {row["kind"]: row["key"] for row in reversed(json.loads(file.read_text()))}
    command = [str(PYTHON), "-m", "instruments"]
    options = ["--url", address, "--epoch", str(time.time()), "--units", str(ROOT / "demo" / "live_units.json")]
    return [
        subprocess.Popen(
            [*command, kind, f"--key={key}", *options],
            env=env,
            cwd=ROOT,
            start_new_session=True,
            preexec_fn=_die_with_parent,
        )
        for kind, key in first.items()
    ]


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def _port(wanted: int | None) -> int:
    number = wanted or int(os.environ.get("HAVRIN_PORT", USUAL_PORT))
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", number))
            return number
        except OSError:
            if wanted:
                raise Refusal(f"Port {number} is taken by another program: pick another with --port.") from None
    other = free_port()
    say(f"Port {number} is taken by another program; serving on {other} instead.")
    return other


def _await(process: subprocess.Popen[bytes], address: str) -> None:
    deadline = time.monotonic() + 30
    while time.monotonic() < deadline:
        if process.poll() is not None:
            raise Refusal("The server did not start; its words are above.")
        try:
            urllib.request.urlopen(f"{address}/api/health", timeout=2).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise Refusal("The server did not answer within 30 s.")


def _end(process: subprocess.Popen[bytes]) -> None:
    if process.poll() is None:
        process.terminate()
        try:
            process.wait(timeout=8)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()
