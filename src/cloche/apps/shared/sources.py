"""Where a record came from."""

from django.db import models

from cloche.apps.shared.words import lazy


class Source(models.TextChoices):
    """Of readings and of days of weather."""

    HAND = "hand", lazy("by hand")
    FILE = "file", lazy("from a file")
