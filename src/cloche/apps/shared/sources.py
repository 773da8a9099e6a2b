"""Sources of records."""

from django.db import models

from cloche.apps.shared.words import lazy


class Source(models.TextChoices):
    """Source of a reading or of daily weather."""

    HAND = "hand", lazy("by hand")
    FILE = "file", lazy("from a file")
