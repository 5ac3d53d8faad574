"""What leaves the house by a link."""

from django.db import models

from havrin_server.people.models import Person
from havrin_server.units.models import Unit
from havrin_server.visits.models import Amendment, Visit


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


class PaperKind(models.TextChoices):
    """The papers of a visit."""

    REPORT = "report"
    CUSTOMER = "customer"
    TAG = "tag"
    QUOTE = "quote"
    SHEET = "sheet"
    AMENDMENT = "amendment"


class Paper(models.Model):
    """A paper as it was printed for a closed visit or an amendment: reprinting gives the same bytes. Append-only."""

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="papers")
    amendment = models.OneToOneField(Amendment, on_delete=models.PROTECT, null=True, related_name="paper")
    kind = models.CharField(max_length=10, choices=PaperKind.choices)
    content = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    made_at = models.DateTimeField()

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["visit", "kind"], condition=models.Q(amendment=None), name="one_paper_of_a_kind"
            ),
        ]
