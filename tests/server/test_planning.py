"""Visits to come: planned from a unit's record and from a visit's end."""

from datetime import timedelta

import pytest
from django.utils import timezone

from havrin_server.people.models import Firm, Person
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit
from tests.server.test_closing_page import closing, write


@pytest.fixture
def unit(world):
    return Unit.objects.get(label="UH-1")


def plan(caller, unit, *, days=0, reason="recheck", complaint="Ticks at night."):
    day = unit.site.today(timezone.now()) + timedelta(days=days)  # the day of the place, not of the server
    return caller.post(f"units/{unit.pk}/visits", reason=reason, day=day.isoformat(), complaint=complaint)


def test_a_visit_of_today_stands_at_the_end_of_the_round(tove, unit):
    planned = plan(tove, unit).json()
    last = tove.get("round").json()["stops"][-1]
    assert (last["id"], last["complaint"], last["reason"]) == (planned["id"], "Ticks at night.", "Re-check")
    assert write(tove, planned["id"], "room 0")["writable"] is True
    assert Visit.objects.get(pk=planned["id"]).rules() == Firm.objects.get().rules()


def test_planned_twice_it_is_one_visit(tove, unit):
    assert plan(tove, unit, days=3).json()["id"] == plan(tove, unit, days=3).json()["id"]
    assert plan(tove, unit, days=4).json()["id"] != plan(tove, unit, days=3).json()["id"]


@pytest.mark.parametrize(
    ("given", "code"),
    [
        ({"days": -1}, "visit_day"),
        ({"days": 2000}, "visit_day"),
        ({"reason": "tea"}, "reason_unknown"),
        ({"complaint": "x" * 501}, "complaint_long"),
    ],
)
def test_what_cannot_be_planned_is_said(tove, unit, given, code):
    answer = plan(tove, unit, **given)
    assert (answer.status_code, answer.json()["code"]) == (422, code)


def test_what_the_office_plans_goes_to_who_was_last_there(odo, unit):
    last = unit.visit_set.order_by("-day", "-pk").first().technician
    assert plan(odo, unit, days=2).json()["technician"] == last.full_name


def test_another_firms_unit_is_not_there(tove, unit):
    other = Firm.objects.create(name="Other")
    Person.objects.filter(username="tove").update(firm=other)
    assert plan(tove, unit).status_code == 404


def test_a_return_visit_is_put_on_the_round_once(tove, visit):
    write(tove, visit, "part igniter", "arrives igniter in 2 days")
    row = next(r for r in closing(tove, visit)["returns"] if r["reason"] == "return_parts")
    assert row["planned"] is False
    unit = Visit.objects.get(pk=visit).unit_id
    body = {"reason": row["reason"], "day": row["day"], "complaint": row["why"]}
    assert tove.post(f"units/{unit}/visits", **body).status_code == 200
    again = next(r for r in closing(tove, visit)["returns"] if r["reason"] == "return_parts")
    assert again["planned"] is True
