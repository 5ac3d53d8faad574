"""What the page is given: stations, marks, flue, earlier visits; and that long tapes stay readable."""

import uuid

import pytest
from django.core.management import call_command
from django.utils import timezone

from havrin_core.limits.limits import Band
from havrin_core.rules.scale import scale_of
from havrin_core.tape.entries import Note, Reading
from havrin_server.people.models import Person
from havrin_server.visits.models import TapeEntry, Visit
from havrin_server.visits.services import append
from havrin_server.visits.zones import in_zone
from tests.thinned import thinned

NO_PIPELINES = pytest.mark.filterwarnings("ignore::DeprecationWarning")


def stations(page):
    return {s["key"]: s for path in page["paths"] for s in path["stations"]}


def test_a_fresh_visit_shows_every_station_as_not_shown(tove, visit):
    page = tove.get(f"visits/{visit}").json()
    assert {s["state"] for s in stations(page).values()} == {"none"}
    assert page["standing"]["title"] == "Not shown yet"
    assert page["standing"]["next_step"]["starter"] == "room "
    assert page["room_co"] is None
    assert page["writable"] is True


@pytest.mark.parametrize(
    ("line", "station", "text", "unit", "side"),
    [
        ("mp 3.5", "manifold", "3.50", "inWC", "most 3.67"),
        ("ua 2.9", "burner", "2.90", "µA", "least 0.80"),
        ("rise 49", "rise", "49", "°F", "least 35"),
        ("sa 118", "supply_air", "118", "°F", "most 165"),
        ("blower 6.2", "blower", "6.20", "A", "most 7.80"),
        ("v limit 0.1", "limit", "0.1", "V", ""),
        ("o2 6.5 co 46", "flue", "67", "ppm CO air-free", ""),
    ],
)
def test_a_line_moves_its_station(tove, visit, line, station, text, unit, side):
    shown = stations(tove.line(visit, line).json())[station]
    assert shown["value"] == {"text": text, "unit": unit}
    assert shown["side"] == side
    assert shown["state"] == "in"


def test_as_found_stays_beside_as_left(tove, visit):
    tove.line(visit, "mp 3.9", at="2026-01-14T10:00:00+01:00")
    page = tove.line(visit, "mp 3.5", phase="left", at="2026-01-14T10:05:00+01:00").json()
    manifold = stations(page)["manifold"]
    assert manifold["side"] == "was 3.90"
    assert manifold["scale"]["found"] > manifold["scale"]["band_to"] > manifold["scale"]["value"]
    assert manifold["readings"][0]["source"] == "Havrin's default, for guidance, plate value ±5 %"


def test_the_flue_says_what_it_can_and_cannot(tove, visit):
    page = tove.line(visit, "o2 6.5 co 46 co2 8.2 t 320 air 66").json()
    (flue,) = page["flue"]
    figures = {f["key"]: f for f in flue["figures"]}
    assert figures["co_air_free_ppm"]["state"] == "in"
    assert figures["co2_from_o2_pct"]["aside"] == "measured 8.2 %"
    assert any("O₂ and CO₂ agree" in line for line in flue["says"])
    assert "no proof of a whole heat exchanger" in flue["cannot_say"][0]
    assert all(f["formula"] and f["source"] and f["inputs"] for f in flue["figures"])


def test_jumper_times_are_those_of_the_place(tove, visit):
    page = tove.line(visit, "jump limit", at="2026-01-14T10:41:00+01:00").json()
    assert stations(page)["limit"]["words"] == "Jumper IN since 02:41"


def test_earlier_visits_stand_behind(tove, visit):
    before, *older = tove.get(f"visits/{visit}").json()["earlier"]
    assert [visit["reason"] for visit in older] == ["Re-check", "Maintenance", "Maintenance"]
    assert before["title"] == "Leave running, owner told"
    assert before["advice"] == ["Advised: new igniter before next winter"]
    assert any(line.startswith("Flame signal") for line in before["readings"])


def test_the_vocabulary_can_be_picked_and_understood(tove, visit):
    words = tove.get(f"visits/{visit}/vocabulary").json()
    rows = [row for part in words["parts"] for name in ("done", "found", "jumpers") for row in part[name]]
    for row in [*thinned(rows, 300), *words["elsewhere"]]:  # every one of them is read in test_vocabulary
        line = f"{row['line']}hose at the box" if row["line"].endswith(" ") else row["line"]
        assert tove.post(f"visits/{visit}/read-back", text=line).json()["writable"], row


@pytest.mark.parametrize(
    ("band", "value", "found"),
    [
        (Band("plate", 1, 2), 1.5, None),
        (Band("plate", 1, 2), 9.0, -4.0),
        (Band("plate", low=1), 0.2, 3.0),
        (Band("plate", high=5), 80.0, None),
        (Band("plate", 0, 5), 0.0, 5.0),
    ],
)
def test_marks_stay_on_the_scale_and_on_their_side(band, value, found):
    scale = scale_of("manifold_pa", band, value, found)
    assert scale is not None
    for mark in (scale.value, scale.found if found is not None else 0, scale.band_from, scale.band_to):
        assert 0 <= mark <= 1
    if band.low is not None:
        assert (value < band.low) == (scale.value < scale.band_from)
    if band.high is not None:
        assert (value > band.high) == (scale.value > scale.band_to)


def test_no_band_no_scale():
    assert scale_of("manifold_pa", None, 1.0, None) is None


@pytest.mark.parametrize(("zone", "shown"), [("+01:00", "11:00"), ("-03:30", "06:30"), ("", "10:00")])
def test_zones(zone, shown):
    moment = timezone.datetime.fromisoformat("2026-01-14T10:00:00+00:00")
    assert f"{in_zone(moment, zone):%H:%M}" == shown


@NO_PIPELINES
def test_a_visit_of_five_hundred_entries_opens_and_prints(tove, visit):
    row, person = Visit.objects.get(pk=visit), Person.objects.get(username="tove")
    bodies = [Reading("manifold_pa", 871.8, 3.5, "inWC", "only") if i % 2 else Note(f"line {i}") for i in range(500)]
    append(row, bodies, group=uuid.uuid4(), phase="found", at=timezone.now(), actor=person, now=timezone.now())
    assert len(tove.get(f"visits/{visit}").json()["tape"]) == 500
    assert tove.get(f"visits/{visit}/report.pdf").content.startswith(b"%PDF")


@NO_PIPELINES
def test_an_unsafe_visit_prints_its_danger(tove, visit):
    from havrin_server.reports.paper_context import paper_context

    for line in ("found crack cell 3", "advise a new furnace", "refused wait for spring", "shut down gas shut, tagged"):
        tove.line(visit, line)
    context = paper_context(Visit.objects.get(pk=visit), Person.objects.get(username="tove"))
    assert context["urgent"]
    assert ("Advice refused", "wait for spring") in context["said"]
    assert any("cracked" in reason.text for reason in context["reasons"])
    assert context["title"] == "Off, made safe"


def test_the_models_and_the_migrations_agree(db):
    call_command("makemigrations", "--check", "--dry-run", verbosity=0)


def test_preparing_twice_plays_the_world_once(world):
    entries = TapeEntry.objects.count()
    call_command("prepare")
    assert TapeEntry.objects.count() == entries


def test_a_computed_rise_opens_its_why(tove, visit):
    for line in ("ra 68", "sa 118"):
        tove.line(visit, line)
    (figure,) = stations(tove.line(visit, "rise").json())["rise"]["why"]
    assert figure["formula"] == "supply air − return air"
    assert [i["shown"]["text"] for i in figure["inputs"]] == ["118", "68"]
    assert figure["half_width"] == ""


def test_a_limit_that_altitude_moved_opens_its_why(tove, visit):
    page = tove.line(visit, "input 55").json()
    (figure,) = [f for s in stations(page).values() for f in s["why"] if f["name"].startswith("Input")]
    named = {i["name"]: f"{i['shown']['text']} {i['shown']['unit']}" for i in figure["inputs"]}
    assert named["input on the plate"] == "70.0 kBtu/h"
    assert named["altitude"].endswith(" ft")
    assert figure["shown"]["text"].count(" to ") == 1
