"""The String view over the interface: drawing, meter, sequence, suspects, and the one next step."""

import pytest

from havrin_server.visits.models import Visit


@pytest.fixture
def no_heat(visit):
    Visit.objects.filter(pk=visit).update(reason="no_heat")
    return visit


def view(client, visit, state=""):
    return client.get(f"visits/{visit}/string?state={state}").json()


def test_the_drawing_comes_from_the_circuit(tove, visit):
    page = view(tove, visit)
    assert page["known"]
    string = page["rungs"][0]
    keys = [p["key"] for p in string["parts"]]
    assert keys[:5] == ["fuse", "string_feed", "limit", "rollout", "pressure_switch"]
    assert len(string["nodes"]) == len(string["parts"]) + 1
    assert page["states"][0]["name"] == "No call"


def test_the_state_moves_what_is_expected(tove, visit):
    def after_the_switch(state):
        rung = view(tove, visit, state)["rungs"][0]
        return next(n for n in rung["nodes"] if n["key"] == "4")["expected"]

    assert after_the_switch("off") == {"text": "0.0", "unit": "V"}
    assert float(after_the_switch("steady")["text"]) > 24


def test_an_unknown_state_shows_the_last(tove, visit):
    assert view(tove, visit, "mars")["state"] == "steady"


def test_what_was_read_stands_at_its_place(tove, visit):
    tove.line(visit, "v 1 2 26.1")
    tove.line(visit, "v 1 c 26.2")
    rung = view(tove, visit)["rungs"][0]
    limit = next(p for p in rung["parts"] if p["key"] == "limit")
    assert (limit["read"]["text"], limit["state"]) == ("26.1", "out")
    assert not next(n for n in rung["nodes"] if n["key"] == "1")["odd"]


def test_the_stopwatch_is_laid_on_the_windows(tove, visit):
    tove.line(visit, "seen inducer 1.2")
    tove.line(visit, "seen flame 190")
    events = {e["key"]: e for e in view(tove, visit)["events"]}
    assert (events["inducer"]["seen_s"], events["inducer"]["state"]) == (1.2, "in")
    assert events["flame"]["state"] == "out"
    assert events["blower"]["state"] == "none"


def test_suspects_follow_the_tape(tove, visit):
    before = view(tove, visit)["suspects"]
    assert before["given"] == 0
    for line in ("code 3 4", "stops inducer", "ohms igniter OL"):
        tove.line(visit, line)
    after = view(tove, visit)["suspects"]
    assert after["clear"]
    assert after["suspects"][0]["name"] == "Hot-surface igniter"
    assert after["next"] is None
    assert after["proof"]


def test_an_offer_has_its_caution_and_others_beside_it(tove, visit):
    for line in ("code 2 3", "stops inducer"):
        tove.line(visit, line)
    found = view(tove, visit)["suspects"]
    assert found["next"]["starter"]
    assert len(found["others"]) == 4
    assert any("LINE" in o["caution"] or "low voltage" in o["caution"] or o["caution"] == "" for o in found["others"])


def test_a_corrected_reading_accuses_nobody(tove, visit):
    page = tove.line(visit, "ohms igniter OL").json()
    assert view(tove, visit)["suspects"]["given"] == 1
    tove.post(
        f"visits/{visit}/corrections",
        id="7b0f6c9e-0000-4000-8000-000000000001",
        corrects=page["tape"][0]["id"],
        text=None,
        at=page["tape"][0]["at"],
    )
    assert view(tove, visit)["suspects"]["given"] == 0


def test_the_meter_shows_a_sound_circuit(tove, visit):
    answer = tove.get(f"visits/{visit}/meter?state=steady&a=R&b=C").json()
    assert float(answer["shown"]["text"]) == pytest.approx(25.9, abs=0.3)


@pytest.mark.parametrize("query", ["state=steady&a=R&b=Q", "state=mars&a=R&b=C"])
def test_the_meter_refuses_what_is_not_there(tove, visit, query):
    answer = tove.get(f"visits/{visit}/meter?{query}")
    assert answer.status_code == 422
    assert "is called" in answer.json()["title"]


def test_the_next_step_is_the_next_test_while_a_cause_is_sought(tove, no_heat):
    tove.line(no_heat, "room 0")
    step = tove.line(no_heat, "code 2 3").json()["standing"]["next_step"]
    assert "probably the" in step["why"]
    named = tove.line(no_heat, "cause hose was off").json()["standing"]["next_step"]
    assert "probably the" not in named["why"]


def test_the_office_may_look(odo, visit):
    assert view(odo, visit)["known"]
