"""A closed visit stays as it was signed: page and papers, whatever is changed afterwards; amendments have their own."""

import copy
import hashlib
import json
import uuid
from datetime import timedelta

import pytest
from django.db import DatabaseError, connection, transaction
from django.utils import timezone

from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Person
from havrin_server.reports import kept
from havrin_server.reports.models import Paper
from havrin_server.shop.models import ShopDocument
from havrin_server.versions.models import Version
from havrin_server.visits.models import Amendment, Visit
from tests.core.rows import SOUND
from tests.server.conftest import NOW
from tests.server.test_closing_page import write

pytestmark = pytest.mark.filterwarnings("ignore::DeprecationWarning")
PAPERS = ("report", "customer", "tag", "sheet", "quote")


@pytest.fixture
def closed(tove, visit):
    page = write(tove, visit, *SOUND)
    answer = tove.post(f"visits/{visit}/close", seen_version=page["version"], signed_by="Tove", customer_words="Well.")
    assert answer.status_code == 200, answer.content
    return visit


class AtOnce:
    """Prints at once what is printed beside the answer elsewhere: a test's transaction is seen by no other thread."""

    def submit(self, work, *given):
        work(*given)


def everything_changed(visit):
    """Change every document that the visit was judged by."""
    unit = Visit.objects.get(pk=visit).unit
    model = ShopDocument.objects.get(pk=unit.model_id)
    document = copy.deepcopy(model.document)
    document["plate"]["stages"] = [{**row, "manifold_pa": 2000.0} for row in document["plate"]["stages"]]
    document["name"] = "Another"
    ShopDocument.objects.filter(pk=model.pk).update(document=document)
    unit.plate, unit.serial = {"rise_min_k": 90.0, "rise_max_k": 99.0}, "changed"
    unit.save()
    Instrument.objects.update(accuracy={"co_ppm_dry": {"absolute": 500.0}})
    firm = unit.site.firm
    firm.house_rules = {}
    firm.save()


def paper(caller, visit, kind):
    answer = caller.get(f"visits/{visit}/{kind}.pdf")
    assert answer.status_code == 200
    return answer.content


def test_a_later_edit_changes_no_closed_page_and_no_paper(tove, closed):
    papers = {kind: paper(tove, closed, kind) for kind in PAPERS}
    page = tove.get(f"visits/{closed}").json()
    everything_changed(closed)
    after = tove.get(f"visits/{closed}").json()
    for changing in ("instruments", "unit_line"):
        page.pop(changing), after.pop(changing)
    assert after == page
    assert {kind: paper(tove, closed, kind) for kind in PAPERS} == papers


def test_papers_are_kept_at_the_close_with_their_digest_for_everybody(
    tove, wenna, visit, monkeypatch, django_capture_on_commit_callbacks
):
    monkeypatch.setattr(kept, "_PRINTER", AtOnce())
    monkeypatch.setattr(kept.connection, "close", lambda: None)  # the test's own, which it still needs
    page = write(tove, visit, *SOUND)
    with django_capture_on_commit_callbacks(execute=True):
        tove.post(f"visits/{visit}/close", seen_version=page["version"], signed_by="Tove", customer_words="Well.")
    closed = visit
    assert set(Paper.objects.filter(visit=closed).values_list("kind", flat=True)) == set(PAPERS)
    Person.objects.filter(username="wenna").update(unit_system="metric")
    for row in tove.get(f"visits/{closed}").json()["close"]["papers"]:
        content = paper(wenna, closed, row["file"].removesuffix(".pdf"))
        assert hashlib.sha256(content).hexdigest() == row["sha256"]


def test_a_paper_that_the_close_did_not_come_to_is_kept_at_the_first_asking(tove, world):
    old = Visit.objects.filter(closed_at__isnull=False, unit__label="F-2").first().pk
    assert not Paper.objects.filter(visit=old).exists()
    first = paper(tove, old, "customer")
    everything_changed(old)
    assert paper(tove, old, "customer") == first


def test_an_open_visit_is_judged_by_what_it_began_with_until_somebody_says_otherwise(tove, wenna, visit):
    page = write(tove, visit, "mp 3.5")
    assert page["moved_on"] == []
    unit = Visit.objects.get(pk=visit).unit
    document = copy.deepcopy(unit.model.document)
    document["plate"]["stages"] = [{**row, "manifold_pa": 2000.0} for row in document["plate"]["stages"]]
    body = json.dumps({"document": document, "reason": "the plate was read wrong"})
    answer = wenna.http.put("/api/shop/model", body, content_type="application/json")
    assert answer.status_code == 200, answer.content
    page = tove.get(f"visits/{visit}").json()
    assert "the plate was read wrong" in page["moved_on"][0]
    assert page["standing"]["reasons"] == []
    page = tove.post(f"visits/{visit}/newest").json()
    assert page["moved_on"] == []
    assert [r["code"] for r in page["standing"]["reasons"]] == ["manifold_pa_out"]
    assert "Judged by the newest" in json.dumps(page["tape"])


def test_documents_are_kept_version_by_version_with_author_and_reason(wenna, visit):
    model = Visit.objects.get(pk=visit).unit.model
    numbers = []
    for serial in ("one", "two", "two"):
        document = {**model.document, "name": f"Anvil {serial}"}
        body = json.dumps({"document": document, "reason": f"because {serial}"})
        assert wenna.http.put("/api/shop/model", body, content_type="application/json").status_code == 200
        numbers.append(Version.objects.filter(sort="model", key=model.key).count())
    assert numbers[1] == numbers[2] == numbers[0] + 1
    newest = Version.objects.filter(sort="model", key=model.key).latest("number")
    assert (newest.reason, newest.author.username) == ("because two", "wenna")


@pytest.mark.parametrize("table", ["versions_version", "reports_paper", "visits_amendment"])
def test_the_database_refuses_to_change_what_was_kept(tove, closed, table):
    amended(tove, closed, "vent loose")
    for words in (f"DELETE FROM {table}", f"UPDATE {table} SET id = id"):
        with pytest.raises(DatabaseError, match="append-only"), transaction.atomic(), connection.cursor() as cursor:
            cursor.execute(words)


def amended(caller, visit, *lines, why="forgotten on the day", key=None):
    rows = [{"text": line} for line in lines]
    return caller.post(
        f"visits/{visit}/amendments", id=str(key or uuid.uuid4()), lines=rows, why=why, at=timezone.now().isoformat()
    )


def test_an_amendment_is_its_own_dated_entry_and_paper_and_the_close_stands(tove, closed):
    before = tove.get(f"visits/{closed}").json()
    kept = paper(tove, closed, "report")
    key = uuid.uuid4()
    page = amended(tove, closed, "told owner", key=key).json()
    assert amended(tove, closed, "told owner", key=key).status_code == 200  # sent twice
    assert page["standing"] == before["standing"]
    assert page["tape"] == before["tape"]
    (row,) = page["close"]["amendments"]
    assert (row["author"], row["why"], row["adds"]) == ("Tove Lindgarth", "forgotten on the day", False)
    assert paper(tove, closed, "report") == kept
    own = tove.get(f"amendments/{row['id']}.pdf")
    assert own["Content-Type"] == "application/pdf"
    assert tove.get(f"amendments/{row['id']}.pdf").content == own.content
    assert Amendment.objects.count() == 1


def test_what_an_amendment_brings_to_light_is_open_at_the_next_visit(tove, closed):
    assert amended(tove, closed, "found crack cell 2").json()["close"]["amendments"][0]["adds"]
    last = Visit.objects.get(pk=closed)
    following = Visit.objects.create(
        unit=last.unit,
        reason=last.reason,
        day=timezone.now().date() + timedelta(days=1),
        technician=last.technician,
        house_rules=last.house_rules,
    )
    assert write(tove, following.pk, *SOUND)["standing"]["level"] == 4
    said = tove.get(f"visits/{following.pk}/arrival").json()["refused"]
    assert any(line.startswith("Amended") and "cracked" in line for line in said)


def test_an_amendment_lifts_nothing(tove, visit):
    page = write(tove, visit, *SOUND, "found crack cell 3", "shut down gas shut, tagged", "told the caretaker")
    tove.post(f"visits/{visit}/close", seen_version=page["version"], signed_by="Tove", customer_words="Shut.")
    left = Visit.objects.get(pk=visit).left_open
    amended(tove, visit, "did change exchanger", "untag relit", "cycles 3")
    assert Visit.objects.get(pk=visit).left_open == left
    last = Visit.objects.get(pk=visit)
    after = Visit.objects.create(
        unit=last.unit,
        reason="maintenance",
        day=timezone.now().date() + timedelta(days=1),
        technician=last.technician,
        house_rules=last.house_rules,
    )
    assert write(tove, after.pk, *SOUND)["standing"]["level"] == 4


@pytest.mark.parametrize(
    ("lines", "why", "code"),
    [
        (["told owner"], " ", "amendment_reason"),
        (["flumph 9"], "because", "line_not_understood"),
    ],
)
def test_an_amendment_that_cannot_be_is_answered(tove, closed, lines, why, code):
    answer = amended(tove, closed, *lines, why=why)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert not Amendment.objects.exists()


def test_an_open_visit_is_written_on_and_not_amended(tove, visit):
    assert amended(tove, visit, "told owner").json()["code"] == "visit_open"


def test_the_office_does_not_amend(odo, closed):
    assert amended(odo, closed, "told owner").status_code == 403


def test_an_amendment_shows_the_clock_of_the_place(tove, closed):
    answer = tove.post(
        f"visits/{closed}/amendments", id=str(uuid.uuid4()), lines=[{"text": "told owner"}], why="late", at=NOW
    )
    assert answer.json()["close"]["amendments"][0]["at"].startswith("2026-01-14T02:00")
