"""One piece of long work: who asked for what, how far it is, what came of it."""

from typing import Any

from django.db import models

from havrin_server.people.models import Firm, Person


class State(models.TextChoices):
    """How far it is."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    STOPPED = "stopped"
    FAILED = "failed"


class LongWork(models.Model):
    """Long work of a firm. ``given`` is what it works on, ``result`` what came of it, ``done`` of ``steps`` are behind it."""

    id = models.UUIDField(primary_key=True)
    firm = models.ForeignKey(Firm, on_delete=models.PROTECT)
    person = models.ForeignKey(Person, on_delete=models.PROTECT)
    sort = models.CharField(max_length=20)
    given: Any = models.JSONField()
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    done = models.PositiveIntegerField(default=0)
    steps = models.PositiveIntegerField(default=0)
    said = models.TextField(blank=True)  # why it failed
    result: Any = models.JSONField(null=True)
    stop_asked = models.BooleanField(default=False)
    asked_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True)

    class Meta:
        indexes = [models.Index(fields=["firm", "-asked_at"], name="work_of_firm")]
