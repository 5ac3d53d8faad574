"""``bring_up_to_date``: the tables become what this version takes; with --look it only says what is to be done."""

from argparse import ArgumentParser

from django.core.management import BaseCommand

from havrin_server.operations.preparing import bring_up_to_date, give_roles, pending


class Command(BaseCommand):
    """Migrate and give the roles their rights."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --look, which changes nothing."""
        parser.add_argument("--look", action="store_true")

    def handle(self, *args: object, look: bool, **options: object) -> None:
        """Run."""
        for name in pending():
            self.stdout.write(name)
        if not look:
            bring_up_to_date()
            give_roles()
