"""One field finds anything that a firm has, and nothing of another's."""

import pytest
from django.db import connection

from havrin_server.people.models import Firm, Person
from havrin_server.people.wall import tell
from havrin_server.units.models import Site, Unit


def found(caller, q):
    answer = caller.http.get("/api/search", {"q": q})
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.mark.parametrize(
    ("asked", "sort", "title"),
    [
        ("F-2", "unit", "F-2 · East cellar"),
        ("f2", "unit", "F-2 · East cellar"),
        ("F 2 orrin", "unit", "F-2 · East cellar"),
        ("OT8-11902", "unit", "F-2 · East cellar"),
        ("east cellar", "unit", "F-2 · East cellar"),
        ("twin 80 orrin", "unit", "F-2 · East cellar"),
        ("tallow", "site", "Tallow Lane Printing Co-op"),
        ("mill track", "site", "Hollow Mill glasshouses"),
        ("reeve", "contact", "Bastian Reeve"),
        ("0555 0111", "contact", "Bastian Reeve"),
        ("NV-1180", "part", "Silicon nitride igniter"),
        ("FA-118", "instrument", "Analyzer 1"),
    ],
)
def test_what_is_kept_is_found_by_whatever_of_it_is_known(tove, asked, sort, title):
    rows = [row for row in found(tove, asked) if row["sort"] == sort]
    assert title in [row["title"] for row in rows]


@pytest.mark.parametrize("asked", ["wasp nest", "starling", "wasp nes", "clicks three times", "starlings"])
def test_a_visit_is_found_by_what_was_said_on_it(tove, asked):
    assert [row for row in found(tove, asked) if row["sort"] == "visit"], asked


def test_every_word_counts(tove):
    assert [row["title"] for row in found(tove, "orrin roof") if row["sort"] == "unit"] == []


@pytest.mark.parametrize(
    "asked", ["", "   ", "%", "_", "'", "a'b", "\\", ":*", "& |", "(", "😀", "x" * 120, "; drop table units_unit"]
)
def test_no_question_breaks_anything(tove, asked):
    assert isinstance(found(tove, asked), list)


def test_another_firm_finds_nothing_of_this_one(tove, world):
    other = Firm.objects.create(name="Another")
    Site.objects.create(firm=other, name="Orrin Street of another", altitude_m=0)
    Person.objects.filter(username="tove").update(firm=other)
    assert [row["title"] for row in found(tove, "orrin")] == ["Orrin Street of another"]
    assert found(tove, "wasp nest") == []


def test_behind_the_wall_the_function_answers_for_the_told_firm_alone(tove, world):
    firm, other = Firm.objects.get(name__startswith="Tarn"), Firm.objects.create(name="Another")
    with connection.cursor() as cursor:
        cursor.execute("SET ROLE havrin_app")
        try:
            tell(firm.pk)
            cursor.execute("SELECT count(*) FROM havrin_visits_saying(%s, 'wasp nest', 8)", [firm.pk])
            assert cursor.fetchone()[0] > 0
            tell(other.pk)
            cursor.execute("SELECT count(*) FROM havrin_visits_saying(%s, 'wasp nest', 8)", [firm.pk])
            assert cursor.fetchone()[0] == 0
        finally:
            tell(None)
            cursor.execute("RESET ROLE")


def test_what_was_merged_leads_to_what_it_is_now(tove, world):
    first, second = Unit.objects.filter(label__startswith="B-")[:2]
    Unit.objects.filter(pk=second.pk).update(merged_into=first)
    rows = [row["id"] for row in found(tove, second.label) if row["sort"] == "unit"]
    assert rows == [first.pk]
