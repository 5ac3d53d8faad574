"""The commands on a real installation: init, serve, backup, restore, check, upgrade."""

import contextlib
import json
import os
import secrets
import shutil
import ssl
import time
from datetime import datetime
from pathlib import Path

from launcher import environment
from launcher.cluster import binary
from launcher.ground import STATE, Refusal, say
from launcher.installation import Installation, keep_secret, must_not_be_root
from launcher.serve import end_all, only_one, serve_processes, set_up, stopped_by_signals
from launcher.settings_file import NAME, TEMPLATE
from launcher.watch import keep_up

LEAST_FREE_BYTES = 500 * 1024 * 1024


def init(home: Path, *, firm: str, zone: str, username: str, name: str, as_root: bool) -> None:
    """Make an empty installation in ``home`` and say the first administrator's link. Raises Refusal."""
    must_not_be_root(as_root)
    environment.ensure_python("serve")
    os.umask(0o077)
    _write_settings(home)
    made = Installation(home)
    _write_token(made.state / "metrics-token")
    with made.store.running():
        told = ["--firm", firm, "--zone", zone, "--username", username, "--name", name]
        token = made.ask("found_firm", *told).strip().splitlines()[-1]
    say(f"{firm} begins in {made.home}. Serve it: ./havrin serve {home}")
    say(f"{name} chooses a password here, once, within 7 days: {_join_address(made, token)}")


def _join_address(made: Installation, token: str) -> str:
    serve = made.settings.serve
    port = "" if serve.behind_proxy else f":{serve.port}"
    return f"{'https' if made.is_encrypted else 'http'}://{serve.names[0]}{port}/join/{token}"


def let_in(username: str, home: Path) -> None:
    """Say a link by which somebody chooses a new password: for whom no administrator can let in. Raises Refusal."""
    environment.ensure_python("serve")
    made = Installation(home)
    with made.store.borrowed():
        token = made.ask("reset_person", username).strip()
    say(f"{username} chooses a new password here, once, within 7 days: {_join_address(made, token)}")


def _write_settings(home: Path) -> None:
    home.mkdir(parents=True, exist_ok=True, mode=0o700)
    file = home / NAME
    if not file.exists():
        file.write_text(TEMPLATE, encoding="utf-8")
        file.chmod(0o600)


def _write_token(file: Path) -> None:
    """Make the token with which whoever watches over the service asks for its figures."""
    if not file.exists():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(24))


def serve(home: Path, *, as_root: bool) -> None:
    """Serve an installation until told to stop. Raises Refusal."""
    must_not_be_root(as_root)
    made = Installation(home)
    set_up()
    os.umask(0o077)
    with only_one(made.state / "serve.lock", "this installation"), stopped_by_signals(), made.store.running():
        waiting = made.ask("bring_up_to_date", "--look").split()
        if waiting:
            raise Refusal(f"The data are of an older version: ./havrin upgrade {home} ({len(waiting)} changes).")
        shutil.rmtree(made.counts, ignore_errors=True)
        made.counts.mkdir()
        servers = serve_processes(made)
        try:
            keep_up([*made.watched, *servers])
        finally:
            end_all(servers)


def backup(home: Path, to: Path | None = None) -> Path:
    """Make a backup, also while it serves; return the archive. Old ones beyond what is kept go. Raises Refusal."""
    environment.ensure_python("serve")
    os.umask(0o077)
    made = Installation(home)
    folder = made.home / made.settings.backup.folder
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    target = to.resolve() if to else folder / f"havrin-{datetime.now().astimezone():%Y-%m-%d-%H%M%S}.tar"
    with made.store.borrowed():
        tool = ["--pg-dump", str(binary("pg_dump")), "--settings-file", str(made.home / NAME)]
        say(made.ask("backup_to", str(target), *tool).strip())
    if to is None:
        for old in sorted(folder.glob("havrin-*.tar"))[: -made.settings.backup.keep]:
            old.unlink()
    return target


def carry_files(home: Path) -> None:
    """Copy photos and logs from the installation's folder to the storage that its settings name now. Raises Refusal."""
    environment.ensure_python("serve")
    made = Installation(home)
    with made.store.borrowed():
        say(made.ask("carry_files").strip())


def restore(archive: Path, home: Path, *, as_root: bool) -> None:
    """Make a new installation of a backup; its settings come along unless ``home`` has some. Raises Refusal."""
    must_not_be_root(as_root)
    environment.ensure_python("serve")
    os.umask(0o077)
    if not archive.is_file():
        raise Refusal(f"There is no {archive}.")
    if (home / "state").exists():
        raise Refusal(f"{home} holds an installation: a backup is restored into an empty folder.")
    home.mkdir(parents=True, exist_ok=True, mode=0o700)
    if not (home / NAME).exists():
        _settings_of(archive, home)
    made = Installation(home)
    _write_token(made.state / "metrics-token")
    with made.store.running():
        say(made.ask("restore_from", str(archive.resolve()), "--pg-restore", str(binary("pg_restore"))).strip())


def _settings_of(archive: Path, home: Path) -> None:
    import tarfile

    try:
        with tarfile.open(archive, "r:") as tar:
            file = tar.extractfile(NAME)
            content = file.read() if file else TEMPLATE.encode()
    except (tarfile.TarError, KeyError, OSError) as error:
        raise Refusal(f"{archive} is no whole backup: {error}") from None
    (home / NAME).write_bytes(content)
    (home / NAME).chmod(0o600)


def upgrade(home: Path, *, as_root: bool) -> None:
    """Bring the data to this version: backup, change, verify; where that fails, back. Raises Refusal."""
    must_not_be_root(as_root)
    set_up()
    os.umask(0o077)
    made = Installation(home)
    with only_one(made.state / "serve.lock", "this installation"), made.store.running():
        if not made.ask("bring_up_to_date", "--look").split():
            say("Nothing is to be done: the data are of this version.")
            return
        archive = backup(home)
        try:
            made.ask("bring_up_to_date")
            made.ask("heads")
        except Refusal as refusal:
            made.ask("restore_from", str(archive), "--over", "--pg-restore", str(binary("pg_restore")))
            raise Refusal(f"It did not work, and the data are as they were before: {refusal}") from None
        say("The data are of this version; every chain holds.")


def check(home: Path) -> int:
    """Say everything that an operator should know; return 1 where something is bad."""
    environment.ensure_python("serve")
    made = Installation(home)
    rows = [*_files(made), *_tls(made), _disk(made), _backups(made)]
    try:
        with made.store.borrowed():
            rows += [tuple(row) for row in json.loads(made.ask("look_over"))]
    except Refusal as refusal:
        rows.append(("bad", f"database: {refusal}"))
    for state, text in rows:
        say(f"{state:4}  {text}")
    return int(any(state == "bad" for state, _ in rows))


def _files(made: Installation) -> list[tuple[str, str]]:
    open_ones = [path for path in keep_secret(made.state) if "db" not in path.relative_to(made.state).parts]
    open_ones += [path for path in (made.home / NAME,) if path.stat().st_mode & 0o077]
    if open_ones:
        return [
            ("bad", f"files: others may look into {open_ones[0]} ({len(open_ones)} in all): chmod -R go= {made.home}")
        ]
    return [("ok", "files: for their owner alone")]


def _tls(made: Installation) -> list[tuple[str, str]]:
    serve = made.settings.serve
    if serve.tls_key:
        try:
            ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(serve.tls_certificate, serve.tls_key)
        except (OSError, ssl.SSLError) as error:
            return [("bad", f"TLS: certificate and key cannot be used: {error}")]
        return [("ok", "TLS: kept here")]
    if serve.behind_proxy:
        return [("ok", "TLS: kept by the proxy in front")]
    local = serve.host in ("127.0.0.1", "localhost", "::1")
    return [
        (
            "look" if local else "bad",
            "TLS: none" + (", but for this machine alone" if local else " towards other machines"),
        )
    ]


def _disk(made: Installation) -> tuple[str, str]:
    free = shutil.disk_usage(made.state).free
    return ("ok" if free >= LEAST_FREE_BYTES else "bad"), f"disk: {free / 1e9:.1f} GB free"


def _backups(made: Installation) -> tuple[str, str]:
    folder = made.home / made.settings.backup.folder
    found = sorted(folder.glob("havrin-*.tar"))
    if not found:
        return "bad", f"backup: no backup in {folder}"
    hours = (time.time() - found[-1].stat().st_mtime) / 3600
    return ("ok" if hours < 26 else "look"), f"backup: the newest is {hours:.0f} hours old; {len(found)} are kept"


def home_of(given: str | None) -> Path:
    """Return the folder of the installation that is meant: as given, else HAVRIN_HOME, else where one is."""
    if given or os.environ.get("HAVRIN_HOME"):
        return Path(given or os.environ["HAVRIN_HOME"])
    with contextlib.suppress(OSError):
        if (Path.cwd() / NAME).exists():
            return Path.cwd()
    raise Refusal(f"Which installation? Give its folder (the trial of ./havrin start is in {STATE}).")
