"""What a visit leaves open holds the unit's next one, through the interface."""

import json
from datetime import timedelta

import pytest
from django.utils import timezone

from havrin_core.standing.assess import assess
from havrin_core.tape.bundle import read_bundle
from havrin_server.visits.models import Visit
from tests.core.rows import SOUND
from tests.server.test_closing_page import write

BREACH = "Heat exchanger: cracked"


@pytest.fixture
def shut(tove, visit):
    """The visit of F-1, closed with a breach seen and the unit shut down."""
    page = write(tove, visit, *SOUND, "found crack cell 3", "shut down gas shut, tagged", "told the caretaker")
    answer = tove.post(f"visits/{visit}/close", seen_version=page["version"], signed_by="Tove", customer_words="Shut.")
    assert answer.status_code == 200, answer.content
    return visit


def following(visit, days=1):
    """Return a new visit of the same unit, some days after."""
    last = Visit.objects.get(pk=visit)
    day = timezone.now().date() + timedelta(days=days)
    return Visit.objects.create(
        unit=last.unit, reason=last.reason, day=day, technician=last.technician, house_rules=last.house_rules
    ).pk


def levels(page):
    return {reason["text"].split(" (")[0].split(".")[0]: reason["level"] for reason in page["standing"]["reasons"]}


def test_a_sound_visit_after_a_shut_down_is_not_left_running(tove, shut):
    page = write(tove, following(shut), *SOUND)
    assert page["standing"]["level"] == 4
    assert levels(page)[BREACH] == 4
    assert any("Open since the visit of 14 January 2026" in r["text"] for r in page["standing"]["reasons"])
    assert page["standing"]["next_step"]["title"] == "Change the heat exchanger"


def test_it_is_lifted_by_the_new_exchanger_and_the_tag_taken_off(tove, shut):
    after = following(shut)
    page = write(tove, after, "did change exchanger", *SOUND, "leak ok", "cycles 1")
    assert set(levels(page)) == {"Shut down and tagged by Tove Lindgarth: gas shut, tagged"}
    page = write(tove, after, "untag relit, cycled")
    assert page["standing"]["level"] == 1
    tove.post(f"visits/{after}/close", seen_version=page["version"], signed_by="Tove")
    assert write(tove, following(after, 2), "room 0")["standing"]["reasons"] == []


def test_no_override_and_no_strike_reaches_over_to_the_visit_before(tove, wenna, shut):
    after = following(shut)
    write(tove, after, *SOUND)
    assert write(wenna, after, "override 2 the owner insists")["standing"]["level"] == 4


def test_the_exchanger_view_and_the_bundle_know_it_too(tove, shut):
    after = following(shut)
    write(tove, after, *SOUND)
    assert (
        tove.get(f"visits/{after}/exchanger").json()["evidence"]["says"] == "A breach was seen: it does not run again."
    )
    document = json.loads(tove.get(f"visits/{after}/bundle.json").content)
    bundle = read_bundle(document)
    assert len(document["visit"]["open_before"]) == 2
    assert assess(bundle.unit, bundle.rules, bundle.visit).level == 4


def test_what_another_open_visit_of_the_unit_finds_counts_at_once(tove, visit):
    after = following(visit)
    assert write(tove, after, *SOUND)["standing"]["level"] == 1
    write(tove, visit, "leak bad")
    assert write(tove, after, "note looked again")["standing"]["level"] == 4
    write(tove, visit, "leak ok")
    assert write(tove, after, "note and again")["standing"]["level"] == 1
