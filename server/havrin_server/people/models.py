"""Firm and person."""

from collections.abc import Sequence
from typing import Any
from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.db import models

from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.quantities.formats import CLOCK_FORMATS, DAY_FORMATS, DECIMAL_MARKS, Formats, formats_from


def _choices(keys: Sequence[str]) -> list[tuple[str, str]]:
    return [(key, key) for key in keys]


class Firm(models.Model):
    """A heating firm with its house rules."""

    name = models.CharField(max_length=120)
    sample_world = models.BooleanField(default=False)  # made up: may be dropped and played in anew
    house_rules: Any = models.JSONField(default=dict)
    zone = models.CharField(max_length=40, default="UTC")  # an IANA name: where its office is
    day_format = models.CharField(max_length=10, choices=_choices(DAY_FORMATS), default="day_month")
    clock_format = models.CharField(max_length=2, choices=_choices(CLOCK_FORMATS), default="24")
    decimal_mark = models.CharField(max_length=5, choices=_choices(DECIMAL_MARKS), default="point")

    def zoneinfo(self) -> ZoneInfo:
        """Return the firm's time zone."""
        return ZoneInfo(self.zone)

    def formats(self) -> Formats:
        """Return how the firm writes days, clock and numbers."""
        return formats_from(days=self.day_format, clock=self.clock_format, decimal=self.decimal_mark)

    def rules(self) -> HouseRules:
        """Return the firm's house rules as the core takes them."""
        return house_rules_from_dict(self.house_rules)


class Role(models.TextChoices):
    """What a person is in the firm."""

    TECHNICIAN = "technician"
    SUPERVISOR = "supervisor"
    OFFICE = "office"


class Person(AbstractUser):
    """Somebody who signs in. No firm, no rights."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT, null=True)
    role = models.CharField(max_length=12, choices=Role.choices, default=Role.TECHNICIAN)
    unit_system = models.CharField(max_length=6, choices=[("us", "US"), ("metric", "metric")], default="us")

    @property
    def own_firm(self) -> Firm:
        """The firm, of somebody who may do anything at all (permissions.py)."""
        assert self.firm is not None
        return self.firm

    @property
    def own_firm_id(self) -> int:
        """The firm's id; of somebody without a firm 0, which is no firm's."""
        return self.firm_id or 0

    @property
    def full_name(self) -> str:
        """The name that stands on tapes and reports."""
        return self.get_full_name() or self.username
