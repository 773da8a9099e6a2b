"""Questions about people and their scales."""

from __future__ import annotations

from django.http import HttpRequest

from cloche.apps.gardens.models import Garden, User
from cloche.bridge.values.units import Units


def units_of(user: User) -> Units:
    """A person's scales."""
    return Units(temperature=user.temperature_unit, length=user.length_unit)  # type: ignore[arg-type]


def garden_to_open(request: HttpRequest) -> Garden | None:
    """The garden last stood in, else the first one belonged to."""
    gardens = request.user.gardens  # type: ignore[union-attr]
    last = request.session.get("garden_id", 0)
    return gardens.filter(pk=last).first() or gardens.order_by("memberships__pk").first()


def nobody_yet() -> bool:
    """Whether this installation waits for its first person."""
    return not User.objects.exists()


def keeper_of_computer() -> User | None:
    """Whoever came first: there is no other role for it."""
    return User.objects.filter(is_active=True, memberships__isnull=False).order_by("pk").first()
