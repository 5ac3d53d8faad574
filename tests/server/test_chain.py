"""The tape that can be proved: linked as it is written, sealed at the close, checked from the file, the paper and the database."""

import copy
import json
import re
import subprocess
import uuid
from io import StringIO

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.db import DatabaseError, connection, transaction
from django.test import Client
from django.utils import timezone

from havrin_core.tape.chain import canonical, link
from havrin_core.tape.proof import signed_form
from havrin_server.visits import seal
from havrin_server.visits.chain import amendment_record_of, broken_at, chained
from havrin_server.visits.models import Visit

pytestmark = pytest.mark.django_db


def written(caller, visit, *lines):
    for text in lines:
        answer = caller.line(visit, text)
        assert answer.status_code == 200, answer.content
    return Visit.objects.get(pk=visit)


def sealed_visit():
    """A closed visit of the sample world."""
    return Visit.objects.filter(closed_at__isnull=False, version__gt=3).order_by("pk").first()


def bundle_of(caller, visit):
    return json.loads(caller.get(f"visits/{visit}/bundle.json").content)


def uploaded(caller, bundle):
    file = SimpleUploadedFile("visit.json", json.dumps(bundle).encode())
    return caller.upload("check", file).json()


def told(*arguments):
    out = StringIO()
    call_command("verify", *arguments, stdout=out)
    return out.getvalue()


def test_every_visit_of_the_sample_world_holds_and_every_closed_one_is_sealed(world):
    for visit in Visit.objects.filter(version__gt=0):
        assert broken_at(visit, chained(visit)) is None, visit.pk
        assert (visit.seal is not None) is (visit.closed_at is not None)


def test_lines_corrections_and_bundles_go_into_one_chain(tove, visit):
    there = written(tove, visit, "room 0", "o2 6.4 co 46 t 118", "note a note")
    first = there.head
    entry = chained(there)[0]
    tove.post(
        f"visits/{visit}/corrections",
        id="00000000-0000-4000-8000-000000000001",
        corrects=str(entry.pk),
        text="room 1",
        at="2026-01-14T10:05:00+01:00",
        why="",
    )
    there.refresh_from_db()
    assert [row.number for row in chained(there)] == list(range(1, there.version + 1))
    assert broken_at(there, chained(there)) is None
    assert there.head != first


def test_a_change_behind_the_applications_back_is_found_at_its_place(tove, visit):
    there = written(tove, visit, "room 0", "mp 3.5", "supply 7")
    row = chained(there)[1]
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("ALTER TABLE visits_tapeentry DISABLE TRIGGER tape_append_only")
        cursor.execute("UPDATE visits_tapeentry SET value_si = 900 WHERE id = %s", [row.pk])
    found = broken_at(there, chained(there))
    assert (found.number, found.entry) == (2, str(row.pk))
    with pytest.raises(CommandError, match="Entry 2"):
        told(str(visit))


def test_the_newest_entry_taken_away_is_found(tove, visit):
    there = written(tove, visit, "room 0", "mp 3.5")
    assert broken_at(there, chained(there)[:-1]).number == 2


def test_the_database_refuses_to_change_a_closed_visit(world):
    visit = sealed_visit()
    for change in ({"signed_by": "Somebody"}, {"closed_level": 1}, {"day": "2020-01-01"}, {"seal": None}):
        with pytest.raises(DatabaseError, match="closed visit"), transaction.atomic():
            Visit.objects.filter(pk=visit.pk).update(**change)
    with pytest.raises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("DELETE FROM visits_visit WHERE id = %s", [visit.pk])
    with pytest.raises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("TRUNCATE visits_visit CASCADE")


def test_a_bundle_proves_itself(tove, tmp_path):
    visit = sealed_visit()
    bundle = bundle_of(tove, visit.pk)
    assert uploaded(tove, bundle) == {
        "holds": True,
        "flaws": [],
        "entries": visit.version,
        "sealed": True,
        "ours": True,
    }
    file = tmp_path / "visit.json"
    file.write_text(json.dumps(bundle), encoding="utf-8")
    assert "sealed by this installation" in told(str(file))
    assert "sealed by this installation" in told(str(visit.pk))


def test_an_open_visit_is_proved_and_not_sealed(tove, visit):
    written(tove, visit, "room 0")
    answer = uploaded(tove, bundle_of(tove, visit))
    assert (answer["holds"], answer["sealed"], answer["ours"]) == (True, False, False)
    assert "not sealed (" in told(str(visit))


def changed_entry(bundle):
    entry = next(row for row in bundle["visit"]["entries"] if row["kind"] == "reading")
    entry["data"]["value"] *= 1.01


def changed_author(bundle):
    bundle["visit"]["entries"][0]["author"] = "Somebody Else"


def changed_name(bundle):
    names = bundle["proof"]["names"]["people"]
    for key in names:
        names[key] = "Somebody Else"
    for row in bundle["visit"]["entries"]:
        row["author"] = "Somebody Else"


def changed_moment(bundle):
    bundle["visit"]["entries"][0]["at"] = "2025-01-01T00:00:00+00:00"


def changed_phase(bundle):
    bundle["visit"]["entries"][0]["phase"] = "left" if bundle["visit"]["entries"][0]["phase"] == "found" else "found"


def left_out(bundle):
    del bundle["visit"]["entries"][1]


def put_in(bundle):
    bundle["visit"]["entries"].append({**bundle["visit"]["entries"][0], "id": "00000000-0000-4000-8000-00000000000a"})


def cut_off(bundle):
    gone = bundle["proof"]["records"].pop()
    bundle["proof"]["links"].pop()
    bundle["visit"]["entries"] = [row for row in bundle["visit"]["entries"] if row["id"] != gone["id"]]


def changed_statement(bundle):
    bundle["proof"]["seal"]["statement"]["level"] = 1 + bundle["proof"]["seal"]["statement"]["level"]


def another_signature(bundle):
    bundle["proof"]["seal"]["signature"] = "A" * 86 + "=="


def no_seal(bundle):
    bundle["proof"]["seal"] = {}


def no_proof(bundle):
    del bundle["proof"]


@pytest.mark.parametrize(
    "tamper",
    [
        changed_entry,
        changed_author,
        changed_name,
        changed_moment,
        changed_phase,
        left_out,
        put_in,
        cut_off,
        changed_statement,
        another_signature,
        no_seal,
        no_proof,
    ],
)
def test_a_bundle_that_was_changed_does_not_hold(tove, tmp_path, tamper):
    bundle = bundle_of(tove, sealed_visit().pk)
    changed = copy.deepcopy(bundle)
    tamper(changed)
    assert changed != bundle
    answer = uploaded(tove, changed)
    assert answer["holds"] is False
    assert answer["ours"] is False
    assert answer["flaws"]
    file = tmp_path / "visit.json"
    file.write_text(json.dumps(changed), encoding="utf-8")
    with pytest.raises(CommandError, match="does not hold"):
        told(str(file))


def test_what_is_no_bundle_is_said(tove, tmp_path):
    file = SimpleUploadedFile("x.json", b"no json")
    assert tove.upload("check", file).json()["code"] == "bundle_not_json"
    with pytest.raises(CommandError, match="cannot be read"):
        told(str(tmp_path / "nothing.json"))
    with pytest.raises(CommandError, match="no visit"):
        told("999999")


def test_whoever_holds_the_paper_compares_it(world):
    visit = sealed_visit()
    answer = Client().get(f"/api/check/{visit.head}").json()
    assert answer["stands"] is True
    assert (answer["head"], answer["signed_by"], answer["entries"]) == (visit.head, visit.signed_by, visit.version)
    assert answer["day"] == visit.day.isoformat()
    assert answer["key"] == seal.short(seal.own_key())


def amended(caller, visit, *lines):
    for text in lines:
        answer = caller.post(
            f"visits/{visit.pk}/amendments",
            id=str(uuid.uuid4()),
            lines=[{"text": text}],
            why="forgotten on the day",
            at=timezone.now().isoformat(),
        )
        assert answer.status_code == 200, answer.content


def test_what_is_said_afterwards_goes_on_behind_the_sealed_end(tove, world):
    visit = sealed_visit()
    amended(tove, visit, "told owner", "note a second thing")
    rows = list(visit.amendments.order_by("number"))
    assert [row.number for row in rows] == [1, 2]
    assert rows[0].link == link(visit.head, amendment_record_of(rows[0]))
    assert seal.holds(signed_form(rows[1].seal["statement"]), rows[1].seal)
    assert Client().get(f"/api/check/{visit.head}").json()["stands"] is True
    told(str(visit.pk))


@pytest.mark.parametrize(
    "change",
    [
        "UPDATE visits_amendment SET why = 'something else' WHERE number = 1",
        "UPDATE visits_amendment SET at = at - interval '1 day' WHERE number = 2",
        "DELETE FROM visits_amendment WHERE number = 1",
        "UPDATE visits_amendment SET seal = jsonb_set(seal, '{signature}', '\"AAAA\"') WHERE number = 2",
    ],
)
def test_an_amendment_changed_behind_the_applications_back_is_found(tove, world, change):
    visit = sealed_visit()
    amended(tove, visit, "told owner", "note a second thing")
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("ALTER TABLE visits_amendment DISABLE TRIGGER amendment_append_only")
        cursor.execute("ALTER TABLE reports_paper DISABLE TRIGGER ALL")
        cursor.execute("DELETE FROM reports_paper WHERE amendment_id IS NOT NULL")
        cursor.execute(change)
    assert Client().get(f"/api/check/{visit.head}").json()["stands"] is False
    with pytest.raises(CommandError, match="since its close"):
        told(str(visit.pk))


@pytest.mark.parametrize("head", ["0" * 64, "x", "%20", "../round"])
def test_digits_that_no_paper_bears_open_nothing(world, head):
    assert Client().get(f"/api/check/{head}").status_code == 404


def test_an_open_visit_is_not_checked_from_outside(tove, visit):
    there = written(tove, visit, "room 0")
    assert Client().get(f"/api/check/{there.head}").status_code == 404


def test_a_seal_of_another_installation_does_not_stand(world, monkeypatch):
    monkeypatch.setattr(seal, "own_key", lambda: "A" * 43 + "=")
    assert Client().get(f"/api/check/{sealed_visit().head}").json()["stands"] is False


def test_the_paper_says_where_it_is_checked(tove, tmp_path):
    visit = sealed_visit()
    file = tmp_path / "paper.pdf"
    file.write_bytes(tove.get(f"visits/{visit.pk}/customer.pdf").content)
    text = subprocess.run(["pdftotext", "-layout", str(file), "-"], capture_output=True, text=True, check=True).stdout
    bare = re.sub(r"\s", "", text)
    assert visit.head[:16] in bare
    assert f"/check/{visit.head}" in bare


def test_the_key_is_for_its_own_user_alone(settings, tmp_path, monkeypatch):
    file = tmp_path / "state" / "signing-key"
    seal._make(file)
    first = file.read_bytes()
    seal._make(file)  # another process was quicker: its key stays
    assert file.read_bytes() == first
    assert oct(file.stat().st_mode)[-3:] == "600"
    assert [path.name for path in file.parent.iterdir()] == ["signing-key"]


def test_what_is_signed_begins_with_its_form():
    assert signed_form({"b": 1, "a": 2}) == b"havrin-seal-1\n" + canonical({"a": 2, "b": 1})


def test_a_close_that_comes_twice_is_answered_as_before(tove):
    visit = Visit.objects.filter(closed_at__isnull=False, closed_by__username="tove").first()
    body = {"seen_version": visit.version - 1, "customer_words": "", "signature": []}
    assert tove.post(f"visits/{visit.pk}/close", signed_by=visit.signed_by, **body).status_code == 200
    assert tove.post(f"visits/{visit.pk}/close", signed_by="Somebody", **body).json()["code"] == "visit_closed"
    head = visit.head
    visit.refresh_from_db()
    assert visit.head == head
