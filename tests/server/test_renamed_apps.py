"""A database from before 0.3.0 keeps every row when three apps get other names."""

import pytest
from django.db import connection

from havrin_server.operations.renamed_apps import RENAMED, rename_apps
from havrin_server.visits.models import Visit


def as_before(cursor):
    """Give tables and migrations the names that they had."""
    for before, now in RENAMED.items():
        for table in connection.introspection.table_names(cursor):
            if table.startswith(f"{now}_"):
                cursor.execute(f'ALTER TABLE "{table}" RENAME TO "{before}{table.removeprefix(now)}"')
        cursor.execute("UPDATE django_migrations SET app = %s WHERE app = %s", [before, now])


@pytest.mark.django_db
def test_rows_tables_and_migrations_go_along(visit):
    with connection.cursor() as cursor:
        as_before(cursor)
    renamed = rename_apps()
    assert {"journal_visit", "journal_tapeentry", "sites_unit", "toolbox_instrument"} <= set(renamed)
    assert Visit.objects.filter(pk=visit).exists()
    with connection.cursor() as cursor:
        cursor.execute("SELECT DISTINCT app FROM django_migrations")
        apps = {row[0] for row in cursor.fetchall()}
    assert set(RENAMED.values()) <= apps
    assert not set(RENAMED) & apps


@pytest.mark.django_db
def test_the_tape_stays_append_only_under_its_new_name(visit):
    with connection.cursor() as cursor:
        as_before(cursor)
    rename_apps()
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT tgname FROM pg_trigger WHERE tgrelid = 'visits_tapeentry'::regclass AND NOT tgisinternal"
        )
        assert {"tape_append_only", "tape_no_truncate"} <= {row[0] for row in cursor.fetchall()}


@pytest.mark.django_db
def test_a_database_of_today_is_left_alone():
    assert rename_apps() == []
