"""Photos and logs in a storage of the S3 kind: as on the disk, and where it does not answer nothing beside them is harmed."""

import io
import json

import pytest
from botocore.config import Config
from django.core.files.base import ContentFile
from django.core.files.storage import FileSystemStorage, default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from havrin_server.captures.models import Photo
from havrin_server.errors import FilesAway
from havrin_server.operations import archives, stored
from havrin_server.operations.bucket import Bucket
from tests.bucket import KEY, REGION, SECRET, bucket_served
from tests.server.test_photos import picture

HURRIED = Config(connect_timeout=1, read_timeout=1, retries={"total_max_attempts": 1}, s3={"addressing_style": "path"})
NAMES = st.lists(st.text("abcxyz019-_", min_size=1, max_size=8), min_size=1, max_size=3).map("/".join)
FEW = settings(max_examples=6, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])


@pytest.fixture(scope="module")
def served():
    with bucket_served() as found:
        yield found


def options(found):
    return {
        "bucket_name": found.name,
        "endpoint_url": found.endpoint,
        "region_name": REGION,
        "access_key": KEY,
        "secret_key": SECRET,
        "file_overwrite": False,
        "default_acl": None,
        "client_config": HURRIED,
    }


@pytest.fixture
def bucket(served):
    return Bucket(**options(served))


@pytest.fixture
def away(bucket):
    """A bucket behind an address at which nobody answers."""
    with bucket_served() as gone:
        told = options(gone)
        gone.stop()
        yield Bucket(**told)


def keep_in(settings, found, **otherwise):
    """Have the server keep its files in a bucket."""
    told = {"BACKEND": "havrin_server.operations.bucket.Bucket", "OPTIONS": {**options(found), **otherwise}}
    settings.STORAGES = {**settings.STORAGES, "default": told}


@pytest.fixture
def used(settings, served):
    """The server keeps its files in the bucket."""
    keep_in(settings, served)
    return served


def holds(storage, name):
    with storage.open(name) as file:
        return file.read()


@FEW
@given(name=NAMES, content=st.binary(max_size=300))
def test_what_is_put_back_is_there_under_its_very_name_whatever_was(bucket, tmp_path, name, content):
    for storage, top in ((bucket, f"put/{len(content)}"), (FileSystemStorage(tmp_path), f"put/{len(content)}")):
        at = f"{top}/{name}/file"
        for said in (content, content, b"other" + content):
            stored.put_back(at, io.BytesIO(said), storage)
            assert holds(storage, at) == said
            assert at in set(stored.names(storage))


def test_files_are_listed_however_deep_they_lie(bucket, tmp_path):
    wanted = ["deep/a/b/c", "deep/a/d", "deep/e"]
    for name in wanted:
        bucket.save(name, ContentFile(b"x"))
    assert sorted(stored.names(bucket, "deep/")) == wanted
    assert list(stored.names(FileSystemStorage(tmp_path / "nothing yet"))) == []


class InPages(FileSystemStorage):
    """Says a folder again with each page, as a bucket of many files does."""

    def listdir(self, path):
        folders, files = super().listdir(path)
        return folders * 2, files * 2


def test_a_file_is_listed_once_though_a_bucket_says_its_folder_in_several_pages(tmp_path):
    (tmp_path / "logs").mkdir()
    for name in ("one", "logs/two"):
        (tmp_path / name).write_text("x")
    assert list(stored.names(InPages(tmp_path))) == ["one", "logs/two"]


def test_a_file_that_is_not_there_is_said_so_and_a_storage_that_is_not_otherwise(bucket, away):
    with pytest.raises(FileNotFoundError):
        bucket.open("nothing.jpg")
    assert not bucket.exists("nothing.jpg")
    for asked in (
        lambda: away.open("nothing.jpg"),
        lambda: away.exists("nothing.jpg"),
        lambda: away.save("nothing.jpg", ContentFile(b"x")),
        lambda: away.delete("nothing.jpg"),
        lambda: away.size("nothing.jpg"),
        lambda: away.listdir(""),
    ):
        with pytest.raises(FilesAway):
            asked()


def test_a_photo_goes_into_the_bucket_and_comes_back(tove, visit, used, settings):
    content = picture()
    answer = tove.photo(visit, SimpleUploadedFile("a.jpg", content), caption="Cell 3")
    assert answer.status_code == 200, answer.content
    shown = answer.json()["photos"][0]
    photo = Photo.objects.get(visit=visit)
    assert {photo.file.name, photo.thumbnail.name} <= set(used.names())
    given_out = tove.http.get(shown["url"])
    body = b"".join(given_out.streaming_content)
    assert body == used.client.get_object(Bucket=used.name, Key=photo.file.name)["Body"].read()
    assert not any(settings.MEDIA_ROOT.rglob("*.jpg"))
    assert default_storage.size(photo.file.name) == len(body)


def test_while_it_does_not_answer_a_photo_waits_and_everything_else_goes_on(tove, visit, settings):
    with bucket_served() as found:
        keep_in(settings, found)
        number = "6f0c2f8e-4a53-4c42-9d8e-0d6a7a5b1c11"
        found.stop()
        refused = tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), id=number)
        assert (refused.status_code, refused.json()["code"]) == (503, "files_away")
        assert "kept on your tablet" in refused.json()["title"]
        assert not Photo.objects.filter(visit=visit).exists()
        assert tove.get(f"visits/{visit}").status_code == 200
        line = {"id": "1d2c3b4a-0000-4000-8000-000000000001", "text": "note the storage is away", "phase": "found"}
        assert tove.post(f"visits/{visit}/lines", **line, at="2026-01-14T10:00:00+01:00").status_code == 200


def test_a_photo_that_was_refused_is_taken_when_it_is_sent_again(tove, visit, used):
    number = "6f0c2f8e-4a53-4c42-9d8e-0d6a7a5b1c12"
    for _ in range(2):  # also where the first answer never arrived
        answer = tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), id=number)
        assert answer.status_code == 200, answer.content
    assert Photo.objects.filter(visit=visit).count() == 1


def test_what_lies_on_the_disk_is_carried_over_and_stays(used, settings, world):
    folder = settings.MEDIA_ROOT / "photos"
    folder.mkdir()
    for name in ("one.jpg", "two.jpg"):
        (folder / name).write_bytes(name.encode())
    assert stored.carry_over() == stored.carry_over() == 2
    assert {"photos/one.jpg", "photos/two.jpg"} <= set(used.names())
    assert holds(default_storage, "photos/two.jpg") == b"two.jpg"
    assert (folder / "one.jpg").exists()


def test_a_backup_without_its_photos_is_none(settings, world, tmp_path, monkeypatch):
    monkeypatch.setattr(archives, "_dump", lambda file, pg_dump: file.write_bytes(b"dump") and {})
    with bucket_served() as found:
        keep_in(settings, found)
        default_storage.save("photos/one.jpg", ContentFile(b"x"))
        kept = archives.make(tmp_path / "one.tar", "pg_dump", None, timezone.now())
        assert {"database.dump", "media/photos/one.jpg"} <= set(kept.files)
        assert archives.read_manifest(tmp_path / "one.tar") == kept
        found.stop()
        with pytest.raises(FilesAway):
            archives.make(tmp_path / "two.tar", "pg_dump", None, timezone.now())
    assert not (tmp_path / "two.tar").exists()


def test_trying_out_leaves_nothing_behind(used, world):
    before = used.names()
    stored.try_out()
    assert used.names() == before


def test_an_operator_is_told_where_files_are(used, world):
    assert _files_row() == ["ok", f"photos and logs: in the bucket {used.name}; written and read"]


def test_looking_makes_no_folder_that_another_user_would_own(settings, world, tmp_path):
    settings.MEDIA_ROOT = tmp_path / "none yet"
    assert _files_row() == ["ok", "photos and logs: none yet"]
    assert not settings.MEDIA_ROOT.exists()


def test_an_operator_is_told_what_is_wrong_with_where_files_are(settings, world):
    with bucket_served() as found:
        keep_in(settings, found, bucket_name="another")
        state, said = _files_row()
        assert state == "bad"
        assert "NoSuchBucket" in said


def _files_row():
    said = io.StringIO()
    call_command("look_over", stdout=said)
    return next(row for row in json.loads(said.getvalue()) if row[1].startswith("photos and logs"))
