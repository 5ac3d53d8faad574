"""What is noted about cards: what was made under which id, what was merged into what, and lists taken in."""

from typing import Any

from django.db import models

from havrin_server.people.models import Firm, Person


class Made(models.Model):
    """A card that a page made under an id of its own: asked twice, it is made once."""

    id = models.UUIDField(primary_key=True)
    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    sort = models.CharField(max_length=10)
    number = models.BigIntegerField()


class Merge(models.Model):
    """Two cards of one thing made one: ``gone`` goes under ``kept`` from then on. ``moved`` is what went over, to undo it."""

    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    sort = models.CharField(max_length=10)
    gone = models.BigIntegerField()
    kept = models.BigIntegerField()
    moved: Any = models.JSONField(default=dict)  # sort -> numbers
    by = models.ForeignKey(Person, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()
    why = models.CharField(max_length=300, blank=True)
    undone_at = models.DateTimeField(null=True)
    undone_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")


class ImportState(models.TextChoices):
    """How far a list is."""

    COLUMNS = "columns"  # which column is which field?
    LOOKED = "looked"  # the dry run says what it would do
    TAKEN = "taken"
    UNDONE = "undone"


class ImportRun(models.Model):
    """A list of cards that somebody brought: its columns, which field each is, and what came of it."""

    id = models.UUIDField(primary_key=True)
    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    person = models.ForeignKey(Person, on_delete=models.PROTECT)
    sort = models.CharField(max_length=10)
    name = models.CharField(max_length=200)
    columns: Any = models.JSONField()
    mapping: Any = models.JSONField(default=dict)  # column number -> field
    state = models.CharField(max_length=8, choices=ImportState.choices, default=ImportState.COLUMNS)
    counts: Any = models.JSONField(default=dict)  # status -> rows
    at = models.DateTimeField()


class RowStatus(models.TextChoices):
    """What a row of a list would do."""

    NEW = "new"
    SAME = "same"
    CHANGED = "changed"
    UNCLEAR = "unclear"


class ImportRow(models.Model):
    """One row of a list. ``choice`` is what somebody decided for it: a card's number, "new", "leave", or "" for as it says."""

    run = models.ForeignKey(ImportRun, on_delete=models.CASCADE, related_name="rows")
    number = models.PositiveIntegerField()
    cells: Any = models.JSONField()
    status = models.CharField(max_length=8, choices=RowStatus.choices, blank=True)
    why = models.CharField(max_length=300, blank=True)
    card = models.BigIntegerField(null=True)  # which it means
    candidates: Any = models.JSONField(default=list)  # where it may mean several
    values: Any = models.JSONField(default=dict)
    changes: Any = models.JSONField(default=dict)  # field -> [before, after]
    choice = models.CharField(max_length=20, blank=True)
    took: Any = models.JSONField(null=True)  # what taking it did, to take it back: card, before

    class Meta:
        constraints = [models.UniqueConstraint(fields=["run", "number"], name="one_row_a_number")]
        indexes = [
            models.Index(fields=["run", "status", "number"], name="rows_by_status")
        ]  # the list is shown by status


class UnitPhoto(models.Model):
    """A picture of a unit's plate, taken at the door: it belongs to the unit, not to a visit."""

    id = models.UUIDField(primary_key=True)
    unit = models.ForeignKey("units.Unit", on_delete=models.PROTECT, related_name="plate_photos")
    file = models.FileField(upload_to="plates/%Y/%m/")
    taken_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    taken_at = models.DateTimeField()
