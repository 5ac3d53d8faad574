"""Instruments."""

from typing import Any

from django.db import models

from havrin_core.quantities.uncertainty import Accuracy
from havrin_server.people.models import Firm


class Instrument(models.Model):
    """A measuring instrument: stated accuracy, calibration date, and how its logs are laid out."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=30)
    serial = models.CharField(max_length=60, blank=True)
    calibrated_until = models.DateField(null=True)
    accuracy: Any = models.JSONField(default=dict)
    log_mapping: Any = models.JSONField(default=dict)  # header fingerprint -> column mapping

    def accuracies(self) -> dict[str, Accuracy]:
        """Return the stated accuracy per quantity, as the core takes it."""
        return {name: Accuracy(**figures) for name, figures in self.accuracy.items()}
