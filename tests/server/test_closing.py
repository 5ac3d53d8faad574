"""Closing a visit, and who may do what."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from havrin_core.errors import CoreError
from havrin_server.interface import CORE_STATUS
from havrin_server.people.models import Firm, Person
from havrin_server.visits.models import Visit
from tests.core.rows import SOUND

LATER = "2026-01-14T10:30:00+01:00"


def close(caller, visit, version, **given):
    return caller.post(
        f"visits/{visit}/close",
        **{"seen_version": version, "signed_by": "Tove Lindgarth", "customer_words": "All well.", **given},
    )


def write_all(caller, visit, lines):
    for line in lines:
        answer = caller.line(visit, line)
        assert answer.status_code == 200, answer.content
    return answer.json()


def test_a_sound_visit_closes_and_takes_nothing_more(tove, visit):
    page = write_all(tove, visit, SOUND)
    assert page["standing"]["title"] == "Leave running"
    closed = close(tove, visit, page["version"])
    assert closed.status_code == 200
    assert closed.json()["close"]["closed_by"] == "Tove Lindgarth"
    refused = tove.line(visit, "room 1")
    assert (refused.status_code, refused.json()["code"]) == (409, "visit_closed")


@pytest.mark.parametrize(
    ("lines", "given", "words"),
    [
        ([], {}, "Say how it is left"),
        ([], {"left": "running"}, "left running"),
        (["jump call"], {}, "jumper"),
        (SOUND, {"signed_by": " "}, "sign"),
        ([*SOUND, "did open tap", "leak ok"], {}, "Put back"),
        ([*SOUND, "found crack"], {"left": "waiting"}, "make it safe"),
    ],
)
def test_a_rule_holds_the_visit_open(tove, visit, lines, given, words):
    version = write_all(tove, visit, lines)["version"] if lines else 0
    answer = close(tove, visit, version, **given)
    assert (answer.status_code, answer.json()["code"]) == (422, "cannot_close")
    assert any(words in line for line in answer.json()["details"])
    assert Visit.objects.get(pk=visit).closed_at is None


def test_shut_down_and_tagged_it_may_close(tove, visit):
    page = write_all(
        tove, visit, [*SOUND, "found crack cell 3", "shut down gas shut and capped, tagged, caretaker told"]
    )
    assert close(tove, visit, page["version"]).json()["standing"]["level"] == 4


def test_closing_on_an_old_page_is_refused(tove, wenna, visit):
    page = write_all(tove, visit, SOUND)
    wenna.line(visit, "found crack")
    answer = close(tove, visit, page["version"])
    assert (answer.status_code, answer.json()["code"]) == (409, "visit_moved")


def test_the_office_reads_and_does_not_write(odo, visit):
    assert odo.get(f"visits/{visit}").json()["writable"] is False
    assert odo.line(visit, "room 1").status_code == 403
    assert close(odo, visit, 0).status_code == 403
    assert odo.upload(f"visits/{visit}/logs", SimpleUploadedFile("a.csv", b"x")).status_code == 403


def test_only_a_supervisor_sets_a_milder_standing(tove, wenna, visit):
    write_all(tove, visit, [*SOUND, "mp 3.9"])
    assert tove.line(visit, "override 2 known regulator").status_code == 403
    assert wenna.line(visit, "override 2 known regulator", at=LATER).json()["standing"]["level"] == 2
    assert wenna.line(visit, "found crack").json()["standing"]["level"] == 4


@pytest.mark.parametrize(
    "path",
    [
        "round",
        "visits/1",
        "visits/1/report.pdf",
        "visits/1/vocabulary",
        "session",
        "logs/00000000-0000-0000-0000-000000000000",
    ],
)
def test_nothing_is_readable_without_signing_in(world, path):
    assert Client().get(f"/api/{path}").status_code == 401


def test_health_is_open_and_wrong_passwords_are_not(world):
    assert Client().get("/api/health").json()["status"] == "ok"
    answer = Client().post(
        "/api/session", json.dumps({"username": "tove", "password": "guess"}), content_type="application/json"
    )
    assert (answer.status_code, answer.json()["code"]) == (403, "wrong_password")


def test_writes_need_the_csrf_token(world):
    http = Client(enforce_csrf_checks=True)
    http.force_login(Person.objects.get(username="tove"))
    assert http.post("/api/visits/1/lines", "{}", content_type="application/json").status_code == 403


def test_another_firm_sees_nothing(world, visit):
    stranger = Person.objects.create_user("stranger", password="x", firm=Firm.objects.create(name="Other"))
    http = Client()
    http.force_login(stranger)
    assert http.get(f"/api/visits/{visit}").status_code == 404
    assert http.get("/api/round").json()["stops"] == []


def test_a_person_without_a_firm_is_refused(world, visit):
    http = Client()
    http.force_login(Person.objects.create_user("nobody", password="x"))
    assert http.get("/api/round").status_code == 403


def test_every_core_error_has_its_answer():
    assert set(CoreError.__subclasses__()) == set(CORE_STATUS)


def test_the_round_tells_what_was_last_found(tove):
    stops = tove.get("round").json()["stops"]
    assert [s["unit_name"].split(" ")[0] for s in stops] == ["F-2", "B-1", "F-1", "F-3", "MA-1"]
    assert stops[2]["last_title"] == "Leave running, owner told"
    assert stops[2]["advice"] == ["Advised: new igniter before next winter"]


def test_units_follow_the_person(tove, visit):
    tove.line(visit, "mp 3.5")
    assert (
        tove.http.patch("/api/session", json.dumps({"unit_system": "metric"}), content_type="application/json").json()[
            "unit_system"
        ]
        == "metric"
    )
    stations = [s for path in tove.get(f"visits/{visit}").json()["paths"] for s in path["stations"]]
    manifold = next(s for s in stations if s["key"] == "manifold")
    assert manifold["value"] == {"text": "8.72", "unit": "mbar"}


def test_what_was_read_off_the_plate_stays_with_the_unit(tove, visit):
    write_all(tove, visit, [*SOUND, "plate rise 30 60"])
    assert Visit.objects.get(pk=visit).unit.plate == {}
    close(tove, visit, tove.get(f"visits/{visit}").json()["version"])
    plate = Visit.objects.get(pk=visit).unit.plate
    assert plate["rise_max_k"] == pytest.approx(33.33, abs=0.01)
    assert Visit.objects.get(pk=visit).unit.described().plate.stages[0].input_w == 20515


@pytest.mark.parametrize(
    ("line", "words"),
    [("lift rod lead", "A lead is off"), ("tee draft hose", "A tee is in"), ("tap manifold", "A tap is open")],
)
def test_nothing_abnormal_may_be_left(tove, visit, line, words):
    write_all(tove, visit, [*SOUND, line])
    answer = close(tove, visit, tove.get(f"visits/{visit}").json()["version"])
    assert answer.status_code == 422
    assert any(words in text for text in answer.json()["details"])
