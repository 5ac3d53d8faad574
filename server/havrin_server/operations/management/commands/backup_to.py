"""``backup_to``: one archive of everything, read back and compared before it is called done."""

import subprocess
from argparse import ArgumentParser
from pathlib import Path

from django.core.management import BaseCommand, CommandError
from django.utils import timezone

from havrin_server.operations.archives import BadArchive, make, read_manifest


class Command(BaseCommand):
    """Write the archive."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take where to, PostgreSQL's own tool, and the settings that belong to it."""
        parser.add_argument("target", type=Path)
        parser.add_argument("--pg-dump", required=True)
        parser.add_argument("--settings-file", type=Path)

    def handle(self, *args: object, target: Path, pg_dump: str, settings_file: Path | None, **options: object) -> None:
        """Run."""
        try:
            made = make(target, pg_dump, settings_file, timezone.now())
            read_manifest(target)
        except subprocess.CalledProcessError as error:
            raise CommandError(f"The database could not be dumped: {error.stderr.strip()}") from None
        except (OSError, BadArchive) as error:
            raise CommandError(f"The backup was not made: {error}") from None
        size = target.stat().st_size / 1e6
        self.stdout.write(f"{len(made.heads)} visits, {len(made.files)} files, {size:.1f} MB: {target}")
