"""A backup: one tar with the database, the files, the keys and the settings, as they were at one moment, and proof of it."""

import io
import json
import os
import shutil
import subprocess
import tarfile
import tempfile
from collections.abc import Iterator, Mapping
from contextlib import closing
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path, PurePosixPath
from typing import IO, Any

import psycopg
from django.conf import settings
from django.core.files.storage import default_storage

from havrin_core import __version__
from havrin_server.operations import stored

FORMAT = "havrin-backup/1"
DUMP, MANIFEST, MEDIA = "database.dump", "manifest.json", "media"
KEYS = ("signing-key", "secret-key")
_HEADS = "SELECT id, head FROM visits_visit WHERE version > 0 ORDER BY id"
_IN_MEMORY = 32 * 1024 * 1024


class BadArchive(Exception):
    """The archive is incomplete, or no archive."""


@dataclass(frozen=True, slots=True)
class Manifest:
    """What an archive says of itself: when it was made, the head of every visit's chain, the digest of every file."""

    made_at: str
    version: str
    heads: dict[str, str]
    files: dict[str, str]


def make(target: Path, pg_dump: str, settings_file: Path | None, now: datetime) -> Manifest:
    """Write an archive to ``target``, which appears whole or not at all; others may write meanwhile. Raises OSError, CalledProcessError.

    The files are read after the database: whatever a row of it names was on the disk before the row was.
    """
    half = target.with_name(f".{target.name}.half")
    digests: dict[str, str] = {}
    with os.fdopen(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
        with tarfile.open(fileobj=out, mode="w") as tar:
            dump = half.with_name(f".{target.name}.dump")
            try:
                heads = _dump(dump, pg_dump)
                _add(tar, dump, DUMP, digests)
            finally:
                dump.unlink(missing_ok=True)
            for file, name in _own_files(settings_file):
                _add(tar, file, name, digests)
            for name in stored.names():
                _add_stored(tar, name, digests)
            manifest = Manifest(now.isoformat(), __version__, heads, digests)
            _add_text(tar, MANIFEST, json.dumps({"format": FORMAT, **_as_dict(manifest)}, indent=1))
        out.flush()
        os.fsync(out.fileno())
    half.rename(target)
    return manifest


def _dump(file: Path, pg_dump: str) -> dict[str, str]:
    """Dump the database, and return the heads of the chains at the very same moment."""
    with closing(psycopg.connect(**_connection())) as connection:
        connection.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY")
        snapshot = connection.execute("SELECT pg_export_snapshot()").fetchone()
        assert snapshot is not None  # a function without a condition
        command = [pg_dump, "-Fc", "--no-owner", "--no-privileges", f"--snapshot={snapshot[0]}", "-f", str(file)]
        run_tool(command)
        return {str(number): head for number, head in connection.execute(_HEADS)}


def _own_files(settings_file: Path | None) -> Iterator[tuple[Path, str]]:
    if settings_file is not None:
        yield settings_file, settings_file.name
    for key in KEYS:
        if (settings.STATE / key).exists():
            yield settings.STATE / key, key


def _add(tar: tarfile.TarFile, file: Path, name: str, digests: dict[str, str]) -> None:
    with file.open("rb") as source:
        digests[name] = stored.digest(source)
        source.seek(0)
        info = tar.gettarinfo(arcname=name, fileobj=source)
        info.mode, info.uname, info.gname = 0o600, "", ""
        tar.addfile(info, source)


def _add_stored(tar: tarfile.TarFile, name: str, digests: dict[str, str]) -> None:
    try:
        with default_storage.open(name) as source, tempfile.SpooledTemporaryFile(max_size=_IN_MEMORY) as copy:
            shutil.copyfileobj(source, copy, stored.PIECE)
            info = tarfile.TarInfo(f"{MEDIA}/{name}")
            info.size, info.mode = copy.tell(), 0o600
            copy.seek(0)
            digests[info.name] = stored.digest(copy)
            copy.seek(0)
            tar.addfile(info, copy)
    except FileNotFoundError:
        return  # removed since the names were read: nothing names it any more


def _add_text(tar: tarfile.TarFile, name: str, text: str) -> None:
    content = text.encode()
    info = tarfile.TarInfo(name)
    info.size, info.mode = len(content), 0o600
    tar.addfile(info, io.BytesIO(content))


def read_manifest(archive: Path) -> Manifest:
    """Return what an archive says of itself, after every file in it was compared with it. Raises BadArchive."""
    try:
        with tarfile.open(archive, "r:") as tar:
            found = {member.name: stored.digest(_content(tar, member)) for member in tar if member.name != MANIFEST}
            stated = json.loads(_content(tar, tar.getmember(MANIFEST)).read())
    except (OSError, tarfile.TarError, KeyError, ValueError) as error:
        raise BadArchive(f"{archive} is no whole backup: {error}") from None
    if not isinstance(stated, Mapping) or stated.get("format") != FORMAT:
        raise BadArchive(f"{archive} is no backup of Havrin, or of a version that this one does not know.")
    manifest = Manifest(*(stated[name] for name in ("made_at", "version", "heads", "files")))
    changed = sorted(name for name in {*found, *manifest.files} if found.get(name) != manifest.files.get(name))
    if changed:
        raise BadArchive(f"{archive}: {changed[0]} is not what was put into it ({len(changed)} in all).")
    return manifest


def unpack(archive: Path, dump: Path) -> None:
    """Put keys and files of a sound archive into this state, and its database's dump at ``dump``."""
    with tarfile.open(archive, "r:") as tar:
        for member in tar:
            if name := _stored_name(member.name):
                stored.put_back(name, _content(tar, member))
            elif target := _place(member.name, dump):
                target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
                with os.fdopen(os.open(target, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
                    shutil.copyfileobj(_content(tar, member), out, stored.PIECE)


def _stored_name(name: str) -> str:
    """Return as what a member of an archive is kept among photos and logs; nothing where it is not one of them."""
    inside = PurePosixPath(name)
    return "/".join(inside.parts[1:]) if inside.parts[:1] == (MEDIA,) and ".." not in inside.parts else ""


def _place(name: str, dump: Path) -> Path | None:
    if name == DUMP:
        return dump
    if name in KEYS:
        return Path(settings.STATE) / name
    return None  # the settings are the launcher's, the manifest was read


def run_tool(command: list[str]) -> str:
    """Run one of PostgreSQL's own tools on this database; the password stands in no process list. Raises CalledProcessError."""
    where = _connection()
    env = {
        **os.environ,
        "PGHOST": str(where["host"]),
        "PGPORT": str(where["port"]),
        "PGUSER": str(where["user"]),
        "PGPASSWORD": str(where["password"]),
        "PGDATABASE": str(where["dbname"]),
    }
    return subprocess.run(command, env=env, check=True, capture_output=True, text=True).stdout


def _connection() -> dict[str, Any]:
    of = settings.DATABASES["default"]
    names = {"host": "HOST", "port": "PORT", "dbname": "NAME", "user": "USER", "password": "PASSWORD"}
    return {name: of[key] for name, key in names.items()}


def _content(tar: tarfile.TarFile, member: tarfile.TarInfo) -> IO[bytes]:
    found = tar.extractfile(member)
    if found is None:
        raise BadArchive(f"{member.name} in the archive is no file.")
    return found


def _as_dict(manifest: Manifest) -> dict[str, Any]:
    return {name: getattr(manifest, name) for name in Manifest.__slots__}
