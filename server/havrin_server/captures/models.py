"""Analyzer logs with their series, and photos."""

from typing import Any

from django.db import models

from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Person
from havrin_server.visits.models import Visit


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


class ReadingShare(models.Model):
    """How far a log that was sent is read; it is there only while it is read."""

    id = models.UUIDField(primary_key=True)  # of the upload, given by the page
    share = models.FloatField()
    at = models.DateTimeField()


class Photo(models.Model):
    """A picture taken during a visit; ``marks`` are arrows with words laid over it, 0 to 1 across and down."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="photos")
    taken_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    taken_at = models.DateTimeField()
    station = models.CharField(max_length=40, blank=True)
    caption = models.CharField(max_length=200, blank=True)
    file = models.FileField(upload_to="photos/")
    thumbnail = models.FileField(upload_to="photos/", blank=True)
    marks: Any = models.JSONField(default=list)

    @property
    def url(self) -> str:
        """The address that it is fetched from."""
        return f"/api/photos/{self.pk}"

    @property
    def small(self) -> str:
        """The address of its thumbnail."""
        return f"{self.url}?small=true"


class DeviceKey(models.Model):
    """The key with which an instrument's own program sends samples; only its hash is kept. It ends with its maker."""

    instrument = models.OneToOneField(Instrument, on_delete=models.CASCADE, related_name="device_key")
    key_hash = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField()
    made_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True)  # None: by a command
    used_at = models.DateTimeField(null=True)  # to the minute


class Capture(models.Model):
    """Instruments recording on a visit, on one clock: milliseconds since ``started_at``."""

    id = models.UUIDField(primary_key=True)
    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="captures")
    started_at = models.DateTimeField()
    started_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    ended_at = models.DateTimeField(null=True)
    instruments = models.ManyToManyField(Instrument, through="Recorder")


class Recorder(models.Model):
    """One instrument of a capture: its clock against the server's, and how far its batches came."""

    capture = models.ForeignKey(Capture, on_delete=models.CASCADE, related_name="recorders")
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT)
    stage = models.CharField(max_length=5, blank=True)
    clock_offset_s = models.FloatField(null=True)  # server minus device
    clock_error_s = models.FloatField(default=0.05)  # how far samples may have been set too late against the server's
    heard_at = models.DateTimeField(null=True)
    last_sequence = models.PositiveIntegerField(null=True)
    simulated = models.BooleanField(default=False)  # samples of a stand-in: made up
    missing: Any = models.JSONField(default=list)  # numbers of batches that never came
    problems: Any = models.JSONField(default=list)

    class Meta:
        """An instrument takes part once."""

        constraints = [models.UniqueConstraint(fields=["capture", "instrument"], name="one_recorder_per_instrument")]


class SampleBlock(models.Model):
    """One batch of one channel as it came, packed by the core; a batch that comes twice is stored once."""

    recorder = models.ForeignKey(Recorder, on_delete=models.CASCADE, related_name="blocks")
    quantity = models.CharField(max_length=40)
    sequence = models.PositiveIntegerField()
    first_ms = models.BigIntegerField()
    last_ms = models.BigIntegerField()
    count = models.PositiveIntegerField()
    packed = models.BinaryField()

    class Meta:
        """A batch of a channel once."""

        constraints = [
            models.UniqueConstraint(fields=["recorder", "quantity", "sequence"], name="one_block_per_batch_and_channel")
        ]


class EventMark(models.Model):
    """Something that a person marked on a running capture: light-off, blower on, cover off … (keys of traces/events.py)."""

    id = models.UUIDField(primary_key=True)
    capture = models.ForeignKey(Capture, on_delete=models.CASCADE, related_name="marks")
    kind = models.CharField(max_length=20)
    at_ms = models.BigIntegerField()
    marked_by = models.ForeignKey(Person, on_delete=models.PROTECT)
    marked_at = models.DateTimeField()
