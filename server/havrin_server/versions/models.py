"""One version of a document. Migration 0002 makes the database refuse to change or remove any."""

from typing import Any

from django.db import models

from havrin_server.people.models import Firm, Person


class Sort(models.TextChoices):
    """What is kept version by version."""

    UNIT = "unit"
    MODEL = "model"
    KIND = "kind"
    CIRCUIT = "circuit"
    RULES = "rules"
    INSTRUMENT = "instrument"
    WALK = "walk"
    CARD = "card"  # of what the firm keeps itself; the key says of which sort and number


class Version(models.Model):
    """A document as it was from ``at`` on, until the next number. ``author`` None: as it was found when first used."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    sort = models.CharField(max_length=10, choices=Sort.choices)
    key = models.CharField(max_length=80)
    number = models.PositiveIntegerField()
    document: Any = models.JSONField()
    author = models.ForeignKey(Person, on_delete=models.PROTECT, null=True)
    reason = models.CharField(max_length=300, blank=True)
    at = models.DateTimeField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["firm", "sort", "key", "number"], name="one_version_a_number"),
        ]
