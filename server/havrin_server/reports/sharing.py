"""Share links: made, opened, revoked."""

import uuid
from datetime import datetime, timedelta

from django.core import signing
from django.db import transaction
from django.db.models import F, QuerySet

from havrin_server.errors import NotFound, NotWritable
from havrin_server.people.audit import record
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.reports.models import ShareLink
from havrin_server.units.models import Unit
from havrin_server.units.queries import same_appliance
from havrin_server.visits.models import Visit

LONGEST_DAYS = 366
_SALT = "havrin.share"
_GONE = (
    "This link does not open anything: it has ended, was taken back, or was copied wrongly. Ask the firm for a new one."
)


@transaction.atomic
def share(unit: Unit, days: int, *, actor: Person, now: datetime) -> ShareLink:
    """Make a link to the unit's reports that lasts ``days``. Raises NotAllowed, NotWritable."""
    require(actor, "share")
    if not 1 <= days <= LONGEST_DAYS:
        raise NotWritable(f"A link lasts 1 to {LONGEST_DAYS} days.", code="link_days")
    record("link_made", actor, f"{unit.label}, {days} days")
    return ShareLink.objects.create(
        id=uuid.uuid4(), unit=unit, made_by=actor, made_at=now, expires_at=now + timedelta(days=days)
    )


@transaction.atomic
def revoke(link_id: uuid.UUID, *, actor: Person, now: datetime) -> ShareLink:
    """Take a link back; taking it back twice is harmless. Raises NotAllowed, NotFound."""
    require(actor, "share")
    link = ShareLink.objects.filter(pk=link_id, unit__site__firm_id=actor.own_firm_id).select_related("unit").first()
    if link is None:
        raise NotFound("There is no such link in your firm.")
    if link.revoked_at is None:
        link.revoked_at = now
        link.save(update_fields=["revoked_at"])
        record("link_revoked", actor, link.unit.label)
    return link


def token_of(link: ShareLink) -> str:
    """Return the signed words of the link's address."""
    return signing.Signer(salt=_SALT).sign(str(link.pk))


def opened(token: str, now: datetime) -> ShareLink:
    """Return the link that ``token`` opens. Raises NotFound for one that is forged, expired, taken back, or made by somebody who has left: one answer for all."""
    try:
        key = uuid.UUID(signing.Signer(salt=_SALT).unsign(token))
    except (signing.BadSignature, ValueError):
        raise NotFound(_GONE) from None
    rows = ShareLink.objects.filter(pk=key, revoked_at=None, expires_at__gt=now, made_by__is_active=True)
    link = rows.select_related("unit__site__firm", "unit__model", "made_by").first()
    if link is None:
        raise NotFound(_GONE)
    ShareLink.objects.filter(pk=key).update(opened_at=now, opened=F("opened") + 1)
    return link


def shared_visits(link: ShareLink) -> QuerySet[Visit]:
    """Return the closed visits of the link's unit, newest first: what the customer may read."""
    rows = Visit.objects.filter(unit__in=same_appliance(link.unit_id), closed_at__isnull=False)
    return rows.select_related("unit__site__firm", "unit__model", "technician", "closed_by").order_by("-closed_at")
