"""Bundles on the server: whose rights count, and that a merge is whole or nothing."""

import copy
import json
import uuid
from functools import partial

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from havrin_server.visits.models import TapeEntry, Visit

AT = "2026-01-14T09:30:00+01:00"
OVERRIDE = {"what": "override", "text": "fine by me", "level": 2, "by_supervisor": True}


def entry(kind, data, **more):
    return {"id": str(uuid.uuid4()), "at": AT, "kind": kind, "phase": "found", "data": data, **more}


@pytest.fixture
def send(visit):
    def take_in(caller, *entries):
        bundle = json.loads(caller.get(f"visits/{visit}/bundle.json").content)
        bundle = copy.deepcopy(bundle)
        bundle["visit"]["entries"] += entries
        return caller.upload(f"visits/{visit}/bundle", SimpleUploadedFile("b.json", json.dumps(bundle).encode()))

    return take_in


def test_a_technician_cannot_bring_an_override_in(tove, wenna, visit, send):
    tove.line(visit, "mp 3.9")
    assert send(tove, entry("said", OVERRIDE)).status_code == 403
    later = "2026-01-14T10:30:00+01:00"
    assert send(wenna, entry("said", OVERRIDE, at=later)).json()["standing"]["level"] == 2


def test_nor_by_way_of_a_correction(tove, visit, send):
    page = tove.line(visit, "note later").json()
    replacement = {"kind": "said", "data": OVERRIDE}
    answer = send(tove, entry("correction", {"corrects": page["tape"][0]["id"], "replacement": replacement}))
    assert answer.status_code == 403
    assert TapeEntry.objects.filter(visit=visit).count() == 1


def test_the_office_cannot_take_a_bundle_in(odo, send):
    assert send(odo, entry("note", {"text": "x"})).status_code == 403


@pytest.mark.parametrize(
    ("bad", "code"),
    [
        (entry("note", {"text": "x"}, id="no-uuid"), "line_not_understood"),
        (
            entry("reading", {"quantity": "o2_dry_pct", "value": 23, "typed": 23, "unit": "%", "stage": "only"}),
            "entry_number",
        ),
        (entry("reading", {"quantity": "smell", "value": 3, "typed": 3, "unit": "%"}), "quantity_unknown"),
        (entry("note", {"words": "x"}), "entry_field"),
        (entry("note", {}), "entry_form"),
        (entry("note", {"text": "x"}, at="noon"), "entry_time"),
    ],
)
def test_one_bad_entry_keeps_the_whole_bundle_out(tove, visit, send, bad, code):
    answer = send(tove, entry("note", {"text": "good"}), bad)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert not TapeEntry.objects.filter(visit=visit).exists()


def test_entries_merge_by_their_own_time(tove, visit, send):
    tove.line(visit, "room 1", at="2026-01-14T10:00:00+01:00")
    page = send(tove, entry("condition", {"part": "vent", "condition": "ok"})).json()
    assert [e["kind"] for e in page["tape"]] == ["reading", "condition"]
    assert page["version"] == Visit.objects.get(pk=visit).version == 2


def test_a_closed_visit_takes_no_bundle(tove, world):
    closed = Visit.objects.filter(closed_at__isnull=False).first()
    bundle = tove.get(f"visits/{closed.pk}/bundle.json").content
    answer = tove.upload(f"visits/{closed.pk}/bundle", SimpleUploadedFile("b.json", bundle))
    assert (answer.status_code, answer.json()["code"]) == (409, "visit_closed")


def test_a_bundle_is_judged_the_same_on_the_command_line(tove, world, tmp_path, capsys):
    from havrin_core.command import assess_file, main

    for visit in Visit.objects.all():
        file = tmp_path / f"{visit.pk}.json"
        file.write_bytes(tove.get(f"visits/{visit.pk}/bundle.json").content)
        assert main(partial(assess_file, str(file))) == 0
        page = tove.get(f"visits/{visit.pk}").json()
        judged = json.loads(capsys.readouterr().out)
        assert (judged["level"], judged["title"]) == (page["standing"]["level"], page["standing"]["title"])
        assert [m["text"] for m in judged["missing"]] == [m["text"] for m in page["standing"]["missing"]]
