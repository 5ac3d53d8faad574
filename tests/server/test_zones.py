"""Late in the evening at the place: the day, the tape, the papers and what may be planned are the place's, not Greenwich's."""

from datetime import UTC, datetime, timedelta

import pytest

from havrin_server.people.models import Firm
from havrin_server.units.models import Site
from havrin_server.visits.models import Visit
from tests.core.rows import SOUND
from tests.server.test_closing_page import text_of

WEST, EAST = "MST7MDT", "Etc/GMT-10"
# 22:30 on the last day of January, west and east of Greenwich
EVENINGS = [
    (WEST, datetime(2026, 2, 1, 5, 30, tzinfo=UTC), "-07:00"),
    (EAST, datetime(2026, 1, 31, 12, 30, tzinfo=UTC), "+10:00"),
]
TODAY, TOMORROW, YESTERDAY = "2026-01-31", "2026-02-01", "2026-01-30"


@pytest.fixture(params=EVENINGS, ids=["west", "east"])
def evening(request, tove, monkeypatch):
    zone, now, offset = request.param
    Firm.objects.update(zone=zone)
    monkeypatch.setattr("django.utils.timezone.now", lambda: now)
    return now, offset


def planned(caller, day, unit=7):
    return caller.post(f"units/{unit}/visits", reason="recheck", day=day, complaint="")


def test_a_visit_begins_in_the_evening_and_never_yesterday(tove, evening):
    assert planned(tove, YESTERDAY).status_code == 422
    assert planned(tove, TODAY).status_code == 200
    assert planned(tove, TOMORROW).status_code == 200


def test_the_round_is_that_of_the_evening(tove, evening):
    planned(tove, TODAY)
    page = tove.get("round").json()
    assert page["day"] == TODAY
    assert page["stops"]


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
def test_tape_ledger_and_papers_show_one_time(tove, evening, tmp_path):
    now, offset = evening
    visit = planned(tove, TODAY, unit=1).json()["id"]
    lines = ("jump call", "unjump call", *SOUND)
    for seconds, line in zip(range(len(lines), 0, -1), lines, strict=True):
        at = now - timedelta(seconds=seconds)  # by a tablet that is set to Greenwich
        answer = tove.line(visit, line, at=at.isoformat())
        assert answer.status_code == 200, answer.content
    page = answer.json()
    assert {entry["zone"] for entry in page["tape"]} == {offset}
    closed = tove.post(
        f"visits/{visit}/close", seen_version=page["version"], signed_by="Tove", customer_words="", left="running"
    )
    assert closed.status_code == 200, closed.content
    assert {entry["zone"] for entry in closed.json()["tape"]} == {offset}
    report = " ".join(text_of(tove.get(f"visits/{visit}/report.pdf").content, tmp_path).split())
    assert "31 January 2026, 22:30" in report
    assert "UTC" not in report


def test_a_site_may_lie_in_another_zone_than_its_firm(tove, evening):
    visit = planned(tove, TODAY).json()["id"]
    site = Visit.objects.get(pk=visit).unit.site
    Site.objects.filter(pk=site.pk).update(zone="Etc/GMT-3")
    page = tove.line(visit, "room 0", at=evening[0].isoformat()).json()
    assert page["zone"] == "Etc/GMT-3"
    assert page["tape"][0]["zone"] == "+03:00"
