"""What people answered to the day's jobs, and who wants the day by mail."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.places.models import CoverPeriod, Operation, Place, TuberTray
from cloche.apps.plants.models import Planting
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Step


class Answer(models.Model):
    """A job answered: key says which job of which thing and day; kind, place and crop_key what it was about (see
    jobs.job.JobKind); period: the cover it named. until: the day before which a job put off does not come again. operation,
    ended, step, tubers, planting: what a tick wrote into the record. undone_at: taken back."""

    class Choice(models.TextChoices):
        DONE = "done", lazy("done")
        LATER = "later", lazy("later")
        NOT_HERE = "not_here", lazy("not in this garden")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="answers")
    key = models.CharField(max_length=80)
    choice = models.CharField(max_length=8, choices=Choice)
    kind = models.CharField(max_length=12)
    place = models.ForeignKey(Place, null=True, on_delete=models.SET_NULL, related_name="+")
    crop_key = models.CharField(max_length=40, blank=True)
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField()
    until = models.DateField(null=True)
    period = models.ForeignKey(CoverPeriod, null=True, on_delete=models.SET_NULL, related_name="+")
    operation = models.ForeignKey(Operation, null=True, on_delete=models.SET_NULL, related_name="+")
    ended = models.ForeignKey(CoverPeriod, null=True, on_delete=models.SET_NULL, related_name="+")
    step = models.ForeignKey(Step, null=True, on_delete=models.SET_NULL, related_name="+")
    tubers = models.ForeignKey(TuberTray, null=True, on_delete=models.SET_NULL, related_name="+")
    planting = models.ForeignKey(Planting, null=True, on_delete=models.SET_NULL, related_name="+")
    undone_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-at", "-id"]
        indexes = [models.Index(fields=["garden", "at"], name="answer_newest")]


class DigestWish(models.Model):
    """Somebody wants the day's page by mail at an hour of the garden, as long as they belong to it. sent_on: the last day it
    was sent."""

    membership = models.OneToOneField(Membership, on_delete=models.CASCADE, related_name="digest_wish")
    hour = models.PositiveSmallIntegerField(default=6)
    sent_on = models.DateField(null=True)

    @property
    def garden(self) -> Garden:
        """Whose day it is."""
        return self.membership.garden

    @property
    def user(self) -> User:
        """Who wants it."""
        return self.membership.user
