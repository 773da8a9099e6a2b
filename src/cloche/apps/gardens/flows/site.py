"""Founding a garden, and changing its site."""

from __future__ import annotations

from django.db import transaction

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.gardens.signals import site_changed


@transaction.atomic
def found_garden(garden: Garden, owner: User) -> Garden:
    """Save a new garden and make its founder the owner."""
    garden.save()
    Membership.objects.create(garden=garden, user=owner, role=Membership.Role.OWNER)
    return garden


@transaction.atomic
def change_site(garden: Garden) -> Garden:
    """Save a changed site; all its forecasts rest on it."""
    garden.save()
    site_changed.send(Garden, garden=garden)
    return garden
