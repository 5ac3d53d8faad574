"""``heads``: the end of every visit's chain, after following it entry by entry: what a backup and its restoration must share."""

import json
from argparse import ArgumentParser

from django.core.files.storage import default_storage
from django.core.management import BaseCommand, CommandError

from havrin_server.captures.models import Photo
from havrin_server.visits import seal
from havrin_server.visits.chain import amendments_hold, broken_at
from havrin_server.visits.models import Visit


class Command(BaseCommand):
    """Write the heads as JSON; end with 1 where a chain or a seal does not hold, or a photo's file is missing."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take nothing but what every command takes."""

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        visits = Visit.objects.filter(version__gt=0).select_related("unit__site__firm").order_by("pk")
        found, wrong = {}, []
        for visit in visits.iterator(chunk_size=200):
            if broken_at(visit, visit.entries.order_by("number")) is not None or not amendments_hold(visit):
                wrong.append(f"visit {visit.pk}: its chain does not hold")
            found[str(visit.pk)] = visit.head
        names = [str(photo.file.name) for photo in Photo.objects.iterator()]
        missing = [name for name in names if not default_storage.exists(name)]
        wrong += [f"photo {name}: its file is missing" for name in missing]
        if wrong:
            raise CommandError("; ".join(wrong[:5]) + (f" and {len(wrong) - 5} more" if len(wrong) > 5 else ""))
        self.stdout.write(json.dumps({"heads": found, "photos": Photo.objects.count(), "key": seal.own_key()}))
