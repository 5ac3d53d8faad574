"""The Arrival view over the interface."""

from havrin_server.journal.models import Visit


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
