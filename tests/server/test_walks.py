"""Walks: asked for a visit, edited by a supervisor for a kind and a reason, kept version by version."""

from datetime import date

import pytest

from havrin_server.versions.models import Version
from havrin_server.visits.models import Visit
from havrin_server.visits.zones import is_cold_season


def open_visit(label, reason="maintenance"):
    before = Visit.objects.filter(unit__label=label).order_by("-day").first()
    return Visit.objects.create(
        unit=before.unit,
        reason=reason,
        day=before.day,
        technician=before.technician,
        house_rules=before.house_rules,
    )


def walks(client, visit):
    return {walk["key"]: walk for walk in client.get(f"visits/{visit.pk}/walks").json()["walks"]}


def own(client, **more):
    document = client.get("shop/walk/maintenance").json()
    return document | {"key": "furnace_80_maintenance", "kind": "furnace_80", "name": "Our way"} | more


def put(client, document, reason="as we do it"):
    payload = {"document": document, "reason": reason}
    return client.http.put("/api/shop/walk", payload, content_type="application/json")


def test_a_visit_has_the_walk_for_its_reason_and_the_look_over(tove):
    assert list(walks(tove, open_visit("F-1"))) == ["maintenance", "arrival"]
    assert list(walks(tove, open_visit("F-1", "no_heat"))) == ["arrival"]


def test_what_was_written_stands_at_its_stop_with_what_earlier_visits_said(tove):
    visit = open_visit("F-1")
    tove.line(visit.pk, "ua 2.4")
    tove.line(visit.pk, "found filter dirty")
    stops = {stop["key"]: stop for stop in walks(tove, visit)["maintenance"]["stops"]}
    assert stops["flame_signal"]["answered"]
    assert stops["flame_signal"]["answers"][0]["said"] == "2.40 µA"
    assert [a["label"] for a in stops["filter"]["answers"] if a["done"]] == ["dirty"]
    assert " on " in stops["flame_signal"]["before"]
    assert not stops["belt"]["answered"]


def test_a_supervisor_makes_the_walk_of_a_kind(wenna, tove):
    stops = [
        {"key": "mine", "part": "belt", "found": ["worn", "ok"]},
        {"key": "co", "part": "room", "read": ["room_co_ppm"]},
    ]
    assert put(wenna, own(wenna, stops=stops)).status_code == 200
    walk = walks(tove, open_visit("F-1"))["maintenance"]
    assert (walk["name"], walk["own"]) == ("Our way", True)
    assert [stop["key"] for stop in walk["stops"]] == ["mine", "co"]
    assert not walks(tove, open_visit("B-1"))["maintenance"]["own"]  # another kind keeps the shipped one
    version = Version.objects.get(sort="walk", key="furnace_80_maintenance")
    assert (version.reason, version.author.username) == ("as we do it", "wenna")


def test_the_usual_parts_follow_the_walk(wenna, tove):
    put(wenna, own(wenna, stops=[{"key": "mine", "part": "belt", "found": ["ok"]}]))
    words = tove.get(f"visits/{open_visit('F-1').pk}/vocabulary").json()
    assert [part["key"] for part in words["parts"] if part["usual"]] == ["belt"]


def test_only_a_supervisor_keeps_a_walk(tove, odo):
    for person in (tove, odo):
        assert put(person, own(person)).status_code == 403


@pytest.mark.parametrize(
    ("more", "code"),
    [
        ({"key": "anything_else"}, "walk_key"),
        ({"kind": ""}, "walk_kind"),
        ({"stops": []}, "walk_stops"),
        ({"walk": "holiday"}, "walk_reason"),
        ({"kind": "spaceship", "key": "spaceship_maintenance"}, "kind_unknown"),
    ],
)
def test_a_walk_that_is_none_is_refused_and_the_check_says_why(wenna, more, code):
    answer = put(wenna, own(wenna, **more))
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    check = wenna.post("shop/walk/check", document=own(wenna, **more)).json()
    assert check["problem"]["code"] == code


def test_the_shipped_walks_stay_as_they_are(wenna):
    answer = put(wenna, wenna.get("shop/walk/arrival").json())
    assert answer.json()["code"] == "shipped_walk"


def test_the_check_shows_what_can_be_answered_and_added(wenna):
    stops = [{"key": "limit", "part": "limit", "proved": True}, {"key": "relief", "part": "relief", "found": ["ok"]}]
    check = wenna.post("shop/walk/check", document=own(wenna, stops=stops)).json()
    limit, relief = check["stops"]
    assert (limit["there"], limit["proves"], relief["there"]) == (True, True, False)
    assert {"tripped", "taped"} <= {word["key"] for word in limit["found"]}
    more = {row["key"]: row["stop"] for row in check["more"]}
    assert more["filter"]["part"] == "filter"
    assert "limit" not in more
    assert "trap" not in more  # an 80 % furnace has none
    for row in check["more"]:
        again = wenna.post("shop/walk/check", document=own(wenna, stops=[*stops, row["stop"]])).json()
        assert again["problem"] is None, row


@pytest.mark.parametrize(
    ("day", "zone", "cold"),
    [
        (date(2026, 1, 14), "Europe/Paris", True),
        (date(2026, 7, 14), "Europe/Paris", False),
        (date(2026, 7, 14), "Australia/Hobart", True),
        (date(2026, 1, 14), "Australia/Hobart", False),
        (date(2026, 1, 14), "UTC", True),
    ],
)
def test_the_cold_months_are_those_of_the_place(day, zone, cold):
    assert is_cold_season(day, zone) == cold
