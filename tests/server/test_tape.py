"""The tape in PostgreSQL: append-only, harmless to repeat, corrected beside."""

import uuid
from datetime import timedelta

import pytest
from django.db import DatabaseError, connection, transaction
from django.utils import timezone

from havrin_server.people.models import Person
from havrin_server.reports.paper_context import paper_context
from havrin_server.visits.models import TapeEntry, Visit


@pytest.mark.parametrize(
    "sql",
    [
        "UPDATE visits_tapeentry SET value_si = 0",
        "DELETE FROM visits_tapeentry",
        "TRUNCATE visits_tapeentry",
        "UPDATE visits_tapeentry SET data = '{}'",
    ],
)
def test_the_database_refuses_to_change_the_tape(world, sql):
    before = TapeEntry.objects.count()
    with (
        pytest.raises(DatabaseError, match=r"append-only|deferred|pending"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute(sql)
    assert TapeEntry.objects.count() == before > 0


def test_a_queryset_cannot_delete_either(world):
    with pytest.raises(DatabaseError, match="append-only"), transaction.atomic():
        TapeEntry.objects.filter(kind="reading").delete()


def test_writing_twice_writes_once(tove, visit):
    line_id = uuid.uuid4()
    first = tove.line(visit, "o2 6.4 co 46 t 118", line_id=line_id).json()
    second = tove.line(visit, "o2 6.4 co 46 t 118", line_id=line_id).json()
    assert len(first["tape"]) == len(second["tape"]) == 3
    assert first["version"] == second["version"]


def test_typed_columns_and_zone_are_kept(tove, visit):
    tove.line(visit, "mp 8.7 mbar left")
    entry = TapeEntry.objects.get(visit=visit)
    assert entry.value_si == pytest.approx(870)
    assert (entry.quantity, entry.stage, entry.phase, entry.zone) == ("manifold_pa", "only", "left", "-07:00")
    assert (entry.data["typed"], entry.data["unit"]) == (8.7, "mbar")


def test_a_clock_ahead_does_not_write_into_the_future(tove, visit):
    page = tove.line(visit, "room 1", at="2099-01-01T00:00:00+00:00").json()
    assert page["tape"][0]["at"] < "2099"


def test_what_is_received_long_after_says_so_and_what_comes_at_once_does_not(tove, visit):
    now = timezone.now()
    long_ago = (now - timedelta(hours=3)).isoformat()
    tove.line(visit, "mp 3.5", at=long_ago)
    page = tove.line(visit, "supply 7", at=(now - timedelta(minutes=2)).isoformat()).json()
    assert {entry["text"].split(",")[0].split()[0]: entry["received_at"] is not None for entry in page["tape"]} == {
        "Supply": False,
        "Manifold": True,
    }
    words = " ".join(
        block["text"]
        for block in paper_context(Visit.objects.get(pk=visit), Person.objects.get(username="tove"))["tape"]
    )
    assert words.count("received") == 1


def test_a_correction_stands_beside(tove, visit):
    page = tove.line(visit, "mp 9.5").json()
    assert any(r["code"] == "manifold_pa_out" for r in page["standing"]["reasons"])
    wrong = page["tape"][0]["id"]
    page = tove.post(
        f"visits/{visit}/corrections", id=str(uuid.uuid4()), corrects=wrong, text="mp 3.5", at="2026-01-14T10:01:00Z"
    ).json()
    assert not page["standing"]["reasons"]
    assert [e["kind"] for e in page["tape"]] == ["correction", "reading"]
    assert page["tape"][1]["corrected_by"] == page["tape"][0]["id"]
    page = tove.post(
        f"visits/{visit}/corrections",
        id=str(uuid.uuid4()),
        corrects=page["tape"][0]["id"],
        text=None,
        at="2026-01-14T10:02:00Z",
    ).json()
    assert any(r["code"] == "manifold_pa_out" for r in page["standing"]["reasons"])


@pytest.mark.parametrize(
    ("text", "code"),
    [("blorp 7", "line_not_understood"), ("o2 23", "line_not_understood"), ("   ", "line_not_understood")],
)
def test_what_is_not_understood_is_not_written(tove, visit, text, code):
    answer = tove.line(visit, text)
    assert answer.status_code == 422
    assert answer.headers["Content-Type"] == "application/problem+json"
    assert answer.json()["code"] == code
    assert not TapeEntry.objects.filter(visit=visit).exists()


def test_two_people_write_on_one_tape(tove, wenna, visit):
    tove.line(visit, "room 1")
    page = wenna.line(visit, "vent ok").json()
    assert {e["author"] for e in page["tape"]} == {"Tove Lindgarth", "Wenna Harrowick"}
    assert Visit.objects.get(pk=visit).version == 2


def test_reading_back_writes_nothing(tove, visit):
    said = tove.post(f"visits/{visit}/read-back", text="mp 3.5", phase="left").json()
    assert said["writable"]
    assert said["echo"] == ["Manifold 3.5 inWC", "as left"]
    assert not TapeEntry.objects.filter(visit=visit).exists()


def test_a_rise_without_numbers_uses_the_last_two(tove, visit):
    tove.line(visit, "ra 68")
    tove.line(visit, "sa 118")
    said = tove.post(f"visits/{visit}/read-back", text="rise").json()
    assert said["echo"][0].startswith("Rise 50 °F")


@pytest.mark.parametrize("number", range(8))
def test_what_was_said_in_one_line_stands_in_its_order_whatever_the_clocks_say(tove, visit, number):
    """Sent in the moment in which it was written: put right, every entry of it would be at the moment of receipt."""
    now = timezone.now().isoformat()
    body = {"id": str(uuid.uuid4()), "phase": "found", "at": now, "sent_at": now, "device": "tablet"}
    answer = tove.post(f"visits/{visit}/lines", text="dropped manifold from 4.1 to 3.5", **body)
    assert answer.status_code == 200, answer.content
    written = tove.get(f"visits/{visit}").json()["tape"][:3]
    assert [(entry["text"], entry["phase"]) for entry in reversed(written)] == [
        ("Manifold", "found"),
        ("Adjusted: gas valve", "found"),
        ("Manifold", "left"),
    ]
