"""A database made before 0.3.0: three of the server's apps had other names then."""

from django.db import connection, transaction
from psycopg import sql

RENAMED = {"journal": "visits", "sites": "units", "toolbox": "instruments"}  # label before -> label now


@transaction.atomic
def rename_apps() -> list[str]:
    """Give the tables of an older database the names that they have now; return the names they had.

    Nothing but names changes: rows, triggers and keys go along with their table. An empty or newer database is left as
    it is. To be called before the migrations run, which would otherwise make every table a second time.
    """
    tables = connection.introspection.table_names()
    old = [t for t in tables if t.split("_")[0] in RENAMED]
    if not old or "django_migrations" not in tables:
        return []
    with connection.cursor() as cursor:
        for table in old:
            label, _, rest = table.partition("_")
            names = sql.Identifier(table), sql.Identifier(f"{RENAMED[label]}_{rest}")
            cursor.execute(sql.SQL("ALTER TABLE {} RENAME TO {}").format(*names))
        for before, now in RENAMED.items():
            cursor.execute("UPDATE django_migrations SET app = %s WHERE app = %s", [now, before])
            cursor.execute("UPDATE django_content_type SET app_label = %s WHERE app_label = %s", [now, before])
    return old
