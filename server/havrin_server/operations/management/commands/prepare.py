"""``prepare``: bring the database up to date and play the sample world in, once."""

import json
from argparse import ArgumentParser

from django.conf import settings
from django.core.management import BaseCommand, CommandError
from django.db import connection
from django.utils import timezone
from django.utils.module_loading import import_string

from havrin_server.captures.live import make_key
from havrin_server.instruments.models import Instrument
from havrin_server.operations.preparing import bring_up_to_date, give_roles
from havrin_server.people.models import Firm

KEYS = "instruments.json"  # keys of the sample world's instruments, for their stand-ins


class Command(BaseCommand):
    """Migrate; load the sample world when there is no firm yet."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --fresh, which drops everything first."""
        parser.add_argument("--fresh", action="store_true")

    def handle(self, *args: object, fresh: bool, **options: object) -> None:
        """Run."""
        if fresh:
            _drop_sample_world()
        bring_up_to_date()
        if not Firm.objects.exists():
            import_string(settings.SAMPLE_WORLD)(timezone.now())
            Firm.objects.update(sample_world=True)
            _write_keys()
        elif (settings.STATE / KEYS).exists():
            Firm.objects.update(
                sample_world=True
            )  # of before there was the mark: the file is written with that world alone
        give_roles()


def _drop_sample_world() -> None:
    """Drop everything, unless it is a real firm's. Raises CommandError."""
    if "people_firm" in connection.introspection.table_names() and _is_real():
        raise CommandError(
            "This database holds a real firm’s data: --fresh would drop it. It is for the sample world alone."
        )
    with connection.cursor() as cursor:
        cursor.execute("DROP SCHEMA public CASCADE")
        cursor.execute("CREATE SCHEMA public")


def _is_real() -> bool:
    """Tell whether any firm is not of the sample world; asked with plain SQL, for the tables may be of an older version."""
    with connection.cursor() as cursor:
        columns = {column.name for column in connection.introspection.get_table_description(cursor, "people_firm")}
        if "sample_world" not in columns:
            return not (settings.STATE / KEYS).exists()
        cursor.execute("SELECT EXISTS (SELECT FROM people_firm WHERE NOT sample_world)")
        return bool(cursor.fetchone()[0])


def _write_keys() -> None:
    """Give every instrument of the sample world a key, for the stand-ins that ``./havrin start`` brings up."""
    rows = [
        {"name": i.name, "kind": i.kind, "key": make_key(i, timezone.now())} for i in Instrument.objects.order_by("pk")
    ]
    file = settings.STATE / KEYS
    file.parent.mkdir(parents=True, exist_ok=True)
    file.touch(mode=0o600)
    file.write_text(json.dumps(rows))
