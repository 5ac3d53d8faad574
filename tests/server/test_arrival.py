"""The Arrival view over the interface."""

import pytest

from havrin_server.visits.models import Visit


def view(client, visit):
    return client.get(f"visits/{visit}/arrival").json()


def test_it_tells_what_came_before(tove, visit):
    page = view(tove, visit)
    assert "Advised: new igniter before next winter" in page["refused"]
    assert any(line.startswith("Flame signal") for line in page["healthy"]["readings"])
    assert page["code_style"] == "flashes"
    assert {"pattern": "2 3", "meaning": "The pressure switch did not prove"} in page["codes"]
    assert page["gas_smell"][0].startswith("Touch no switch")


def test_answers_come_back_from_the_tape(tove, visit):
    for line in ("look line ok", "look gas supply bad", "code 2 4"):
        tove.line(visit, line)
    page = view(tove, visit)
    answered = {t["key"]: t["answered"] for t in page["triage"]}
    assert (answered["power"], answered["gas"], answered["vent"]) == ("ok", "bad", "")
    assert page["code_note"] == ""


def test_digits_are_shown_where_the_control_has_them(tove):
    boiler = Visit.objects.filter(unit__label="B-4").first()
    assert view(tove, boiler.pk)["code_style"] == "digits"


def test_units_on_one_branch_are_side_by_side(wenna):
    visit = Visit.objects.filter(unit__label="B-2").latest("day").pk
    page = wenna.get(f"visits/{visit}/arrival").json()
    assert page["gas_line"].startswith("Propagation branch")
    assert [(n["unit"][:3], n["supply"]["unit"]) for n in page["neighbours"]] == [("B-3", "inWC")]


def test_the_two_lock_outs_lie_on_one_axis(wenna):
    visit = Visit.objects.get(unit__label="F-4", closed_at=None).pk
    axis = wenna.get(f"visits/{visit}/arrival").json()["axis"]
    assert [s["runs"] for s in axis["spans"]] == ["gas", "none", "pump"]
    assert [m["name"] for m in axis["marks"]] == ["gas off above", "heat pump off below", "outdoors now"]
    assert axis["marks"][0]["at"] < axis["marks"][2]["at"] < axis["marks"][1]["at"]


@pytest.mark.parametrize(
    ("unit", "style"), [("RT-3", "colours"), ("F-5", "beats"), ("B-4", "digits"), ("F-2", "flashes")]
)
def test_codes_are_read_as_the_models_chart_shows_them(wenna, unit, style):
    visit = Visit.objects.filter(unit__label=unit).latest("day").pk
    assert wenna.get(f"visits/{visit}/arrival").json()["code_style"] == style
