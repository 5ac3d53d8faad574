"""``prepare``: bring the database up to date and play the sample world in, once."""

from argparse import ArgumentParser

from django.core.management import BaseCommand, call_command
from django.db import connection
from django.utils import timezone

from demo.play import play_sample_world
from havrin_server.people.models import Firm


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
        call_command("migrate", verbosity=0, interactive=False)
        if not Firm.objects.exists():
            play_sample_world(timezone.now())
