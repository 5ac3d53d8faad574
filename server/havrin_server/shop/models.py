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


class Part(models.Model):
    """A part that the firm buys: its number, which part it is, which models it fits, and what it costs.

    ``fits`` are keys of the firm's models; ``part`` is a key of the core's vocabulary.
    """

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    number = models.CharField(max_length=60)
    name = models.CharField(max_length=120)
    part = models.CharField(max_length=60, blank=True)
    fits: Any = models.JSONField(default=list, blank=True)
    set_point = models.CharField(max_length=60, blank=True)
    ports = models.CharField(max_length=60, blank=True)
    kit = models.CharField(max_length=200, blank=True)  # what is fitted with it
    price = models.DecimalField(max_digits=10, decimal_places=2, null=True, blank=True)
    retired_at = models.DateTimeField(null=True, blank=True)
