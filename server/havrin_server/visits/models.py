"""Visits and the tape. The tape is append-only: migration 0002 makes the database refuse the rest."""

from dataclasses import replace
from typing import Any

from django.db import models

from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.machine.unit import Unit as CoreUnit
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import SCHEMA
from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Firm, Person
from havrin_server.units.models import Unit

ENTRY_SCHEMA = SCHEMA


class Visit(models.Model):
    """One attendance at one unit. ``house_rules`` are those it is judged by; ``version`` counts its entries.

    While it is nobody's (``technician`` None) it is on no day either: ``day`` is then the one by which it is wanted.
    """

    unit = models.ForeignKey(Unit, on_delete=models.PROTECT)
    reason = models.CharField(max_length=20)
    day = models.DateField()
    start = models.TimeField(null=True)  # what was agreed, by the clock of the place
    turn = models.PositiveSmallIntegerField(default=0)
    complaint = models.TextField(blank=True)
    there = models.CharField(
        max_length=120, blank=True, default=""
    )  # who is there, and since when it is so: as it was told
    since = models.CharField(max_length=120, blank=True, default="")
    task = models.CharField(max_length=300, blank=True, default="")  # of a return: what is to be done
    parts: Any = models.JSONField(default=list, blank=True)  # and what is to be fitted, one line each
    returns_from = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="returns")
    technician = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="visits")
    helpers = models.ManyToManyField(Person, related_name="helps_on", blank=True)
    planned_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    cancelled_at = models.DateTimeField(null=True)
    cancelled_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")
    cancelled_why = models.CharField(max_length=300, blank=True, default="")
    stands: Any = models.JSONField(
        null=True
    )  # its standing while it is open, as last worked out for a list (standing_now.py)
    plan_version = models.PositiveIntegerField(default=0)  # counts the changes of its plan
    house_rules: Any = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=0)
    head = models.CharField(max_length=64, blank=True)  # the newest link of its tape (chain.py)
    seal: Any = models.JSONField(null=True)  # the head at the close, signed: signature and key (seal.py)
    closed_at = models.DateTimeField(null=True)
    closed_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="closed_visits")
    closed_level = models.PositiveSmallIntegerField(null=True)
    left = models.CharField(max_length=12, blank=True)  # how the unit was left: a key of the core's WAYS_LEFT
    opened_with: Any = models.JSONField(null=True)  # what the unit's last visit had left open, pinned at the close
    left_open: Any = models.JSONField(null=True)  # what this one leaves open for the next, stored at the close
    pinned: Any = models.JSONField(
        null=True
    )  # the unit, its model, kind, circuit and accuracies as they were judged by
    frozen: Any = models.JSONField(null=True)  # the assessment as it stood at the close, by unit system
    past: Any = models.JSONField(null=True)  # what was renewed or at fault, for the odds of later searches
    customer_words = models.TextField(blank=True)
    signed_by = models.CharField(max_length=120, blank=True)
    signature: Any = models.JSONField(default=list)  # strokes: lists of [x, y] in 0..1

    class Meta:
        indexes = [
            models.Index(fields=["technician", "day"], name="own_day"),  # the first page of everybody
            models.Index(
                fields=["day"], condition=models.Q(closed_at=None, cancelled_at=None), name="open_days"
            ),  # the board
            models.Index(fields=["unit", "-day", "-id"], name="visits_of_unit"),  # a unit's record, its newest visit
        ]

    @property
    def technician_name(self) -> str:
        """Whose visit it is; "" while it is nobody's."""
        return self.technician.full_name if self.technician else ""

    def described(self) -> CoreUnit:
        """Return the unit as this visit judges it: as it was pinned with the first entry, as it is before that."""
        if self.pinned is None:
            return self.unit.described()
        built = unit_from_dict(self.pinned["unit"])
        return replace(built, surroundings=tuple(self.pinned["surroundings"]))

    def rules(self) -> HouseRules:
        """Return the house rules that this visit is judged by."""
        return house_rules_from_dict(self.house_rules)


class ClosedCause(models.Model):
    """How often the firm's closed visits found ``part`` (of the vocabulary) to be the cause, on one circuit.

    ``in_vain``: how often it was renewed and was not; ``unsolved``: in how many of these no cause was found at all.
    """

    firm = models.ForeignKey(Firm, on_delete=models.CASCADE)
    circuit = models.CharField(max_length=80)
    part = models.CharField(max_length=80)
    count = models.PositiveIntegerField(default=0)
    in_vain = models.PositiveIntegerField(default=0)
    unsolved = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = (models.UniqueConstraint(fields=("firm", "circuit", "part"), name="one_count_of_each_cause"),)


class Amendment(models.Model):
    """What somebody had to say of a visit after it was closed. Append-only, as the tape (migration 0006), and linked behind it.

    ``entries`` are as in a bundle; ``left_open`` is what they add to what the visit left open, stored for the next one.
    """

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="amendments")
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    at = models.DateTimeField()
    zone = models.CharField(max_length=6)
    why = models.TextField()
    entries: Any = models.JSONField()
    left_open: Any = models.JSONField()
    number: Any = models.PositiveIntegerField()  # from 1, in the order in which they were kept
    link = models.CharField(max_length=64)
    seal: Any = models.JSONField(null=True)  # None: kept before amendments were sealed

    class Meta:
        """One chain for each visit."""

        constraints = [models.UniqueConstraint(fields=["visit", "number"], name="one_chain_of_amendments")]


class TapeEntry(models.Model):
    """One line of a tape: typed columns for what is asked, JSON for the rest."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="entries")
    number = models.PositiveIntegerField()  # its place in the visit's chain, from 1
    link = models.CharField(max_length=64)  # of all that stands here, and of the link before it (chain.py)
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
    sent_at = models.DateTimeField(null=True)  # what the device's clock showed when it sent the line
    device = models.CharField(max_length=40, blank=True)
    author = models.ForeignKey(Person, on_delete=models.PROTECT)
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT, null=True)
    out_of_calibration = models.BooleanField(default=False)  # on that day, or nobody knew until when it holds
    data: Any = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["visit", "number"], name="one_chain_per_visit")]
        indexes = [
            models.Index(fields=["visit", "at"], name="tape_of_visit"),
            models.Index(
                fields=["unit", "quantity", "at"], condition=models.Q(quantity__isnull=False), name="tape_trend"
            ),
        ]
