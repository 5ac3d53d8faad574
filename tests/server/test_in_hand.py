"""The instruments in a person's hand: chosen once a day, beside each reading, their calibration checked for it."""

from datetime import timedelta

import pytest
from django.utils import timezone

from havrin_server.instruments.models import InHand, Instrument
from havrin_server.visits.models import TapeEntry, Visit
from havrin_server.visits.services import local_day

pytestmark = pytest.mark.django_db


def number(name):
    return Instrument.objects.get(name=name).pk


def take(caller, visit, *names):
    return caller.put(f"visits/{visit}/in-hand", instruments=[number(name) for name in names])


def write_now(caller, visit, text):
    return caller.line(visit, text, at=timezone.now().isoformat()).json()


def read_with(visit):
    return dict(TapeEntry.objects.filter(visit=visit, kind="reading").values_list("quantity", "instrument__name"))


def test_each_reading_stands_with_what_read_it_and_its_accuracy_counts(tove, visit):
    take(tove, visit, "Analyzer 2", "Two-port manometer")
    page = write_now(tove, visit, "mp 3.5 o2 6.5 co 46 blower 4.1")
    assert read_with(visit) == {
        "manifold_pa": "Two-port manometer",
        "o2_dry_pct": "Analyzer 2",
        "co_ppm_dry": "Analyzer 2",
        "blower_current_a": None,  # no meter is in hand
    }
    assert page["flue"][0]["figures"][1]["half_width"] == "2"


def test_nothing_is_noted_where_nothing_was_chosen(tove, visit):
    InHand.objects.all().delete()
    write_now(tove, visit, "mp 3.5 o2 6.5")
    assert set(read_with(visit).values()) == {None}


def test_a_line_of_another_day_has_that_days_instruments(tove, visit):
    take(tove, visit, "Two-port manometer")
    yesterday = timezone.now() - timedelta(days=1)
    day = local_day(Visit.objects.get(pk=visit), yesterday)
    InHand.objects.filter(day=day).delete()
    tove.line(visit, "mp 3.5", at=yesterday.isoformat())
    assert read_with(visit) == {"manifold_pa": None}


def test_a_calibration_that_is_over_is_said_at_the_reading_and_stays_with_it(tove, visit):
    take(tove, visit, "Clamp meter")
    said = tove.post(f"visits/{visit}/read-back", text="ua 2.4").json()
    assert said["read_with"] == ["Clamp meter"]
    assert said["writable"]
    assert any("Clamp meter is out of calibration: its calibration ended on" in doubt for doubt in said["doubts"])
    entry = write_now(tove, visit, "ua 2.4")["tape"][0]
    assert (entry["instrument"], entry["out_of_calibration"]) == ("Clamp meter", True)
    Instrument.objects.filter(name="Clamp meter").update(calibrated_until=timezone.now().date() + timedelta(days=300))
    kept = tove.get(f"visits/{visit}").json()["tape"][0]
    assert kept["out_of_calibration"], "a later calibration does not make this reading good"


def test_nobody_knows_until_when_it_holds(tove, visit):
    Instrument.objects.filter(name="Two-port manometer").update(calibrated_until=None)
    take(tove, visit, "Two-port manometer")
    said = tove.post(f"visits/{visit}/read-back", text="mp 3.5").json()
    assert said["doubts"] == ["Two-port manometer: nobody has entered until when its calibration is valid."]
    assert write_now(tove, visit, "mp 3.5")["tape"][0]["out_of_calibration"]


def test_what_is_in_hand_is_the_persons_own(tove, wenna, visit):
    InHand.objects.all().delete()
    page = take(tove, visit, "Analyzer 2").json()
    assert [row["name"] for row in page["instruments"] if row["in_hand"]] == ["Analyzer 2"]
    assert not [row for row in wenna.get(f"visits/{visit}").json()["instruments"] if row["in_hand"]]


def test_what_was_in_hand_on_the_last_day_is_offered(tove, visit):
    rows = InHand.objects.filter(person__username="tove")
    newest = rows.order_by("-day").first().day
    rows.filter(day=newest).update(day=newest - timedelta(days=400))
    rows.exclude(day=newest - timedelta(days=400)).delete()
    page = tove.get(f"visits/{visit}").json()
    assert not [row for row in page["instruments"] if row["in_hand"]]
    assert {row["name"] for row in page["instruments"] if row["in_hand_before"]} == {
        "Analyzer 1",
        "Two-port manometer",
        "Clamp meter",
        "Room CO monitor",
    }


def test_one_of_each_kind_and_only_the_firms_own(tove, odo, visit):
    take(tove, visit, "Analyzer 1")
    two = take(tove, visit, "Analyzer 1", "Analyzer 2")
    assert (two.status_code, two.json()["code"]) == (422, "two_of_a_kind")
    assert tove.put(f"visits/{visit}/in-hand", instruments=[99999]).status_code == 404
    assert odo.put(f"visits/{visit}/in-hand", instruments=[]).status_code == 403
    kept = tove.get(f"visits/{visit}").json()["instruments"]
    assert [row["name"] for row in kept if row["in_hand"]] == ["Analyzer 1"]
