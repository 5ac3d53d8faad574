"""``reset_person``: a link for somebody whom no administrator can let in any more."""

from argparse import ArgumentParser

from django.core.management import BaseCommand, CommandError
from django.utils import timezone

from havrin_server.errors import ServerError
from havrin_server.people.members import begin_reset
from havrin_server.people.models import Person


class Command(BaseCommand):
    """Say the token of a link by which a person chooses a new password; their one-time code ends with it."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the sign-in name."""
        parser.add_argument("username")

    def handle(self, *args: object, username: str, **options: object) -> None:
        """Run."""
        person = Person.objects.filter(username=username.lower()).first()
        if person is None or person.firm is None:
            raise CommandError(f"Nobody signs in as {username}.")
        try:
            self.stdout.write(begin_reset(person, by=None, now=timezone.now())[1])
        except ServerError as error:
            raise CommandError(error.message) from None
