"""``found_firm``: an empty database becomes a firm's, with a link for its first administrator."""

from argparse import ArgumentParser
from zoneinfo import available_timezones

from django.core.management import BaseCommand, CommandError
from django.db import transaction
from django.utils import timezone

from havrin_server.errors import ServerError
from havrin_server.operations.preparing import bring_up_to_date, give_roles
from havrin_server.people.members import invite
from havrin_server.people.models import Firm, Role


class Command(BaseCommand):
    """Migrate, make the firm, and say the token of the first administrator's invitation."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the firm and its first administrator."""
        for name in ("firm", "zone", "username", "name"):
            parser.add_argument(f"--{name}", required=True)

    def handle(self, *args: object, firm: str, zone: str, username: str, name: str, **options: object) -> None:
        """Run."""
        if zone not in available_timezones():
            raise CommandError(f"{zone} is no time zone: give its IANA name, like Etc/GMT+7.")
        if not firm.strip() or len(firm) > 120:
            raise CommandError("A firm’s name has 1 to 120 characters.")
        bring_up_to_date()
        if Firm.objects.exists():
            raise CommandError("There is a firm in this database already.")
        first, _, last = name.strip().partition(" ")
        try:
            with transaction.atomic():
                made = Firm.objects.create(name=firm.strip(), zone=zone)
                administrator = {"username": username, "first_name": first, "last_name": last}
                _, token = invite(made, **administrator, role=Role.ADMINISTRATOR, by=None, now=timezone.now())
        except ServerError as error:
            raise CommandError(error.message) from None
        give_roles()
        self.stdout.write(token)
