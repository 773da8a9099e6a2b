"""Read gardens, their people and what they show of themselves."""

from __future__ import annotations

from django.http import HttpRequest
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden, User
from cloche.apps.shared import words
from cloche.bridge.values.units import Units
from cloche_engine.weather.zones import winter_lows_c


def units_of(user: User) -> Units:
    """Return a person's units."""
    return Units(temperature=user.temperature_unit, length=user.length_unit)  # type: ignore[arg-type]


def garden_to_open(request: HttpRequest) -> Garden | None:
    """Return the garden that was open last, or else the first one."""
    gardens = request.user.gardens  # type: ignore[union-attr]
    last = request.session.get("garden_id", 0)
    return gardens.filter(pk=last).first() or gardens.order_by("memberships__pk").first()


def nobody_yet() -> bool:
    """Return whether the installation has no account yet."""
    return not User.objects.exists()


def keeper_of_computer() -> User | None:
    """Return the first account, which looks after the installation."""
    return User.objects.filter(is_active=True, memberships__isnull=False).order_by("pk").first()


def garden_headline(garden: Garden, people: int) -> str:
    """Return the size of the garden in words."""
    places = words.count(garden.places.count(), "place", "places")
    return _("{garden} has {places} and {people}.").format(
        garden=garden.name, places=places, people=words.count(people, "person", "people")
    )


def people_headline(garden: Garden, people: int) -> str:
    """Return the number of members in words."""
    belong = words.count(people, "person belongs", "people belong")
    return _("{people_belong} to {garden}.").format(people_belong=belong, garden=garden.name)


def crops_chosen(garden: Garden) -> str:
    """Return the number of chosen crops in words, empty for none."""
    if not garden.crops:
        return ""
    return _("{crops} chosen.").format(crops=words.count(len(garden.crops), "crop", "crops"))


def zone_words(zone: str, units: Units) -> str:
    """Return what a hardiness zone says and what it does not. Raises OutOfRange."""
    low, high = (units.temperature_text(value, 0) for value in winter_lows_c(zone))
    return _(
        "In zone {zone}, the coldest night of a usual winter is between {low} and {high}. It applies to "
        "plants outdoors all year and says nothing about spring, so no window depends on it."
    ).format(zone=zone, low=low, high=high)
