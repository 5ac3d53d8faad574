"""A real installation: one folder with its settings, and what the program keeps in it."""

import contextlib
import os
import subprocess
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Protocol

from launcher import environment
from launcher.cluster import APPLICATION, Cluster
from launcher.ground import PYTHON, ROOT, Refusal
from launcher.settings_file import NAME, Settings, read_settings
from launcher.watch import Watched

_SECRET_FILE, _SECRET_FOLDER = 0o600, 0o700


class Store(Protocol):
    """Where the data are: a cluster of ours, or a database elsewhere."""

    def environment(self) -> dict[str, str]:
        """Return the variables of the owner."""

    def application(self) -> dict[str, str]:
        """Return the variables of the serving processes."""

    def borrowed(self) -> contextlib.AbstractContextManager[object]:
        """Have it run for a while, beside whatever uses it."""

    def running(self) -> contextlib.AbstractContextManager[object]:
        """Have it run."""


def _secret(file: Path) -> str:
    try:
        return file.read_text(encoding="utf-8").strip()
    except OSError as error:
        raise Refusal(f"The file {file.name} of a password or key cannot be read: {error.strerror}.") from None


class Elsewhere:
    """A PostgreSQL that somebody else keeps."""

    def __init__(self, home: Path, settings: Settings) -> None:
        self.home, self.database = home, settings.database

    def environment(self) -> dict[str, str]:
        """Return the variables of the owner."""
        return self._variables(self.database.owner, self.database.owner_password_file) | {
            "HAVRIN_APP_PASSWORD": _secret(self.home / self.database.application_password_file)
        }

    def application(self) -> dict[str, str]:
        """Return the variables of the serving processes."""
        return self._variables(APPLICATION, self.database.application_password_file) | {"HAVRIN_APP_PASSWORD": ""}

    def _variables(self, user: str, password_file: str) -> dict[str, str]:
        return {
            "HAVRIN_DB_HOST": self.database.host,
            "HAVRIN_DB_PORT": str(self.database.port),
            "HAVRIN_DB_REPLICA_HOST": self.database.replica_host,
            "HAVRIN_DB_REPLICA_PORT": str(self.database.replica_port),
            "HAVRIN_DB_NAME": self.database.name,
            "HAVRIN_DB_USER": user,
            "HAVRIN_DB_PASSWORD": _secret(self.home / password_file),
        }

    @contextlib.contextmanager
    def running(self) -> Iterator["Elsewhere"]:
        """Nothing is started: it runs without us."""
        yield self

    borrowed = running


class Installation:
    """The installation in ``home``."""

    def __init__(self, home: Path) -> None:
        self.home = home.resolve()
        self.settings = read_settings(self.home / NAME)
        self.state = self.home / "state"
        self.state.mkdir(mode=_SECRET_FOLDER, exist_ok=True)
        self.store: Store = (
            Elsewhere(self.home, self.settings) if self.settings.database.host else Cluster("db", state=self.state)
        )

    @property
    def counts(self) -> Path:
        """Where the serving processes count together what they answer."""
        return self.state / "counts"

    @property
    def watched(self) -> list[Watched]:
        """What is kept up beside the serving processes."""
        return [self.store] if isinstance(self.store, Cluster) else []

    @property
    def is_encrypted(self) -> bool:
        """Tell whether browsers reach it under TLS."""
        return self.settings.serve.behind_proxy or bool(self.settings.serve.tls_key)

    def variables(self, of_database: dict[str, str]) -> dict[str, str]:
        """Return the environment of a process of this installation."""
        sessions = self.settings.sessions
        return environment.python_env(
            **of_database,
            HAVRIN_STATE=str(self.state),
            HAVRIN_HOSTS=",".join(self.settings.serve.names),
            HAVRIN_HTTPS="1" if self.is_encrypted else "0",
            HAVRIN_IDLE_DAYS=str(sessions.idle_days),
            HAVRIN_LONGEST_DAYS=str(sessions.longest_days),
            HAVRIN_JSON_LOG="1",
            PROMETHEUS_MULTIPROC_DIR=str(self.counts),
            **self._bucket(),
        )

    def _bucket(self) -> dict[str, str]:
        files = self.settings.files
        if not files.bucket:
            return {}
        return {
            "HAVRIN_FILES_BUCKET": files.bucket,
            "HAVRIN_FILES_ENDPOINT": files.endpoint,
            "HAVRIN_FILES_REGION": files.region,
            "HAVRIN_FILES_KEY": _secret(self.home / files.access_key_file),
            "HAVRIN_FILES_SECRET": _secret(self.home / files.secret_key_file),
        }

    def ask(self, *command: str, given: str | None = None) -> str:
        """Run a command of the server as the owner of the database; return what it says. Raises Refusal with its last words."""
        done = subprocess.run(
            [str(PYTHON), "-m", "django", *command],
            env=self.variables(self.store.environment()),
            cwd=ROOT,
            input=given,
            capture_output=True,
            text=True,
        )
        if done.returncode:
            said = (done.stderr + done.stdout).strip().splitlines() or ["it said nothing"]
            raise Refusal(said[-1].removeprefix("CommandError: "))
        return done.stdout


def must_not_be_root(as_root: bool) -> None:
    """Raise Refusal for root: what serves strangers has no business with the machine's own rights."""
    if os.geteuid() == 0 and not as_root:
        raise Refusal(
            "Havrin does not serve as root: run it as an ordinary user (docs/deployment.md). "
            "Where there is no other user, in a container, say --as-root."
        )


def keep_secret(folder: Path) -> Sequence[Path]:
    """Return what in ``folder`` others than its owner may look into."""
    return [path for path in (folder, *folder.rglob("*")) if not path.is_symlink() and path.stat().st_mode & 0o077]
