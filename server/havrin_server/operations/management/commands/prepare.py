"""``prepare``: bring the database up to date and play the sample world in, once."""

import json
from argparse import ArgumentParser

from django.conf import settings
from django.core.management import BaseCommand, call_command
from django.db import connection
from django.utils import timezone
from django.utils.module_loading import import_string

from havrin_server.captures.live import make_key
from havrin_server.instruments.models import Instrument
from havrin_server.operations.renamed_apps import rename_apps
from havrin_server.people.models import Firm
from havrin_server.visits.backfill import store_what_was_left


class Command(BaseCommand):
    """Migrate; load the sample world when there is no firm yet."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --fresh, which drops everything first."""
        parser.add_argument("--fresh", action="store_true")

    def handle(self, *args: object, fresh: bool, **options: object) -> None:
        """Run."""
        if fresh:
            with connection.cursor() as cursor:
                cursor.execute("DROP SCHEMA public CASCADE")
                cursor.execute("CREATE SCHEMA public")
        rename_apps()
        call_command("migrate", verbosity=0, interactive=False)
        store_what_was_left()
        if not Firm.objects.exists():
            import_string(settings.SAMPLE_WORLD)(timezone.now())
            _write_keys()


def _write_keys() -> None:
    """Give every instrument of the sample world a key, for the stand-ins that ``./havrin start`` brings up."""
    rows = [
        {"name": i.name, "kind": i.kind, "key": make_key(i, timezone.now())} for i in Instrument.objects.order_by("pk")
    ]
    file = settings.STATE / "instruments.json"
    file.parent.mkdir(parents=True, exist_ok=True)
    file.touch(mode=0o600)
    file.write_text(json.dumps(rows))
