"""Archives being uploaded."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Garden, User
from cloche.apps.shared.words import lazy


class IncomingArchive(models.Model):
    """Archive of a garden that is being uploaded and read by a worker, completely or not at all.

    text: what is being done with it, or why it was refused. done of total: rows. garden: what came of it.
    """

    class State(models.TextChoices):
        WAITING = "waiting", lazy("waiting to be read")
        READING = "reading", lazy("being read")
        REFUSED = "refused", lazy("not accepted")
        TAKEN = "taken", lazy("imported")

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="incoming_archives")
    name = models.CharField(max_length=200)
    size = models.PositiveBigIntegerField()
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    text = models.CharField(max_length=300, blank=True)
    done = models.PositiveBigIntegerField(default=0)
    total = models.PositiveBigIntegerField(default=0)
    garden = models.ForeignKey(Garden, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)


class ArchivePart(models.Model):
    """Part of an uploaded archive.

    Stored in the database, where any worker can read it and no restart loses it.
    """

    archive = models.ForeignKey(IncomingArchive, on_delete=models.CASCADE, related_name="parts")
    number = models.PositiveIntegerField()
    data = models.BinaryField()

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["archive", "number"], name="one_part_a_number")]
