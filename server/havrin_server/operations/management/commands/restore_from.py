"""``restore_from``: an archive becomes the data of an empty installation, and is compared with what it said of itself."""

import json
import subprocess
from argparse import ArgumentParser
from io import StringIO
from pathlib import Path

from django.conf import settings
from django.core.management import BaseCommand, CommandError, call_command
from django.db import connection

from havrin_server.operations.archives import BadArchive, read_manifest, run_tool, unpack
from havrin_server.operations.preparing import bring_up_to_date, give_roles
from havrin_server.operations.roles import make_roles


class Command(BaseCommand):
    """Restore; with --over the tables that are there go first (an upgrade that failed goes back so)."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the archive and PostgreSQL's own tool."""
        parser.add_argument("archive", type=Path)
        parser.add_argument("--pg-restore", required=True)
        parser.add_argument("--over", action="store_true")

    def handle(self, *args: object, archive: Path, pg_restore: str, over: bool, **options: object) -> None:
        """Run."""
        try:
            manifest = read_manifest(archive)
        except BadArchive as error:
            raise CommandError(str(error)) from None
        if over:
            with connection.cursor() as cursor:
                cursor.execute("DROP SCHEMA public CASCADE; CREATE SCHEMA public")
        elif connection.introspection.table_names():
            raise CommandError("This database is not empty: a backup is restored into an empty one.")
        make_roles()
        _fill(archive, pg_restore)
        if not over:  # what goes back is met by the code that it came from
            bring_up_to_date()
        give_roles()
        connection.close()
        said = StringIO()
        call_command("heads", stdout=said)
        if json.loads(said.getvalue())["heads"] != manifest.heads:
            raise CommandError("What was restored is not what was backed up: the heads of the chains differ.")
        self.stdout.write(f"{len(manifest.heads)} visits, every chain as it was on {manifest.made_at[:16]}.")


def _fill(archive: Path, pg_restore: str) -> None:
    dump = Path(settings.STATE) / "restore.dump"
    try:
        unpack(archive, dump)
        where = ["--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction", "-d"]
        run_tool([pg_restore, *where, str(settings.DATABASES["default"]["NAME"]), str(dump)])
    except subprocess.CalledProcessError as error:
        raise CommandError(f"The database could not be restored: {error.stderr.strip()[-300:]}") from None
    finally:
        dump.unlink(missing_ok=True)
