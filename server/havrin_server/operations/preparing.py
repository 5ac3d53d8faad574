"""Bringing the database up to date: for the sample world, for a new installation, for an upgrade."""

import os

from django.core.management import call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from havrin_server.operations.renamed_apps import rename_apps
from havrin_server.operations.roles import set_roles
from havrin_server.visits.backfill import store_what_was_left


def bring_up_to_date() -> None:
    """Change the tables to what this version takes; as the owner of the database. ``give_roles`` comes after."""
    rename_apps()
    call_command("migrate", verbosity=0, interactive=False)
    store_what_was_left()


def give_roles() -> None:
    """Give every role its rights on the tables as they are now."""
    set_roles(os.environ.get("HAVRIN_APP_PASSWORD", ""))


def pending() -> list[str]:
    """Return the migrations that are not made yet."""
    executor = MigrationExecutor(connection)
    return [f"{app}.{name}" for app, name in _plan(executor)]


def _plan(executor: MigrationExecutor) -> list[tuple[str, str]]:
    plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
    return [(migration.app_label, migration.name) for migration, _ in plan]
