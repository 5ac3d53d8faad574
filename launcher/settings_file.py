"""havrin.toml: what an operator sets for a real installation. A word that nobody knows is refused, not left out."""

import tomllib
from dataclasses import dataclass, field, fields
from pathlib import Path
from typing import Any

from launcher.ground import Refusal

NAME = "havrin.toml"


@dataclass(frozen=True)
class Serve:
    """Where it listens, and how browsers ask for it."""

    host: str = "127.0.0.1"
    port: int = 8640
    names: tuple[str, ...] = ("127.0.0.1", "localhost")
    workers: int = 0
    behind_proxy: bool = False
    proxies: tuple[str, ...] = ("127.0.0.1",)
    tls_certificate: str = ""
    tls_key: str = ""


@dataclass(frozen=True)
class Database:
    """A PostgreSQL of one's own; without a host Havrin keeps a cluster itself."""

    host: str = ""
    port: int = 5432
    name: str = "havrin"
    owner: str = "havrin"
    owner_password_file: str = ""
    application_password_file: str = ""
    replica_host: str = ""
    replica_port: int = 5432


@dataclass(frozen=True)
class Sessions:
    """How long a sign-in lasts, days: without use, and at the longest."""

    idle_days: int = 7
    longest_days: int = 30


@dataclass(frozen=True)
class Backup:
    """Where backups are put, and how many are kept."""

    folder: str = "backups"
    keep: int = 14


@dataclass(frozen=True)
class Files:
    """A storage of the S3 kind for photos, plates and logs; without a bucket they lie in the installation's folder."""

    bucket: str = ""
    endpoint: str = ""
    region: str = ""
    access_key_file: str = ""
    secret_key_file: str = ""


@dataclass(frozen=True)
class Settings:
    """The whole file."""

    serve: Serve = field(default_factory=Serve)
    database: Database = field(default_factory=Database)
    sessions: Sessions = field(default_factory=Sessions)
    backup: Backup = field(default_factory=Backup)
    files: Files = field(default_factory=Files)


TEMPLATE = """\
# The settings of this installation. Everything has the value shown unless it is set; ./havrin check looks it through.

[serve]
# host = "127.0.0.1"          # "0.0.0.0" with TLS files below, to be asked from other machines
# port = 8640
# names = ["127.0.0.1", "localhost"]   # by which browsers ask for it, like "havrin.example"
# workers = 0                 # processes that serve; 0: one for each core, at most four
# behind_proxy = false        # true: a proxy in front keeps TLS and says who asks (docs/deployment.md)
# proxies = ["127.0.0.1"]     # whose word is taken for it
# tls_certificate = ""        # or TLS here: a certificate with its chain, and its key
# tls_key = ""

[database]                    # nothing set: Havrin keeps a PostgreSQL of its own in this folder
# host = ""
# port = 5432
# name = "havrin"
# owner = "havrin"            # owns the tables; may make roles
# owner_password_file = ""
# application_password_file = ""
# replica_host = ""           # a replica that follows it: overviews are read there
# replica_port = 5432

[sessions]
# idle_days = 7
# longest_days = 30

[backup]
# folder = "backups"          # relative to this file; another disk is better
# keep = 14

[files]                       # nothing set: photos, plates and logs lie in this folder
# bucket = ""                 # of a storage of the S3 kind
# endpoint = ""               # its address, like "https://files.example"
# region = ""
# access_key_file = ""
# secret_key_file = ""
"""


def read_settings(file: Path) -> Settings:
    """Return what the file sets. Raises Refusal with the place of what is wrong."""
    try:
        given = tomllib.loads(file.read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise Refusal(f"There is no {file}: ./havrin init makes an installation.") from None
    except (OSError, UnicodeDecodeError, tomllib.TOMLDecodeError) as error:
        raise Refusal(f"{file} cannot be read: {error}") from None
    sections: dict[str, Any] = {}
    kinds = {"serve": Serve, "database": Database, "sessions": Sessions, "backup": Backup, "files": Files}
    for name, rows in given.items():
        if name not in kinds or not isinstance(rows, dict):
            raise Refusal(f"{file}: [{name}] is no section; there are {', '.join(kinds)}.")
        sections[name] = _section(kinds[name], name, rows, file)
    settings = Settings(**sections)
    _check(settings, file)
    return settings


def _section(kind: type[Any], name: str, rows: dict[str, Any], file: Path) -> Any:
    known = {one.name: one for one in fields(kind)}
    taken = {}
    for key, value in rows.items():
        if key not in known:
            raise Refusal(f"{file}: {name}.{key} is no setting; there are {', '.join(known)}.")
        taken[key] = _value(f"{file}: {name}.{key}", known[key].default, value)
    return kind(**taken)


def _value(place: str, usual: Any, value: Any) -> Any:
    if isinstance(usual, tuple):
        if not isinstance(value, list) or not value or not all(isinstance(one, str) for one in value):
            raise Refusal(f'{place} is a list of texts, like ["localhost"].')
        return tuple(value)
    if type(value) is not type(usual):
        wanted = {bool: "true or false", int: "a whole number", str: "a text in quotes"}[type(usual)]
        raise Refusal(f"{place} is {wanted}, not {value!r}.")
    return value


def _check(settings: Settings, file: Path) -> None:
    serve, sessions = settings.serve, settings.sessions
    if not all(1 <= port <= 65535 for port in (serve.port, settings.database.port, settings.database.replica_port)):
        raise Refusal(f"{file}: a port lies from 1 to 65535.")
    if not 0 <= serve.workers <= 64:
        raise Refusal(f"{file}: serve.workers lies from 0 to 64.")
    if bool(serve.tls_certificate) != bool(serve.tls_key):
        raise Refusal(f"{file}: TLS takes both serve.tls_certificate and serve.tls_key.")
    if serve.tls_key and serve.behind_proxy:
        raise Refusal(f"{file}: TLS is kept here or by the proxy, not by both.")
    if not 1 <= sessions.idle_days <= sessions.longest_days <= 366:
        raise Refusal(f"{file}: 1 ≤ sessions.idle_days ≤ sessions.longest_days ≤ 366.")
    if settings.backup.keep < 1:
        raise Refusal(f"{file}: backup.keep is 1 or more.")
    files = settings.files
    if bool(files.bucket) != bool(files.access_key_file and files.secret_key_file):
        raise Refusal(
            f"{file}: a bucket takes files.access_key_file and files.secret_key_file, and they take a bucket."
        )
    if files.endpoint and not files.endpoint.startswith(("https://", "http://")):
        raise Refusal(f"{file}: files.endpoint is an address, like https://files.example.")
    database = settings.database
    if database.host and not (database.owner_password_file and database.application_password_file):
        raise Refusal(f"{file}: a database elsewhere takes owner_password_file and application_password_file.")
    if database.replica_host and not database.host:
        raise Refusal(f"{file}: a replica follows a database elsewhere: database.replica_host takes database.host.")
