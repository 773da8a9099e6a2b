"""Failures, heartbeats and processor time."""

from __future__ import annotations

from django.db import models


class Failure(models.Model):
    """Work that failed and is retried, deleted on success; `key` is that of the queue.

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
    """Sign of life of a part of the application; `at` is the database's time."""

    part = models.CharField(max_length=40, unique=True)
    at = models.DateTimeField()


class Worked(models.Model):
    """Number of tasks of a kind for a garden on a UTC day, and their processor time [s]."""

    garden = models.ForeignKey("gardens.Garden", on_delete=models.CASCADE, related_name="+")
    day = models.DateField()
    task = models.CharField(max_length=80)
    count = models.PositiveIntegerField(default=0)
    seconds = models.FloatField(default=0.0)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "day", "task"], name="one_sum_a_day")]
