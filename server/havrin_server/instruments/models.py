"""Instruments."""

from datetime import date
from typing import Any

from django.db import models

from havrin_core.quantities.uncertainty import Accuracy
from havrin_server.people.models import Firm, Person


class Instrument(models.Model):
    """A measuring instrument of a person or a van: stated accuracy, calibration date, and how its logs are laid out."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=30)
    serial = models.CharField(max_length=60, blank=True)
    calibrated_until = models.DateField(null=True, blank=True)
    person = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, blank=True)
    van = models.CharField(max_length=20, blank=True, default="")
    retired_at = models.DateTimeField(null=True, blank=True)
    accuracy: Any = models.JSONField(default=dict)
    log_mapping: Any = models.JSONField(default=dict)  # header fingerprint -> column mapping

    def in_date(self, day: date) -> bool:
        """Return whether its calibration holds on ``day``; unknown is not good."""
        return self.calibrated_until is not None and self.calibrated_until >= day

    def belongs_to(self, person: Person) -> bool:
        """Return whether it is the person's own, or rides in their van."""
        return self.person_id == person.pk or bool(self.van and self.van == person.van and self.person_id is None)

    def accuracies(self) -> dict[str, Accuracy]:
        """Return the stated accuracy per quantity, as the core takes it."""
        return {name: Accuracy(**figures) for name, figures in self.accuracy.items()}


class InHand(models.Model):
    """The instrument of one kind that a person works with on one day, at the place where the work is done."""

    person = models.ForeignKey(Person, on_delete=models.PROTECT)
    day = models.DateField()
    kind = models.CharField(max_length=30)
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["person", "day", "kind"], name="one_of_a_kind_in_hand")]
