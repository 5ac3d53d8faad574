"""``look_over``: what an operator should know of the data, as JSON: for ``./havrin check``."""

import json
from datetime import timedelta

from django.conf import settings
from django.core.management import BaseCommand
from django.db import DatabaseError, connection
from django.utils import timezone

from havrin_server import overviews
from havrin_server.errors import FilesAway
from havrin_server.operations import stored
from havrin_server.operations.preparing import pending
from havrin_server.operations.roles import APPLICATION
from havrin_server.people.codes import DECIDES
from havrin_server.people.models import AuditRecord, Firm, OpenSession, Person
from havrin_server.visits.chain import amendments_hold, broken_at, chained
from havrin_server.visits.models import Visit
from havrin_server.work.models import LongWork, State

_STUCK = timedelta(hours=1)
_LAGS_S = 60.0
_NEWEST = 50  # visits whose chains are followed; ``./havrin verify`` follows one, a backup's restoration all


class Command(BaseCommand):
    """Say what stands and what does not."""

    help = __doc__
    requires_system_checks = ()  # those are of a new version: bring_up_to_date makes them

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        waiting = pending()
        rows = [("bad" if waiting else "ok", f"tables: {', '.join(waiting) or 'as this version takes them'}")]
        if not waiting:
            rows += [_role(), _chains(), _people(), _guessing(), _queue(), _files(), *_replica()]
        self.stdout.write(json.dumps(rows))


def _role() -> tuple[str, str]:
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT rolsuper OR rolcreatedb OR rolcreaterole OR rolbypassrls FROM pg_roles WHERE rolname = %s",
            [APPLICATION],
        )
        row = cursor.fetchone()
    if row is None:
        return "bad", f"role {APPLICATION}: it is not there"
    return (
        ("bad", f"role {APPLICATION}: it may too much")
        if row[0]
        else ("ok", f"role {APPLICATION}: it changes no evidence")
    )


def _chains() -> tuple[str, str]:
    newest = Visit.objects.filter(version__gt=0).select_related("unit__site__firm").order_by("-pk")[:_NEWEST]
    broken = [
        visit.pk for visit in newest if broken_at(visit, chained(visit)) is not None or not amendments_hold(visit)
    ]
    if broken:
        return "bad", f"chains: visits {', '.join(map(str, broken))} were changed outside of Havrin"
    return "ok", f"chains: those of the {len(newest)} newest visits hold"


def _people() -> tuple[str, str]:
    firms = ", ".join(f"{firm.name}{' (sample world)' if firm.sample_world else ''}" for firm in Firm.objects.all())
    bare = Person.objects.filter(is_active=True, role__in=DECIDES, code_secret="").count()
    now = timezone.now()
    text = f"{firms or 'no firm'}; {Person.objects.filter(is_active=True).count()} people, {OpenSession.objects.filter(expire_date__gt=now).count()} sessions"
    if bare and not settings.HTTPS:
        return "look", f"{text}; {bare} who decide sign in without a code, and browsers come without TLS"
    return "ok", text


def _guessing() -> tuple[str, str]:
    since = timezone.now() - timedelta(days=1)
    count = AuditRecord.objects.filter(action="sign_in_refused", at__gt=since).count()
    return ("look" if count > 50 else "ok"), f"sign-ins refused since yesterday: {count}"


def _replica() -> list[tuple[str, str]]:
    if not overviews.has_replica():
        return []
    try:
        lag = overviews.lag_s()
    except DatabaseError as error:
        return [("bad", f"replica: it does not answer, overviews are read from the database ({str(error).strip()})")]
    if lag is None:
        return [("bad", "replica: it follows no database")]
    return [("look" if lag > _LAGS_S else "ok", f"replica: {lag:.0f} s behind")]


def _queue() -> tuple[str, str]:
    waiting = LongWork.objects.filter(state__in=[State.WAITING, State.RUNNING])
    stuck = waiting.filter(asked_at__lt=timezone.now() - _STUCK).count()
    if stuck:
        return "bad", f"queue: {stuck} pieces of long work wait for more than an hour: does its process run?"
    return "ok", f"queue: {waiting.count()} pieces of long work wait or go on"


def _files() -> tuple[str, str]:
    where = settings.STORAGES["default"].get("OPTIONS", {}).get("bucket_name")
    if not where and not settings.MEDIA_ROOT.is_dir():
        # Whoever asks may be another user than the service, which makes this folder.
        return "ok", "photos and logs: none yet"
    try:
        stored.try_out()
    except (OSError, FilesAway) as error:
        return "bad", f"photos and logs: {error}"
    return "ok", f"photos and logs: {f'in the bucket {where}' if where else 'in this folder'}; written and read"
