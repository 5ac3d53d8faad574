"""A real installation for tests: its commands as an operator gives them, and people at a browser."""

import http.cookiejar
import json
import os
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
import uuid
from contextlib import contextmanager

import psycopg
from psycopg import sql

from launcher.cluster import ROLE, free_port
from launcher.ground import ROOT
from tests.sample import connected
from tests.server.test_photos import picture

ROOT_TOO = ["--as-root"] if os.geteuid() == 0 else []
PATIENCE_S = 240
# The program's own folder is where its packages are; that of the tests holds none.
ENVIRONMENT = {name: value for name, value in os.environ.items() if name != "HAVRIN_STATE"}


def havrin(*words, ok=True):
    done = subprocess.run(
        [sys.executable, ROOT / "havrin", *map(str, words)], capture_output=True, text=True, env=ENVIRONMENT
    )
    assert (done.returncode == 0) == ok, done.stdout + done.stderr
    return done.stdout + done.stderr


@contextmanager
def serving(home, port):
    command = [sys.executable, str(ROOT / "havrin"), "serve", str(home), *ROOT_TOO]
    with (home / "log").open("w") as log:
        process = subprocess.Popen(command, stdout=log, stderr=log, env=ENVIRONMENT)
    try:
        until = time.monotonic() + PATIENCE_S
        while time.monotonic() < until and process.poll() is None:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health/ready").close()
                break
            except OSError:
                time.sleep(0.1)
        assert process.poll() is None, (home / "log").read_text()
        yield f"http://127.0.0.1:{port}"
    finally:
        process.send_signal(signal.SIGTERM)
        process.wait(timeout=60)


class Browser:
    """Somebody at a browser: cookies, and the proof that a form is the page's own."""

    def __init__(self, url):
        self.url, self.cookies = url, http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.cookies))

    def ask(self, path, body=None, *, raw=False, kind="application/json"):
        data = body if isinstance(body, bytes) else None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": kind, "X-CSRFToken": next((c.value for c in self.cookies if "csrf" in c.name), "")}
        with self.opener.open(urllib.request.Request(f"{self.url}{path}", data, headers), timeout=60) as answer:
            content = answer.read()
        return content if raw else json.loads(content)

    def sign_in(self, username):
        self.ask("/api/session", {"username": username, "password": "valley-heat"})
        return self


def write_settings(home, port, database=""):
    home.mkdir(parents=True, exist_ok=True)
    file = home / "havrin.toml"
    file.write_text(f"[serve]\nport = {port}\nworkers = 1\n{database}")
    file.chmod(0o600)


def elsewhere(home, name):
    """Write settings that name a database of the tests' cluster; return the port to serve on."""
    port = free_port()
    home.mkdir()
    for file, password in (("owner", "HAVRIN_DB_PASSWORD"), ("application", "HAVRIN_APP_PASSWORD")):
        (home / file).write_text(os.environ[password])
        (home / file).chmod(0o600)
    rows = f'host = "127.0.0.1"\nport = {os.environ["HAVRIN_DB_PORT"]}\nname = "{name}"\nowner = "{ROLE}"'
    files = 'owner_password_file = "owner"\napplication_password_file = "application"'
    write_settings(home, port, f"[database]\n{rows}\n{files}\n")
    return port


@contextmanager
def empty_database(name):
    with connected() as connection:
        connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(name)))
        connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(name)))
    yield name
    with connected() as connection:
        connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(name)))


def keep_writing(tove, visit, stop, written):
    while not stop.is_set():
        line = {"id": str(uuid.uuid4()), "text": "note under load", "phase": "found", "at": "2026-01-14T10:00:00+01:00"}
        tove.ask(f"/api/visits/{visit}/lines", line)
        written.append(line["id"])


def photo_form(visit):
    edge = uuid.uuid4().hex
    fields = {"id": str(uuid.uuid4()), "at": "2026-01-14T10:00:00+01:00"}
    parts = [
        f'--{edge}\r\nContent-Disposition: form-data; name="{k}"\r\n\r\n{v}\r\n'.encode() for k, v in fields.items()
    ]
    head = (
        f'--{edge}\r\nContent-Disposition: form-data; name="file"; filename="a.jpg"\r\nContent-Type: image/jpeg\r\n\r\n'
    )
    return b"".join(
        [*parts, head.encode(), picture(), f"\r\n--{edge}--\r\n".encode()]
    ), f"multipart/form-data; boundary={edge}"


def heads(name):
    with psycopg.connect(
        host="127.0.0.1",
        port=os.environ["HAVRIN_DB_PORT"],
        dbname=name,
        user=ROLE,
        password=os.environ["HAVRIN_DB_PASSWORD"],
    ) as connection:
        return dict(connection.execute("SELECT id, head FROM visits_visit WHERE version > 0").fetchall())
