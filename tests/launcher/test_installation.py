"""A real installation from its first minute: begun, served, backed up while people write, restored, moved, upgraded."""

import http.cookiejar
import json
import os
import shutil
import signal
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from contextlib import contextmanager

import psycopg
import pytest
from psycopg import sql

from launcher.cluster import ROLE, free_port
from launcher.ground import ROOT, Refusal
from launcher.settings_file import TEMPLATE, Settings, read_settings
from tests.sample import clone, connected
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


def test_a_backup_under_load_restored_elsewhere_is_the_same(tmp_path):
    home, other = tmp_path / "firm", tmp_path / "again"
    with clone("backup") as world, empty_database("restored") as fresh:
        port = elsewhere(home, world["HAVRIN_DB_NAME"])
        shutil.copytree(world["HAVRIN_STATE"], home / "state")
        with serving(home, port) as url:
            tove = Browser(url).sign_in("tove")
            stops = tove.ask("/api/round")["stops"]
            visit = next(stop["id"] for stop in stops if not stop["closed"])
            body, kind = photo_form(visit)
            photo = tove.ask(f"/api/visits/{visit}/photos", body, kind=kind)["photos"][0]
            unit = tove.ask(f"/api/visits/{visit}")["unit_id"]
            link = tove.ask(f"/api/units/{unit}/links", {"days": 30})["path"].rpartition("/")[2]
            shared = tove.ask(f"/api/shared/{link}")
            paper = tove.ask(f"/api/shared/{link}/{shared['visits'][0]['id']}.pdf", raw=True)
            seen = tove.ask(photo["url"], raw=True)
            stop, written = threading.Event(), []
            writer = threading.Thread(target=keep_writing, args=(tove, visit, stop, written))
            writer.start()
            while len(written) < 3:
                time.sleep(0.05)
            said = havrin("backup", home)
            count = len(written)
            stop.set()
            writer.join()
        archive = next((home / "backups").iterdir())
        assert archive.stat().st_mode & 0o077 == 0
        assert count >= 3, said
        port = elsewhere(other, fresh)
        assert "every chain as it was" in havrin("restore", archive, other, *ROOT_TOO)
        before, after = heads(world["HAVRIN_DB_NAME"]), heads(fresh)
        assert {k: v for k, v in before.items() if k != visit} == {k: v for k, v in after.items() if k != visit}
        assert visit in after
        with serving(other, port) as url:
            again = Browser(url).sign_in("tove")
            assert again.ask(photo["url"], raw=True) == seen
            assert Browser(url).ask(f"/api/shared/{link}")["visits"] == shared["visits"]
            assert Browser(url).ask(f"/api/shared/{link}/{shared['visits'][0]['id']}.pdf", raw=True) == paper


def test_a_backup_is_restored_on_a_machine_that_never_had_an_installation(tmp_path):
    """Its own cluster, with none of the roles that the tables of the backup name."""
    home, other = tmp_path / "firm", tmp_path / "again"
    with clone("moved") as world:
        elsewhere(home, world["HAVRIN_DB_NAME"])
        shutil.copytree(world["HAVRIN_STATE"], home / "state")
        archive = tmp_path / "one.tar"
        havrin("backup", home, "--to", archive)
        other.mkdir()
        write_settings(other, free_port(), "")
        assert "every chain as it was" in havrin("restore", archive, other, *ROOT_TOO)


def test_an_archive_that_was_changed_is_refused(tmp_path):
    home = tmp_path / "firm"
    with clone("tampered") as world, empty_database("restored_not") as fresh:
        elsewhere(home, world["HAVRIN_DB_NAME"])
        shutil.copytree(world["HAVRIN_STATE"], home / "state")
        archive = tmp_path / "one.tar"
        havrin("backup", home, "--to", archive)
        content = bytearray(archive.read_bytes())
        content[len(content) // 2] ^= 1
        (tmp_path / "two.tar").write_bytes(content)
        elsewhere(tmp_path / "again", fresh)
        assert "is not what was put into it" in havrin(
            "restore", tmp_path / "two.tar", tmp_path / "again", *ROOT_TOO, ok=False
        )
        (tmp_path / "three.tar").write_bytes(archive.read_bytes()[:5000])
        shutil.rmtree(tmp_path / "again" / "state")
        assert "no whole backup" in havrin("restore", tmp_path / "three.tar", tmp_path / "again", *ROOT_TOO, ok=False)
        assert "holds an installation" in havrin("restore", archive, home, *ROOT_TOO, ok=False)


def test_a_firm_begins_with_its_first_administrator_and_its_folder_can_be_moved(tmp_path):
    home, port = tmp_path / "firm", free_port()
    write_settings(home, port)
    told = ["--firm", "Brook Heating", "--zone", "Etc/GMT+7", "--username", "ysolt", "--name", "Ysolt Marrin"]
    if ROOT_TOO:
        assert "does not serve as root" in havrin("init", home, *told, ok=False)
    said = havrin("init", home, *told, *ROOT_TOO)
    token = said.strip().rpartition("/join/")[2]
    moved = tmp_path / "moved"
    home.rename(moved)
    with serving(moved, port) as url:
        ysolt = Browser(url)
        assert ysolt.ask(f"/api/invitations/{token}")["firm"] == "Brook Heating"
        me = ysolt.ask(f"/api/invitations/{token}", {"password": "seven-lamps-of-brass"})
        assert (me["role"], me["sample_world"], me["zone"]) == ("administrator", False, "Etc/GMT+7")
        assert "already running" in havrin("serve", moved, *ROOT_TOO, ok=False)
        checked = havrin("check", moved, ok=False)
        assert "bad   backup: there is none" in checked
        assert "Nobody signs in" in havrin("let-in", "nobody", moved, ok=False)
        again = havrin("let-in", "ysolt", moved).strip().rpartition("/join/")[2]
        assert ysolt.ask(f"/api/invitations/{again}")["again"] is True
        havrin("backup", moved)
        assert "bad" not in havrin("check", moved)
        with pytest.raises(urllib.error.HTTPError, match="401"):
            ysolt.ask("/api/metrics")
    assert "Nothing is to be done" in havrin("upgrade", moved, *ROOT_TOO)
    log = (moved / "log").read_text()
    assert token not in log
    assert '"path": "/api/invitations/…"' in log


def test_an_upgrade_that_fails_leaves_the_data_as_they_were(tmp_path):
    home = tmp_path / "firm"
    with clone("upgrade") as world:
        elsewhere(home, world["HAVRIN_DB_NAME"])
        shutil.copytree(world["HAVRIN_STATE"], home / "state")
        before = heads(world["HAVRIN_DB_NAME"])
        with connected(
            world["HAVRIN_DB_NAME"]
        ) as connection:  # as an older version left it, but for what is in its way
            connection.execute("DELETE FROM django_migrations WHERE app = 'captures' AND name LIKE '0008%'")
        assert "as they were before" in havrin("upgrade", home, *ROOT_TOO, ok=False)
        assert heads(world["HAVRIN_DB_NAME"]) == before
        with connected(world["HAVRIN_DB_NAME"]) as connection:
            connection.execute("ALTER TABLE captures_devicekey DROP COLUMN made_by_id, DROP COLUMN used_at")
            connection.execute("ALTER TABLE captures_recorder DROP COLUMN simulated")
        assert "of an older version" in havrin("serve", home, *ROOT_TOO, ok=False)
        assert "every chain holds" in havrin("upgrade", home, *ROOT_TOO)
        assert heads(world["HAVRIN_DB_NAME"]) == before


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("[serve]\nprot = 1", "serve.prot is no setting"),
        ("[server]", r"\[server\] is no section"),
        ("[serve]\nport = '80'", "serve.port is a whole number"),
        ("[serve]\nport = 70000", "from 1 to 65535"),
        ("[serve]\nnames = []", "is a list of texts"),
        ("[serve]\ntls_key = 'k'", "takes both"),
        ("[database]\nhost = 'db'", "owner_password_file"),
        ("[sessions]\nidle_days = 40", "idle_days"),
        ("[serve", "cannot be read"),
    ],
)
def test_a_setting_that_nobody_knows_is_refused_at_its_place(tmp_path, text, says):

    (tmp_path / "havrin.toml").write_text(text)
    with pytest.raises(Refusal, match=says):
        read_settings(tmp_path / "havrin.toml")


def test_the_template_sets_nothing(tmp_path):

    (tmp_path / "havrin.toml").write_text(TEMPLATE)
    assert read_settings(tmp_path / "havrin.toml") == Settings()
