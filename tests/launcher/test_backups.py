"""Backups: taken while people write, restored elsewhere, refused where anything of them was changed."""

import shutil
import threading
import time

from launcher.cluster import free_port
from tests.bucket import KEY, REGION, SECRET, bucket_served
from tests.launcher.installed import (
    ROOT_TOO,
    Browser,
    elsewhere,
    empty_database,
    havrin,
    heads,
    keep_writing,
    photo_form,
    serving,
    write_settings,
)
from tests.sample import clone


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


def test_files_in_a_bucket_are_in_the_backup_and_come_back_wherever_it_is_restored(tmp_path):
    home, other = tmp_path / "firm", tmp_path / "again"
    with clone("bucket") as world, bucket_served() as bucket, empty_database("from_bucket") as fresh:
        port = elsewhere(home, world["HAVRIN_DB_NAME"])
        shutil.copytree(world["HAVRIN_STATE"], home / "state")
        on_disk = {path.relative_to(home / "state/media").as_posix() for path in (home / "state/media").rglob("*.*")}
        for file, content in (("key", KEY), ("secret", SECRET)):
            (home / file).write_text(content)
        rows = f'bucket = "{bucket.name}"\nendpoint = "{bucket.endpoint}"\nregion = "{REGION}"'
        with (home / "havrin.toml").open("a") as settings:
            settings.write(f'\n[files]\n{rows}\naccess_key_file = "key"\nsecret_key_file = "secret"\n')
        assert f"{len(on_disk)} files are where" in havrin("carry-files", home)
        with serving(home, port) as url:
            tove = Browser(url).sign_in("tove")
            visit = next(stop["id"] for stop in tove.ask("/api/round")["stops"] if not stop["closed"])
            body, kind = photo_form(visit)
            photo = tove.ask(f"/api/visits/{visit}/photos", body, kind=kind)["photos"][0]
            seen = tove.ask(photo["url"], raw=True)
        assert len(bucket.names()) == len(on_disk) + 2
        archive = tmp_path / "one.tar"
        havrin("backup", home, "--to", archive)
        port = elsewhere(other, fresh)  # with settings of its own, which name no bucket
        assert "every chain as it was" in havrin("restore", archive, other, *ROOT_TOO)
        with serving(other, port) as url:
            assert Browser(url).sign_in("tove").ask(photo["url"], raw=True) == seen


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
