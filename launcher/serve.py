"""``./havrin start``: everything up, address printed, everything down again on Ctrl-C."""

import contextlib
import ctypes
import fcntl
import json
import os
import signal
import socket
import ssl
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator, Sequence
from pathlib import Path
from types import FrameType

from launcher import debian, environment
from launcher.cluster import Cluster, free_port
from launcher.ground import PYTHON, ROOT, STATE, Refusal, run, say
from launcher.installation import Installation
from launcher.watch import Process, keep_up

USUAL_PORT = 8640
WORKERS = max(1, min(4, len(os.sched_getaffinity(0))))  # processes that serve, where the machine has the cores
_PR_SET_PDEATHSIG = 1


class _Stop(Exception):
    """Ctrl-C or a request to end."""


def start(*, fresh: bool = False, port: int | None = None) -> None:
    """Set up what is missing, serve until stopped. Raises Refusal with one clear line."""
    with only_one(STATE / "start.lock", "this folder"), stopped_by_signals():
        set_up()
        with Cluster("db").running() as cluster:
            _serve(cluster, fresh, port)


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
def stopped_by_signals() -> Iterator[None]:
    """Run what is inside until Ctrl-C or a request to end, which is no error."""
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, _stop)
    with contextlib.suppress(_Stop):
        yield
    say("Stopped.")


@contextlib.contextmanager
def only_one(file: Path, of: str) -> Iterator[None]:
    """Hold the lock of ``file``. Raises Refusal where another process of ``of`` has it."""
    file.parent.mkdir(parents=True, exist_ok=True)
    with file.open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)  # freed by the system when a start is killed
        except OSError:
            lock.seek(0)
            raise Refusal(f"Havrin is already running from {of}: {lock.read().strip() or 'still starting'}") from None
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
    servers = [_server(turn + 1, server_command(number), env) for turn in range(WORKERS)]
    helpers: list[Process] = [queue_process(env)]
    try:
        for server in servers:
            server.start()
        _await(servers, f"{address}/api/health/ready")
        (STATE / "start.lock").write_text(address)
        helpers += _instruments(address, env)
        for helper in helpers:
            helper.start()
        say(
            f"\nHavrin serves {address}\nSign in as tove (technician), wenna (supervisor), odo (office) or runa (administrator); password: valley-heat\nCtrl-C stops it."
        )
        keep_up([cluster, *servers, *helpers])
    finally:
        end_all([*helpers, *servers])


def serve_processes(made: Installation) -> list[Process]:
    """Start the serving processes of an installation; return them once they are ready. Raises Refusal."""
    wanted = made.settings.serve
    env = made.variables(made.store.application())
    command = server_command(wanted.port, "--host", wanted.host)
    if wanted.tls_key:
        command += ["--tls-certificate", wanted.tls_certificate, "--tls-key", wanted.tls_key]
    if wanted.behind_proxy:
        command += ["--proxies", ",".join(wanted.proxies)]
    servers = [_server(turn + 1, command, env) for turn in range(wanted.workers or WORKERS)]
    queue = queue_process(env)
    for process in (*servers, queue):
        process.start()
    scheme = "https" if wanted.tls_key else "http"
    asked = "127.0.0.1" if wanted.host in ("0.0.0.0", "::") else wanted.host
    try:
        _await(servers, f"{scheme}://{asked}:{wanted.port}/api/health/ready", wanted.names[0])
    except BaseException:
        end_all([queue, *servers])
        raise
    say(f"Havrin serves on {wanted.host}:{wanted.port}, {len(servers)} processes.")
    return [*servers, queue]


def end_all(processes: Sequence[Process]) -> None:
    """End what was started."""
    for each in processes:
        each.end()


def server_command(port: int, *more: str, python: str = str(PYTHON)) -> list[str]:
    """Return the command of one process that serves on ``port``."""
    return [python, "-m", "havrin_server.serving", "--port", str(port), *more]


def queue_process(env: dict[str, str]) -> Process:
    """Return the process that does the long work: imports, archives, dry runs."""
    return _ours("The queue", [str(PYTHON), "-m", "django", "do_work"], env)


def _server(turn: int, command: list[str], env: dict[str, str]) -> Process:
    return _ours(f"Server {turn}", command, env)


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


def _await(servers: list[Process], url: str, name: str = "") -> None:
    """Wait until one of ``servers`` says that it is ready, asked by the ``name`` that it goes by. Raises Refusal."""
    request = urllib.request.Request(url, headers={"Host": name} if name else {})
    ours = ssl._create_unverified_context()  # it is ourselves that are asked, by an address that no certificate names
    deadline = time.monotonic() + 60
    while time.monotonic() < deadline:
        if not any(server.is_up() for server in servers):
            raise Refusal("The server did not start; its words are above.")
        try:
            urllib.request.urlopen(request, timeout=2, context=ours).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise Refusal("The server did not answer within 60 s.")
