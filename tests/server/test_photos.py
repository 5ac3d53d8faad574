"""Photos: content checked, turned upright, data stripped, marked; hostile files refused."""

import io
import json
import uuid
from datetime import UTC, datetime

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from havrin_server.captures.models import Photo
from havrin_server.captures.photos import LARGEST_PHOTO
from havrin_server.visits.models import Visit
from tests.core.rows import SOUND

_ORIENTATION, _MAKER, _GPS = 0x0112, 0x010F, 0x8825


def picture(kind="JPEG", size=(400, 200), *, orientation=None, gps=False):
    image = Image.new("RGB", size, (200, 190, 170))
    exif = Image.Exif()
    exif[_MAKER] = "Somebody"
    if orientation:
        exif[_ORIENTATION] = orientation
    if gps:
        exif.get_ifd(_GPS)[1] = "N"
        exif.get_ifd(_GPS)[2] = (46.0, 30.0, 0.0)
    content = io.BytesIO()
    image.save(content, kind, exif=exif.tobytes())
    return content.getvalue()


def send(caller, visit, content, name="a.jpg"):
    return caller.photo(visit, SimpleUploadedFile(name, content), station="exchanger", caption="Cell 3")


def kept(photo):
    with photo.file.open() as file, Image.open(file) as image:
        return image.size, dict(image.getexif())


def content_of(photo):
    with photo.file.open() as file:
        return file.read()


def test_a_photo_on_the_disk_is_for_the_service_alone(tove, visit, settings):
    send(tove, visit, picture())
    kept_there = list(settings.MEDIA_ROOT.rglob("*.*"))
    assert kept_there
    assert all(path.stat().st_mode & 0o077 == 0 for path in [*kept_there, *(path.parent for path in kept_there)])


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "HEIF"])
def test_every_usual_kind_is_taken_by_its_content(tove, visit, kind):
    answer = send(tove, visit, picture(kind), "not-what-it-says.txt")
    assert answer.status_code == 200, answer.content
    photo = Photo.objects.get(visit=visit)
    (width, height), exif = kept(photo)
    assert width == 2 * height
    assert _MAKER not in exif
    with photo.thumbnail.open() as file, Image.open(file) as small:
        assert max(small.size) <= 320
    for address in (answer.json()["photos"][0]["url"], answer.json()["photos"][0]["small"]):
        given = tove.http.get(address)
        assert b"".join(given.streaming_content).startswith(b"\xff\xd8\xff")


def test_it_is_turned_upright(tove, visit):
    send(tove, visit, picture(orientation=6))
    (width, height), _ = kept(Photo.objects.get(visit=visit))
    assert height == 2 * width


@pytest.mark.parametrize(("rule", "there"), [("removed", False), ("kept", True)])
def test_the_place_stays_only_if_the_firm_wants_it(tove, visit, rule, there):
    row = Visit.objects.get(pk=visit)
    row.house_rules = {**row.house_rules, "photo_place": rule}
    row.save(update_fields=["house_rules"])
    send(tove, visit, picture(gps=True))
    with Photo.objects.get(visit=visit).file.open() as file, Image.open(file) as image:
        assert bool(image.getexif().get_ifd(_GPS)) is there
        assert _MAKER not in image.getexif()


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"<svg xmlns='http://www.w3.org/2000/svg'/>",
        b"MZ\x90\x00",
        b"%PDF-1.7",
        picture()[:120],
        b"\xff\xd8\xff\xe0" + b"x" * 500,
        b"GIF89a" + b"\x00" * 60,
    ],
    ids=["empty", "drawing", "program", "paper", "broken off", "only its head", "another kind"],
)
def test_wrong_or_hostile_files_are_refused(tove, visit, content):
    answer = send(tove, visit, content)
    assert answer.status_code == 422
    assert answer.json()["code"] in ("file_refused", "invalid_request")
    assert not Photo.objects.exists()


def test_too_large_and_too_many_points_are_refused(tove, visit):
    assert send(tove, visit, picture() + b"\x00" * LARGEST_PHOTO).status_code == 422
    bomb = send(tove, visit, picture("PNG", (12000, 8000)))
    assert bomb.status_code == 422
    assert "million" in bomb.json()["title"]
    assert not Photo.objects.exists()


def marks(caller, photo, rows):
    return caller.http.put(f"/api/photos/{photo}/marks", json.dumps({"marks": rows}), content_type="application/json")


ARROW = {"x": 0.2, "y": 0.2, "to_x": 0.6, "to_y": 0.5, "text": "crack"}


def test_arrows_and_words_lie_over_the_photo_and_leave_it_as_it_is(tove, odo, visit):
    photo = send(tove, visit, picture()).json()["photos"][0]
    before = content_of(Photo.objects.get())
    answer = marks(tove, photo["id"], [ARROW])
    assert answer.json()["photos"][0]["marks"] == [ARROW]
    assert content_of(Photo.objects.get()) == before
    assert marks(odo, photo["id"], []).status_code == 403
    assert marks(tove, uuid.uuid4(), []).status_code == 404


@pytest.mark.parametrize(
    "rows", [[{**ARROW, "x": 1.5}], [{**ARROW, "to_y": -0.1}], [{**ARROW, "text": "w" * 200}], [ARROW] * 30]
)
def test_marks_that_cannot_be_are_refused(tove, visit, rows):
    photo = send(tove, visit, picture()).json()["photos"][0]
    assert marks(tove, photo["id"], rows).status_code == 422
    assert Photo.objects.get().marks == []


def test_a_closed_visit_takes_no_photo_and_no_mark(tove, visit):
    photo = send(tove, visit, picture()).json()["photos"][0]
    for line in SOUND:
        page = tove.line(visit, line).json()
    closed = tove.post(f"visits/{visit}/close", seen_version=page["version"], signed_by="T", customer_words="")
    assert closed.status_code == 200
    assert send(tove, visit, picture()).status_code == 409
    assert marks(tove, photo["id"], [ARROW]).status_code == 409


def test_a_photo_sent_twice_under_its_id_is_kept_once(tove, visit):
    name = str(uuid.uuid4())
    for _ in range(3):
        answer = tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), id=name)
        assert answer.status_code == 200
        assert [photo["id"] for photo in answer.json()["photos"]] == [name]
    assert Photo.objects.filter(visit=visit).count() == 1


def test_a_photo_is_as_old_as_the_tablet_says_and_never_newer_than_now(tove, visit):
    for moment, early in (("2026-01-14T09:00:00+01:00", True), ("2099-01-01T00:00:00Z", False)):
        name = uuid.uuid4()
        assert tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), id=str(name), at=moment).status_code == 200
        taken = Photo.objects.get(pk=name).taken_at
        assert (taken == datetime(2026, 1, 14, 8, tzinfo=UTC)) is early
        assert taken <= timezone.now()


def test_the_id_of_another_visits_photo_is_refused(tove, visit):
    name = str(uuid.uuid4())
    other = Visit.objects.filter(closed_at=None).exclude(pk=visit).first().pk
    assert tove.photo(other, SimpleUploadedFile("a.jpg", picture()), id=name).status_code == 200
    answer = tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), id=name)
    assert (answer.status_code, answer.json()["code"]) == (422, "photo_id")
    assert not Photo.objects.filter(visit=visit).exists()


@pytest.mark.parametrize("fields", [{"id": "no-uuid"}, {"at": "yesterday"}, {"at": "2026-01-14T09:00:00"}])
def test_a_photo_without_a_right_id_or_moment_is_refused_by_the_field(tove, visit, fields):
    answer = tove.photo(visit, SimpleUploadedFile("a.jpg", picture()), **fields)
    assert answer.status_code == 422
    assert next(iter(fields)) in answer.json()["details"][0]
