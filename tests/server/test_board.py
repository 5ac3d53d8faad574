"""Days: one's own first, everybody's on the board, what is on no day beside it; moved, given, cancelled; nothing out of sight."""

from datetime import timedelta

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from havrin_server.people.models import Person
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit
from tests.server.test_closing_page import write


@pytest.fixture
def today(world):
    return Unit.objects.get(label="UH-1").site.today(timezone.now())


@pytest.fixture
def call(odo, today):
    """A call that came in: on nobody's day."""
    unit = Unit.objects.get(label="UH-1")
    told = {"complaint": "Cold.", "since": "since noon", "there": "the grower", "whose": "nobody"}
    made = odo.post(f"units/{unit.pk}/visits", reason="no_heat", day=today.isoformat(), **told).json()
    return Visit.objects.get(pk=made["id"])


def board(caller):
    return caller.get("board").json()


def change(caller, visit, **more):
    visit.refresh_from_db()
    body = {
        "seen": visit.plan_version,
        "day": visit.day.isoformat(),
        "technician": visit.technician_id,
        "helpers": [],
        "reason": visit.reason,
        "complaint": visit.complaint,
    }
    return caller.put(f"visits/{visit.pk}/plan", **{**body, **more})


def person(name):
    return Person.objects.get(username=name).pk


def test_a_call_waits_on_no_day_with_what_was_told(odo, tove, call):
    row = next(one for one in board(odo)["on_no_day"] if one["id"] == call.pk)
    assert (row["since"], row["there"], row["technician_id"]) == ("since noon", "the grower", None)
    assert call.pk not in [stop["id"] for stop in tove.get("round").json()["stops"]]


def test_given_to_somebody_it_stands_on_their_day(odo, tove, call, today):
    tomorrow = today + timedelta(days=1)
    moved = change(odo, call, technician=person("tove"), day=tomorrow.isoformat(), start="10:30").json()
    assert (moved["start"], moved["technician_id"]) == ("10:30:00", person("tove"))
    stops = tove.get(f"round?day={tomorrow}").json()["stops"]
    assert call.pk in [stop["id"] for stop in stops]
    assert call.pk not in [one["id"] for one in board(odo)["on_no_day"]]


def test_several_go_and_each_has_it_on_their_day(odo, tove, wenna, call, today):
    change(odo, call, technician=person("wenna"), helpers=[person("tove")])
    assert call.pk in [stop["id"] for stop in tove.get("round").json()["stops"]]
    row = next(one for one in board(odo)["visits"] if one["id"] == call.pk)
    assert row["helpers"] == [person("tove")]


def test_dropped_before_another_it_stands_before_it(odo, tove, call, today):
    others = [stop["id"] for stop in tove.get("round").json()["stops"]]
    change(odo, call, technician=person("tove"), before=others[1])
    now = [stop["id"] for stop in tove.get("round").json()["stops"]]
    assert now == [others[0], call.pk, *others[1:]]
    assert [stop["turn"] for stop in tove.get("round").json()["stops"]] == list(range(1, len(now) + 1))


def test_the_second_who_moves_it_is_told(odo, wenna, call):
    assert change(odo, call, technician=person("tove")).status_code == 200
    answer = change(wenna, call, technician=person("wenna"), seen=0)
    assert (answer.status_code, answer.json()["code"]) == (409, "plan_moved")


@pytest.mark.parametrize(
    ("more", "code"),
    [
        ({"technician": 0}, "not_out"),
        ({"helpers": [1]}, "helpers"),
        ({"reason": "tea"}, "reason_unknown"),
        ({"day": "2020-01-01"}, "visit_day"),
        ({"complaint": "x" * 501}, "complaint_long"),
    ],
)
def test_a_plan_that_cannot_be_is_refused_and_the_old_one_stands(odo, call, more, code):
    answer = change(odo, call, **more)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    call.refresh_from_db()
    assert (call.plan_version, call.technician_id) == (0, None)


def test_the_office_goes_to_no_visit(wenna, call):
    assert change(wenna, call, technician=person("odo")).json()["code"] == "not_out"


def test_cancelled_with_a_reason_it_is_on_no_list_any_more(odo, call):
    assert odo.post(f"visits/{call.pk}/cancel", why=" ").json()["code"] == "cancel_why"
    assert odo.post(f"visits/{call.pk}/cancel", why="heat is back").status_code == 200
    assert call.pk not in [one["id"] for one in board(odo)["on_no_day"]]
    assert odo.post(f"visits/{call.pk}/cancel", why="again").status_code == 200
    call.refresh_from_db()
    assert call.cancelled_why == "heat is back"
    assert change(odo, call).json()["code"] == "visit_over"


def test_what_is_begun_is_not_cancelled_and_whoever_begins_has_it(odo, wenna, call, today):
    write(wenna, call.pk, "room 0")
    call.refresh_from_db()
    assert (call.technician_id, call.day) == (person("wenna"), today)
    assert odo.post(f"visits/{call.pk}/cancel", why="too late").json()["code"] == "visit_begun"
    assert change(odo, call, technician=None).json()["code"] == "visit_begun"


def test_a_line_written_on_what_was_cancelled_meanwhile_is_kept_and_the_visit_takes_place(odo, wenna, call):
    odo.post(f"visits/{call.pk}/cancel", why="heat is back")
    assert write(wenna, call.pk, "room 0")["writable"]
    call.refresh_from_db()
    assert call.cancelled_at is None


def test_what_a_day_left_over_is_on_ones_own_day_and_beside_the_board(odo, tove, today):
    visit = Visit.objects.filter(technician__username="tove", version=0, closed_at=None, day=today).first()
    Visit.objects.filter(pk=visit.pk).update(day=today - timedelta(days=3))
    assert visit.pk in [stop["id"] for stop in tove.get("round").json()["left_over"]]
    row = next(one for one in board(odo)["on_no_day"] if one["id"] == visit.pk)
    assert row["over"] == 3


def test_nothing_planned_is_out_of_sight(odo, today):
    """Every open visit stands on the board's days, beside them, or on a day that the board reaches by its own steps."""
    seen = set()
    for week in range(0, 3):
        first = today + timedelta(days=7 * week)
        shown = odo.get(f"board?first={first}&days=7").json()
        seen |= {one["id"] for one in (*shown["visits"], *shown["on_no_day"])}
    assert seen >= set(Visit.objects.filter(closed_at=None, cancelled_at=None).values_list("pk", flat=True))


def test_the_worst_is_first(odo, call):
    Unit.objects.filter(pk=call.unit_id).update(vulnerable="one aged 84")
    rows = board(odo)["on_no_day"]
    keys = [(-row["urgent"], not row["vulnerable"], -row["over"]) for row in rows]
    assert keys == sorted(keys)
    assert next(row for row in rows if row["id"] == call.pk)["urgent"] == 3


def test_a_unit_left_off_with_nothing_planned_is_named_until_something_is(odo, today):
    visit = Visit.objects.get(unit__label="RT-2", closed_at=None)
    assert "RT-2" not in " ".join(one["name"] for one in board(odo)["left_bad"])
    odo.post(f"visits/{visit.pk}/cancel", why="wrong bundle")
    left = next(one for one in board(odo)["left_bad"] if one["name"].startswith("RT-2"))
    assert left["level"] == 4
    body = {"reason": "recheck", "day": today.isoformat(), "whose": "nobody"}
    odo.post(f"units/{left['id']}/visits", **body)
    assert "RT-2" not in " ".join(one["name"] for one in board(odo)["left_bad"])


def test_a_year_after_its_maintenance_a_unit_is_due(odo, today):
    unit = Unit.objects.get(label="UH-1")
    Visit.objects.filter(unit=unit, closed_at=None).update(cancelled_at=timezone.now())
    Unit.objects.filter(pk=unit.pk).update(maintained_day=today - timedelta(days=364))
    before = board(odo)["due_in_all"]
    Unit.objects.filter(pk=unit.pk).update(maintained_day=today - timedelta(days=365))
    assert board(odo)["due_in_all"] == before + 1


def test_a_return_opens_with_what_is_to_be_fitted(wenna, today):
    first = Visit.objects.filter(unit__label="UH-1", closed_at__isnull=False).first()
    for task in ("fit the guard", "balance the other heater"):
        body = {
            "reason": "return_parts",
            "day": today.isoformat(),
            "task": task,
            "parts": [task],
            "returns_from": first.pk,
        }
        assert wenna.post(f"units/{first.unit_id}/visits", **body).status_code == 200
    stops = [stop for stop in wenna.get("round").json()["stops"] if stop["task"]]
    assert {stop["task"] for stop in stops} >= {"fit the guard", "balance the other heater"}
    assert first.returns.count() == 2


def test_another_units_visit_is_nothing_to_return_from(wenna, today):
    other = Visit.objects.filter(unit__label="F-2", closed_at__isnull=False).first()
    unit = Unit.objects.get(label="UH-1")
    body = {"reason": "return_parts", "day": today.isoformat(), "returns_from": other.pk}
    assert wenna.post(f"units/{unit.pk}/visits", **body).status_code == 404


def queries(caller, path):
    caller.get(path)  # what is worked out once is worked out
    with CaptureQueriesContext(
        connection,
    ) as seen:
        assert caller.get(path).status_code == 200
    return len(seen)


@pytest.mark.parametrize("path", ["round", "board"])
def test_more_stops_ask_the_database_no_more_often(tove, wenna, path, today):
    before = queries(tove, path)
    for label in ("UH-2", "RT-1", "F-5", "B-5"):
        unit = Unit.objects.get(label=label)
        body = {
            "reason": "recheck",
            "day": today.isoformat(),
            "complaint": "",
            "whose": "person",
            "technician": person("tove"),
        }
        made = wenna.post(f"units/{unit.pk}/visits", **body).json()
        if label in ("UH-2", "RT-1"):
            write(wenna, made["id"], "room 0")
    assert queries(tove, path) == before


def test_its_standing_on_a_list_is_that_of_its_page(tove, call, wenna):
    write(wenna, call.pk, "room 90")
    row = next(one for one in board(wenna)["visits"] if one["id"] == call.pk)
    page = wenna.get(f"visits/{call.pk}").json()["standing"]
    assert (row["level"], row["title"]) == (page["level"], page["title"])
    write(wenna, call.pk, "note the window is open")
    row = next(one for one in board(wenna)["visits"] if one["id"] == call.pk)
    page = wenna.get(f"visits/{call.pk}").json()["standing"]
    assert (row["level"], row["title"]) == (page["level"], page["title"])
