"""House rules: read, tried on the visits that were, kept by who may; a visit keeps its own."""

from dataclasses import asdict

import pytest

from havrin_core.house.house_rules import PRESETS
from havrin_server.people.models import Firm, Person
from havrin_server.visits.models import Visit
from havrin_server.visits.services import open_visit_rules


def put(caller, path, **body):
    import json

    return caller.http.put(f"/api/{path}", json.dumps(body), content_type="application/json")


def test_every_question_stands_with_its_answers_reasons_and_choice(odo):
    found = odo.get("house-rules").json()
    assert found["name"] == "common practice"
    assert len(found["questions"]) == 19
    for question in found["questions"]:
        assert question["chosen"] in {answer["key"] for answer in question["answers"]}
        assert all(answer["reason"] for answer in question["answers"])
    assert {preset["name"] for preset in found["presets"]} == set(PRESETS)
    assert found["writable"] is False


def test_the_rules_of_today_change_nothing(wenna):
    found = wenna.post("house-rules/try", rules={}).json()
    assert found["looked_at"] == 50
    assert (found["changed"], found["by_rule"]) == ([], {})


def test_a_dry_run_says_what_each_answer_would_change_and_keeps_nothing(wenna):
    before = Firm.objects.get().house_rules
    found = wenna.post("house-rules/try", rules={"worn_part": "replace", "flame_rod": "when_low"}).json()
    assert found["by_rule"]["flame_rod"] >= 0
    assert set(found["by_rule"]) == {"worn_part", "flame_rod"}
    assert any(row["says"] for row in found["changed"])
    strict = wenna.post("house-rules/try", rules=asdict(PRESETS["strict"])).json()
    assert len(strict["changed"]) >= 1
    for row in strict["changed"]:
        assert row["says"] or row["before"] != row["after"]
    assert Firm.objects.get().house_rules == before


def test_a_supervisor_keeps_rules_for_visits_to_come_and_the_others_keep_theirs(wenna, tove, visit):
    rules = Visit.objects.get(pk=visit).house_rules
    assert put(tove, "house-rules", rules={"jumpers": "none"}).status_code == 403
    answer = put(wenna, "house-rules", rules={"name": "ours", "jumpers": "none"})
    assert answer.status_code == 200
    assert answer.json()["name"] == "ours"
    assert Visit.objects.get(pk=visit).house_rules == rules
    assert open_visit_rules(Person.objects.get(username="tove"))["jumpers"] == "none"


@pytest.mark.parametrize(
    ("rules", "word"),
    [
        ({"jumpers": "many"}, "jumpers"),
        ({"co_air_free_ask_ppm": "low"}, "ask why"),
        ({"co_air_free_ask_ppm": 399.0, "co_air_free_action_ppm": 300.0}, "asking why"),
        ({"tea": 1}, "tea"),
    ],
)
def test_rules_that_cannot_be_are_answered_by_name(wenna, rules, word):
    for answer in (wenna.post("house-rules/try", rules=rules), put(wenna, "house-rules", rules=rules)):
        assert answer.status_code == 422
        assert word in answer.json()["title"]
