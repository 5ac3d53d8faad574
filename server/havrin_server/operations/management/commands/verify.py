"""``verify``: does a bundle, or a visit as it is stored, prove itself?"""

import json
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management import BaseCommand, CommandError

from havrin_core.tape.proof import Verdict, check
from havrin_core.wording.phrases import words
from havrin_server.visits import seal
from havrin_server.visits.chain import amendments_hold, broken_at, chained
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import bundle_of


class Command(BaseCommand):
    """Say what a proof is worth; end with 1 where it does not hold."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take a file, or the number of a visit on this installation."""
        parser.add_argument("what")

    def handle(self, *args: object, what: str, **options: object) -> None:
        """Run."""
        bundle = _stored(int(what)) if what.isdigit() else _read(Path(what))
        verdict = check(bundle, seal.holds)
        for flaw in verdict.flaws:
            self.stdout.write(words(flaw))
        if not verdict.holds:
            raise CommandError("It does not hold.", returncode=1)
        self.stdout.write(_said(verdict, bundle))


def _read(file: Path) -> Any:
    try:
        return json.loads(file.read_text(encoding="utf-8-sig"))
    except (OSError, ValueError) as error:
        raise CommandError(f"{file} cannot be read as JSON: {error}", returncode=2) from None


def _stored(number: int) -> Any:
    visit = Visit.objects.select_related("unit__site__firm", "unit__model").filter(pk=number).first()
    if visit is None:
        raise CommandError(f"There is no visit {number}.", returncode=2)
    found = broken_at(visit, chained(visit))
    if found is not None:
        raise CommandError(
            f"Entry {found.number} ({found.entry or 'none'}) does not follow from what stands before it.", returncode=1
        )
    if not amendments_hold(visit):
        raise CommandError("What was said of it since its close is not what was kept.", returncode=1)
    return bundle_of(visit, "us")


def _said(verdict: Verdict, bundle: Any) -> str:
    entries = f"{verdict.entries} {'entry' if verdict.entries == 1 else 'entries'}"
    if not verdict.sealed:
        return f"It holds: {entries}, not sealed (the visit was open, or closed before there were seals); head {verdict.head[:16] or '-'}."
    key = bundle["proof"]["seal"]["key"]
    whose = (
        "this installation" if key == seal.own_key() else f"the key {seal.short(key)}, which is not this installation's"
    )
    return f"It holds: {entries}, head {verdict.head[:16]}, sealed by {whose}."
