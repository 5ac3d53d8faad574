"""What the serving role may do: add evidence, change none of it, alter no table; and --fresh drops no real firm's data."""

import os

import psycopg
import pytest
from django.core.management import CommandError, call_command
from django.db import connection
from psycopg import errors

from havrin_server.operations.management.commands import prepare
from havrin_server.people.models import Firm
from tests.sample import clone

EVIDENCE = ("visits_tapeentry", "visits_amendment", "versions_version", "reports_paper")


@pytest.fixture(scope="module")
def database():
    with clone("roles") as world:
        yield world["HAVRIN_DB_NAME"]


@pytest.fixture
def application(database):
    """A connection as the server has it."""
    with psycopg.connect(
        host="127.0.0.1",
        port=os.environ["HAVRIN_DB_PORT"],
        dbname=database,
        user="havrin_app",
        password=os.environ["HAVRIN_APP_PASSWORD"],
        autocommit=True,
    ) as connected:
        yield connected


def test_it_is_nobody_special(application):
    asked = "SELECT rolsuper, rolcreatedb, rolcreaterole, rolreplication, rolbypassrls FROM pg_roles WHERE rolname = %s"
    assert application.execute(asked, ["havrin_app"]).fetchone() == (False,) * 5
    member = "SELECT count(*) FROM pg_auth_members m JOIN pg_roles r ON r.oid = m.member WHERE r.rolname = 'havrin_app'"
    assert application.execute(member).fetchone() == (0,)
    owned = "SELECT count(*) FROM pg_class c JOIN pg_roles r ON r.oid = c.relowner WHERE r.rolname = 'havrin_app'"
    assert application.execute(owned).fetchone() == (0,)


@pytest.mark.parametrize("table", EVIDENCE)
@pytest.mark.parametrize("change", ["UPDATE {} SET id = id", "DELETE FROM {}", "TRUNCATE {} CASCADE"])
def test_it_changes_no_evidence(application, table, change):
    with pytest.raises(errors.InsufficientPrivilege):
        application.execute(change.format(table))


@pytest.mark.parametrize(
    "change",
    [
        "ALTER TABLE visits_tapeentry DISABLE TRIGGER tape_append_only",
        "ALTER TABLE visits_visit DISABLE TRIGGER visit_settled",
        "DROP TRIGGER tape_append_only ON visits_tapeentry",
        "DROP FUNCTION tape_refuses() CASCADE",
        "DROP TABLE visits_tapeentry CASCADE",
        "CREATE TABLE mine (a int)",
        "CREATE FUNCTION mine() RETURNS int LANGUAGE sql AS 'SELECT 1'",
        "SET session_replication_role = replica",
        "SET ROLE havrin",
        "CREATE ROLE another",
        "ALTER ROLE havrin_app SUPERUSER",
        "COPY visits_tapeentry TO PROGRAM 'cat'",
        "DELETE FROM visits_visit",
        "UPDATE django_migrations SET name = name",
    ],
)
def test_it_takes_no_wall_down(application, change):
    with pytest.raises(errors.InsufficientPrivilege):
        application.execute(change)


def test_it_reads_and_writes_what_the_work_needs(application):
    assert application.execute("SELECT count(*) FROM visits_tapeentry").fetchone()[0] > 100
    application.execute("UPDATE people_person SET unit_system = unit_system")
    application.execute("DELETE FROM people_opensession")


def test_a_call_that_hangs_ends(application):
    assert application.execute("SHOW statement_timeout").fetchone() == ("1min",)
    assert application.execute("SHOW idle_in_transaction_session_timeout").fetchone() == ("1min",)


@pytest.mark.parametrize(
    "asked",
    [
        "SELECT * FROM people_opensession",
        "SELECT password FROM people_person",
        "SELECT * FROM captures_devicekey",
        "SELECT * FROM reports_sharelink",
        "INSERT INTO people_firm DEFAULT VALUES",
        "DELETE FROM visits_visit",
    ],
)
def test_the_reading_role_sees_no_secret_and_writes_nothing(world, asked):
    with connection.cursor() as cursor:
        cursor.execute("SET LOCAL ROLE havrin_read")
        cursor.execute("SELECT count(*), max(username) FROM people_person")
        assert cursor.fetchone()[0] > 2
        with pytest.raises(Exception, match="permission denied"):
            cursor.execute(asked)


def test_fresh_drops_no_real_firm(world, monkeypatch):
    Firm.objects.update(sample_world=False)
    with pytest.raises(CommandError, match="real firm"):
        call_command("prepare", "--fresh")
    assert Firm.objects.exists()


def test_a_world_of_before_the_mark_is_known_by_its_file(world, settings, tmp_path):
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("ALTER TABLE people_firm DROP COLUMN sample_world")
    settings.STATE = tmp_path
    assert prepare._is_real() is True
    (tmp_path / prepare.KEYS).touch()
    assert prepare._is_real() is False


def test_the_played_world_is_marked(world):
    assert set(Firm.objects.values_list("sample_world", flat=True)) == {True}
