"""What failed and is tried again, which parts of the application are alive, and what work takes."""

from __future__ import annotations

from django.db import models


class Failure(models.Model):
    """Work that failed and will be tried again; gone once it succeeds. key: as in the queue, one row a piece of work.

    text: for the owner, a sentence; detail: for whoever keeps the machine. lost: how often the worker ended half way, which is
    no fault of the work until it happens again and again. Times are the database's own.
    """

    key = models.CharField(max_length=120, unique=True)
    task = models.CharField(max_length=80)
    garden = models.ForeignKey("gardens.Garden", null=True, on_delete=models.CASCADE, related_name="failures")
    place = models.ForeignKey("places.Place", null=True, on_delete=models.CASCADE, related_name="failures")
    count = models.PositiveIntegerField(default=0)
    lost = models.PositiveIntegerField(default=0)
    first_at = models.DateTimeField()
    last_at = models.DateTimeField()
    next_at = models.DateTimeField()
    text = models.CharField(max_length=300)
    detail = models.CharField(max_length=2000)

    class Meta:
        ordering = ["-last_at"]


class Heartbeat(models.Model):
    """A part of the application that reports while it is alive. at: by the database's clock."""

    part = models.CharField(max_length=40, unique=True)
    at = models.DateTimeField()


class Worked(models.Model):
    """Pieces of work of a kind that were done for a garden on a day (UTC), and the seconds of the processor that they took."""

    garden = models.ForeignKey("gardens.Garden", on_delete=models.CASCADE, related_name="+")
    day = models.DateField()
    task = models.CharField(max_length=80)
    count = models.PositiveIntegerField(default=0)
    seconds = models.FloatField(default=0.0)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "day", "task"], name="one_sum_a_day")]
