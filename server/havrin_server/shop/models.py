"""What a firm keeps in its shop: circuits that it made from shipped ones."""

from typing import Any

from django.db import models

from havrin_server.people.models import Firm, Person


class FirmCircuit(models.Model):
    """A circuit document of the firm's own, as the core reads it."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    key = models.CharField(max_length=80)
    document: Any = models.JSONField()
    changed_at = models.DateTimeField()
    changed_by = models.ForeignKey(Person, on_delete=models.PROTECT)

    class Meta:
        """One circuit of a name per firm."""

        constraints = [models.UniqueConstraint(fields=["firm", "key"], name="one_circuit_of_a_key_per_firm")]
