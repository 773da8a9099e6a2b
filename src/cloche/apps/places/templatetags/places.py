"""Covers and operations of a place, wherever a page wants them."""

from __future__ import annotations

from typing import Any

from django import template
from django.template import Context

from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.forms import OperationForm
from cloche.apps.places.models import Place
from cloche.apps.places.pages import place_log_of
from cloche.apps.places.selectors import removed_places
from cloche.apps.shared import clock

register = template.Library()


@register.inclusion_tag("places/_place_log.html", takes_context=True)
def log_desk(context: Context, place: Place) -> dict[str, Any]:
    """Lists and forms for one place."""
    units = units_of(context["request"].user)
    log = place_log_of(place, units, clock.today(place.garden.timezone))
    return {
        "place": place,
        "log": log,
        "form": OperationForm(units=units, place=place),
        "csrf_token": context.get("csrf_token"),
    }


@register.inclusion_tag("places/_list.html", takes_context=True)
def place_list(context: Context, garden: Garden) -> dict[str, Any]:
    """A garden's places in walking order, and those that can be put back."""
    removed = removed_places(garden)
    return {"garden": garden, "places": garden.places.all(), "removed": removed, "csrf_token": context.get("csrf_token")}
