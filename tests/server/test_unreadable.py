"""A stored row that nobody can read: shown in its place, it holds the visit, ends nothing, and a supervisor sets it aside."""

import uuid
from datetime import datetime

import pytest
from django.db import connection

from havrin_server.visits.chain import store
from havrin_server.visits.models import TapeEntry, Visit

pytestmark = pytest.mark.django_db
NOW = "2026-01-14T10:00:00+01:00"


@pytest.fixture
def broken(tove, visit):
    """A visit with one row as no call would have stored it."""
    tove.line(visit, "found flame rod dirty")
    tove.line(visit, "mp 3.5")
    there = Visit.objects.get(pk=visit)
    bad = TapeEntry(
        id=uuid.uuid4(),
        visit=there,
        unit_id=there.unit_id,
        group=uuid.uuid4(),
        kind="condition",
        phase="found",
        at=datetime.fromisoformat(NOW),
        recorded_at=datetime.fromisoformat(NOW),
        author_id=there.technician_id,
        data={"part": "warp_core", "condition": 7},
    )
    store(there, [bad])
    return bad


def strike(caller, visit, entry, why):
    body = {"id": str(uuid.uuid4()), "corrects": str(entry.pk), "text": None, "at": NOW, "why": why}
    return caller.post(f"visits/{visit}/corrections", **body)


def test_it_is_shown_in_its_place_and_everything_else_answers(tove, visit, broken):
    page = tove.get(f"visits/{visit}").json()
    shown = next(row for row in page["tape"] if row["id"] == str(broken.pk))
    assert shown["text"].startswith("Cannot be read: ")
    assert len(page["tape"]) == 3
    reason = next(row for row in page["standing"]["reasons"] if row["code"] == "unreadable_entry")
    assert "supervisor sets it aside" in reason["lifts"]
    for path in (f"units/{broken.unit_id}", "round", f"visits/{visit}/closing", f"visits/{visit}/bundle.json"):
        assert tove.get(path).status_code == 200, path
    assert tove.get(f"visits/{visit}/report.pdf").content.startswith(b"%PDF")
    assert tove.line(visit, "supply 7.0").status_code == 200


def test_a_supervisor_sets_it_aside_with_a_reason(tove, wenna, visit, broken):
    assert strike(tove, visit, broken, "looks wrong").status_code == 403
    assert strike(wenna, visit, broken, "").json()["code"] == "strike_reason"
    page = strike(wenna, visit, broken, "row of a program that is gone").json()
    assert not [row for row in page["standing"]["reasons"] if row["code"] == "unreadable_entry"]
    with connection.cursor() as cursor:
        cursor.execute("select count(*) from visits_tapeentry where id = %s", [broken.pk])
        assert cursor.fetchone() == (1,), "it stays on the tape"
