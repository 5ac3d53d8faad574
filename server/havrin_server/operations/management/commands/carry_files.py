"""``carry_files``: copy photos, plates and logs from this machine's disk to where they are kept now."""

from django.core.management import BaseCommand

from havrin_server.operations.stored import carry_over


class Command(BaseCommand):
    """Copy; say how many there were."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        self.stdout.write(f"{carry_over()} files are where they are kept now; those on the disk stay.")
