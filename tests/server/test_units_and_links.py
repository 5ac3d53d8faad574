"""The record of a unit, and the links that customers get."""

import json
import uuid
from datetime import timedelta

import pytest
from django.test import Client
from django.utils import timezone

from havrin_server.reports.models import ShareLink
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit


@pytest.fixture
def f2(world):
    return Unit.objects.get(label="F-2")


def shared(link, path=""):
    return Client().get(f"/api{link['path']}{path}")


def linked(caller, unit, days=30):
    answer = caller.post(f"units/{unit.pk}/links", days=days)
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_every_visit_stands_on_one_line_with_found_and_left(tove, f2):
    found = tove.get(f"units/{f2.pk}").json()
    assert len(found["visits"]) >= 4
    days = [row["day"] for row in found["visits"]]
    assert days == sorted(days, reverse=True)
    manifold = next(row for row in found["rows"] if row["name"] == "Manifold, high fire")
    today = manifold["cells"][0]
    assert (today["found"], today["left"], today["state"]) == ("3.70", "3.20", "in")
    assert len(manifold["cells"]) == len(found["visits"])
    flame = next(row for row in found["rows"] if row["name"] == "Flame signal, high fire")
    assert flame["trend"].startswith("falls 0.49 ± 0.21 µA a year")
    days = [point["day"] for point in flame["points"]]
    assert days == sorted(days)
    assert [point["joined"] for point in flame["points"]][:2] == [False, True]
    assert flame["low"] is not None
    refused = tove.get(f"units/{Unit.objects.get(label='F-3').pk}").json()
    assert any(row["refused"] for row in refused["visits"])
    assert tove.get("units/999999").status_code == 404


def test_a_link_shows_one_units_closed_visits_and_nothing_else(tove, f2):
    link = linked(tove, f2)
    page = shared(link).json()
    assert page["unit"] == f2.name
    closed = set(Visit.objects.filter(unit=f2, closed_at__isnull=False).values_list("pk", flat=True))
    assert {row["id"] for row in page["visits"]} == closed
    report = Client().get(page["visits"][0]["report"])
    assert report.content.startswith(b"%PDF")
    another = Visit.objects.filter(unit__label="F-1", closed_at__isnull=False).first()
    still_open = Visit.objects.filter(unit=f2, closed_at=None).first()
    for other in (another, still_open):
        assert shared(link, f"/{other.pk}.pdf").status_code == 404
    stranger = Client()
    for path in ("visits/1", "round", f"units/{f2.pk}", f"visits/{page['visits'][0]['id']}/bundle.json"):
        assert stranger.get(f"/api/{path}").status_code == 401


def test_a_link_ends_and_can_be_taken_back(tove, odo, f2):
    link = linked(tove, f2)
    assert shared(link).status_code == 200
    assert odo.post(f"links/{link['id']}/revoke").json()["revoked"] is True
    assert odo.post(f"links/{link['id']}/revoke").status_code == 200
    assert shared(link).status_code == 404
    old = linked(tove, f2)
    ShareLink.objects.filter(pk=old["id"]).update(expires_at=timezone.now() - timedelta(seconds=1))
    assert shared(old).status_code == 404
    assert tove.post(f"links/{uuid.uuid4()}/revoke").status_code == 404


def test_a_forged_link_opens_nothing_and_tells_nothing(tove, f2):
    link = linked(tove, f2)
    token = link["path"].removeprefix("/shared/")
    for forged in (
        token[:-1] + ("a" if token[-1] != "a" else "b"),
        str(uuid.uuid4()),
        "x:y",
        f"{uuid.uuid4()}:{token.split(':')[1]}",
    ):
        answer = Client().get(f"/api/shared/{forged}")
        assert answer.status_code == 404
        assert "does not open" in answer.json()["title"]


@pytest.mark.parametrize("days", [0, -3, 4000])
def test_a_link_lasts_as_long_as_a_link_may(tove, f2, days):
    assert tove.post(f"units/{f2.pk}/links", days=days).status_code == 422


def test_another_firms_unit_is_not_there(tove, f2):
    assert tove.post("units/999999/links", days=3).status_code == 404
    assert (
        Client().post(f"/api/units/{f2.pk}/links", json.dumps({"days": 3}), content_type="application/json").status_code
        == 401
    )
