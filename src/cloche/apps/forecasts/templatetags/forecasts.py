"""Forecasts that are not ready, wherever a page rests on them."""

from __future__ import annotations

from typing import Any

from django import template

from cloche.apps.forecasts.status import status_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place

register = template.Library()


@register.inclusion_tag("forecasts/_status.html")
def forecast_status(garden: Garden) -> dict[str, Any]:
    """Show what is being calculated in a garden and what failed."""
    return {"status": status_in(garden)}


@register.inclusion_tag("forecasts/_status.html")
def forecast_status_of(place: Place) -> dict[str, Any]:
    """Show the status of one place. Its page itself says when the first forecast is being calculated."""
    status = status_in(place.garden, [place.pk])
    return {"status": {"failed": status.failed}}
