"""What leaves the house by a link."""

from django.db import models

from havrin_server.people.models import Person
from havrin_server.sites.models import Unit


class ShareLink(models.Model):
    """A customer's link to one unit's reports: signed, expiring, revocable, for reading alone."""

    id = models.UUIDField(primary_key=True)
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="links")
    made_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    made_at = models.DateTimeField()
    expires_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True)
    opened_at = models.DateTimeField(null=True)
    opened = models.PositiveIntegerField(default=0)
