"""Covers and operations of a place, wherever a page wants them."""

from __future__ import annotations

from typing import Any

from django import template
from django.template import Context

from cloche.apps.gardens import clock
from cloche.apps.gardens.models import Place
from cloche.apps.gardens.place_forms import OperationForm
from cloche.apps.gardens.place_log import place_log_of
from cloche.apps.gardens.selectors import units_of

register = template.Library()


@register.inclusion_tag("gardens/_place_log.html", takes_context=True)
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
