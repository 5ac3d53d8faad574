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
from launcher.watch import Process, keep_up

USUAL_PORT = 8640
WORKERS = max(1, min(4, len(os.sched_getaffinity(0))))  # processes that serve, where the machine has the cores
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


def verify(what: str) -> int:
    """Say whether a bundle's file, or a visit of this installation, proves itself; return 0 where it does."""
    environment.ensure_python("serve")
    command = [str(PYTHON), "-m", "django", "verify", what]
    if not what.isdigit():
        return subprocess.call(command, env=environment.python_env(HAVRIN_STATE=str(STATE)))
    with Cluster("db").borrowed() as cluster:
        return subprocess.call(command, env=environment.python_env(**cluster.environment(), HAVRIN_STATE=str(STATE)))


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
    env |= cluster.application()
    number = _port(port)
    address = f"http://127.0.0.1:{number}"
    servers = [_server(turn + 1, number, env) for turn in range(WORKERS)]
    helpers: list[Process] = []
    try:
        for server in servers:
            server.start()
        _await(servers, address)
        (STATE / "start.lock").write_text(address)
        helpers += _instruments(address, env)
        for helper in helpers:
            helper.start()
        say(
            f"\nHavrin serves {address}\nSign in as tove (technician), wenna (supervisor), odo (office) or runa (administrator); password: valley-heat\nCtrl-C stops it."
        )
        keep_up([cluster, *servers, *helpers])
    finally:
        for each in (*helpers, *servers):
            each.end()


def server_command(port: int, python: str = str(PYTHON)) -> list[str]:
    """Return the command of one process that serves on ``port``."""
    return [python, "-m", "havrin_server.serving", "--port", str(port)]


def _server(turn: int, port: int, env: dict[str, str]) -> Process:
    return _ours(f"Server {turn}", server_command(port), env)


def _ours(name: str, command: list[str], env: dict[str, str]) -> Process:
    """Return a process that ends with the launcher, and is in a session of its own: Ctrl-C is the launcher's to answer."""
    return Process(
        name,
        lambda: subprocess.Popen(command, env=env, cwd=ROOT, start_new_session=True, preexec_fn=_die_with_parent),
    )


def _instruments(address: str, env: dict[str, str]) -> list[Process]:
    """Return one stand-in of each kind for the sample world; they record once a visit asks them to."""
    file = STATE / "instruments.json"
    if not file.exists():
        return []
    first = {row["kind"]: row["key"] for row in reversed(json.loads(file.read_text()))}
    command = [str(PYTHON), "-m", "instruments"]
    options = ["--url", address, "--epoch", str(time.time()), "--units", str(ROOT / "demo" / "live_units.json")]
    return [
        _ours(f"The stand-in {kind}", [*command, kind, *options], {**env, "HAVRIN_DEVICE_KEY": key})
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


def _await(servers: list[Process], address: str) -> None:
    deadline = time.monotonic() + 60
    while time.monotonic() < deadline:
        if not any(server.is_up() for server in servers):
            raise Refusal("The server did not start; its words are above.")
        try:
            urllib.request.urlopen(f"{address}/api/health/ready", timeout=2).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise Refusal("The server did not answer within 60 s.")
