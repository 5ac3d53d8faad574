"""Analyzer logs with their series, and photos."""

from typing import Any

from django.db import models

from havrin_server.journal.models import Visit
from havrin_server.people.models import Person
from havrin_server.toolbox.models import Instrument


class FlueLog(models.Model):
    """One log file as it came, how its columns were read, and the numbers read from it."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="logs")
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT, null=True)
    uploaded_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    uploaded_at = models.DateTimeField()
    name = models.CharField(max_length=200)
    file = models.FileField(upload_to="logs/")
    layout: Any = models.JSONField()  # delimiter, decimal mark, headers, first rows
    mapping: Any = models.JSONField(default=dict)  # quantity -> {column, unit}
    problems: Any = models.JSONField(default=list)
    series = models.BinaryField(null=True)  # compressed numpy archive: seconds and one array per quantity


class Photo(models.Model):
    """A picture taken during a visit."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="photos")
    taken_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    taken_at = models.DateTimeField()
    station = models.CharField(max_length=40, blank=True)
    caption = models.CharField(max_length=200, blank=True)
    file = models.FileField(upload_to="photos/")
