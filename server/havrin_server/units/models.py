"""Sites, who is spoken with there, and the units that stand there."""

from dataclasses import replace
from datetime import date, datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.db import models

from havrin_core.machine.circuit.read import circuit_from_dict
from havrin_core.machine.kind_files import build_of_model
from havrin_core.machine.unit import Unit as CoreUnit
from havrin_core.machine.unit_model import UnitModel, model_from_dict
from havrin_server.people.models import Firm
from havrin_server.shop.library import library_for
from havrin_server.shop.models import ShopDocument

CONTACT_ROLES = {
    "owner": "Owner",
    "tenant": "Tenant",
    "caretaker": "Caretaker",
    "manager": "Facility manager",
    "other": "Other",
}


class Site(models.Model):
    """A customer's place; ``zone`` is an IANA name, the firm's where it is empty."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    name = models.CharField(max_length=120)
    address = models.CharField(max_length=200, blank=True, default="")
    latitude = models.FloatField(null=True, blank=True)
    longitude = models.FloatField(null=True, blank=True)
    altitude_m = models.FloatField()
    access = models.TextField(blank=True)
    hours = models.CharField(max_length=120, blank=True, default="")
    hazards = models.TextField(blank=True, default="")
    zone = models.CharField(max_length=40, blank=True)
    retired_at = models.DateTimeField(null=True, blank=True)
    merged_into = models.ForeignKey("self", on_delete=models.PROTECT, null=True, blank=True)

    def zoneinfo(self) -> ZoneInfo:
        """Return the time zone of the place."""
        return ZoneInfo(self.zone) if self.zone else self.firm.zoneinfo()

    def today(self, now: datetime) -> date:
        """Return which day it is at the place."""
        return now.astimezone(self.zoneinfo()).date()


class Contact(models.Model):
    """Somebody to speak with at a site: who, in which role, how to reach them, in which language, and who decides on what."""

    site = models.ForeignKey(Site, on_delete=models.PROTECT)
    name = models.CharField(max_length=120)
    role = models.CharField(max_length=20, default="owner")  # a key of CONTACT_ROLES
    phone = models.CharField(max_length=40, blank=True, default="")
    mail = models.CharField(max_length=120, blank=True, default="")
    language = models.CharField(max_length=40, blank=True, default="")
    decides = models.CharField(max_length=200, blank=True, default="")
    retired_at = models.DateTimeField(null=True, blank=True)


class Unit(models.Model):
    """One appliance of a model; ``plate`` holds only what was read on this very unit.

    Units of a site with the same ``gas_line`` hang on one branch. ``surroundings`` are keys of the core's odds. ``left_…`` is
    how its newest closed visit left it, kept here so that lists of thousands need not look for it.
    """

    site = models.ForeignKey(Site, on_delete=models.PROTECT)
    label = models.CharField(max_length=20)
    place = models.CharField(max_length=120)
    model = models.ForeignKey(ShopDocument, on_delete=models.PROTECT)
    serial = models.CharField(max_length=60, blank=True)
    plate: Any = models.JSONField(default=dict, blank=True)
    circuit: Any = models.JSONField(
        null=True, blank=True
    )  # as it is on this very unit, where it was put right on the spot
    gas_line = models.CharField(max_length=60, blank=True)
    installed_year = models.PositiveSmallIntegerField(null=True)
    surroundings: Any = models.JSONField(default=list, blank=True)
    vulnerable = models.CharField(max_length=120, blank=True, default="")  # who is there whom cold or fumes harm first
    left_level = models.PositiveSmallIntegerField(null=True, blank=True)
    left_day = models.DateField(null=True, blank=True)
    left_title = models.CharField(max_length=200, blank=True, default="")
    maintained_day = models.DateField(null=True, blank=True)  # of its newest closed maintenance
    retired_at = models.DateTimeField(null=True, blank=True)
    merged_into = models.ForeignKey("self", on_delete=models.PROTECT, null=True, blank=True)

    @property
    def name(self) -> str:
        """Label and place, as on its tag."""
        return f"{self.label} · {self.place}"

    def of_model(self) -> UnitModel:
        """Return the model that the firm keeps for it."""
        return model_from_dict(self.model.document)

    def described(self) -> CoreUnit:
        """Return the unit as the core judges it."""
        model = self.of_model()
        library = library_for(self.site.firm_id, model)
        if self.circuit is not None:
            own = circuit_from_dict(self.circuit)
            model, library = replace(model, circuit=own.key), replace(library, circuits={own.key: own})
        built = build_of_model(self.name, model, self.plate, self.site.altitude_m, library)
        return replace(built, installed_year=self.installed_year, surroundings=tuple(self.surroundings))
