"""Sites and units."""

from typing import Any

from django.db import models

from havrin_core.machine.kind_files import build_unit, plate_from_dict
from havrin_core.machine.unit import Unit as CoreUnit
from havrin_server.people.models import Firm


class Site(models.Model):
    """A customer's place."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    name = models.CharField(max_length=120)
    altitude_m = models.FloatField()
    access = models.TextField(blank=True)
    contact = models.CharField(max_length=120, blank=True)


class Unit(models.Model):
    """One appliance with its plate, as the core's plate document."""

    site = models.ForeignKey(Site, on_delete=models.PROTECT)
    label = models.CharField(max_length=20)
    place = models.CharField(max_length=120)
    kind = models.CharField(max_length=60)
    maker = models.CharField(max_length=60, blank=True)
    model = models.CharField(max_length=60, blank=True)
    serial = models.CharField(max_length=60, blank=True)
    plate: Any = models.JSONField()

    @property
    def name(self) -> str:
        """Label and place, as on its tag."""
        return f"{self.label} · {self.place}"

    def described(self) -> CoreUnit:
        """Return the unit as the core judges it."""
        return build_unit(self.name, self.kind, plate_from_dict(self.plate), self.site.altitude_m)
