"""Trials of a cover against a bare strip."""

from __future__ import annotations

from django.db import models
from simple_history.models import HistoricalRecords

from cloche.apps.places.models import Cover, Place
from cloche.apps.shared.fields import RecordField, sane_day
from cloche_engine.results import BedGain, CropSeason


class CoverTrial(models.Model):
    """A covered place and a bare one beside it.

    Its pairs are readings of both at one depth within half an hour, whoever took them. `alike` holds the checks that were
    made, keys of forms.ALIKE.
    """

    covered = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_covered")
    bare = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_bare")
    depth_m = models.FloatField()
    begun_on = models.DateField(validators=[sane_day])
    ended_on = models.DateField(null=True, blank=True, validators=[sane_day])
    alike = models.JSONField(default=list)
    history = HistoricalRecords()

    class Meta:
        ordering = ["-begun_on", "-id"]


class BedAnswer(models.Model):
    """The effect of one of the garden's covers on one bed, computed in the queue.

    question: all that the answer rests on, as a text; an answer to another question is out of date. answer: none yet while it
    is being worked out; see pages.compare.
    """

    cover = models.ForeignKey(Cover, on_delete=models.CASCADE, related_name="bed_answers")
    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="bed_answers")
    question = models.CharField(max_length=200)
    answer = RecordField(BedGain, null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["cover", "place"], name="one_answer_a_cover_and_bed")]


class SeasonAnswer(models.Model):
    """The windows of all the garden's crops on one bed under one cover all year, computed in the queue.

    cover: a kind's key, `own-` and the number of one of the garden's own, or empty for the bare bed. question: as of BedAnswer;
    answer: of each crop.
    """

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="season_answers")
    cover = models.CharField(max_length=40, blank=True)
    question = models.CharField(max_length=200)
    answer = RecordField(list[CropSeason], nothing=list)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["place", "cover"], name="one_season_a_bed_and_cover")]
