"""Visits and the tape. The tape is append-only: migration 0002 makes the database refuse the rest."""

from typing import Any

from django.db import models

from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_server.people.models import Person
from havrin_server.sites.models import Unit
from havrin_server.toolbox.models import Instrument

ENTRY_SCHEMA = 1


class Visit(models.Model):
    """One attendance at one unit. ``house_rules`` are those it is judged by; ``version`` counts its entries."""

    unit = models.ForeignKey(Unit, on_delete=models.PROTECT)
    reason = models.CharField(max_length=20)
    day = models.DateField()
    turn = models.PositiveSmallIntegerField(default=0)
    complaint = models.TextField(blank=True)
    technician = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="visits")
    house_rules: Any = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=0)
    closed_at = models.DateTimeField(null=True)
    closed_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="closed_visits")
    closed_level = models.PositiveSmallIntegerField(null=True)
    customer_words = models.TextField(blank=True)
    signed_by = models.CharField(max_length=120, blank=True)
    signature: Any = models.JSONField(default=list)  # strokes: lists of [x, y] in 0..1

    def rules(self) -> HouseRules:
        """Return the house rules that this visit is judged by."""
        return house_rules_from_dict(self.house_rules)


class TapeEntry(models.Model):
    """One line of a tape: typed columns for what is asked, JSON for the rest."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="entries")
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT)
    group = models.UUIDField()
    schema = models.PositiveSmallIntegerField(default=ENTRY_SCHEMA)
    kind = models.CharField(max_length=20)
    phase = models.CharField(max_length=5)
    stage = models.CharField(max_length=5, null=True)
    quantity = models.CharField(max_length=40, null=True)
    value_si = models.FloatField(null=True)
    at = models.DateTimeField()
    zone = models.CharField(max_length=6)  # the writer's offset, like +01:00
    recorded_at = models.DateTimeField()
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT, null=True)
    data: Any = models.JSONField()

    class Meta:
        indexes = [
            models.Index(fields=["visit", "at"]),
            models.Index(
                fields=["unit", "quantity", "at"], condition=models.Q(quantity__isnull=False), name="tape_trend"
            ),
        ]
