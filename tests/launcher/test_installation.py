"""A real installation from its first minute: begun, moved, looked through, upgraded; settings that nobody knows."""

import shutil
import urllib.error
import urllib.request

import pytest

from launcher.cluster import free_port
from launcher.ground import Refusal
from launcher.settings_file import TEMPLATE, Settings, read_settings
from tests.launcher.installed import ROOT_TOO, Browser, elsewhere, havrin, heads, serving, write_settings
from tests.sample import clone, connected


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
        assert "bad   backup: no backup in" in checked
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
        ("[database]\nreplica_host = 'beside'", "database.replica_host takes database.host"),
        ("[database]\nreplica_port = 0", "a port lies from 1 to 65535"),
        ("[files]\nbucket = 'firm'", "a bucket takes files.access_key_file"),
        ("[files]\naccess_key_file = 'a'\nsecret_key_file = 'b'", "they take a bucket"),
        ("[files]\nendpoint = 'files.example'", "files.endpoint is an address"),
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
