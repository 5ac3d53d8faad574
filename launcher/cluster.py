"""Havrin's own PostgreSQL cluster: made once, started, stopped; nobody else's is touched."""

import contextlib
import hashlib
import os
import secrets
import shutil
import signal
import socket
import subprocess
import time
from collections.abc import Iterator, Sequence
from pathlib import Path

from launcher.ground import ROOT, STATE, Refusal, run, say

_SETTINGS = ("listen_addresses=127.0.0.1", "unix_socket_directories=", "timezone=UTC", "log_timezone=UTC")
_FAST = ("fsync=off", "synchronous_commit=off", "full_page_writes=off")
DATABASE, ROLE, APPLICATION = "havrin", "havrin", "havrin_app"


class Cluster:
    """One cluster in one folder. ``throwaway`` trades safety for speed: for tests alone."""

    name = "The database"

    def __init__(self, name: str, *, state: Path = STATE, throwaway: bool = False) -> None:
        self.folder = _folder(state, name)
        self.data = self.folder / "data"
        self.throwaway = throwaway
        self.port = 0
        self._process: subprocess.Popen[bytes] | None = None

    def environment(self) -> dict[str, str]:
        """Return the variables of the database's owner: who makes and changes its tables."""
        return {
            "HAVRIN_DB_PORT": str(self.port),
            "HAVRIN_DB_NAME": DATABASE,
            "HAVRIN_DB_USER": ROLE,
            "HAVRIN_DB_PASSWORD": (self.folder / "password").read_text().strip(),
            "HAVRIN_APP_PASSWORD": self._app_password(),
        }

    def application(self) -> dict[str, str]:
        """Return the variables that the serving processes get: a role that changes no table and no evidence."""
        env = {**self.environment(), "HAVRIN_DB_USER": APPLICATION, "HAVRIN_DB_PASSWORD": self._app_password()}
        return env | {"HAVRIN_APP_PASSWORD": ""}

    def _app_password(self) -> str:
        file = self.folder / "app-password"
        if not file.exists():
            file.touch(mode=0o600)
            file.write_text(secrets.token_urlsafe(24))
        return file.read_text().strip()

    @contextlib.contextmanager
    def running(self) -> Iterator["Cluster"]:
        """Start the cluster, and stop it at the end whatever happens."""
        self._ensure_made()
        self.start()
        try:
            yield self
        finally:
            self.stop()

    @contextlib.contextmanager
    def borrowed(self) -> Iterator["Cluster"]:
        """Use the cluster beside a server that may run on it: it is stopped at the end only when it was started here."""
        if not (self.folder / ".ready").exists():
            raise Refusal("There is no database in this folder yet.")
        was_up = self.is_up()
        self.start()
        try:
            yield self
        finally:
            if not was_up:
                self.stop()

    def _ensure_made(self) -> None:
        if (self.folder / ".ready").exists():
            return
        if self.data.exists():
            say("A half-made database folder is made anew (it never held data).")
            shutil.rmtree(self.data)
        self.folder.mkdir(parents=True, exist_ok=True)
        if _is_root():
            self.folder.parent.chmod(0o711)  # PostgreSQL's own user passes through, whatever the umask
        give_to_postgres(self.folder)
        password = self.folder / "password"
        password.write_text(secrets.token_urlsafe(24))
        password.chmod(0o600)
        give_to_postgres(password)
        command = [
            binary("initdb"),
            "-D",
            self.data,
            "-U",
            ROLE,
            f"--pwfile={password}",
            "-A",
            "scram-sha-256",
            "-E",
            "UTF8",
            "--locale=C.UTF-8",
            "--data-checksums",
        ]
        run(as_postgres(command), "Making the database cluster", cwd="/")
        self.start()
        try:
            env = {**os.environ, "PGPASSWORD": password.read_text()}
            command = [binary("createdb"), "-h", "127.0.0.1", "-p", str(self.port), "-U", ROLE, DATABASE]
            run(command, "Creating the database", env=env)
        finally:
            self.stop()
        (self.folder / ".ready").write_text("made whole\n")

    def is_up(self) -> bool:
        """Tell whether its server runs."""
        return self._own_pid() > 0

    def start(self) -> None:
        """Start its server: on the port that it had before, where it was started before. Raises Refusal."""
        running = self._own_pid()
        if running:  # left over from a start that was killed: taken over, and stopped at the end
            self.port = int((self.data / "postmaster.pid").read_text().splitlines()[3])
            return
        self._end_orphans()
        (self.data / "postmaster.pid").unlink(missing_ok=True)
        if self._process is not None:
            self._process.wait(timeout=20)
        self.port = self.port or free_port()
        settings = [*_SETTINGS, f"port={self.port}", *(_FAST if self.throwaway else ())]
        command = [binary("postgres"), "-D", self.data, *[part for s in settings for part in ("-c", s)]]
        with (self.folder / "server.log").open("ab") as log:
            self._process = subprocess.Popen(
                as_postgres(command), stdout=log, stderr=log, start_new_session=True, cwd="/"
            )
        self._await(self._process)

    def _await(self, process: subprocess.Popen[bytes]) -> None:
        deadline = time.monotonic() + 30
        while time.monotonic() < deadline:
            if process.poll() is not None:
                tail = (self.folder / "server.log").read_text(errors="replace").strip().splitlines()[-3:]
                raise Refusal("The database did not start: " + " | ".join(tail))
            ready = [binary("pg_isready"), "-q", "-h", "127.0.0.1", "-p", str(self.port)]
            if subprocess.run([str(c) for c in ready]).returncode == 0:
                return
            time.sleep(0.05)
        raise Refusal(f"The database did not answer within 30 s; its log is {self.folder / 'server.log'}.")

    def _own_pid(self) -> int:
        """Return the pid of a live server of this very folder, else 0: a pid file alone proves nothing."""
        try:
            pid = int((self.data / "postmaster.pid").read_text().splitlines()[0])
            program, place = os.readlink(f"/proc/{pid}/exe"), os.readlink(f"/proc/{pid}/cwd")
        except (OSError, ValueError, IndexError):
            return 0
        return pid if Path(program).name == "postgres" and Path(place) == self.data.resolve() else 0

    def _end_orphans(self) -> None:
        """End sessions whose server was killed: a second server beside them would write into what they still write.

        The server's own file of its process number keeps that from happening; it is removed only when none is left.
        """
        deadline = time.monotonic() + 10
        while orphans := self._processes_here():
            if time.monotonic() > deadline:
                raise Refusal(f"{len(orphans)} of the database's processes cannot be ended: {orphans}.")
            for pid in orphans:
                with contextlib.suppress(ProcessLookupError):
                    os.kill(pid, signal.SIGKILL)
            time.sleep(0.05)

    def _processes_here(self) -> list[int]:
        """Return every process of a PostgreSQL that works in this very folder."""
        found = []
        for process in Path("/proc").glob("[0-9]*"):
            with contextlib.suppress(OSError):
                program, place = os.readlink(process / "exe"), os.readlink(process / "cwd")
                if Path(program).name == "postgres" and Path(place) == self.data.resolve():
                    found.append(int(process.name))
        return found

    def stop(self) -> None:
        """Stop its server, where one runs."""
        pid = self._own_pid()
        if pid:
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, signal.SIGINT)  # fast shutdown
        deadline = time.monotonic() + 20
        while self._own_pid() and time.monotonic() < deadline:
            time.sleep(0.05)
        if self._process is not None:
            self._process.wait(timeout=20)
            self._process = None
        self.port = 0


def free_port() -> int:
    """Return a loopback port that nobody listens on now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def _is_root() -> bool:
    return os.geteuid() == 0


def _folder(state: Path, name: str) -> Path:
    """Return the folder of a cluster: in the state, or where PostgreSQL's own user may go if root may not run it there."""
    if not _is_root() or _postgres_may_enter(state):
        return state / name
    return Path("/var/lib") / f"havrin-{_mark_of(state)}" / name


def _mark_of(state: Path) -> str:
    """Return the name under which the clusters of a state lie elsewhere: it goes along when the state is moved.

    A copy is another folder and gets another name: two of them on one cluster would write into one another's data.
    """
    file, inode = state / "elsewhere", str(state.stat().st_ino)
    if file.exists():
        mark, owner = file.read_text().split()
        if owner == inode:
            return mark
    mark = hashlib.sha256(f"{state.resolve()} {inode}".encode()).hexdigest()[:12]
    old = hashlib.sha256(str(state.resolve()).encode()).hexdigest()[:12]  # as it was named before there was the file
    mark = old if (Path("/var/lib") / f"havrin-{old}").exists() else mark
    file.write_text(f"{mark} {inode}")
    return mark


def _postgres_may_enter(folder: Path) -> bool:
    folder.mkdir(parents=True, exist_ok=True)
    return subprocess.run(["runuser", "-u", "postgres", "--", "test", "-x", str(folder)], cwd="/").returncode == 0


def as_postgres(command: Sequence[str | Path]) -> list[str]:
    """Return ``command`` as PostgreSQL's own user runs it: its programs refuse to be root."""
    prefix = ["runuser", "-u", "postgres", "--"] if _is_root() else []
    return [*prefix, *map(str, command)]


def give_to_postgres(path: Path) -> None:
    """Let PostgreSQL's own user own ``path``, where root would."""
    if _is_root():
        shutil.chown(path, "postgres", "postgres")


def binary(name: str) -> Path:
    """Return where one of PostgreSQL's own programs is. Raises Refusal."""
    found = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"), key=lambda p: int(p.parts[4].split(".")[0]))
    if found:
        return found[-1]
    on_path = shutil.which(name)
    if on_path:
        return Path(on_path)
    raise Refusal(f"PostgreSQL's {name} was not found under /usr/lib/postgresql or on the path (project at {ROOT}).")
