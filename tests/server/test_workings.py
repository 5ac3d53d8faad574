"""Gas, Draft and Air or Water over the interface."""

from havrin_server.visits.models import Visit


def workings(client, visit):
    return client.get(f"visits/{visit}/workings").json()


def figure(page, path, key):
    return next(f for s in page[path] for f in s["figures"] if f["key"].split()[0] == key)


def test_what_was_read_is_worked_out(tove, visit):
    for line in ("lockup 7.8", "supply 7.0", "mp 3.9", "clock 2 ft3 1 90", "draft .88", "ra 68", "rise 49"):
        assert tove.line(visit, line).status_code == 200, line
    page = workings(tove, visit)
    assert "turn out" in figure(page, "gas", "manifold_gap_pa")["aside"]
    metered = figure(page, "gas", "input_metered_w")
    assert metered["shown"]["unit"] == "kBtu/h"
    assert metered["half_width"]
    assert [i["name"] for i in metered["inputs"]][:2] == ["one turn of the dial", "turns"]
    assert figure(page, "air", "airflow_m3_s")["shown"]["unit"] == "CFM"
    assert page["switches"][0]["state"] == "in"
    assert page["water"] == []


def test_the_ladder_has_one_scale(tove, visit):
    for minute, line in enumerate(("lockup 7.8", "supply 7.0", "mp 3.9", "left: mp 3.5")):
        phase, text = line.split(": ") if ": " in line else ("found", line)
        tove.line(visit, text, phase=phase, at=f"2026-01-14T10:0{minute}:00+01:00")
    ladder = workings(tove, visit)["ladder"]
    assert [r["name"] for r in ladder] == ["No flow", "All running", "Manifold"]
    values = [r["value"] for r in ladder]
    assert values == sorted(values, reverse=True)
    assert all(0 < v < 1 for v in values)
    assert ladder[2]["found"] > ladder[2]["value"]
    assert (ladder[0]["state"], ladder[2]["starter"]) == ("in", "mp ")


def test_units_follow_the_person(tove, visit):
    tove.http.patch("/api/session", {"unit_system": "metric"}, content_type="application/json")
    tove.line(visit, "mp 8.7 mbar")
    assert figure(workings(tove, visit), "gas", "manifold_gap_pa")["shown"]["unit"] == "mbar"


def test_a_boiler_has_water_and_a_clock_for_spillage(wenna):
    visit = Visit.objects.filter(unit__label="B-2", version__gt=0).latest("day").pk
    page = workings(wenna, visit)
    assert page["vent"]["natural"]
    assert page["air"] == []
    assert figure(page, "water", "return_margin_k")
    assert page["switches"] == []


def test_each_view_says_what_to_mind(tove, visit):
    mind = workings(tove, visit)["mind"]
    assert set(mind) == {"gas", "draft", "air", "water"}
    assert "Leak-test every tap" in mind["gas"]
    assert "hot dry boiler" in mind["water"]
