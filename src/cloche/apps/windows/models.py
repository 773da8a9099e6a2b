"""The last finished forecast of each place, and what would come of each crop there. Both can be computed again at will."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Membership


class CalendarLink(models.Model):
    """Secret link through which a calendar reads a garden's windows.

    It ends with the membership; a person who returns gets another.
    """

    membership = models.OneToOneField(Membership, on_delete=models.CASCADE, related_name="calendar_link")
    token = models.CharField(max_length=64, unique=True)
    created_at = models.DateTimeField(auto_now_add=True)
