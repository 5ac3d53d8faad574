"""The second wall: with a firm told, the serving role sees and writes that firm's rows alone, whatever is asked."""

import pytest
from django.apps import apps
from django.db import DatabaseError, connection, transaction
from django.utils import timezone

from havrin_server.operations.walls import OF_A_FIRM, OF_A_ROW
from havrin_server.people.models import Firm, Person
from havrin_server.people.wall import tell
from havrin_server.units.models import Site
from havrin_server.visits.models import TapeEntry, Visit

pytestmark = pytest.mark.django_db
# Of nobody's firm: Django's own, the brake on signing in, sessions (found by a secret), counts of whole installations.
OPEN = {
    "auth_permission",
    "auth_group",
    "auth_group_permissions",
    "django_content_type",
    "people_person_groups",
    "people_person_user_permissions",
    "people_opensession",
    "axes_accessattempt",
    "axes_accessattemptexpiration",
    "axes_accessfailurelog",
    "axes_accesslog",
    "captures_readingshare",
    "procrastinate_jobs",  # of the queue: each names a piece of long work, which is behind the wall
    "procrastinate_workers",
    "procrastinate_periodic_defers",
    "procrastinate_events",
}


@pytest.fixture
def other(world):
    firm = Firm.objects.create(name="Another firm")
    Person.objects.create_user("brea", password="valley-heat", firm=firm, role="administrator")
    with connection.cursor() as cursor:
        cursor.execute("SET ROLE havrin_app")  # no wall holds the owner, as which the tests' own worlds are made
        yield firm
        cursor.execute("RESET ROLE")
    tell(None)


def count(table):
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT count(*) FROM {table}")
        return cursor.fetchone()[0]


def test_every_table_is_behind_a_wall_or_of_nobodys_firm(world):
    tables = {model._meta.db_table for model in apps.get_models(include_auto_created=True)}
    assert tables - OPEN == set(OF_A_FIRM) | set(OF_A_ROW)


def test_another_firm_sees_nothing_of_this_one_without_any_filter(other, wenna, visit):
    wenna.line(visit, "mp 3.5")
    wenna.post(f"visits/{visit}/captures", instruments=[wenna.get(f"visits/{visit}").json()["instruments"][0]["id"]])
    here = {table: count(table) for table in (*OF_A_FIRM, *OF_A_ROW)}
    tell(other.pk)
    seen = {table: count(table) for table in here}
    assert {table for table, number in seen.items() if number} <= {"people_firm", "people_person", "people_auditrecord"}
    assert list(Firm.objects.all()) == [other]
    assert list(Person.objects.values_list("username", flat=True)) == ["brea"]
    tell(None)
    assert {table: count(table) for table in here} == here
    assert here["visits_tapeentry"] > 100


def test_a_firm_sees_all_of_its_own(other, world):
    here = {table: count(table) for table in OF_A_ROW}
    tell(Firm.objects.get(name="Tarnhollow Heating").pk)
    assert {table: count(table) for table in OF_A_ROW} == here


def test_nobodys_firm_sees_nothing(other):
    tell(0)
    assert [count(table) for table in (*OF_A_FIRM, *OF_A_ROW)] == [0] * (len(OF_A_FIRM) + len(OF_A_ROW))


def test_nothing_is_written_over_the_wall(other, world):
    site = Site.objects.first()
    here = Firm.objects.get(name="Tarnhollow Heating").pk
    tell(other.pk)
    with pytest.raises(DatabaseError, match="row-level security"), transaction.atomic():
        Site.objects.create(firm_id=here, name="Over the wall", altitude_m=0)
    assert Site.objects.filter(pk=site.pk).update(name="Taken") == 0
    assert Visit.objects.update(closed_at=timezone.now()) == 0


def test_a_call_leaves_no_wall_behind_and_open_calls_have_none(other, wenna):
    before = TapeEntry.objects.count()
    assert wenna.get("round").status_code == 200
    assert TapeEntry.objects.count() == before > 0
    # somebody of another firm signs in at the browser where she is signed in
    body = {"username": "brea", "password": "valley-heat"}
    assert wenna.http.post("/api/session", body, content_type="application/json").json()["firm"] == "Another firm"
    assert wenna.get("round").json()["stops"] == []


def test_a_query_without_a_filter_inside_a_call_finds_its_own_firm_alone(other, wenna, monkeypatch):
    from havrin_server.visits.views import round as subject

    found = []
    monkeypatch.setattr(subject, "require", lambda *_: found.extend(Firm.objects.values_list("name", flat=True)))
    wenna.get("round")
    assert found == ["Tarnhollow Heating"]
