"""A unit at the door: of a model, or of a kind whose plate is still to be read; its picture goes with it."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from havrin_core.machine.kind_files import kind_names
from havrin_core.physics.fuels import FUEL_NAMES
from havrin_server.cards import plate_reading
from havrin_server.cards.plate_reading import proposed
from havrin_server.shop.models import ShopDocument
from havrin_server.units.models import Unit
from tests.server.test_closing_page import write
from tests.server.test_photos import picture


@pytest.fixture
def site(world):
    return Unit.objects.get(label="F-2").site


def made(caller, site, *, of_kind=None, **values):
    body = {"id": str(uuid.uuid4()), "values": {"site": site.pk, **values}}
    return caller.post("door/units", **body, **({"of_kind": of_kind} if of_kind else {}))


def test_the_door_offers_sisters_models_kinds_and_a_free_tag(tove, site):
    door = tove.get(f"sites/{site.pk}/door").json()
    assert "F-5" not in [one["name"].split(" ")[0] for one in door["sisters"]]
    assert door["free_labels"] == ["F-5"]
    units = [one["units"] for one in door["models"]]
    assert units == sorted(units, reverse=True)
    assert set(door["kinds"]) == set(kind_names())


def test_of_a_model_it_is_there_at_once_and_a_visit_can_begin(tove, site):
    unit = made(tove, site, label="F-5", place="Porch", model="norvane_hearth_70").json()
    day = site.today(timezone.now())
    visit = tove.post(f"units/{unit['id']}/visits", reason="start_up", day=day.isoformat()).json()["id"]
    assert write(tove, visit, "mp 3.5")["writable"]


@pytest.mark.parametrize("kind", kind_names())
def test_of_every_kind_a_unit_can_be_made_before_its_plate_is_read(tove, site, kind):
    for number, fuel in enumerate(FUEL_NAMES):
        of_kind = {"kind": kind, "fuel": fuel, "stages": ("only", "two")[number % 2]}
        answer = made(tove, site, of_kind=of_kind, label=f"X-{number}", place="x")
        assert answer.status_code == 200, answer.json()
        assert Unit.objects.get(pk=answer.json()["id"]).described().kind.key == kind


def test_two_of_a_kind_share_the_model_that_is_not_read_yet(tove, site):
    kind = {"kind": "furnace_80", "fuel": "NG_H", "stages": "only"}
    for label in ("F-5", "F-6"):
        made(tove, site, of_kind=kind, label=label, place="x")
    assert ShopDocument.objects.filter(key__startswith="not_read_").count() == 1


def test_what_is_no_kind_is_refused(tove, site):
    answer = made(tove, site, of_kind={"kind": "stove", "fuel": "NG_H", "stages": "only"}, label="S-1", place="x")
    assert answer.json()["code"] == "kind_unknown"


def test_the_picture_of_its_plate_goes_with_it_and_is_kept_once(tove, site):
    unit = Unit.objects.get(label="F-2")
    photo = str(uuid.uuid4())
    for _ in range(2):
        file = SimpleUploadedFile("plate.jpg", picture())
        card = tove.upload(f"units/{unit.pk}/plate-photos", file, id=photo).json()
    assert card["photos"] == [photo]
    answer = tove.get(f"plate-photos/{photo}")
    assert b"".join(answer.streaming_content)[:2] == b"\xff\xd8"


def test_what_is_no_picture_is_refused(tove, site):
    unit = Unit.objects.get(label="F-2")
    file = SimpleUploadedFile("plate.jpg", b"no picture")
    assert tove.upload(f"units/{unit.pk}/plate-photos", file, id=str(uuid.uuid4())).json()["code"] == "file_refused"


@pytest.mark.parametrize(
    ("lines", "says"),
    [
        (["NORVANE", "MODEL Hearth 70", "SERIAL NO. N70-03318"], {"serial": "N70-03318"}),
        (
            ["Norvane Hearth 70", "S/N: AB 1234", "Mfd 2016"],
            {"serial": "AB 1234", "installed_year": "2016", "model": "h70"},
        ),
        (["Norvane Hearth 7O"], {"model": "h70"}),
        (["MAX PRESSURE 0.5", "120 V"], {}),
    ],
)
def test_what_a_plate_says_is_proposed_and_no_more(lines, says):
    assert proposed(lines, {"h70": "Norvane Hearth 70", "g60": "Ostrel Glide 60 M"}).items() >= says.items()
    if not says:
        assert proposed(lines, {"h70": "Norvane Hearth 70"}) == {}


def test_where_no_reader_is_installed_it_says_so(tove, world, monkeypatch):
    monkeypatch.setattr(plate_reading.shutil, "which", lambda name: None)
    answer = tove.upload("plates/read", SimpleUploadedFile("plate.jpg", picture()))
    assert answer.json()["code"] == "no_reader"
