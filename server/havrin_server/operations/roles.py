"""The roles of the database: who owns it, who serves from it, who reads (roles.sql), and which rows each sees (walls.py)."""

from pathlib import Path

from django.db import connection, transaction
from psycopg import sql

from havrin_server.operations.searching import STATEMENTS as SEARCHING
from havrin_server.operations.walls import statements

APPLICATION = "havrin_app"
_MAKE, _SCRIPT = (Path(__file__).with_name(name) for name in ("new_roles.sql", "roles.sql"))
# What a call may take at most, so that one that hangs holds nobody up: the page has asked again long before.
_LIMITS = {"statement_timeout": "60s", "lock_timeout": "20s", "idle_in_transaction_session_timeout": "60s"}
_LOCK = 1_728_002  # roles are the whole cluster's: one at a time


def make_roles() -> None:
    """Make the roles that the cluster lacks: the tables of a backup name them before anything else does."""
    with connection.cursor() as cursor:
        cursor.execute(_MAKE.read_text(encoding="utf-8"))


@transaction.atomic
def set_roles(password: str) -> None:
    """Give every role its rights on the tables as they are now; the application signs in with ``password`` where one is given."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s)", [_LOCK])
        make_roles()
        cursor.execute(_SCRIPT.read_text(encoding="utf-8"))
        for wall in statements():
            cursor.execute(wall)
        for statement in SEARCHING:
            cursor.execute(statement)
        for name, limit in _LIMITS.items():
            cursor.execute(sql.SQL("ALTER ROLE havrin_app SET {} = {}").format(sql.Identifier(name), limit))
        if password:
            login = "ALTER ROLE havrin_app LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS PASSWORD {}"
            cursor.execute(sql.SQL(login).format(password))
