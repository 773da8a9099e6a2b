"""Template tags for the reading form and list of a place."""

from __future__ import annotations

from typing import Any

from django import template
from django.template import Context

from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.readings import pages
from cloche.apps.readings.pages import seen_at

register = template.Library()


@register.inclusion_tag("readings/_desk.html", takes_context=True)
def reading_desk(context: Context, place: Place) -> dict[str, Any]:
    """Render the form and the newest readings of a place."""
    request = context["request"]
    return pages.context_for(place, request.user) | {"csrf_token": context.get("csrf_token")}


@register.inclusion_tag("readings/_seen.html", takes_context=True)
def seen_on_rounds(context: Any, place: Place) -> dict[str, Any]:
    """Render what rounds observed at a place besides soil temperature."""
    return {"lines": seen_at(place, units_of(context["request"].user)), "place": place}
