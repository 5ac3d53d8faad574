"""What a firm keeps in its shop: circuits and kinds that it made from shipped ones, and its models."""

from typing import Any

from django.db import models

from havrin_server.people.models import Firm, Person


class Sort(models.TextChoices):
    """What a document describes."""

    CIRCUIT = "circuit"
    KIND = "kind"
    MODEL = "model"
    WALK = "walk"


class ShopDocument(models.Model):
    """A document of the firm's own, as the core reads it. ``changed_by`` is empty for what came with an update."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    sort = models.CharField(max_length=10, choices=Sort.choices)
    key = models.CharField(max_length=80)
    document: Any = models.JSONField()
    changed_at = models.DateTimeField()
    changed_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True)

    class Meta:
        """One document of a sort and key per firm."""

        constraints = [
            models.UniqueConstraint(fields=["firm", "sort", "key"], name="one_document_of_a_key_per_firm"),
        ]
