"""Where a record came from."""

from django.db import models


class Source(models.TextChoices):
    """Of readings and of days of weather."""

    HAND = "hand", "by hand"
    FILE = "file", "from a file"
