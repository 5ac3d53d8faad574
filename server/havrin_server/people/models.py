"""Firm, person, and what belongs to their signing in."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models

from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.quantities.formats import CLOCK_FORMATS, DAY_FORMATS, DECIMAL_MARKS, Formats, formats_from


def _choices(keys: Sequence[str]) -> list[tuple[str, str]]:
    return [(key, key) for key in keys]


class Firm(models.Model):
    """A heating firm with its house rules."""

    name = models.CharField(max_length=120)
    address = models.CharField(max_length=300, blank=True, default="")
    phone = models.CharField(max_length=40, blank=True, default="")
    licence = models.CharField(max_length=80, blank=True, default="")
    paper = models.CharField(max_length=6, choices=_choices(("letter", "a4")), default="letter")
    currency = models.CharField(max_length=3, default="USD")
    unit_system = models.CharField(max_length=6, choices=_choices(("us", "metric")), default="us")  # of who joins
    sample_world = models.BooleanField(default=False)  # made up: may be dropped and played in anew
    codes_required = models.BooleanField(default=False)  # of those who decide, a one-time code at every sign-in
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
    ADMINISTRATOR = "administrator"


class Person(AbstractUser):
    """Somebody who signs in. No firm, no rights. Who has left is not active, and is never removed: the name stands on tapes."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT, null=True)
    role = models.CharField(max_length=13, choices=Role.choices, default=Role.TECHNICIAN)
    unit_system = models.CharField(max_length=6, choices=[("us", "US"), ("metric", "metric")], default="us")
    phone = models.CharField(max_length=40, blank=True, default="")
    licence = models.CharField(max_length=80, blank=True, default="")
    licence_until = models.DateField(null=True, blank=True)
    van = models.CharField(max_length=20, blank=True, default="")
    code_secret = models.CharField(
        max_length=64, blank=True, default=""
    )  # of the one-time codes; empty: none are asked
    code_step = models.BigIntegerField(default=0)  # the half minute of the last code: none opens twice

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


class OpenSession(AbstractBaseSession):
    """A sign-in that lasts: whose, since when, from where (session_store.py fills it)."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, related_name="open_sessions")
    began_at = models.DateTimeField(null=True)
    used_at = models.DateTimeField(null=True)
    address = models.CharField(max_length=45, blank=True)
    device = models.CharField(max_length=200, blank=True)  # as the browser calls itself

    @classmethod
    def get_session_store_class(cls) -> Any:
        """Return the store that keeps these."""
        from havrin_server.people.session_store import SessionStore  # it needs this class itself

        return SessionStore


class Invitation(models.Model):
    """A link that lets somebody choose a password, once: to join, or, where it names a person, to come in again."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    person = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="resets")
    username = models.CharField(max_length=30)
    first_name = models.CharField(max_length=150)
    last_name = models.CharField(max_length=150, blank=True)
    role = models.CharField(max_length=13, choices=Role.choices)
    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="invited")
    made_at = models.DateTimeField()
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)
    revoked_at = models.DateTimeField(null=True)

    def is_open(self, now: datetime) -> bool:
        """Tell whether it still lets somebody in."""
        return self.used_at is None and self.revoked_at is None and now < self.expires_at


class AuditRecord(models.Model):
    """Who did what, from where, when: only ever added to (a trigger sees to it)."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT, null=True)
    person = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    name = models.CharField(max_length=150, blank=True)  # as it was typed where nobody is known by it
    at = models.DateTimeField()
    action = models.CharField(max_length=24)
    about = models.CharField(max_length=300, blank=True)
    address = models.CharField(max_length=45, blank=True)

    class Meta:
        indexes = [models.Index(fields=["firm", "-id"])]
