"""Seed packets and a garden's choices for each crop."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import fields

MOST_TESTED = 1_000_000


class Packet(models.Model):
    """Packet of seed: variety, age, germination test, and crop values that replace the catalogue's.

    values: by name of the value (see cloche_engine.crops.grown.with_values). The packet in use is the one that windows go by.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="packets")
    crop_key = models.CharField(max_length=40)
    variety = models.CharField(max_length=60, blank=True, validators=[fields.plain])
    packed_year = models.PositiveSmallIntegerField(null=True, blank=True)
    tested_of = models.PositiveIntegerField(
        null=True, blank=True, validators=[MaxValueValidator(MOST_TESTED)], help_text="Seeds laid out in a germination test."
    )
    tested_up = models.PositiveIntegerField(
        null=True, blank=True, validators=[MaxValueValidator(MOST_TESTED)], help_text="How many of them germinated."
    )
    price = models.FloatField(
        null=True,
        blank=True,
        validators=[MinValueValidator(0.0), MaxValueValidator(fields.MOST_MONEY)],
        help_text="What it cost, in the grower's own money.",
    )
    values = models.JSONField(default=dict, blank=True)
    in_use = models.BooleanField(default=True)
    removed_at = models.DateTimeField(null=True, editable=False)

    class Meta:
        ordering = ["-in_use", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["garden", "crop_key"],
                condition=models.Q(in_use=True, removed_at__isnull=True),
                name="one_packet_in_use",
            )
        ]

    def clean(self) -> None:
        """Check that a germination test has both numbers and no more seedlings than seeds."""
        of, up = self.tested_of, self.tested_up
        if (of is None) != (up is None):
            raise ValidationError({"tested_up": _("Enter both numbers of a test: seeds tested, and how many germinated.")})
        if of is not None and up is not None and (up > of or of == 0):
            raise ValidationError({"tested_up": _("No more seeds can germinate than were tested.")})


class CropChoice(models.Model):
    """How a garden grows one crop, where that differs from the default or from its other crops."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="crop_choices")
    crop_key = models.CharField(max_length=40)
    sowing_rule = models.CharField(max_length=12, blank=True)
    method = models.CharField(max_length=12, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "crop_key"], name="one_choice_a_crop")]
